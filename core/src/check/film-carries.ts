import { filmFoot } from '../dress/film-foot.js';
import type { PlacedTopper } from '../dress/toppers.js';
import { spoken } from '../measure/sentence.js';
import { printGrams } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { areaOf } from '../plane/outline.js';
import type { Check, Verdict } from './finding.js';
import { bucklingLoad, MM2_PER_M2, OWN_SHARE, secondMoment } from './stiffness.js';

/** A wider strip is tried in steps of this. */
const WIDER: Mm = 1;
const WIDEST: Mm = 200;

/** Does film carry the topper that stands on it past an edge? What is glued on it keeps the rest of it straight. */
export const filmCarries: Check = ({ dressed }) => dressed.toppers.flatMap(carries);

function carries(placed: PlacedTopper): Verdict[] {
  const film = placed.under.find(({ as }) => as === 'film');
  const { free, toMiddle } = filmFoot(placed);
  if (!film || free <= 0) return [];
  const grams = ({ area, weight }: Pick<PlacedTopper, 'area' | 'weight'>): number => (areaOf(area) / MM2_PER_M2) * weight;
  const carried = [placed, ...placed.under.filter((each) => each !== film)].reduce((sum, each) => sum + grams(each), 0);
  const { wide, long } = placed.topper.film!;
  const load = (width: Mm): number => carried + OWN_SHARE * ((toMiddle * width) / MM2_PER_M2) * film.stock.weight;
  const limit = (width: Mm): number => bucklingLoad(film.stock.stiffness * secondMoment(width, film.stock.caliper), toMiddle);
  const ok = load(wide) < limit(wide);
  let enough = Math.ceil(wide);
  while (enough <= WIDEST && load(enough) >= limit(enough)) enough += WIDER;
  const named = `${placed.number} (${placed.topper.name ?? placed.outlineName})`;
  const cure =
    enough <= WIDEST
      ? `Make it at least ${spoken(enough)} wide, let it stand lower, or choose a thicker film.`
      : 'Let it stand lower, or choose a thicker film.';
  return [
    {
      id: `stiff-enough/${placed.topper.id}`,
      check: 'stiff-enough',
      severity: ok ? 'pass' : 'warn',
      value: load(wide),
      limit: limit(wide),
      unit: 'g',
      panels: [placed.panel],
      says: ok
        ? `The film of ${named} carries ${printGrams(load(wide))} and would buckle under ${printGrams(limit(wide))}.`
        : `The film of ${named}, ${spoken(wide)} wide and ${spoken(long)} long, carries ${printGrams(load(wide))} and would buckle under ${printGrams(limit(wide))}, with ${spoken(toMiddle)} from its panel to the middle of what it carries. ${cure}`,
    },
  ];
}
