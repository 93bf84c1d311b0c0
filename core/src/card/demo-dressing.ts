import type { Mm } from '../measure/units.js';
import { withOwnSupplies, type CardDocument } from './document.js';
import type { Dressing, Topper } from './dressing.js';

/** Borders of who measures in mm and of who measures in inches. */
const THREE: Mm = 3;
const EIGHTH: Mm = 3.175;

/** What a sample card wears, and the layers that are cut from plain paper, to be written on. */
interface Wear extends Dressing {
  plain?: readonly string[];
}

const layers = (border: Mm): Pick<Dressing, 'layers'> => ({ layers: { border, steps: 1, stock: 'patterned-120' } });

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
  'fern-and-snail-display': {
    ...layers(EIGHTH),
    toppers: [topper('frond', 'focal/focal up', { across: 50.8, along: 66.675, height: 101.6, outline: 'fern' }, { name: 'fern' })],
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
  'gift-pocket-box': layers(THREE),
  'caps-on-two-steps': layers(THREE),
  'night-path-turn': { ...layers(THREE), plain: ['layer-base-upright-up'] },
  'snail-swing': layers(THREE),
  'moss-pocket': {
    ...layers(THREE),
    toppers: [topper('cap', 'pocket/pocket up', { across: 38, along: 50, height: 50, outline: 'mushroom' })],
  },
  'three-caps-on-the-path': { ...layers(THREE), plain: ['layer-base-back-leaf-up'] },
};

/** A sample card as its makers dressed it. */
export function asWorn(card: CardDocument): CardDocument {
  const wear = WORN[card.id];
  if (!wear) return card;
  const { plain = [], ...dressing } = wear;
  const pieceStocks = { ...card.pieceStocks, ...Object.fromEntries(plain.map((layer) => [layer, 'text-100'])) };
  return withOwnSupplies({ ...card, dressing, ...(plain.length > 0 && { pieceStocks }) });
}
