import { envelopeOf, ROOT, type CardDocument } from '../card/document.js';
import { caliperOf } from '../card/card-stocks.js';
import { claimsOf, draw, type Drawing } from '../card/draw.js';
import { join, type Design } from '../card/join.js';
import { MEETS_WITHIN } from '../check/meets.js';
import { nominalClosedPose } from '../card/nominal-pose.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { postedCard } from '../dress/posted-card.js';
import { closuresOf, residuals } from '../linkage/closure.js';
import type { Pose } from '../linkage/kinematics.js';
import { carry, carryDirection, dot, minus } from '../linkage/rigid.js';
import { spanningTree } from '../linkage/spanning-tree.js';
import type { Mm } from '../measure/units.js';
import { normals, shareOf, sharesFor, type Share } from '../measure/seeded.js';
import { boxOf } from '../plane/outline.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { HandErrors, Workshop } from '../supplies/workshop.js';
import { errorSources, ONE_CUT, type ErrorSource } from './error-sources.js';
import { ASKED, type Asked, type SampleCounts } from './sample-counts.js';

/** A number of the closed card, and by how much it follows each error. */
interface Row {
  at: number;
  per: Float64Array;
}

/** What must hold of some numbers: their length together, or how far apart the outermost of two groups lie, is at most so much. */
type Must =
  | { asked: Asked; kind: 'length'; rows: number[]; most: Mm }
  | { asked: Asked; kind: 'below'; rows: number[]; most: Mm }
  | { asked: Asked; kind: 'span'; high: number[]; low: number[]; most: Mm };

/** Everything that samples need of a card: numbers of the closed card and how they follow errors, and what must hold. */
export interface ToleranceModel {
  sources: Pick<ErrorSource, 'id' | 'kind' | 'name' | 'sigma'>[];
  rows: Row[];
  musts: Must[];
  /** what could not be tried out, because the card comes apart with it: it is taken as exact */
  untold: string[];
}

/** What matters most, and how exact it must be. */
export interface Critical {
  source: string;
  kind: ErrorSource['kind'];
  name: string;
  sigma: Mm;
  /** share of cards that would work were it exact */
  ifExact: number;
  /** how exact it must be for 95 of 100 cards to work, the others as they are; null where it cannot be enough */
  mustBe: Mm | null;
}

export interface ToleranceStudy {
  samples: number;
  seed: number;
  shares: Record<Asked | 'works', Share>;
  critical: Critical[];
  /** what is taken as exact, because it could not be tried out */
  untold: string[];
  /** the piece to cut last, against those that it must fit, where cutting matters */
  cutLast: string | null;
  /** how many samples take how much of the play at their most strained place: up to 1 they work */
  used: { upTo: number; samples: number }[];
}

/** A trial error, so small that no panel comes or goes by it. */
const TRIAL: Mm = 0.05;
const SWINGS: Mm = 0.05;
/** How far out of the card's outline what lies inside it may come before it is seen. */
const INSIDE: Mm = 0.5;
/** Corners so near to the edge of the closed card may come to be its outermost. */
const NEAR_EDGE: Mm = 4;
const BIN = 0.1;
const BINS = 31;
const ENOUGH = 0.95;
const MOST_CRITICAL = 8;
const HALVINGS = 12;

/**
 * How the closed card follows every error of hand and tool: each is made once in the drawing, which is joined again, and the
 * closed card laid with every crease at its nominal angle. There everything moves evenly with an error: folded over by half a
 * turn, what lies beyond a score goes by twice what it is off.
 * @returns what samples are worked out from, or why the card cannot be judged
 */
export function toleranceModel(
  card: CardDocument,
  workshop: Workshop,
  hand: HandErrors = workshop.hand,
): ToleranceModel | { says: string } {
  const outcome = evaluate(card, workshop);
  if (!outcome.ok) return { says: outcome.problems[0]!.says };
  const drawn = draw(card);
  if (!drawn.ok) return { says: drawn.problems[0]!.says };
  const { evaluation } = outcome;
  const asked = measured(evaluation);
  const sources = errorSources(evaluation.design, hand);
  const now = asked.read(evaluation.design)!;
  const rows = now.map((at): Row => ({ at, per: new Float64Array(sources.length) }));
  const untold: string[] = [];
  sources.forEach(({ in: place, name }, s) => {
    if (place.kind === 'swing') {
      const row = asked.swings.get(place.id);
      if (row !== undefined) rows[row]!.per[s] = -place.sign;
      return;
    }
    const off = (by: Mm): number[] | undefined =>
      asked.read(place.kind === 'design' ? place.off(evaluation.design, by) : joinedFrom(place.off(drawn.drawing, by)));
    const by = [TRIAL, -TRIAL].find((trial) => off(trial));
    if (by === undefined) untold.push(name);
    else off(by)!.forEach((at, r) => (rows[r]!.per[s] = (at - now[r]!) / by));
  });
  return { sources: sources.map(({ id, kind, name, sigma }) => ({ id, kind, name, sigma })), rows, musts: asked.musts, untold };
}

function joinedFrom(drawing: Drawing): Design | undefined {
  const joined = join(drawing);
  return joined.ok ? joined.design : undefined;
}

/** The numbers of a closed card that samples ask for, and what must hold of them. */
interface Measured {
  musts: Must[];
  /** the row of each swinging part's clearance, with its sign turned: it must stay below a little */
  swings: ReadonlyMap<string, number>;
  /** all numbers of a design that is like the one it was made for; nothing where it is not */
  read: (design: Design | undefined) => number[] | undefined;
}

function measured(evaluation: Evaluation): Measured {
  const { design } = evaluation;
  const pose = nominalClosedPose(design);
  const musts: Must[] = [];
  let count = 0;
  const take = (n: number): number[] => Array.from({ length: n }, () => count++);
  const joints = jointsOf(design, pose).length / 3;
  for (let i = 0; i < joints; i++) musts.push({ asked: 'closes', kind: 'length', rows: take(3), most: CLOSING_PLAY });
  for (const meeting of claimsOf(design, 'meeting')) {
    for (let end = 0; end < 2; end++)
      musts.push({ asked: 'meets', kind: 'length', rows: take(meeting.sideBySide ? 1 : 3), most: MEETS_WITHIN });
  }
  const swings = new Map<string, number>();
  for (const { id, reach, opening } of claimsOf(design, 'swing')) {
    if (opening - reach <= ONE_CUT) continue;
    const [row] = take(1) as [number];
    swings.set(id, row);
    musts.push({ asked: 'swings', kind: 'below', rows: [row], most: SWINGS });
  }
  const corners = outermost(design, pose);
  const places = corners.map(() => take(2) as [number, number]);
  const outline = boxOf(design.base.closedOutline);
  const sides = [
    { axis: 0, most: outline.maxX, sign: 1 },
    { axis: 0, most: -outline.minX, sign: -1 },
    { axis: 1, most: outline.maxY, sign: 1 },
    { axis: 1, most: -outline.minY, sign: -1 },
  ] as const;
  const nowAt = cornersAt(design, pose, corners);
  sides.forEach(({ axis, most, sign }) => {
    corners.forEach((corner, i) => {
      const out = sign * nowAt[2 * i + axis]! - most;
      // What ends outside the outline on purpose is no fault of a hand.
      if (out <= 1e-6 && corner.stands)
        musts.push({ asked: 'inside', kind: 'below', rows: [sign > 0 ? places[i]![axis] : -1 - places[i]![axis]], most: most + INSIDE });
    });
  });
  const envelope = envelopeOf(design.card);
  if (envelope) {
    const { width, height, thickness } = postedCard(evaluation.closed, evaluation.dressed);
    const [across, along] = width >= height ? [envelope.long, envelope.short] : [envelope.short, envelope.long];
    // What is glued on and sticks out is as it is: only the card itself is off.
    const { box } = evaluation.closed;
    const beyond = [width - (box.maxX - box.minX), height - (box.maxY - box.minY)] as const;
    ([across, along] as const).forEach((inner, axis) => {
      const rows = places.map((place) => place[axis as 0 | 1]);
      musts.push({ asked: 'fits', kind: 'span', high: rows, low: rows, most: inner - thickness - beyond[axis]! });
    });
  }
  const read = (changed: Design | undefined): number[] | undefined => {
    if (!changed || changed.panels.length !== design.panels.length) return undefined;
    const lying = nominalClosedPose(changed);
    const found = [...jointsOf(changed, lying), ...meetingsOf(changed, lying), ...swingsAt(changed), ...cornersAt(changed, lying, corners)];
    return found.length === count && found.every(Number.isFinite) ? found : undefined;
  };
  return { musts, swings, read };
}

/** How far every joint misses, three numbers each. */
function jointsOf({ linkage }: Design, pose: Pose): number[] {
  const tree = spanningTree(linkage);
  const folds = new Float64Array(linkage.hinges.length);
  return Array.from({ length: linkage.tiers }).flatMap((_, tier) => {
    const { pairs } = closuresOf(linkage, tree, tier);
    const out = new Float64Array(3 * pairs.length);
    residuals(out, { pairs, touches: [], couplings: [], rows: out.length }, linkage, pose, folds);
    return Array.from(out);
  });
}

function meetingsOf(design: Design, pose: Pose): number[] {
  return claimsOf(design, 'meeting').flatMap(({ a, b, sideBySide }) => {
    const [bodyA, bodyB] = [design.linkage.bodyOf.get(a.panel)!, design.linkage.bodyOf.get(b.panel)!];
    return (['from', 'to'] as const).flatMap((end): number[] => {
      const [pa, pb] = [asCut(design, a.panel, a[end]), asCut(design, b.panel, b[end])];
      const offset = minus(carry(pose[bodyB]!, pb[0], pb[1], 0), carry(pose[bodyA]!, pa[0], pa[1], 0));
      if (!sideBySide) return [...offset];
      return [dot(offset, carryDirection(pose[bodyA]!, ...sideBySide.outward, 0)) - sideBySide.gap];
    });
  });
}

/** A point that was drawn on the far edge of a blank lies on that edge as it was cut. */
function asCut({ panels, linkage, pieces, card }: Design, panel: string, [x, y]: readonly [number, number]): readonly [number, number] {
  const { piece } = panels[linkage.bodyOf.get(panel)!]!;
  const drawn = draw(card);
  const meant = drawn.ok ? drawn.drawing.pieces.find(({ id }) => id === piece.id) : undefined;
  const now = pieces.find(({ id }) => id === piece.id);
  if (!meant || !now || meant === now) return [x, y];
  const [from, to] = [boxOf(meant.outline), boxOf(now.outline)];
  return [Math.abs(x - from.maxX) < 1e-6 ? to.maxX : x, Math.abs(y - from.maxY) < 1e-6 ? to.maxY : y];
}

/** By how much each swinging part lacks clearance; less than nothing where it has some. */
function swingsAt(design: Design): number[] {
  return claimsOf(design, 'swing')
    .filter(({ reach, opening }) => opening - reach > ONE_CUT)
    .map(({ panel, reach, opening }) => {
      const t = caliperOf(design, design.panels[design.linkage.bodyOf.get(panel)!]!.piece);
      return Math.sqrt(reach * reach + t * t) - opening;
    });
}

interface Corner {
  body: number;
  nth: number;
  /** of a part that stands on the base, or of its moving panels: it must stay inside */
  stands: boolean;
}

/** Corners of panels that lie near the edge of the closed card. */
function outermost(design: Design, pose: Pose): Corner[] {
  const all = design.panels.flatMap(({ area, part, piece }, body) =>
    area.outer.map((_, nth): Corner => ({ body, nth, stands: (part ?? piece.part ?? ROOT) !== ROOT })),
  );
  const at = cornersAt(design, pose, all);
  const xs = all.map((_, i) => at[2 * i]!);
  const ys = all.map((_, i) => at[2 * i + 1]!);
  const [minX, maxX, minY, maxY] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  return all.filter((_, i) => Math.min(xs[i]! - minX, maxX - xs[i]!, ys[i]! - minY, maxY - ys[i]!) < NEAR_EDGE);
}

function cornersAt({ panels }: Design, pose: Pose, corners: readonly Corner[]): number[] {
  return corners.flatMap(({ body, nth }) => {
    const point = panels[body]!.area.outer[nth];
    if (!point) return [NaN, NaN];
    const [x, y] = carry(pose[body]!, point[0], point[1], 0);
    return [x, y];
  });
}

/** Samples `from` up to `to` of a seed: the same whoever works them out. */
export function sampled(model: ToleranceModel, seed: number, from: number, to: number): SampleCounts {
  const { sources, rows, musts } = model;
  const n = sources.length;
  const errors = new Float64Array(n);
  const values = new Float64Array(rows.length);
  const counts: SampleCounts = {
    samples: to - from,
    well: { closes: 0, meets: 0, swings: 0, inside: 0, fits: 0, works: 0 },
    ifExact: sources.map(() => 0),
    used: new Array<number>(BINS).fill(0),
  };
  for (let i = from; i < to; i++) {
    drawErrors(errors, model, seed, i);
    valuesFor(values, rows, errors);
    const failed = new Set(musts.filter((must) => !holds(must, values)).map(({ asked }) => asked));
    for (const asked of ASKED) if (!failed.has(asked)) counts.well[asked]++;
    if (failed.size === 0) counts.well.works++;
    counts.used[binOf(mostUsed(model, values), failed.size === 0)]!++;
    for (let s = 0; s < n; s++) {
      if (failed.size === 0 || worksWith(model, values, s, -errors[s]!)) counts.ifExact[s]!++;
    }
  }
  return counts;
}

function drawErrors(errors: Float64Array, { sources }: ToleranceModel, seed: number, nth: number): void {
  normals(errors, sharesFor(seed, nth));
  for (let s = 0; s < errors.length; s++) errors[s]! *= sources[s]!.sigma;
}

function valuesFor(values: Float64Array, rows: readonly Row[], errors: Float64Array): void {
  for (let r = 0; r < rows.length; r++) {
    const { at, per } = rows[r]!;
    let sum = at;
    for (let s = 0; s < errors.length; s++) sum += per[s]! * errors[s]!;
    values[r] = sum;
  }
}

/** Whether a sample works with one of its errors changed. */
function worksWith({ rows, musts }: ToleranceModel, values: Float64Array, source: number, by: number): boolean {
  const changed = values.map((value, r) => value + rows[r]!.per[source]! * by);
  return musts.every((must) => holds(must, changed));
}

const valueAt = (values: Float64Array, row: number): number => (row >= 0 ? values[row]! : -values[-1 - row]!);

function holds(must: Must, values: Float64Array): boolean {
  if (must.kind === 'length') {
    let sum = 0;
    for (const row of must.rows) sum += values[row]! * values[row]!;
    return sum <= must.most * must.most;
  }
  if (must.kind === 'below') return must.rows.every((row) => valueAt(values, row) <= must.most);
  let [high, low] = [-Infinity, Infinity];
  for (const row of must.high) high = Math.max(high, values[row]!);
  for (const row of must.low) low = Math.min(low, values[row]!);
  return high - low <= must.most;
}

/** The tenth that a share of the play falls into: up to the whole where the sample works, beyond it where it does not. */
function binOf(share: number, works: boolean): number {
  const bin = Math.floor(share / BIN);
  const whole = Math.round(1 / BIN);
  return works ? Math.min(whole - 1, bin) : Math.max(whole, Math.min(BINS - 1, bin));
}

/** How much of its play the most strained place takes: 1 is all of it. */
function mostUsed({ rows, musts }: ToleranceModel, values: Float64Array): number {
  let most = 0;
  for (const must of musts) {
    if (must.kind === 'length') {
      let sum = 0;
      for (const row of must.rows) sum += values[row]! * values[row]!;
      most = Math.max(most, Math.sqrt(sum) / must.most);
    } else if (must.kind === 'below') {
      for (const row of must.rows) {
        const meant = row >= 0 ? rows[row]!.at : -rows[-1 - row]!.at;
        most = Math.max(most, (valueAt(values, row) - meant) / Math.max(1e-6, must.most - meant));
      }
    }
  }
  return most;
}

/** What comes of all samples: shares, and what matters most. */
export function toleranceStudy(model: ToleranceModel, seed: number, counts: SampleCounts): ToleranceStudy {
  const { samples, well } = counts;
  const shares = Object.fromEntries(
    Object.entries(well).map(([asked, count]) => [asked, shareOf(count, samples)]),
  ) as ToleranceStudy['shares'];
  const order = model.sources
    .map((_, s) => s)
    .filter((s) => counts.ifExact[s]! > well.works)
    .sort((a, b) => counts.ifExact[b]! - counts.ifExact[a]!);
  const critical = order.slice(0, MOST_CRITICAL).map((s): Critical => {
    const { id, kind, name, sigma } = model.sources[s]!;
    const ifExact = counts.ifExact[s]! / samples;
    return { source: id, kind, name, sigma, ifExact, mustBe: ifExact >= ENOUGH ? exactEnough(model, seed, samples, s) : null };
  });
  const cut = critical.find(({ kind, source }) => kind === 'cut' && /\/(width|height)$/.test(source));
  return {
    samples,
    seed,
    shares,
    critical,
    untold: model.untold,
    cutLast: cut ? cut.source.replace(/\/(width|height)$/, '') : null,
    used: counts.used.map((count, k) => ({ upTo: Math.round((k + 1) * BIN * 10) / 10, samples: count })),
  };
}

/** The largest deviation of one source with which 95 of 100 samples work, the others as they are. */
function exactEnough(model: ToleranceModel, seed: number, samples: number, source: number): Mm {
  const errors = new Float64Array(model.sources.length);
  const values = new Float64Array(model.rows.length);
  const tries = Math.min(samples, 2000);
  const works = (share: number): boolean => {
    let well = 0;
    for (let i = 0; i < tries; i++) {
      drawErrors(errors, model, seed, i);
      errors[source]! *= share;
      valuesFor(values, model.rows, errors);
      if (model.musts.every((must) => holds(must, values))) well++;
    }
    return well >= ENOUGH * tries;
  };
  let [low, high] = [0, 1];
  if (works(1)) return model.sources[source]!.sigma;
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (low + high) / 2;
    if (works(middle)) low = middle;
    else high = middle;
  }
  return low * model.sources[source]!.sigma;
}
