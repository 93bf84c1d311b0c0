import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import type { CardDocument } from '../card/document.js';
import { evaluate } from '../evaluate.js';
import { boxOf } from '../plane/outline.js';
import { dice } from '../testing/any-tree.js';
import { brokenFile, fileBroken, FILE_KINDS } from '../testing/broken-files.js';
import { LARGEST_CARD_FILE, readCard, readCardFile, writeCardFile } from './card-file.js';
import { readOutlineSvg } from './outline-svg.js';
import { LARGEST_SHELF_FILE, readShelfFile, writeShelfFiles } from './shelf-file.js';

const card = DEMO_CARDS[0]!;
const text = JSON.stringify(card);
type Points = [number, number][];
const withOutline = (points: Points): CardDocument => ({ ...card, outlines: [{ id: 'own-spore', name: 'Spore', points }] });
const ring = (n: number, digits = 2): Points =>
  Array.from({ length: n }, (_, i) => [
    Number((500 * Math.cos((2 * Math.PI * i) / n)).toFixed(digits)) || 0,
    Number((500 * Math.sin((2 * Math.PI * i) / n)).toFixed(digits)) || 0,
  ]);
const random = (n: number): Points => {
  const next = dice(5);
  return Array.from({ length: n }, () => [Math.round(next() * 1e5) / 100, Math.round(next() * 1e5) / 100]);
};
const refusal = (raw: string): string => {
  const reading = readCardFile(raw);
  return reading.ok ? 'read' : reading.problems.map(({ path, says }) => `${path} ${says}`).join('; ');
};

describe('files that mean ill', () => {
  it.each(FILE_KINDS)('of the kind %s are refused in a line, or read as just what they hold', (kind) => {
    const next = dice(20);
    for (let i = 0; i < 250; i++) {
      const broken = brokenFile(kind, next);
      expect(fileBroken(kind, broken), broken.slice(0, 300)).toBeUndefined();
    }
  });

  it('may call a part “constructor”: it is a name like any other', () => {
    const named = {
      ...card,
      parts: [card.parts[0]!, { id: 'constructor', mechanism: 'v-fold', on: { part: 'base', site: 'none' }, sizes: {} }],
    };
    const reading = readCard(named);
    expect(reading.ok && evaluate(reading.card)).toMatchObject({ ok: false, problems: [{ owner: 'constructor' }] });
  });

  it.each(['__proto__', 'constructor', 'prototype'])('never pass over a size called “%s” in silence', (name) => {
    expect(refusal(text.replace('"sizes":{', `"sizes":{"${name}":1,`))).toMatch(/^parts\.0\.sizes .*names/);
  });

  it.each([
    ['a version that is an object', text.replace('"version":3', '"version":{"toString":1}'), /^version an object is not a version/],
    ['a key of 300 kB', text.replace('{', `{"${'k'.repeat(300_000)}":1,`), /^.{1,125} does not belong in a card file$/],
    ['a key with a line break in it', text.replace('{', '{"two\\nlines":1,'), /^two lines does not belong in a card file$/],
    ['a key without a name', text.replace('{', '{"":1,'), /^\(an empty name\) does not belong in a card file$/],
    ['a version of 300 kB', text.replace('"version":3', `"version":"${'9'.repeat(300_000)}"`), /^version .{1,200}$/],
    [
      'an outline that encloses nothing',
      JSON.stringify(
        withOutline([
          [0, 0],
          [5, 5],
          [9, 9],
        ]),
      ),
      /^outlines\.0\.points enclose nothing/,
    ],
    [
      'an outline of one point',
      JSON.stringify(
        withOutline([
          [5, 5],
          [5, 5],
          [5, 5],
        ]),
      ),
      /^outlines\.0\.points enclose nothing/,
    ],
    ['an outline all over the place', JSON.stringify(withOutline(random(600))), /^outlines\.0\.points cross more than 12 times/],
    [
      'a point of three numbers',
      text.replace('"supplies"', '"outlines":[{"id":"own-x","name":"x","points":[[0,0],[1,0,7],[0,1]]}],"supplies"'),
      /^outlines\.0\.points\.1/,
    ],
  ])('are refused for %s', (_, raw, says) => expect(refusal(raw)).toMatch(says));

  it('are refused for two outlines of one id', () => {
    const [own] = withOutline(ring(20)).outlines!;
    expect(refusal(JSON.stringify({ ...card, outlines: [own, own] }))).toMatch(/^outlines\.1\.id is “own-spore”, as another outline is/);
  });
});

describe('outline drawings that mean ill', () => {
  const polygon = (points: Points): string => `<svg><polygon points="${points.join(' ')}"/></svg>`;
  const says = (svg: string): string => {
    const reading = readOutlineSvg(svg, 'leaf.svg');
    return reading.ok ? (reading.note ?? 'read') : reading.says;
  };

  it('are refused for groups within groups, 3,000 deep', () => {
    expect(says(`<svg>${'<g>'.repeat(3000)}<path d="M0 0h9v9z"/>${'</g>'.repeat(3000)}</svg>`)).toMatch(/nested 3001 groups deep/);
    const deep = `<svg>${'<g>'.repeat(50)}<path d="M0 0h9v9z"/>${'</g>'.repeat(50)}</svg>`;
    expect(says(deep)).toBe('read');
  });

  it.each([600, 6000])('are refused for a line through %i points at random', (n) => {
    expect(says(polygon(random(n)))).toMatch(/crosses itself more than 200 times/);
  });

  it('are refused for more points than an outline has', () => {
    expect(says(polygon(ring(20_001, 4)))).toMatch(/with 20001 points; allowed: at most 20000/);
  });

  it('are brought to as many corners as can be cut, which is said, and stay as close as is said', () => {
    const teeth = ring(800).map(([x, y], i): [number, number] => (i % 2 ? [x, y] : [x * 0.97, y * 0.97]));
    const reading = readOutlineSvg(polygon(teeth), 'teeth.svg');
    if (!reading.ok) throw new Error(reading.says);
    expect(reading.outline.points.length).toBeLessThanOrEqual(240);
    const [, corners, off] = /simplified to (\d+) corners.*more than ([\d.]+) %/.exec(reading.note!)!;
    expect(Number(corners)).toBe(reading.outline.points.length);
    // Teeth of 15 of a radius of 500 cannot all stay: no point of what is left is farther off than they are deep.
    expect(Number(off)).toBeLessThan(2.5);
    const { minX, maxX, minY, maxY } = boxOf(reading.outline.points);
    expect([maxX - minX, maxY - minY]).toEqual([expect.closeTo(1000, -1.5), expect.closeTo(1000, -1.5)]);
  });

  it('may go over the same line twice: the outline is the same', () => {
    const twice = readOutlineSvg(
      '<svg><path d="M20 0C31.046 0 40 8.954 40 20S31.046 40 20 40S31.046 40 20 40 0 31.046 0 20 8.954 0 20 0Z" transform="scale(2 1)"/></svg>',
      'o.svg',
    );
    if (!twice.ok) throw new Error(twice.says);
    expect(readCard(withOutline(twice.outline.points as Points)).ok).toBe(true);
  });

  it('have crossings taken out, and what comes of them can be kept', () => {
    const bow = readOutlineSvg('<svg><path d="M0 0L40 40L40 0L0 30Z"/></svg>', 'bow.svg');
    if (!bow.ok) throw new Error(bow.says);
    expect(readCard(withOutline(bow.outline.points as Points)).ok).toBe(true);
    expect(bow.outline.points).toHaveLength(3);
  });
});

describe('what is written', () => {
  it('can be read back, 150 cards of twelve large outlines in as many files as that takes', () => {
    const outlines = Array.from({ length: 12 }, (_, i) => ({ id: `own-${i}`, name: `Outline ${i}`, points: ring(600, 9) }));
    const cards = Array.from({ length: 150 }, (_, i) => ({ ...card, id: `card-${i}`, outlines }));
    const files = writeShelfFiles(cards);
    expect(files.length).toBeGreaterThan(1);
    expect(files.every((file) => new TextEncoder().encode(file).length <= LARGEST_SHELF_FILE)).toBe(true);
    const back = files.flatMap((file) => {
      const reading = readShelfFile(file);
      return reading.ok ? reading.cards : [];
    });
    expect(back.map(({ id }) => id)).toEqual(cards.map(({ id }) => id));
  });

  it('can be read back in count too', () => {
    const files = writeShelfFiles(Array.from({ length: 2001 }, (_, i) => ({ ...card, id: `card-${i}` })));
    expect(files.map((file) => (readShelfFile(file) as { cards: unknown[] }).cards.length)).toEqual([2000, 1]);
  });

  it('is never larger than may be read, for a card of twelve outlines of 600 points', () => {
    const outlines = Array.from({ length: 12 }, (_, i) => ({ id: `own-${i}`, name: `Outline ${i}`, points: ring(600, 9) }));
    const written = writeCardFile({ ...card, outlines });
    expect(written.length).toBeLessThanOrEqual(LARGEST_CARD_FILE);
    expect(readCardFile(written)).toEqual({ ok: true, card: { ...card, outlines } });
  });
});
