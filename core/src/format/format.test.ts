import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { dressedBy, dressedOtherwise } from '../card/dress-card.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { LARGEST_CARD_FILE, readCardFile, writeCardFile } from './card-file.js';
import { readShelfFile, writeShelfFiles } from './shelf-file.js';
describe('card files', () => {
  it('have their keys in one order, however the card came about', () => {
    const [card] = DEMO_CARDS;
    const turned = (value: unknown): unknown =>
      typeof value !== 'object' || value === null
        ? value
        : Array.isArray(value)
          ? value.map(turned)
          : Object.fromEntries(
              Object.entries(value)
                .reverse()
                .map(([key, own]) => [key, turned(own)]),
            );
    expect(writeCardFile(turned(card) as typeof card & object)).toBe(writeCardFile(card!));
  });

  it('and whole shelves may begin with a byte-order mark', () => {
    expect(readCardFile(`\uFEFF${writeCardFile(DEMO_CARDS[0]!)}`)).toEqual({ ok: true, card: DEMO_CARDS[0] });
    expect(readShelfFile(`\uFEFF${writeShelfFiles(DEMO_CARDS)[0]!}`)).toEqual({ ok: true, cards: DEMO_CARDS });
  });

  it.each(DEMO_CARDS.map((card) => [card.name, card] as const))('%s comes back exactly', (_, card) => {
    expect(readCardFile(writeCardFile(card))).toEqual({ ok: true, card });
  });

  /** The easel of the shelf as version 1 and 2 wrote it. */
  const old = {
    format: 'diptychon-card',
    version: 2,
    id: 'old',
    name: 'Old',
    foldEdge: 'top',
    notation: 'mm',
    board: 'five-mm-300',
    envelope: 'c5',
    stocks: { base: 'card-250', mechanism: 'light-card-160', display: 'card-250', film: 'film-190' },
    base: { mechanism: 'folded-card', sizes: { depth: 120 } },
    movements: [{ id: 'cap', mechanism: 'v-fold', host: 'main-fold', sizes: { apex: 40 } }],
  };

  it('of the second version become a tree, with copies of what they use', () => {
    const reading = readCardFile(JSON.stringify(old));
    if (!reading.ok) throw new Error(reading.problems[0]!.says);
    const { card } = reading;
    expect(card.parts).toEqual([
      { id: 'base', mechanism: 'folded-card', sizes: { depth: 120 } },
      { id: 'cap', mechanism: 'v-fold', on: { part: 'base', site: 'main-fold' }, sizes: { apex: 40 } },
    ]);
    expect(card.stocks).toEqual({ ...old.stocks, stop: 'foam' });
    expect(card.supplies.stocks.map(({ id }) => id).sort()).toEqual(['card-250', 'film-190', 'foam', 'light-card-160']);
    expect(card.supplies).toMatchObject({ boards: [{ id: 'five-mm-300', pitch: 5 }], envelopes: [{ id: 'c5', long: 229 }] });
  });

  it('of the first version too: a fitted spine is automatic, and there is an everyday film', () => {
    const { film, ...stocks } = old.stocks;
    const base = { mechanism: 'easel-folded-front', sizes: { depth: 150, spine: 'fitted' } };
    const reading = readCardFile(JSON.stringify({ ...old, version: 1, stocks, base, movements: [] }));
    expect(reading).toMatchObject({ ok: true, card: { stocks: { film }, parts: [{ sizes: { depth: 150, spine: 'auto' } }] } });
  });

  it.each([
    ['a movement called base', { movements: [{ ...old.movements[0]!, id: 'base' }] }, 'movements.0.id', 'kept for the base'],
    ['two movements of one name', { movements: [old.movements[0]!, old.movements[0]!] }, 'parts.2.id', 'as another part is'],
    ['an unknown envelope', { envelope: 'c99' }, 'envelope', 'none of the envelopes'],
    ['an unknown board', { board: 'plank' }, 'board', 'none of the boards'],
    ['an unknown stock', { stocks: { ...old.stocks, base: 'gold' } }, 'stocks.base', 'none of the stocks'],
    ['no base', { base: undefined }, 'base', 'is missing'],
    ['a base with a host', { base: { ...old.base, host: 'x' } }, 'base.host', 'does not belong'],
  ])('of the second version with %s are refused with the path', (_, change, path, says) => {
    const reading = readCardFile(JSON.stringify({ ...old, ...change }));
    expect(reading.ok ? [] : reading.problems).toMatchObject([{ path, says: expect.stringContaining(says) }]);
  });

  it('carry a board and an envelope of the maker’s own, and stocks for single pieces', () => {
    const own = {
      ...DEMO_CARDS[0]!,
      board: 'mine',
      envelope: 'folded-a',
      pieceStocks: { display: 'shimmer' },
      supplies: {
        stocks: [
          ...DEMO_CARDS[0]!.supplies.stocks,
          { id: 'shimmer', name: 'Shimmer card', kind: 'card', caliper: 0.33, weight: 280, stiffness: 3900 },
        ],
        boards: [{ id: 'mine', name: 'My board', pitch: 3, length: 240, begins: 1, extra: [150.5], notation: 'mm' }],
        envelopes: [{ id: 'folded-a', name: 'Folded from a square', long: 170, short: 165 }],
      },
    };
    expect(readCardFile(JSON.stringify(own))).toEqual({ ok: true, card: own });
  });

  it('keep what a card wears', () => {
    const plain = dressedBy(DEMO_CARDS[1]!, { border: 2.5, steps: 2 }, starterFor('mm'));
    const card = dressedOtherwise(plain, { panel: 'base/front-leaf', face: 'down' }, { left: 0, steps: 1 });
    expect(readCardFile(JSON.stringify(card))).toEqual({ ok: true, card });
  });

  const demo = DEMO_CARDS[1]!;
  const broken = (change: object): string => JSON.stringify({ ...demo, ...change });
  const [root, figure] = [demo.parts[0]!, demo.parts[1]!];
  const parts = (...list: object[]): string => broken({ parts: list });
  it.each([
    ['not JSON', '{', 'file', 'not JSON'],
    ['a list', '[]', 'file', 'no card'],
    ['a newer version', broken({ version: 99 }), 'version', 'newer'],
    ['no version', broken({ version: undefined }), 'version', 'allowed'],
    ['a version that is an object', broken({ version: { toString: 1 } }), 'version', 'an object'],
    ['an unknown stock', broken({ stocks: { ...demo.stocks, base: 'gold' } }), 'stocks.base', 'none of the stocks'],
    ['a missing name', broken({ name: undefined }), 'name', 'missing'],
    ['a size that is no number', parts({ ...root, sizes: { depth: null } }), 'parts.0.sizes.depth', 'allowed'],
    ['an unknown mechanism', parts({ ...root, mechanism: 'flying-carpet' }), 'parts.0.mechanism', 'catalogue'],
    ['a movement as base', parts({ ...root, mechanism: 'v-fold' }), 'parts.0.mechanism', 'not a base'],
    ['a base as movement', parts(root, { ...figure, mechanism: 'folded-card' }), 'parts.1.mechanism', 'not a movement'],
    ['a base of another name', parts({ ...root, id: 'ground' }, figure), 'parts.0.id', 'allowed: base'],
    ['a second base', parts(root, { ...figure, id: 'base' }), 'parts.1.id', 'kept for the base'],
    ['two parts of one name', parts(root, figure, figure), 'parts.2.id', 'as another part is'],
    ['a part that stands on nothing', parts(root, { ...figure, on: undefined }), 'parts.1.on', 'missing'],
    [
      'a part on one that is not there',
      parts(root, { ...figure, on: { part: 'tree', site: 'x' } }),
      'parts.1.on.part',
      'no part of this card',
    ],
    [
      'parts that stand on each other',
      parts(root, { ...figure, on: { part: 'other', site: 'x' } }, { ...figure, id: 'other', on: { part: 'figure', site: 'x' } }),
      'parts.1.on.part',
      'in a circle',
    ],
    [
      'a supply that cannot be',
      broken({ supplies: { ...demo.supplies, boards: [{ ...demo.supplies.boards[0]!, pitch: -1 }] } }),
      'supplies.boards.0.pitch',
      'allowed',
    ],
    [
      'a border that is none',
      broken({ dressing: { layers: { border: -1, steps: 1, stock: 'card-250' } } }),
      'dressing.layers.border',
      '0 to 60 mm',
    ],
    [
      'layers of a stock it has not',
      broken({ dressing: { layers: { border: 3, steps: 1, stock: 'gold' } } }),
      'dressing.layers.stock',
      'none of the stocks',
    ],
    [
      'more layers than allowed',
      broken({ dressing: { layers: { border: 3, steps: 9, stock: 'card-250' } } }),
      'dressing.layers.steps',
      '1 to 3',
    ],
    ['something that does not belong', broken({ script: 'x' }), 'script', 'does not belong'],
    ['far too much', `"${'x'.repeat(LARGEST_CARD_FILE)}"`, 'file', 'at most'],
  ])('refuses %s, naming the place and what is allowed', (_, text, path, says) => {
    const reading = readCardFile(text);
    expect(reading.ok).toBe(false);
    if (!reading.ok) {
      expect(reading.problems.map((problem) => problem.path)).toContain(path);
      expect(reading.problems.map((p) => p.says).join()).toContain(says);
    }
  });
});
