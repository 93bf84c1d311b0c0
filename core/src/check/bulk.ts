import { spoken } from '../measure/sentence.js';
import { areaBelow } from '../plane/clip.js';
import { areaOf, boxOf } from '../plane/outline.js';
import { BULK_NOTICED, UNEVEN_NOTICED } from '../supplies/limits.js';
import type { Check, CheckInput, Verdict } from './finding.js';
import { MM2_PER_M2 } from './stiffness.js';
import { weightOf } from '../card/weight.js';
import { postedCard } from '../dress/posted-card.js';

const NO_SIDES: Partial<Record<'fold' | 'free' | 'lower' | 'upper', string>> = {};

/** How thick is the closed card, where, is one side thicker than the other, and does the maker's post take it? */
export const bulk: Check = (input) => [thickest(input), uneven(input), ...post(input)];

function thickest({ design, closed, card }: CheckInput): Verdict {
  const { thickness, at, bodies } = closed.thickest;
  const { minX, minY } = closed.box;
  const sides = design.base.sides ?? NO_SIDES;
  const asked = card.post?.thickness !== undefined;
  const thick = thickness > BULK_NOTICED && !asked;
  return {
    id: 'bulk',
    check: 'bulk',
    severity: thick ? 'warn' : 'pass',
    value: thickness,
    limit: BULK_NOTICED,
    unit: 'mm',
    at: 0,
    panels: bodies.map((body) => design.panels[body]!.id),
    says:
      `Closed it is ${spoken(thickness)} thick at the thickest place, ${spoken(at[0] - minX)} from ${sides.fold ?? 'the fold'} and ${spoken(at[1] - minY)} from ${sides.lower ?? 'the lower end'}` +
      (thick ? '; ask what your post allows.' : '.'),
  };
}

/**
 * Mean thickness of the closed card's two halves, across and along: weight of paper in each over its half
 * of the closed outline. A card much thicker on one side rocks in its envelope and rubs at the edge.
 */
function uneven({ design, closed }: CheckInput): Verdict {
  const card = { outer: design.base.closedOutline, holes: [] };
  const { minX, maxX, minY, maxY } = boxOf(card.outer);
  const sides = { fold: 'the fold', free: 'the free edge', lower: 'the lower end', upper: 'the upper end', ...design.base.sides };
  const halves = [
    { line: { axis: 0 as const, at: (minX + maxX) / 2 }, below: sides.fold, above: sides.free },
    { line: { axis: 1 as const, at: (minY + maxY) / 2 }, below: sides.lower, above: sides.upper },
  ].map(({ line, below, above }) => {
    const [whole, lower] = [areaOf(card), areaBelow(card, line)];
    let [under, over] = [0, 0];
    for (const { area, thickness } of closed.pile) {
      const part = areaBelow(area, line);
      under += part * thickness;
      over += (areaOf(area) - part) * thickness;
    }
    return { by: under / lower - over / (whole - lower), below, above };
  });
  const worst = halves.reduce((most, half) => (Math.abs(half.by) > Math.abs(most.by) ? half : most));
  const value = Math.abs(worst.by);
  const seen = value > UNEVEN_NOTICED;
  const thicker = worst.by > 0 ? worst.below : worst.above;
  return {
    id: 'bulk/uneven',
    check: 'bulk',
    severity: seen ? 'warn' : 'pass',
    value,
    limit: UNEVEN_NOTICED,
    unit: 'mm',
    at: 0,
    says: seen
      ? `The half toward ${thicker} is on average ${spoken(value)} thicker than the other: it rocks in its envelope. A liner or layers on the thin side even it out.`
      : `Both halves are about equally thick (${spoken(value)} apart on average).`,
  };
}

/** Limits of the maker's own post, only where the maker entered them. */
function post({ card, design, closed, dressed }: CheckInput): Verdict[] {
  if (!card.post) return [];
  // What is wrapped round it and what is dotted on that is posted with it.
  const { width, height, thickness } = postedCard(closed, dressed);
  const wrapped = dressed.bands.reduce(
    (sum, { sheet, stock, closure }) => sum + ((sheet.width * sheet.height) / MM2_PER_M2) * stock.weight + (closure.gift?.grams ?? 0),
    0,
  );
  const limits: { id: string; limit: number | undefined; value: number; unit: 'mm' | 'g'; what: string }[] = [
    { id: 'thickness', limit: card.post.thickness, value: thickness, unit: 'mm', what: 'thick' },
    { id: 'long', limit: card.post.long, value: Math.max(width, height), unit: 'mm', what: 'long' },
    { id: 'short', limit: card.post.short, value: Math.min(width, height), unit: 'mm', what: 'wide' },
    { id: 'weight', limit: card.post.weight, value: weightOf(design) + wrapped, unit: 'g', what: 'in weight without its envelope' },
  ];
  return limits.flatMap(({ id, limit, value, unit, what }): Verdict[] => {
    if (limit === undefined) return [];
    const ok = value <= limit;
    const say = (n: number): string => (unit === 'mm' ? spoken(n) : `${Number(n.toFixed(1))} g`);
    return [
      {
        id: `bulk/post-${id}`,
        check: 'bulk',
        severity: ok ? 'pass' : 'fail',
        value,
        limit,
        unit,
        at: 0,
        says: ok
          ? `Your post takes it: ${say(value)} ${what}, up to ${say(limit)} allowed.`
          : `Your post does not take it: ${say(value)} ${what}, and ${say(limit)} is the limit you entered.`,
      },
    ];
  });
}
