import { boxOf } from '../plane/outline.js';
import { spoken } from '../measure/sentence.js';
import { fits, smallestEnvelope } from '../supplies/envelopes.js';
import { CLOSING_PLAY, EDGE_MARGIN } from '../supplies/limits.js';
import type { Check, CheckInput, Verdict } from './finding.js';

/** What sticks out by no more than a hand’s error is level with the edge. */
const TOLERANCE = CLOSING_PLAY;

type Side = 'fold' | 'free' | 'lower' | 'upper';
const SIDE_NAMES: Record<Side, string> = { fold: 'the fold', free: 'the free edge', lower: 'the lower end', upper: 'the upper end' };

/** Does everything lie inside the closed card, with a margin for what moves, and does it fit its envelope? */
export const staysInside: Check = (input) => {
  const { design, closed, motion } = input;
  const card = boxOf(design.base.closedOutline);
  const names = { ...SIDE_NAMES, ...design.base.sides };
  const flush = design.base.flush ?? [];
  const over = closed.stack.layers.flatMap((layer) => {
    const box = boxOf(layer.area.outer);
    const panel = design.panels[layer.body]!;
    const past: Record<Side, number> = {
      fold: card.minX - box.minX,
      free: box.maxX - card.maxX,
      lower: card.minY - box.minY,
      upper: box.maxY - card.maxY,
    };
    return (Object.keys(past) as Side[]).map((side) => ({ panel, side, by: past[side] }));
  });
  const followsFrom = motion.closedFlat.holds ? undefined : 'folds-flat';
  const sticking = over.filter(({ by }) => by > TOLERANCE).sort((a, b) => b.by - a.by);
  const found = worstBySide(sticking).map(({ panel, side, by }): Verdict => ({
    id: `stays-inside/${panel.id}/${side}`,
    check: 'stays-inside',
    severity: 'fail',
    value: by,
    limit: TOLERANCE,
    unit: 'mm',
    panels: [panel.id],
    at: 0,
    followsFrom,
    says: `Closed, ${panel.name} sticks out ${spoken(by)} past ${names[side]}.`,
  }));
  if (found.length === 0) {
    const near = over
      .filter(({ panel, side, by }) => panel.piece.stock === 'mechanism' && side !== 'fold' && !flush.includes(side) && by > -EDGE_MARGIN)
      .sort((a, b) => b.by - a.by)[0];
    found.push(
      near
        ? {
            id: 'stays-inside/margin',
            check: 'stays-inside',
            severity: 'warn',
            value: -near.by,
            limit: EDGE_MARGIN,
            unit: 'mm',
            panels: [near.panel.id],
            at: 0,
            says: `Closed, ${near.panel.name} comes within ${spoken(-near.by)} of ${names[near.side]}; ${spoken(EDGE_MARGIN)} keeps it safely hidden.`,
          }
        : {
            id: 'stays-inside',
            check: 'stays-inside',
            severity: 'pass',
            value: 0,
            limit: 0,
            unit: 'mm',
            says: 'Closed, nothing sticks out of the card.',
          },
    );
  }
  return [...found, envelopeFinding(input)];
};

function worstBySide<T extends { side: Side }>(sorted: readonly T[]): T[] {
  return sorted.filter((entry, i) => sorted.findIndex((other) => other.side === entry.side) === i);
}

function envelopeFinding({ closed, envelope, workshop }: CheckInput): Verdict {
  const { minX, maxX, minY, maxY } = closed.box;
  const [width, height, thickness] = [maxX - minX, maxY - minY, closed.thickest.thickness];
  const smallest = smallestEnvelope(width, height, thickness, workshop.envelopes);
  const hint = smallest ? `The smallest listed envelope that takes it is ${smallest.name}.` : 'No listed envelope takes it: fold one.';
  const id = 'stays-inside/envelope';
  if (!envelope) return { id, check: 'stays-inside', severity: 'pass', says: hint };
  const ok = fits(width, height, thickness, envelope);
  const long = Math.max(width, height) + thickness - envelope.long;
  const short = Math.min(width, height) + thickness - envelope.short;
  return {
    id,
    check: 'stays-inside',
    severity: ok ? 'pass' : 'fail',
    value: Math.max(long, short),
    limit: 0,
    unit: 'mm',
    says: ok
      ? `Fits the envelope ${envelope.name}, thickness taken off both ways.`
      : `Too large for the envelope ${envelope.name} by ${spoken(Math.max(long, short))} (its thickness of ${spoken(thickness)} is lost both ways). ${hint}`,
  };
}
