import { evaluate, newCard, starterFor, withClosure, type CardDocument, type Evaluation } from '@diptychon/core';
import { Box3, BoxGeometry, Group, Mesh, Vector3 } from 'three';
import { bowOf } from './bow';
import { Wraps } from './wraps';

const workshop = starterFor('mm');
/** Two leaves of 100 × 140 mm, drawn as a block 2 mm thick. */
const folded = newCard({ id: 'card', name: 'card', base: { mechanism: 'folded-card', sizes: { depth: 100, length: 140 } } });
const drawn = (): Mesh => new Mesh(new BoxGeometry(100, 140, 2).translate(50, 70, 1));

function dressed(card: CardDocument): Evaluation['dressed'] {
  const outcome = evaluate(card, workshop);
  if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
  return outcome.evaluation.dressed;
}

const boxOf = (card: Group): Box3 => new Box3().setFromObject(card, true);

describe('what is wrapped round a card', () => {
  it('goes round the closed card where it lies, and is off it as soon as that opens', () => {
    const card = new Group();
    const wraps = new Wraps(card);
    const { bands, ribbons } = dressed(
      withClosure(folded, { kind: 'band', around: 'across', wide: 30, at: 50, stock: folded.stocks.display }, workshop),
    );
    expect([bands.length, ribbons.length]).toEqual([1, 0]);
    wraps.take({ bands, ribbons });
    wraps.show(true, [drawn()]);
    const { min, max } = boxOf(card);
    // Its middle 50 mm up, 15 mm to either side; round both edges and both faces.
    expect([min.y - bands[0]!.over.minY, max.y - bands[0]!.over.maxY]).toEqual([expect.closeTo(0, 4), expect.closeTo(0, 4)]);
    expect(max.y - min.y).toBeCloseTo(30, 4);
    expect([min.x, max.x, min.z, max.z].map((at, i) => (i % 2 === 0 ? at < 0 : at > [100, 2][(i - 1) / 2]!))).toEqual([
      true,
      true,
      true,
      true,
    ]);
    // Through the middle of the card there is nothing of it.
    expect(card.children[0]!.children.every((part) => !boxOf(part as Group).containsPoint(new Vector3(50, 50, 1)))).toBe(true);
    wraps.show(false, [drawn()]);
    expect(card.children).toEqual([]);
  });

  it('has the bow of a ribbon on the front', () => {
    const card = new Group();
    const wraps = new Wraps(card);
    const ribbon = { kind: 'ribbon', way: 'round', around: 'across', wide: 10, at: 70, loop: 30, end: 50 } as const;
    wraps.take(dressed(withClosure(folded, ribbon, workshop)));
    wraps.show(true, [drawn()]);
    expect(boxOf(card).max.z).toBeGreaterThan(2 + 3);
  });
});

describe('a bow', () => {
  const [ribbon] = dressed(
    withClosure(folded, { kind: 'ribbon', way: 'round', around: 'across', wide: 10, at: 70, loop: 30, end: 50 }, workshop),
  ).ribbons;
  const far = (points: readonly (readonly [number, number])[]): number => Math.max(...points.map(([x, y]) => Math.hypot(x, y)));

  it('has loops as long as they are wished, ends as long as they are cut, and a knot as wide as its ribbon', () => {
    const parts = bowOf(ribbon!);
    expect(parts.length).toBe(5);
    expect(parts.filter(({ outer }) => Math.abs(far(outer) - 30) < 0.5).length).toBe(2);
    expect(parts.filter(({ outer }) => Math.abs(far(outer) - Math.hypot(5, 50)) < 0.5).length).toBe(2);
    // Left and right are mirror images.
    const sum = parts.flatMap(({ outer }) => outer).reduce((total, [x]) => total + x, 0);
    expect(sum).toBeCloseTo(0, 6);
  });

  it('without loops is a knot with its ends', () => {
    const { length } = bowOf({ ...ribbon!, closure: { ...ribbon!.closure, loop: 0 } });
    expect(length).toBe(3);
  });
});
