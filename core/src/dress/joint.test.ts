import { describe, expect, it } from 'vitest';
import { dressedBy, dressedOtherwise } from '../card/dress-card.js';
import { withOwnSupplies, type CardDocument } from '../card/document.js';
import type { OwnDress } from '../card/dressing.js';
import { readCardFile, writeCardFile } from '../format/card-file.js';
import { joinsOfLayer } from '../plan/joins-said.js';
import { benchSteps } from '../plan/bench-steps.js';
import { areaOf, boxOf } from '../plane/outline.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';

const workshop = starterFor('mm');
const [PAPER, OTHER, RIBBON] = ['night-card-220', 'moss-100', 'chanterelle-100'] as const;

/** The inside left leaf, 105 × 148 mm, whose layer is cut from two papers. */
function jointed(joint: NonNullable<OwnDress['joint']>, own: Partial<OwnDress> = {}): CardDocument {
  const card = dressedBy(cardOn('folded-card', { depth: 105, length: 148 }), { border: 3 }, workshop);
  return withOwnSupplies(dressedOtherwise(card, { panel: 'base/front-leaf', face: 'up' }, { ...own, joint }), workshop);
}

const onLeaf = (card: CardDocument) => {
  const evaluation = evaluated(card);
  return { evaluation, layers: evaluation.dressed.layers.filter(({ panel, face }) => panel === 'base/front-leaf' && face === 'up') };
};

describe('a layer in two papers that meet', () => {
  it('ends and begins at the line, with a strip half on either side', () => {
    const { evaluation, layers } = onLeaf(jointed({ runs: 'across', at: 50, stock: OTHER, cover: { wide: 12, stock: RIBBON } }));
    expect(layers.map(({ area }) => boxOf(area.outer))).toEqual([
      { minX: 3, maxX: 102, minY: 3, maxY: 50 },
      { minX: 3, maxX: 102, minY: 50, maxY: 145 },
      { minX: 3, maxX: 102, minY: 44, maxY: 56 },
    ]);
    expect(layers.map(({ stock }) => stock.id)).toEqual([layers[0]!.stock.id, OTHER, RIBBON]);
    expect(layers.map(({ step }) => step)).toEqual([1, 1, 2]);
    // The strip lies 6 mm on either paper.
    const onto = joinsOfLayer(evaluation, layers[2]!).map((join) => [join.onto.piece, areaOf({ outer: join.onto.outline, holes: [] })]);
    expect(onto).toEqual([
      [layers[0]!.id, expect.closeTo(6 * 99, 4)],
      [layers[1]!.id, expect.closeTo(6 * 99, 4)],
    ]);
  });

  it('may meet along a line up and down', () => {
    const { layers } = onLeaf(jointed({ runs: 'along', at: 35, stock: OTHER }));
    expect(layers.map(({ box }) => [box.width, box.height])).toEqual([
      [32, 142],
      [67, 142],
    ]);
  });

  it('is so only on top: what lies under it is in one piece', () => {
    const { layers } = onLeaf(jointed({ runs: 'across', at: 50, stock: OTHER, cover: { wide: 8, stock: RIBBON } }, { steps: 2 }));
    expect(layers.map(({ step, box }) => [step, box.width, box.height])).toEqual([
      [1, 99, 142],
      [2, 93, 44],
      [2, 93, 92],
      [3, 93, 8],
    ]);
  });

  it('is in one piece, and told so, where the line lies past it', () => {
    const { evaluation, layers } = onLeaf(jointed({ runs: 'along', at: 104, stock: OTHER }));
    expect(layers).toHaveLength(1);
    const found = evaluation.findings.find(({ id }) => id.endsWith('/joint'))!;
    expect(found.severity).toBe('warn');
    expect(found.says).toContain('between 3 mm and 102 mm');
  });

  it('keeps the papers that it needs with the card, and is read back as it was', () => {
    const card = jointed({ runs: 'across', at: 50, stock: OTHER, cover: { wide: 12, stock: RIBBON } });
    const read = readCardFile(writeCardFile(card));
    expect(read.ok && read.card.dressing).toEqual(card.dressing);
    const stocks = (read.ok ? read.card : card).supplies.stocks.map(({ id }) => id);
    expect(stocks).toEqual(expect.arrayContaining([OTHER, RIBBON]));
    expect(stocks).not.toContain(PAPER);
  });

  it('has its line drawn before it is glued, and the strip glued over it', () => {
    const { evaluation, layers } = onLeaf(jointed({ runs: 'across', at: 50, stock: OTHER, cover: { wide: 12, stock: RIBBON } }));
    const [first, second, strip] = layers.map(({ number }) => number);
    const said = benchSteps(evaluation, workshop).flatMap(({ says }) => says);
    expect(said).toContain(`Draw a line 50 mm on the front leaf, from its lower edge: ${first} and ${second} meet there, edge to edge.`);
    expect(said.some((line) => line.startsWith(`${strip}, the strip of`) && line.includes(`where ${first} and ${second} meet`))).toBe(true);
    expect(
      said.some((line) => line.startsWith(`${first} on the front leaf: 3 mm from the left, right and lower edges, and up to the line`)),
    ).toBe(true);
  });
});
