import { MM_PER_INCH } from '../measure/units.js';
import { imageTypeOf } from './image-file.js';

/** A picture that does not say how large it is has so many pixels to the inch: what printers ask for. */
const USUAL_PER_INCH = 300;
/** What a file says is taken for what it is between these, pixels to the inch; 72 and 96 say nothing but that it came from a screen. */
const LEAST_PER_INCH = 100;
const MOST_PER_INCH = 2400;
/** The chunks of a PNG begin after so many bytes. */
const PNG_CHUNKS = 8;

/** Pixels of a picture to the mm, as its file says; 300 to the inch where it does not say so plausibly. */
export function pixelsPerMm(bytes: Uint8Array): number {
  const perInch = imageTypeOf(bytes) === 'image/png' ? pngPerInch(bytes) : jpegPerInch(bytes);
  const taken = perInch !== undefined && perInch >= LEAST_PER_INCH && perInch <= MOST_PER_INCH ? perInch : USUAL_PER_INCH;
  return taken / MM_PER_INCH;
}

/** The chunk pHYs: pixels to the metre, where its unit is that. */
function pngPerInch(bytes: Uint8Array): number | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = PNG_CHUNKS; at + 12 <= bytes.length;) {
    const length = view.getUint32(at);
    const kind = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (kind === 'pHYs' && length === 9 && at + 17 <= bytes.length)
      return bytes[at + 16] === 1 ? (view.getUint32(at + 8) * MM_PER_INCH) / 1000 : undefined;
    if (kind === 'IDAT') return undefined;
    at += 12 + length;
  }
  return undefined;
}

/** The density of the segment APP0 (JFIF): to the inch, or to the cm. */
function jpegPerInch(bytes: Uint8Array): number | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 2; at + 4 <= bytes.length && bytes[at] === 0xff;) {
    const marker = bytes[at + 1]!;
    const length = view.getUint16(at + 2);
    if (marker === 0xe0 && length >= 14 && at + 14 <= bytes.length && String.fromCharCode(...bytes.subarray(at + 4, at + 8)) === 'JFIF') {
      const density = view.getUint16(at + 12);
      return bytes[at + 11] === 1 ? density : bytes[at + 11] === 2 ? density * (MM_PER_INCH / 10) : undefined;
    }
    if (marker === 0xda) return undefined;
    at += 2 + length;
  }
  return undefined;
}
