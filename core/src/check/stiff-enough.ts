import { stockOf } from '../card/card-stocks.js';
import type { Stock } from '../supplies/stocks.js';
import { claimsOf } from '../card/draw.js';
import type { ClaimOf } from '../claim/claims.js';
import { capitalised, printGrams } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { areaOf } from '../plane/outline.js';
import { weightOfArea } from '../card/weight.js';
import type { Check, CheckInput, Verdict } from './finding.js';
import {
  bucklingLoad,
  cantileverBend,
  gluedRigidity,
  GRAVITY,
  heldSag,
  layersNeeded,
  lineLoad,
  OWN_SHARE,
  type GluedSheet,
} from './stiffness.js';

/** A part that bends by more than this share of its length looks bent. */
const SEEN_SHARE = 1 / 50;
const MM2_PER_M2 = 1e6;

type Part = ClaimOf<'stiff'>;

/** Is what stands free or leans stiff enough for its height, its own weight and what it carries? */
export const stiffEnough: Check = (input) =>
  claimsOf(input.design, 'stiff').map((part) => (part.held === 'free' ? buckles(input, part) : bends(input, part)));

/** What is glued on a part and what it and that wear, g in all, each as a load at its own height share of the part. */
function gluedWeight({ design }: CheckInput, part: Part): number {
  const body = design.linkage.bodyOf.get(part.panel)!;
  const displays = design.linkage.bonds
    .filter((bond) => bond.b === body && design.panels[bond.a]!.piece.stock === 'display')
    .map(({ a }) => design.panels[a]!);
  const shown = new Set([part.panel, ...displays.map(({ id }) => id)]);
  const worn = design.worn.filter(({ panel }) => shown.has(panel)).reduce((sum, { area, weight }) => sum + areaOf(area) * weight, 0);
  const glued = displays.reduce((sum, { area, piece }) => sum + areaOf(area) * weightOfArea(design, piece), 0);
  return (glued + worn) / MM2_PER_M2;
}

/** How stiff a part of n sheets is together with the layers that both its faces wear, N·mm². */
function rigidity({ dressed }: CheckInput, part: Part, stock: Stock, n: number): number {
  const on = (face: 'up' | 'down'): GluedSheet[] =>
    dressed.layers
      .filter((layer) => layer.panel === part.panel && layer.face === face)
      .map(({ stock: own, area }) => ({
        caliper: own.caliper,
        stiffness: own.stiffness,
        // As wide as it is on the average over the whole length: where it ends, it stiffens nothing.
        width: Math.min(part.width, areaOf(area) / part.length),
      }));
  return gluedRigidity([
    ...on('down').reverse(),
    { caliper: n * stock.caliper, stiffness: stock.stiffness, width: part.width },
    ...on('up'),
  ]);
}

function stockOfPart({ design }: CheckInput, part: Part): Stock {
  return stockOf(design, design.panels[design.linkage.bodyOf.get(part.panel)!]!.piece);
}

function buckles(input: CheckInput, part: Part): Verdict {
  const stock = stockOfPart(input, part);
  const carried = part.tipWeight + gluedWeight(input, part);
  const own = ((part.width * part.length) / MM2_PER_M2) * stock.weight;
  const load = (n: number): number => carried + OWN_SHARE * n * own;
  const limit = (n: number): number => bucklingLoad(rigidity(input, part, stock, n), part.length);
  const ok = load(1) < limit(1);
  const needed = ok ? undefined : layersNeeded((n) => load(n) < limit(n));
  const cure = needed ? ` ${needed} layers glued together carry it, as a frame of them does.` : ' Make it lower, or choose a thicker film.';
  return {
    id: `stiff-enough/${part.id}`,
    check: 'stiff-enough',
    severity: ok ? 'pass' : 'fail',
    value: load(1),
    limit: limit(1),
    unit: 'g',
    panels: [part.panel],
    at: input.resting.s,
    says: ok
      ? `${capitalised(part.name)} carries ${printGrams(load(1))} (its own weight counted by three tenths) and would buckle under ${printGrams(limit(1))}.`
      : `${capitalised(part.name)} buckles: ${spoken(part.length)} high it carries up to ${printGrams(limit(1))}, and ${printGrams(load(1))} stand on it (its own weight counted by three tenths).${cure}`,
  };
}

function bends(input: CheckInput, part: Part): Verdict {
  const stock = stockOfPart(input, part);
  const glued = gluedWeight(input, part);
  const bend = (n: number): number => {
    const q = lineLoad(n * stock.weight, part.width) + ((glued / 1000) * GRAVITY) / part.length;
    const stiff = rigidity(input, part, stock, n);
    return part.held === 'held'
      ? heldSag(q, part.length, part.lean, stiff)
      : cantileverBend(q, (part.tipWeight / 1000) * GRAVITY, part.length, part.lean, stiff);
  };
  const layers = part.layers ?? 1;
  const value = bend(layers);
  const limit = part.length * SEEN_SHARE;
  const ok = value <= limit;
  const needed = ok ? undefined : layersNeeded((n) => n > layers && bend(n) <= limit);
  const level = part.held === 'cantilever' && part.lean === 0 ? ', held level by its fold,' : '';
  return {
    id: `stiff-enough/${part.id}`,
    check: 'stiff-enough',
    severity: ok ? 'pass' : 'warn',
    value,
    limit,
    unit: 'mm',
    panels: [part.panel],
    at: input.resting.s,
    says: ok
      ? `${capitalised(part.name)}${level} ${part.held === 'held' ? 'sags' : 'bends'} by about ${spoken(value)}: ${level ? 'it can be pushed' : 'not to be seen'}.`
      : `${capitalised(part.name)}${level} ${part.held === 'held' ? 'sags' : 'bends'} by about ${spoken(value)} of its ${spoken(part.length)}${level ? ': pushed, it gives instead of moving what it should move' : ''}.${needed ? ` ${needed} layers glued together keep it straight.` : ' Make it lower or of a stiffer stock.'}`,
  };
}
