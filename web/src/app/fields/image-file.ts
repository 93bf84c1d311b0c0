import {
  boxOf,
  imageSize,
  imageTypeOf,
  LARGEST_IMAGE,
  outlineId,
  outlineOfImage,
  pixelsPerMm,
  type CutAlong,
  type ImageType,
  type OwnImage,
  type OwnOutline,
  type Pixels,
} from '@diptychon/core';

/** A file that is larger is no picture for a card. */
const LARGEST_FILE = 24 * 1024 * 1024;
/** Nor is one of so many pixels read. */
const MOST_PIXELS = 64_000_000;
/** What is kept of a picture is so large, the longer way: 300 dots to the inch on 130 mm. */
const KEPT = 1536;
const SMALLEST = 64;
/** Its outline is followed on so many pixels, the longer way. */
const TRACED = 640;
const QUALITY = 0.86;

/** A picture that a card may keep, with the outline that it is cut along and how high that is at its true size (mm). */
export type ImageReading = { ok: true; image: OwnImage; outline: OwnOutline; height: number; note?: string } | { ok: false; says: string };

/** Reads a picture out of a file, made so small that a card may keep it, or says why it cannot be taken. */
export async function imageFrom(file: File): Promise<ImageReading> {
  const refused = (why: string): ImageReading => ({ ok: false, says: `${file.name} ${why}` });
  if (file.size > LARGEST_FILE) return refused(`is larger than ${LARGEST_FILE / 1024 / 1024} MB, which no picture for a card is.`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const type = imageTypeOf(bytes);
  if (!type) return refused('is no picture that can be taken; allowed are PNG and JPEG.');
  const size = imageSize(bytes);
  if (size && size.width * size.height > MOST_PIXELS) return refused(`has more than ${MOST_PIXELS / 1e6} million dots; make it smaller.`);
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(new Blob([bytes], { type }));
  } catch {
    return refused('cannot be read: its file is broken.');
  }
  try {
    const name = file.name.replace(/\.(png|jpe?g)$/i, '') || 'picture';
    const image = await keptOf(picture, name, type);
    if (!image) return refused('cannot be made small enough to be kept in a card.');
    const { outline, note } = outlineOfImage(pixelsOf(picture), name, image.id, 'shows');
    return { ok: true, image, outline, height: heightOf(outline, picture.height / pixelsPerMm(bytes)), ...(note && { note }) };
  } finally {
    picture.close();
  }
}

/** The outline of a picture that the card keeps, cut along something else. */
export async function outlineAlong({ data, type, id }: OwnImage, { name }: OwnOutline, along: CutAlong): Promise<OwnOutline> {
  const picture = await createImageBitmap(new Blob([bytesOf(data)], { type }));
  try {
    return outlineOfImage(pixelsOf(picture), name, id, along).outline;
  } finally {
    picture.close();
  }
}

/** How high the outline is where the picture is so high. */
function heightOf({ points, image }: OwnOutline, high: number): number {
  const { minY, maxY } = boxOf(points);
  return ((maxY - minY) / image!.height) * high;
}

/** A picture in base64, smaller until it may be kept. Its own kind stays: one with clear ground is no JPEG. */
async function keptOf(picture: ImageBitmap, name: string, type: ImageType): Promise<OwnImage | undefined> {
  for (let longest = Math.min(KEPT, Math.max(picture.width, picture.height)); longest >= SMALLEST; longest *= 0.8) {
    const blob = await drawn(picture, longest).canvas.convertToBlob({ type, quality: QUALITY });
    const data = base64Of(new Uint8Array(await blob.arrayBuffer()));
    if (data.length <= LARGEST_IMAGE) return { id: outlineId(name).replace(/^own-/, 'image-'), name: name.slice(0, 60), type, data };
  }
  return undefined;
}

function drawn(picture: ImageBitmap, longest: number): { canvas: OffscreenCanvas; pen: OffscreenCanvasRenderingContext2D } {
  const scale = Math.min(1, longest / Math.max(picture.width, picture.height));
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(picture.width * scale)), Math.max(1, Math.round(picture.height * scale)));
  const pen = canvas.getContext('2d')!;
  pen.imageSmoothingQuality = 'high';
  pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return { canvas, pen };
}

function pixelsOf(picture: ImageBitmap): Pixels {
  const { canvas, pen } = drawn(picture, TRACED);
  return { width: canvas.width, height: canvas.height, rgba: pen.getImageData(0, 0, canvas.width, canvas.height).data };
}

function base64Of(bytes: Uint8Array): string {
  let letters = '';
  for (let at = 0; at < bytes.length; at += 0x8000) letters += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
  return btoa(letters);
}

/** The bytes of a picture that a card keeps. */
export const bytesOf = (data: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0));
