import { postedCard } from '../dress/posted-card.js';
import { foldAnEnvelope } from '../dress/fold-an-envelope.js';
import { lyingAt } from '../card/worn.js';
import { poseOf } from '../linkage/motion.js';
import { boxOf } from '../plane/outline.js';
import { spoken } from '../measure/sentence.js';
import { closestEnvelope, easeIn, fits } from '../supplies/envelopes.js';
import { CLOSING_PLAY, EDGE_MARGIN } from '../supplies/limits.js';
import type { Check, CheckInput, Verdict } from './finding.js';

/** What sticks out by no more than a hand’s error is level with the edge. */
const TOLERANCE = CLOSING_PLAY;

type Side = 'fold' | 'free' | 'lower' | 'upper';
const SIDE_NAMES: Record<Side, string> = { fold: 'the fold', free: 'the free edge', lower: 'the lower end', upper: 'the upper end' };

/**
 * Does everything lie inside the closed card, with a margin for what moves, and does it fit its envelope? What sticks out is a
 * fault where the maker wants the card's own outline kept; where only its envelope counts, the envelope judges it.
 */
export const staysInside: Check = (input) => {
  const { design, closed, motion } = input;
  const mayStickOut = input.card.within === 'envelope';
  const card = boxOf(design.base.closedOutline);
  const names = { ...SIDE_NAMES, ...design.base.sides };
  const flush = design.base.flush ?? [];
  const pose = poseOf(motion, motion.frames[0]!);
  const { toppers, layers } = input.dressed;
  const reaching = [
    ...toppers.map(({ panel, name, whole }) => ({ panel, name, areas: whole })),
    ...layers.filter(({ past }) => past.length > 0).map(({ panel, number, area }) => ({ panel, name: `layer ${number}`, areas: [area] })),
  ];
  const worn = reaching.map(({ panel, name, areas }) => {
    const body = design.linkage.bodyOf.get(panel)!;
    const { id, piece } = design.panels[body]!;
    return { panel: { id, piece, name }, outer: areas.flatMap((area) => lyingAt(pose[body]!, { area }).outer) };
  });
  const lying = [...closed.stack.layers.map(({ body, area }) => ({ panel: design.panels[body]!, outer: area.outer })), ...worn];
  const over = lying.flatMap(({ panel, outer }) => {
    const box = boxOf(outer);
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
    severity: mayStickOut ? 'pass' : 'fail',
    value: by,
    limit: TOLERANCE,
    unit: 'mm',
    panels: [panel.id],
    at: 0,
    ...(!mayStickOut && { followsFrom }),
    says: `Closed, ${panel.name} sticks out ${spoken(by)} past ${names[side]}${mayStickOut ? ', as it may: the envelope decides' : ''}.`,
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

function envelopeFinding({ card, closed, dressed, envelope, workshop }: CheckInput): Verdict {
  const { width, height, thickness } = postedCard(closed, dressed);
  const closest = closestEnvelope(width, height, thickness, workshop);
  const hint = closest
    ? `Of my envelopes ${closest.name} fits best.`
    : `None of my envelopes takes it: ${foldAnEnvelope({ width, height, thickness })}.`;
  const id = 'stays-inside/envelope';
  if (!envelope && dressed.envelope) {
    const [shorter, longer] = dressed.envelope.made.pocket;
    return {
      id,
      check: 'stays-inside',
      severity: 'pass',
      says: `The envelope that is folded for it takes it: ${spoken(longer)} × ${spoken(shorter)} inside.`,
    };
  }
  // Without a chosen one, a card that only has to fit an envelope fits if any does.
  if (!envelope) return { id, check: 'stays-inside', severity: closest || card.within !== 'envelope' ? 'pass' : 'warn', says: hint };
  const ease = easeIn(width, height, thickness, envelope);
  const worst = fits(width, height, thickness, envelope) ? 0 : Math.max(-ease.long, -ease.short);
  const [longer, shorter] = [Math.max(width, height), Math.min(width, height)];
  const change = [
    ...(ease.long < 0 ? [`its side of ${spoken(longer)} would have to be ${spoken(-ease.long)} shorter`] : []),
    ...(ease.short < 0 ? [`its side of ${spoken(shorter)} would have to be ${spoken(-ease.short)} shorter`] : []),
  ];
  return {
    id,
    check: 'stays-inside',
    severity: worst === 0 ? 'pass' : 'fail',
    value: worst,
    limit: 0,
    unit: 'mm',
    says:
      worst === 0
        ? `Fits the envelope ${envelope.name} with ${spoken(ease.long)} and ${spoken(ease.short)} to spare, thickness taken off both ways.`
        : `Too large for the envelope ${envelope.name} by ${spoken(worst)}: ${change.join(', and ')} (its thickness of ${spoken(thickness)} is lost both ways). ${hint}`,
  };
}
