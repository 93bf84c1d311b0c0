import { describe, expect, it } from 'vitest';
import { boxOf, signedArea, type Loop } from '../plane/outline.js';
import { fitted } from '../plane/shapes.js';
import { cardOn } from '../testing/evaluated.js';
import { readCardFile, writeCardFile } from './card-file.js';
import { readOutlineSvg } from './outline-svg.js';
import { LARGEST_SVG } from './svg-lines.js';

const svg = (inside: string): string => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">${inside}</svg>`;

function outline(inside: string): Loop {
  const reading = readOutlineSvg(svg(inside), 'leaf.svg');
  if (!reading.ok) throw new Error(reading.says);
  return reading.outline.points;
}
/** Share of its own box that an outline fills, and width for a height of 1: the same at any size. */
const share = (loop: Loop): number => {
  const { minX, maxX, minY, maxY } = boxOf(loop);
  return signedArea(loop) / ((maxX - minX) * (maxY - minY));
};
const aspect = (loop: Loop): number => {
  const { minX, maxX, minY, maxY } = boxOf(loop);
  return (maxX - minX) / (maxY - minY);
};

describe('an outline from an SVG drawing', () => {
  it('keeps the proportions of a rectangle and comes to a wished size', () => {
    const loop = outline('<rect x="10" y="20" width="30" height="60"/>');
    expect(aspect(loop)).toBeCloseTo(0.5, 6);
    expect(share(loop)).toBeCloseTo(1, 6);
    const { maxX, maxY } = boxOf(fitted(loop, 80));
    expect([maxX, maxY]).toEqual([expect.closeTo(40, 6), expect.closeTo(80, 6)]);
  });

  it('is turned y up', () => {
    // A triangle with its point at the top of the drawing: above half its height little of it lies.
    const loop = outline('<polygon points="50,0 100,100 0,100"/>');
    const tip = loop.filter(([, y]) => y > 999);
    expect(tip).toHaveLength(1);
    expect(loop.filter(([, y]) => y < 1)).toHaveLength(2);
  });

  it.each([
    ['a circle', '<circle cx="50" cy="50" r="20"/>'],
    ['an ellipse scaled round', '<ellipse cx="5" cy="10" rx="10" ry="20" transform="scale(2 1)"/>'],
    ['arcs', '<path d="M0 10a10 10 0 0 1 20 0a10 10 0 0 1 -20 0z"/>'],
    // Four cubics with the usual handles for a quarter circle.
    ['cubic curves', '<path d="M20 0C31.046 0 40 8.954 40 20S31.046 40 20 40 0 31.046 0 20 8.954 0 20 0Z"/>'],
  ])('follows %s to a circle’s area, π/4 of its box', (_, drawing) => {
    expect(share(outline(drawing))).toBeCloseTo(Math.PI / 4, 2);
    expect(aspect(outline(drawing))).toBeCloseTo(1, 3);
  });

  it('follows a quadratic curve: a parabola’s cap has two thirds of its box', () => {
    expect(share(outline('<path d="M0 0 Q50 200 100 0 Z"/>'))).toBeCloseTo(2 / 3, 3);
  });

  it('applies the transforms of all groups round it, outermost first', () => {
    // 10 × 10, stretched to 20 × 10 and then turned a quarter: 10 wide, 20 high. The other order would leave it 10 high.
    const loop = outline('<g transform="rotate(90)"><g transform="scale(2 1)"><path d="M0 0h10v10h-10z"/></g></g>');
    expect(aspect(loop)).toBeCloseTo(0.5, 6);
  });

  it('takes the largest closed line, says that it left others out, and overlooks what is only defined', () => {
    const reading = readOutlineSvg(
      svg('<defs><circle r="99"/></defs><rect width="5" height="5"/><rect width="20" height="10"/><path d="M0 0h90v90"/>'),
      'two.svg',
    );
    expect(reading).toMatchObject({ ok: true, note: expect.stringContaining('largest of 2') });
    if (reading.ok) expect(aspect(reading.outline.points)).toBeCloseTo(2, 6);
  });

  it('closes a line whose end meets its start, and unties one that crosses itself', () => {
    expect(share(outline('<polyline points="0,0 10,0 10,10 0,10 0,0"/>'))).toBeCloseTo(1, 6);
    // A bow tie: the larger of its two triangles is left.
    const bow = outline('<path d="M0 0L100 100L100 0L0 60Z"/>');
    expect(signedArea(bow)).toBeGreaterThan(0);
  });

  it('thins what has far too many points', () => {
    const many = Array.from({ length: 5000 }, (_, i) => {
      const a = (i / 5000) * 2 * Math.PI;
      return `${50 + 40 * Math.cos(a)},${50 + 40 * Math.sin(a)}`;
    });
    const loop = outline(`<polygon points="${many.join(' ')}"/>`);
    expect(loop.length).toBeLessThanOrEqual(600);
    expect(share(loop)).toBeCloseTo(Math.PI / 4, 3);
  });

  it.each([
    ['plain words', 'not a drawing', /leaf\.svg is not an SVG drawing/],
    ['another document', '<html></html>', /is not an SVG drawing/],
    ['nothing drawn', svg('<text>hi</text>'), /holds no path, polygon/],
    ['open lines', svg('<path d="M0 0L10 10L20 0"/>'), /only open lines; allowed: a closed path/],
    ['a broken path', svg('<path d="M0 0 L ten"/>'), /cannot be read/],
    ['a coordinate without end', svg('<path d="M0 0L1e99 0L5 5Z"/>'), /usable number/],
    ['a flat line', svg('<path d="M0 0L10 0L20 0Z"/>'), /closed path|encloses nothing/],
    ['a huge file', svg(' '.repeat(LARGEST_SVG)), /at most 1024 kB/],
  ])('refuses %s in a sentence', (_, text, says) => {
    const reading = readOutlineSvg(text, 'leaf.svg');
    expect(reading.ok).toBe(false);
    if (!reading.ok) expect(reading.says).toMatch(says);
  });

  it('makes an id of any name', () => {
    const id = (name: string): string => {
      const reading = readOutlineSvg(svg('<rect width="5" height="5"/>'), name);
      return reading.ok ? reading.outline.id : reading.says;
    };
    expect([id('Fern Leaf (2).svg'), id('羊歯.svg')]).toEqual(['own-fern-leaf-2', expect.stringMatching(/^own-outline-[a-z0-9]+$/)]);
  });
});

describe('drawings that are kept with a card', () => {
  const drawn = (points: string, name = 'shape.svg') => {
    const reading = readOutlineSvg(`<svg xmlns="http://www.w3.org/2000/svg"><polygon points="${points}"/></svg>`, name);
    if (!reading.ok) throw new Error(reading.says);
    return reading.outline;
  };

  it.each([
    ['a hundred times wider than high', '0,0 1000,0 1000,10 0,10', 0.01],
    ['a thousand times wider than high', '0,0 1000,0 1000,1 0,1', 0.001],
    ['a hundred times higher than wide', '0,0 10,0 10,1000 0,1000', 100],
  ])('come back from the card’s file, also %s', (_, points, slope) => {
    const outline = drawn(points);
    const [xs, ys] = [0, 1].map((axis) => outline.points.map((point) => point[axis]!));
    expect((Math.max(...ys!) - Math.min(...ys!)) / (Math.max(...xs!) - Math.min(...xs!))).toBeCloseTo(slope, 4);
    const card = cardOn('easel-shape', {}, { outlines: [outline] });
    expect(readCardFile(writeCardFile(card))).toEqual({ ok: true, card });
  });

  it('have ids of their own, whatever script they are named in', () => {
    const names = ['лист.svg', 'гриб.svg', '葉.svg', '茸.svg', 'лист-2.svg', 'гриб-2.svg', 'Blätter.svg', 'Blutter.svg', '🍄.svg'];
    const ids = names.map((name) => drawn('0,0 10,0 10,10', name).id);
    expect(new Set(ids).size).toBe(names.length);
    for (const id of ids) expect(id).toMatch(/^own-[a-z0-9-]{1,40}$/);
    expect(drawn('0,0 10,0 10,10', 'fern leaf.svg').id).toBe('own-fern-leaf');
  });
});
