import type { Mm } from '../measure/units.js';
import { withOwnSupplies, type CardDocument } from './document.js';
import type { Dressing, OwnDress, Topper } from './dressing.js';

/** Borders of who measures in mm and of who measures in inches. */
const THREE: Mm = 3;
const EIGHTH: Mm = 3.175;

/** What a sample card wears, with the layers that are cut from plain paper, to be written on, or from another one. */
interface Wear extends Dressing {
  plain?: readonly string[];
  papers?: Readonly<Record<string, string>>;
}

/** @param bare faces that stay as they are: inside a card that would gape, or where a strip is too small to dress */
const layers = (border: Mm, bare: readonly string[] = [], stock = 'patterned-120'): Pick<Dressing, 'layers'> => ({
  layers: {
    ...{ border, steps: 1, stock },
    ...(bare.length > 0 && {
      own: bare.map((each): OwnDress => {
        const [panel, face] = each.split(' ') as [string, OwnDress['face']];
        return { panel, face, bare: true };
      }),
    }),
  },
});

const topper = (
  id: string,
  on: `${string} ${Topper['face']}`,
  place: Pick<Topper, 'across' | 'along' | 'height' | 'outline'>,
  more: Partial<Topper> = {},
): Topper => {
  const [panel, face] = on.split(' ') as [string, Topper['face']];
  return { id, panel, face, ...place, stock: 'card-216', ...more };
};

/** By the id of the card. */
const WORN: Readonly<Record<string, Wear>> = {
  'foray-guide-easel': {
    ...layers(THREE),
    papers: { 'layer-base-base-up': 'moss-100' },
    toppers: [
      topper('disc', 'display/display up', { across: 75, along: 96, height: 84, outline: 'scallop' }, { stock: 'light-card-160' }),
      topper('basket', 'display/display up', { across: 75, along: 96, height: 54, outline: 'mushroom' }, { stock: 'bark-card-220' }),
      topper(
        'greeting',
        'display/display up',
        { across: 75, along: 28, height: 24, outline: 'rectangle' },
        {
          ...{ width: 106, stock: 'light-card-160', name: 'greeting' },
          greeting: { words: 'Thank you', letters: 'handwritten', capital: 11 },
          backings: [{ border: 2, stock: 'chanterelle-100' }],
        },
      ),
    ],
  },
  'chanterelle-birthday': {
    ...layers(EIGHTH, ['base/front-leaf up', 'base/back-leaf up', 'figure/first-wing up', 'figure/second-wing up']),
    toppers: [
      topper(
        'chanterelle',
        'base/front-leaf down',
        { across: 63.5, along: 95.25, height: 76.2, outline: 'mushroom' },
        { stock: 'chanterelle-100' },
      ),
    ],
    closures: [{ id: 'ribbon-1', kind: 'ribbon', way: 'round', around: 'across', wide: 9.525, at: 25.4, loop: 38.1, end: 76.2 }],
  },
  'autumn-walk-doors': { ...layers(THREE), plain: ['layer-base-right-door-up'] },
  'fern-and-snail-display': {
    ...layers(EIGHTH),
    toppers: [topper('frond', 'focal/focal up', { across: 50.8, along: 66.675, height: 101.6, outline: 'fern' }, { name: 'fern' })],
  },
  'lantern-box': {
    ...layers(THREE, [], 'night-card-220'),
    papers: { 'layer-base-back-down': 'patterned-120' },
    closures: [{ id: 'band-1', kind: 'band', around: 'across', wide: 24, at: 70, stock: 'chanterelle-100' }],
  },
  'first-frost-stage': {
    ...layers(THREE, ['layer-1/layer-1 up', 'layer-2/layer-2 up', 'front/front up']),
    papers: { 'layer-base-back-up': 'night-card-220' },
  },
  'basket-strip-easel': {
    ...layers(THREE),
    toppers: [topper('cap', 'base/display up', { across: 55, along: 45, height: 50, outline: 'mushroom' })],
  },
  'scalloped-thanks': {
    ...layers(EIGHTH),
    toppers: [
      topper('disc', 'cover/cover up', { across: 57.15, along: 57.15, height: 76.2, outline: 'scallop' }, { stock: 'light-card-160' }),
      topper('cap', 'cover/cover up', { across: 57.15, along: 57.15, height: 44.45, outline: 'mushroom' }),
    ],
  },
  'foray-group-row': {
    ...layers(THREE, [
      'board/board up',
      'easel-3-display/display up',
      'easel-1/strut up',
      'easel-2/strut up',
      'easel-3/strut up',
      'easel-3/strut down',
    ]),
    toppers: [
      topper('first', 'easel-1-display/display up', { across: 56, along: 48, height: 60, outline: 'mushroom' }, { stock: 'moss-100' }),
      topper(
        'second',
        'easel-2-display/display up',
        { across: 46, along: 36, height: 44, outline: 'mushroom' },
        { stock: 'chanterelle-100' },
      ),
    ],
  },
  'gift-pocket-box': layers(THREE),
  'caps-on-two-steps': layers(THREE),
  'night-path-turn': { ...layers(THREE), plain: ['layer-base-upright-up'] },
  'snail-swing': layers(THREE),
  'fern-on-film': { ...layers(THREE, ['base/left-top down', 'base/right-top up', 'base/right-top down'], 'moss-100') },
  'moss-pocket': {
    ...layers(THREE),
    toppers: [topper('cap', 'pocket/pocket up', { across: 38, along: 50, height: 50, outline: 'mushroom' })],
  },
  'clearing-in-three-depths': {
    ...layers(THREE, [
      'trunks/layer up',
      'trunks/layer down',
      'caps/layer up',
      'caps/layer down',
      'base/front-leaf up',
      'log/back up',
      'log/front up',
      'log/front down',
    ]),
    plain: ['layer-base-front-leaf-down', 'layer-base-back-leaf-up'],
    toppers: [
      topper('frond', 'base/front-leaf down', { across: 52, along: 75, height: 90, outline: 'fern' }, { stock: 'moss-100', name: 'fern' }),
    ],
  },
  'ring-in-the-moss': {
    ...layers(THREE, [
      'liner/ring-core-first up',
      'liner/ring-core-second up',
      'liner/ring-ring-first up',
      'liner/ring-ring-second up',
      'liner/ring-ring-second down',
      'liner/front-half up',
    ]),
    plain: ['layer-liner-back-half-up'],
    toppers: [
      topper(
        'ring',
        'base/front-leaf down',
        { across: 52, along: 75, height: 70, outline: 'scallop' },
        { stock: 'moss-100', greeting: { words: 'Wendlebrook / Fungus / Foray', letters: 'serif', capital: 6 } },
      ),
    ],
  },
  'two-fronds-bow': {
    ...layers(THREE, ['base/front-leaf up']),
    plain: ['layer-base-back-leaf-up'],
    toppers: [
      topper(
        'frond',
        'base/front-leaf down',
        { across: 52, along: 105, height: 110, outline: 'fern' },
        { stock: 'moss-100', name: 'fern' },
      ),
    ],
  },
  'three-caps-on-the-path': { ...layers(THREE), plain: ['layer-base-back-leaf-up'] },
  'cap-among-trunks': {
    ...layers(THREE, ['trunks/layer up', 'trunks/layer down', 'base/front-leaf up']),
    plain: ['layer-base-back-leaf-up'],
    toppers: [
      topper('cap', 'base/front-leaf down', { across: 52, along: 75, height: 60, outline: 'mushroom' }, { stock: 'bark-card-220' }),
    ],
  },
  'logs-at-the-doors': {
    ...layers(THREE, ['base/left-log-back up', 'base/left-log-front up', 'base/right-log-back up', 'base/right-log-front up']),
    plain: ['layer-base-right-door-up'],
    // A front that is glued to the left door only, and hangs over the right one: that door is opened first.
    toppers: [
      topper(
        'front',
        'base/left-door down',
        { across: 4, along: 75, height: 60, outline: 'scallop' },
        { stock: 'light-card-160', glued: { as: 'strip', side: 'left', deep: 20 } },
      ),
    ],
  },
  'snail-on-its-log': {
    ...layers(THREE, ['log/back up', 'log/front up', 'log/front down', 'base/front-leaf up']),
    plain: ['layer-base-back-leaf-up'],
    toppers: [topper('leaf', 'base/front-leaf down', { across: 52, along: 75, height: 80, outline: 'leaf' }, { stock: 'moss-100' })],
    envelope: { stock: 'text-100', liner: 'patterned-120' },
  },
  'lantern-arch': {
    ...layers(THREE, [
      'base/front-leaf up',
      'base/back-leaf up',
      'base/arch-ring-first up',
      'base/arch-ring-second up',
      'base/arch-ring-second down',
      'lantern/first-wing up',
      'lantern/second-wing up',
    ]),
    toppers: [topper('arch', 'base/front-leaf down', { across: 42, along: 75, height: 60, outline: 'arch' }, { stock: 'night-card-220' })],
  },
  'the-foray-map': {
    ...layers(THREE, ['base/front-leaf up']),
    plain: ['layer-base-back-leaf-up'],
    toppers: [
      // A pocket for the list of finds.
      topper(
        'pocket',
        'base/front-leaf down',
        { across: 52, along: 60, height: 80, outline: 'rectangle' },
        {
          width: 70,
          greeting: { words: 'Our finds', letters: 'serif', capital: 6 },
          stock: 'bark-card-220',
          glued: { as: 'pocket', side: 'top', deep: 5 },
          name: 'pocket for the list',
        },
      ),
    ],
    closures: [
      {
        id: 'magnet-1',
        kind: 'magnet',
        panel: 'base/front-leaf',
        face: 'up',
        across: 10,
        along: 20,
        disc: 8,
        thick: 0.6,
        stock: 'light-card-160',
      },
    ],
  },
};

/** A sample card as its makers dressed it. */
export function asWorn(card: CardDocument): CardDocument {
  const wear = WORN[card.id];
  if (!wear) return card;
  const { plain = [], papers = {}, ...dressing } = wear;
  const own = { ...Object.fromEntries(plain.map((layer) => [layer, 'text-100'])), ...papers };
  const pieceStocks = { ...card.pieceStocks, ...own };
  return withOwnSupplies({ ...card, dressing, ...(Object.keys(pieceStocks).length > 0 && { pieceStocks }) });
}
