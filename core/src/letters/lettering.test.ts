import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import * as fontkit from 'fontkit';
import { describe, expect, it } from 'vitest';
import { boxOf, signedArea } from '../plane/outline.js';
import { STYLE_IDS, type StyleId } from './styles.js';
import { lettering } from './lettering.js';

const require = createRequire(import.meta.url);
const FILES: Readonly<Record<StyleId, string>> = {
  serif: require.resolve('@fontsource/literata/files/literata-latin-600-normal.woff'),
  plain: new URL('../../../web/public/print-fonts/atkinson-hyperlegible-next-latin-700-normal.woff', import.meta.url).pathname,
  handwritten: require.resolve('@fontsource/caveat/files/caveat-latin-600-normal.woff'),
};

describe.each(STYLE_IDS)('words in the style %s', (style) => {
  const font = fontkit.create(readFileSync(FILES[style])) as fontkit.Font;
  const capitalH = font.glyphForCodePoint('H'.codePointAt(0)!).bbox.maxY;

  it('are as wide and as high as the font itself sets them, letters drawn together where it does', () => {
    for (const words of ['Hello', 'AVATAR', 'To Wendlebrook', 'gypsy']) {
      // Set by the font: every letter where its own kerning puts it. Melted letters are set apart here.
      const run = font.layout(words, { liga: false, calt: false, clig: false });
      let at = 0;
      const boxes = run.glyphs.map((glyph, i) => {
        const { minX, maxX, minY, maxY } = glyph.bbox;
        const { xOffset, xAdvance } = run.positions[i]!;
        const box = { minX: at + xOffset + minX, maxX: at + xOffset + maxX, minY, maxY };
        at += xAdvance;
        return box;
      });
      const solid = boxes.filter(({ minX, maxX }) => maxX > minX);
      const width = Math.max(...solid.map(({ maxX }) => maxX)) - Math.min(...solid.map(({ minX }) => minX));
      const height = Math.max(...solid.map(({ maxY }) => maxY)) - Math.min(...solid.map(({ minY }) => minY));
      const { loops, missing } = lettering(words, style, 10);
      const box = boxOf(loops.flat());
      expect(missing).toEqual([]);
      // Tables are rounded to a thousandth of the type, and kerns under six of them left out.
      expect(Math.abs(box.maxX - box.minX - (width * 10) / capitalH)).toBeLessThan(0.02 * ((width * 10) / capitalH));
      expect(Math.abs(box.maxY - box.minY - (height * 10) / capitalH)).toBeLessThan(0.1);
      expect([box.minX + box.maxX, box.minY + box.maxY]).toEqual([expect.closeTo(0, 6), expect.closeTo(0, 6)]);
    }
  });

  it('have holes that run the other way, and are not mirrored', () => {
    const [outer, hole] = [...lettering('O', style, 10).loops].sort((a, b) => Math.abs(signedArea(b)) - Math.abs(signedArea(a)));
    expect(signedArea(outer!)).toBeGreaterThan(0);
    expect(signedArea(hole!)).toBeLessThan(0);
    // The stem of an L is on its left, its foot below: its lower right quarter is fuller than its upper right one.
    const points = lettering('L', style, 10).loops.flat();
    const { minX, maxX } = boxOf(points);
    const right = points.filter(([x]) => x > minX + 0.75 * (maxX - minX));
    expect(right.length).toBeGreaterThan(0);
    expect(right.reduce((sum, [, y]) => sum + y, 0) / right.length).toBeLessThan(0);
  });

  it('grow with their capitals, stand line under line, and say which letters there are none of', () => {
    const [one, two] = [boxOf(lettering('Fungi', style, 10).loops.flat()), boxOf(lettering('Fungi', style, 20).loops.flat())];
    expect((two.maxX - two.minX) / (one.maxX - one.minX)).toBeCloseTo(2, 6);
    const lines = boxOf(lettering('Fungi / Fungi', style, 10).loops.flat());
    expect(lines.maxX - lines.minX).toBeCloseTo(one.maxX - one.minX, 6);
    expect(lines.maxY - lines.minY).toBeGreaterThan(1.8 * (one.maxY - one.minY));
    expect(lettering('Ω1', style, 10).missing).toEqual(['Ω']);
    expect(lettering('Ω', style, 10).loops).toEqual([]);
  });
});
