/** Larger files are not read. */
const LARGEST_PHOTO = 40 * 1024 * 1024;
/** The longer side of a photo as it is kept, in dots. */
const LONGER_SIDE = 1600;
const QUALITY = 0.85;

/** A photo scaled down to what a logbook needs, as a JPEG; nothing where the file is no picture. What a camera wrote beside it is gone. */
export async function scaledPhoto(file: Blob): Promise<ArrayBuffer | undefined> {
  if (file.size === 0 || file.size > LARGEST_PHOTO) return undefined;
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    return undefined;
  }
  const scale = Math.min(1, LONGER_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', QUALITY));
  return blob?.arrayBuffer();
}
