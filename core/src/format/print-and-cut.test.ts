import { parseSync } from 'svgson';
import { describe, expect, it } from 'vitest';
import { withTopper } from '../card/dress-card.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { drawingsOf } from './layout.js';
import { writeSvg } from './svg.js';

const card = withTopper(
  cardOn('folded-card', { depth: 100, length: 140 }),
  {
    ...{
      panel: 'base/front-leaf',
      face: 'down',
      across: 50,
      along: 70,
      outline: 'rectangle',
      height: 30,
      width: 60,
      stock: 'light-card-160',
    },
    greeting: { words: 'Hello', letters: 'serif', capital: 8 },
  },
  METRIC_WORKSHOP,
);
const drawing = drawingsOf(evaluated(card), METRIC_WORKSHOP).find(({ suffix }) => suffix === 'light-card-160')!;
const read = (printed: boolean) => parseSync(writeSvg(drawing, 'x', { folds: 'score', printed }));
type Node = ReturnType<typeof read>;
const all = (node: Node): Node[] => [node, ...node.children.flatMap(all)];

describe('a drawing that is printed first and then cut', () => {
  it('has a square and three brackets outside everything that is cut, so that no turn of the sheet is like another', () => {
    const svg = read(true);
    const marks = svg.children.find(({ attributes }) => attributes['id'] === 'register')!;
    expect(marks.children).toHaveLength(4);
    const [, , wide, high] = svg.attributes['viewBox']!.split(' ').map(Number);
    expect(wide).toBeCloseTo(drawing.width + 14, 3);
    const points = marks.children.flatMap(({ attributes }) =>
      [...attributes['d']!.matchAll(/-?[\d.]+ -?[\d.]+/g)].map(([pair]) => pair.split(' ').map(Number)),
    );
    for (const [x, y] of points) {
      expect(x! < 3 || x! > drawing.width - 3 || y! < 3 || y! > drawing.height - 3).toBe(true);
      expect(x! >= -7 && x! <= wide! - 7 && y! >= -7 && y! <= high! - 7).toBe(true);
    }
  });

  it('has its letters as areas of ink and not as lines to draw; cut lines are as they were', () => {
    const [plain, printed] = [all(read(false)), all(read(true))];
    const ids = (nodes: Node[], match: RegExp): string[] =>
      nodes.flatMap(({ attributes }) => (match.test(attributes['data-id'] ?? '') ? [attributes['d']!] : []));
    expect(ids(plain, /^letters-/).length).toBeGreaterThan(5);
    expect(ids(printed, /^letters-/)).toEqual([]);
    const ink = printed.find(({ attributes }) => attributes['class'] === 'print')!;
    expect(ink.attributes['fill-rule']).toBe('evenodd');
    expect(ink.attributes['d']!.match(/M /g)).toHaveLength(ids(plain, /^letters-/).length);
    expect(ids(printed, /^outline$/)).toEqual(ids(plain, /^outline$/));
  });

  it('is without marks where it is only cut', () => {
    expect(all(read(false)).some(({ attributes }) => attributes['id'] === 'register')).toBe(false);
  });
});
