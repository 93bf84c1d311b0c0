/** Kinds of pictures that are taken. */
export const IMAGE_TYPES = ['image/png', 'image/jpeg'] as const;
export type ImageType = (typeof IMAGE_TYPES)[number];

/** Segments of a JPEG that are among the starts of a frame, but say no size. */
const NO_FRAMES = [0xc4, 0xc8, 0xcc];
const PNG = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

/** What a file begins as; nothing where it is no picture of a kind that is taken. */
export function imageTypeOf(bytes: Uint8Array): ImageType | undefined {
  if (PNG.every((byte, i) => bytes[i] === byte)) return 'image/png';
  return bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff ? 'image/jpeg' : undefined;
}

/** How large a picture says that it is, in pixels, before anything of it is unpacked; nothing where it does not say so. */
export function imageSize(bytes: Uint8Array): { width: number; height: number } | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const type = imageTypeOf(bytes);
  // The first chunk of a PNG is its head, which begins with both.
  if (type === 'image/png') return bytes.length < 24 ? undefined : { width: view.getUint32(16), height: view.getUint32(20) };
  if (type !== 'image/jpeg') return undefined;
  for (let at = 2; at + 9 <= bytes.length && bytes[at] === 0xff;) {
    const marker = bytes[at + 1]!;
    if (marker >> 4 === 0xc && !NO_FRAMES.includes(marker)) return { width: view.getUint16(at + 7), height: view.getUint16(at + 5) };
    if (marker === 0xda) return undefined;
    at += 2 + view.getUint16(at + 2);
  }
  return undefined;
}
