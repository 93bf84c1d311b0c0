import type { CardDocument } from '../card/document.js';
import { TOPPER_HEIGHT, CAPITALS, FILM_LENGTH, FILM_WIDTH, GLUE_DEEP, type Closure, type Dressing, type Topper } from '../card/dressing.js';
import type { Evaluation } from '../evaluate.js';
import { rulerStep, type Mm } from '../measure/units.js';
import { boxOf } from '../plane/outline.js';

/** How much wider and higher a panel has become. */
type Growth = readonly [across: number, along: number];

/**
 * What a card wears, brought along as its panels became smaller or larger: places by how each panel grew either way, sizes by
 * the lesser of both, letters and glue with them, down to a mark. Borders of layers, bands’ widths and discs stay as they are.
 * @param before the card as it was  @param after the same card with other sizes, whatever it wears
 */
export function dressingInProportion(before: Evaluation, after: Evaluation): Dressing | undefined {
  const { dressing, notation } = before.design.card;
  if (!dressing) return undefined;
  const step = rulerStep(notation);
  const down = (mm: Mm, least: Mm): Mm => Math.max(least, Math.floor(mm / step + 1e-6) * step);
  const near = (mm: Mm): Mm => Math.round(mm / step) * step;
  const grown = (panel: string): Growth => {
    const [from, to] = [before, after].map(({ design }) => {
      const body = design.linkage.bodyOf.get(panel);
      return body === undefined ? undefined : boxOf(design.panels[body]!.area.outer);
    });
    if (!from || !to) return [1, 1];
    return [(to.maxX - to.minX) / (from.maxX - from.minX), (to.maxY - to.minY) / (from.maxY - from.minY)];
  };
  const place = <P extends { across: Mm; along: Mm }>(each: P, [x, y]: Growth): P =>
    isSame(x) && isSame(y)
      ? each
      : { ...each, across: isSame(x) ? each.across : near(each.across * x), along: isSame(y) ? each.along : near(each.along * y) };
  const topper = (each: Topper): Topper => {
    const growth = grown(each.panel);
    const share = Math.min(...growth);
    const placed = place(each, growth);
    if (share >= 1 - 1e-9) return placed;
    return {
      ...placed,
      height: down(each.height * share, TOPPER_HEIGHT.min),
      ...(each.width !== undefined && { width: down(each.width * share, TOPPER_HEIGHT.min) }),
      ...(each.glued && { glued: { ...each.glued, deep: down(each.glued.deep * share, GLUE_DEEP.min) } }),
      ...(each.film && {
        film: { ...each.film, wide: down(each.film.wide * share, FILM_WIDTH.min), long: down(each.film.long * share, FILM_LENGTH.min) },
      }),
      // Letters are no ruler's marks.
      ...(each.greeting && { greeting: { ...each.greeting, capital: Math.max(CAPITALS.min, each.greeting.capital * share) } }),
    };
  };
  const [wide, high] = [before, after]
    .map(({ closed: { box } }) => [box.maxX - box.minX, box.maxY - box.minY] as const)
    .reduce((a, b) => [b[0] / a[0], b[1] / a[1]]);
  const closure = (each: Closure): Closure => {
    if (each.kind === 'magnet') return place(each, grown(each.panel));
    const along = each.around === 'along' ? wide! : high!;
    return isSame(along) ? each : { ...each, at: near(each.at * along) };
  };
  return {
    ...dressing,
    ...(dressing.toppers && { toppers: dressing.toppers.map(topper) }),
    ...(dressing.closures && { closures: dressing.closures.map(closure) }),
  };
}

const isSame = (growth: number): boolean => Math.abs(growth - 1) < 1e-9;

/** Whether two cards wear the same. */
export const wearsSame = (a: Pick<CardDocument, 'dressing'>, b: Pick<CardDocument, 'dressing'>): boolean =>
  JSON.stringify(a.dressing ?? null) === JSON.stringify(b.dressing ?? null);
