import { describe, expect, it } from 'vitest';
import { areaOf, asArea, boxOf, signedArea } from '../plane/outline.js';
import { loopContains } from '../plane/outline.js';
import { outlineTrouble } from '../card/own-outlines.js';
import { imageSize, imageTypeOf } from '../image/image-file.js';
import { pixelsPerMm } from '../image/resolution.js';
import { outlineOfImage } from './image-outline.js';
import type { Pixels } from '../image/pixels.js';

type Paint = (x: number, y: number) => readonly [red: number, green: number, blue: number, opaque: number];

/** A picture painted pixel by pixel, each asked at its middle, y down. */
function painted(width: number, height: number, paint: Paint): Pixels {
  const rgba = new Uint8Array(4 * width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) rgba.set(paint(x + 0.5, y + 0.5), 4 * (y * width + x));
  return { width, height, rgba };
}
const RED = [200, 40, 30, 255] as const;
const CLEAR = [0, 0, 0, 0] as const;
const WHITE = [252, 250, 251, 255] as const;
const read = (pixels: Pixels, along: 'shows' | 'whole' = 'shows') => outlineOfImage(pixels, 'cap.png', 'image-cap', along);

describe('the outline of a picture', () => {
  it('is the circle that it shows, of its true area and in its place, whether its ground is clear or plain', () => {
    for (const ground of [CLEAR, WHITE]) {
      const pixels = painted(300, 200, (x, y) => (Math.hypot(x - 120, y - 90) < 70 ? RED : ground));
      const { outline, note } = read(pixels);
      expect(note).toBeUndefined();
      // 140 pixels across are brought to 1000.
      const scale = 1000 / 140;
      expect(areaOf(asArea(outline.points)) / (Math.PI * (70 * scale) ** 2)).toBeCloseTo(1, 2);
      expect(signedArea(outline.points)).toBeGreaterThan(0);
      // The picture lies so that the middle of the circle, 120 from its left and 110 from its lower edge, is the middle of the outline.
      const { image } = outline;
      expect(image!.of).toBe('image-cap');
      expect([image!.x + 120 * scale, image!.y + 110 * scale]).toEqual([expect.closeTo(500, -0.5), expect.closeTo(500, -0.5)]);
      expect([image!.width, image!.height]).toEqual([expect.closeTo(300 * scale, 1), expect.closeTo(200 * scale, 1)]);
    }
  });

  it('follows corners that run in, and stands upright', () => {
    // An L: its upright on the left, its foot below.
    const pixels = painted(120, 160, (x, y) =>
      (x > 20 && x < 50 && y > 20 && y < 140) || (x > 20 && x < 100 && y > 110 && y < 140) ? RED : CLEAR,
    );
    const { outline } = read(pixels);
    // 120 pixels high are 1000: 30 · 120 + 50 · 30 pixels.
    expect(areaOf(asArea(outline.points))).toBeCloseTo((30 * 120 + 50 * 30) * (1000 / 120) ** 2, -3);
    expect(outline.points.length).toBe(6);
    expect([
      loopContains(outline.points, [125, 900]),
      loopContains(outline.points, [500, 900]),
      loopContains(outline.points, [500, 125]),
    ]).toEqual([true, false, true]);
  });

  it('is the edge of the picture where it is wished, where nothing stands on a plain ground, and where nothing shows', () => {
    const whole = read(
      painted(40, 20, () => RED),
      'whole',
    );
    expect(whole).toEqual({ outline: expect.objectContaining({ points: expect.any(Array) as unknown }) as unknown });
    expect(boxOf(whole.outline.points)).toEqual({ minX: 0, minY: 0, maxX: 1000, maxY: 500 });
    for (const paint of [() => RED, () => CLEAR, (x: number) => [Math.round(x * 6), 0, 0, 255] as const]) {
      const { outline, note } = read(painted(40, 20, paint));
      expect(boxOf(outline.points)).toEqual({ minX: 0, minY: 0, maxX: 1000, maxY: 500 });
      expect(note).toContain('cut along its own edge');
    }
  });

  it('takes the largest of several parts and says what would be cut off, but not of specks', () => {
    const two = painted(200, 100, (x, y) => (Math.hypot(x - 50, y - 50) < 40 || Math.hypot(x - 150, y - 50) < 20 ? RED : CLEAR));
    const speck = painted(200, 100, (x, y) => (Math.hypot(x - 50, y - 50) < 40 || Math.hypot(x - 150, y - 50) < 3 ? RED : CLEAR));
    expect(read(two).note).toContain('One other part lies apart');
    expect(read(speck).note).toBeUndefined();
    const scale = 1000 / 80;
    expect(areaOf(asArea(read(two).outline.points)) / (Math.PI * (40 * scale) ** 2)).toBeCloseTo(1, 1);
  });

  it('goes on through pixels that touch at a corner, and is a line that a card may bring', () => {
    const steps = painted(60, 60, (x, y) => (Math.floor(x / 10) === Math.floor(y / 10) ? RED : CLEAR));
    const { outline, note } = read(steps);
    expect(note).toBeUndefined();
    expect(outlineTrouble(outline.points)).toBeUndefined();
    // Any noise has an outline that may be brought.
    let seed = 7;
    const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
    for (let i = 0; i < 20; i++) {
      const noise = painted(48, 48, () => (random() < 0.6 ? RED : CLEAR));
      const found = read(noise).outline;
      expect([i, outlineTrouble(found.points), found.points.length <= 600]).toEqual([i, undefined, true]);
    }
  });
});

describe('a file of a picture', () => {
  const png = (perMetre?: number, unit = 1): Uint8Array => {
    const chunk = (kind: string, body: readonly number[]): number[] => [
      0,
      0,
      0,
      body.length,
      ...[...kind].map((letter) => letter.charCodeAt(0)),
      ...body,
      0,
      0,
      0,
      0,
    ];
    const bytes4 = (value: number): number[] => [24, 16, 8, 0].map((shift) => (value >>> shift) & 255);
    return new Uint8Array([
      ...[0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a],
      ...chunk('IHDR', new Array<number>(13).fill(0)),
      ...(perMetre === undefined ? [] : chunk('pHYs', [...bytes4(perMetre), ...bytes4(perMetre), unit])),
      ...chunk('IDAT', [1, 2, 3]),
    ]);
  };
  const jpeg = (unit: number, density: number): Uint8Array =>
    new Uint8Array([
      0xff,
      0xd8,
      0xff,
      0xe0,
      0,
      16,
      0x4a,
      0x46,
      0x49,
      0x46,
      0,
      1,
      2,
      unit,
      density >> 8,
      density & 255,
      density >> 8,
      density & 255,
      0,
      0,
      0xff,
      0xda,
      0,
      8,
    ]);

  it('is told by its first bytes, not by its name', () => {
    expect(imageTypeOf(png())).toBe('image/png');
    expect(imageTypeOf(jpeg(1, 300))).toBe('image/jpeg');
    expect(imageTypeOf(new TextEncoder().encode('<svg/>'))).toBeUndefined();
    expect(imageTypeOf(new Uint8Array())).toBeUndefined();
  });

  it('says how many pixels go to the mm; 300 to the inch where it does not', () => {
    // 11811 to the metre are 300 to the inch, 23622 are 600.
    expect(pixelsPerMm(png(23622))).toBeCloseTo(23.622, 6);
    expect(pixelsPerMm(png())).toBeCloseTo(300 / 25.4, 9);
    expect(pixelsPerMm(png(23622, 0))).toBeCloseTo(300 / 25.4, 9);
    // 72 to the inch is what a screen writes.
    expect(pixelsPerMm(png(2835))).toBeCloseTo(300 / 25.4, 9);
    expect(pixelsPerMm(jpeg(1, 240))).toBeCloseTo(240 / 25.4, 9);
    expect(pixelsPerMm(jpeg(2, 100))).toBeCloseTo(10, 9);
    expect(pixelsPerMm(jpeg(0, 1))).toBeCloseTo(300 / 25.4, 9);
  });

  it('says how large it is before it is unpacked', () => {
    const head = png();
    // Width and height are the first eight bytes of the first chunk.
    head.set([0, 0, 0x12, 0x34, 0, 0, 0x00, 0x56], 16);
    expect(imageSize(head)).toEqual({ width: 0x1234, height: 0x56 });
    // A JPEG says it in its frame, after other segments: height, then width.
    const frame = new Uint8Array([0xff, 0xd8, 0xff, 0xe1, 0, 4, 9, 9, 0xff, 0xc2, 0, 11, 8, 0x01, 0x02, 0x03, 0x04, 1]);
    expect(imageSize(frame)).toEqual({ width: 0x0304, height: 0x0102 });
    expect(imageSize(jpeg(1, 300))).toBeUndefined();
  });

  it('that breaks off anywhere is read without a throw', () => {
    for (const bytes of [png(23622), jpeg(1, 240)]) {
      for (let length = 0; length <= bytes.length; length++) {
        expect(pixelsPerMm(bytes.subarray(0, length))).toBeGreaterThan(0);
        expect(() => imageSize(bytes.subarray(0, length))).not.toThrow();
      }
    }
  });
});
