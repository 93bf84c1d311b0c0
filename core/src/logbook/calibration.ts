import { chiSquare, deviation, DEVIATES, mean, median, studentT } from '../measure/spread.js';
import type { Mm } from '../measure/units.js';
import type { Workshop } from '../supplies/workshop.js';
import type { Calibration } from '../supplies/calibration.js';
import type { Build, Measure } from './build.js';

/** Fewer measurements of one thing say nothing. */
const LEAST_MEASURES = 6;
/** A spread takes more of them. */
const LEAST_FOR_SPREAD = 10;
/** Nobody sets a tool by less. */
const WORTH_SETTING: Mm = 0.1;
/** Measurements farther from their middle than so many spreads are slips of reading or writing. */
const SLIP = 4;
/** A spread by the median is this much smaller than a standard deviation where values are normal. */
const MEDIAN_TO_DEVIATION = 1.4826;
/** Two readings of a ruler rarely differ by less. */
const RULER: Mm = 0.1;

/** What measurements say about a tool, a stock or a hand, and whether that is certain enough to be offered. */
export interface Evidence extends Calibration {
  name: string;
  /** measurements that were left out as slips */
  leftOut: number;
  /** what is in force now */
  now: Mm;
  /** it differs from what is in force by more than chance and a ruler explain */
  offered: boolean;
}

/** Every measurement of some builds, as far off as it came out; with folds counted where folds make it. */
const all = (builds: readonly Pick<Build, 'measures'>[]): readonly Measure[] => builds.flatMap(({ measures }) => measures);

/**
 * What the measurements of builds say, for each tool, stock and kind of work that was measured often enough. A mean is held to be
 * off where it is outside its own interval of 99.5 per cent and more than a tenth of a millimetre; its uncertainty is the half
 * interval of 95 per cent (Student). A spread is what is left after each tool's own mean is taken off (chi-square).
 */
export function evidenceOf(builds: readonly Pick<Build, 'measures'>[], workshop: Workshop): Evidence[] {
  const measures = all(builds);
  return [
    ...offsets('board', measures, ['score'], workshop.boards, workshop),
    ...offsets('trimmer', measures, ['trim', 'cut'], workshop.trimmers, workshop),
    ...folds(measures, workshop),
    ...spreads('hand-score', measures, ['score'], workshop),
    ...spreads('hand-cut', measures, ['trim', 'cut'], workshop),
  ];
}

const off = ({ planned, measured }: Measure): Mm => measured - planned;

/** Values without slips. */
function kept(values: readonly Mm[]): Mm[] {
  const middle = median(values);
  const spread = Math.max(RULER, MEDIAN_TO_DEVIATION * median(values.map((value) => Math.abs(value - middle))));
  return values.filter((value) => Math.abs(value - middle) <= SLIP * spread);
}

const inForce = ({ calibrations = [] }: Workshop, kind: Calibration['kind'], id: string): Mm =>
  calibrations.find((each) => each.kind === kind && each.id === id)?.value ?? 0;

function offsets(
  kind: 'board' | 'trimmer',
  measures: readonly Measure[],
  what: readonly Measure['what'][],
  tools: readonly { id: string; name: string }[],
  workshop: Workshop,
): Evidence[] {
  return tools.flatMap(({ id, name }) => {
    const values = measures.filter((each) => what.includes(each.what) && each.tool === id).map(off);
    return meanOf({ kind, id, name, values, now: inForce(workshop, kind, id) });
  });
}

/** A panel between folds comes out wider by what its folds take: half of a fold goes to either side of it. */
function folds(measures: readonly Measure[], workshop: Workshop): Evidence[] {
  return workshop.stocks.flatMap(({ id, name }) => {
    const values = measures.flatMap((each) => (each.what === 'panel' && each.stock === id ? [off(each) / (each.folds ?? 2)] : []));
    return meanOf({ kind: 'fold', id, name, values, now: inForce(workshop, 'fold', id) });
  });
}

function meanOf({ values, now, ...of }: Pick<Evidence, 'kind' | 'id' | 'name' | 'now'> & { values: readonly Mm[] }): Evidence[] {
  if (values.length < LEAST_MEASURES) return [];
  const good = kept(values);
  const count = good.length;
  if (count < LEAST_MEASURES) return [];
  const value = mean(good);
  const error = deviation(good) / Math.sqrt(count);
  const certain = Math.abs(value - now) > Math.max(WORTH_SETTING, studentT(DEVIATES.strict, count - 1) * error);
  const uncertainty = studentT(DEVIATES.usual, count - 1) * error;
  return [{ ...of, now, value, uncertainty, count, leftOut: values.length - count, offered: certain }];
}

function spreads(
  kind: 'hand-score' | 'hand-cut',
  measures: readonly Measure[],
  what: readonly Measure['what'][],
  workshop: Workshop,
): Evidence[] {
  const own = measures.filter((each) => what.includes(each.what));
  const tools = [...new Set(own.map(({ tool }) => tool))];
  const groups = tools.map((tool) => kept(own.filter((each) => each.tool === tool).map(off))).filter(({ length }) => length > 1);
  const count = groups.flat().length;
  const degrees = count - groups.length;
  if (count < LEAST_FOR_SPREAD || degrees < 1) return [];
  const squares = groups.flatMap((group) => group.map((value) => (value - mean(group)) ** 2)).reduce((sum, value) => sum + value, 0);
  const value = Math.sqrt(squares / degrees);
  const limit = (z: number): Mm => Math.sqrt(squares / chiSquare(z, degrees));
  const now = kind === 'hand-score' ? workshop.hand.score : workshop.hand.cut;
  const uncertainty = Math.max(limit(-DEVIATES.usual) - value, value - limit(DEVIATES.usual));
  const offered = now < limit(DEVIATES.strict) || now > limit(-DEVIATES.strict);
  const name = kind === 'hand-score' ? 'My hand, scoring' : 'My hand, cutting';
  return [{ kind, id: 'hand', name, value, uncertainty, count, now, leftOut: own.length - count, offered }];
}

/** The workshop with a calibration in force; what it replaces is kept, so that it can be taken back. */
export function accepted(workshop: Workshop, { kind, id, value, uncertainty, count }: Calibration): Workshop {
  const others = (workshop.calibrations ?? []).filter((each) => each.kind !== kind || each.id !== id);
  const earlier = (workshop.calibrations ?? []).find((each) => each.kind === kind && each.id === id);
  const size = handSize(kind);
  const before = size ? (earlier?.before ?? workshop.hand[size]) : undefined;
  const calibrations = [...others, { kind, id, value, uncertainty, count, ...(before !== undefined && { before }) }];
  return { ...workshop, calibrations, ...(size && { hand: { ...workshop.hand, [size]: value } }) };
}

/** The workshop as it was before a calibration was accepted. */
export function takenBack(workshop: Workshop, kind: Calibration['kind'], id: string): Workshop {
  const calibration = (workshop.calibrations ?? []).find((each) => each.kind === kind && each.id === id);
  if (!calibration) return workshop;
  const left = workshop.calibrations!.filter((each) => each !== calibration);
  const { calibrations: _, ...rest } = workshop;
  const size = handSize(kind);
  return {
    ...rest,
    ...(left.length > 0 && { calibrations: left }),
    ...(size && calibration.before !== undefined && { hand: { ...workshop.hand, [size]: calibration.before } }),
  };
}

const handSize = (kind: Calibration['kind']): 'score' | 'cut' | undefined =>
  kind === 'hand-score' ? 'score' : kind === 'hand-cut' ? 'cut' : undefined;
