import { bandRound, NOTATIONS, parseLength, sayLength, squareEnvelope, type Notation } from '@diptychon/core';
import { UsageError, type Arguments } from './arguments.js';

type LengthOption = 'width' | 'height' | 'thickness' | 'ease' | 'slip' | 'overlap';

/** What each length may be, in mm. */
const LENGTHS: Readonly<Record<LengthOption, { min: number; max: number }>> = {
  width: { min: 20, max: 1000 },
  height: { min: 20, max: 1000 },
  thickness: { min: 0, max: 60 },
  ease: { min: 0, max: 30 },
  slip: { min: 0, max: 30 },
  overlap: { min: 2, max: 60 },
};

function notationOf({ options }: Arguments): Notation {
  const wanted = options.get('notation') ?? 'mm';
  const known = NOTATIONS.find(({ id }) => id === wanted);
  if (!known) throw new UsageError(`--notation: “${wanted}” is not allowed; allowed: ${NOTATIONS.map(({ id }) => id).join(', ')}`);
  return known.id;
}

/** @param preset where it may be left out; else its absence is told */
function length(given: Arguments, name: LengthOption, preset?: number): number {
  const typed = given.options.get(name);
  const { min, max } = LENGTHS[name];
  const notation = notationOf(given);
  const allowed = `allowed is ${sayLength(min, notation)} to ${sayLength(max, notation)}`;
  if (typed === undefined) {
    if (preset !== undefined) return preset;
    throw new UsageError(`--${name}: say it; ${allowed}`);
  }
  const read = parseLength(typed, notation, `--${name}`);
  if (!read.ok) throw new UsageError(read.problem);
  if (read.value < min || read.value > max) throw new UsageError(`--${name}: ${typed.trim()} does not work; ${allowed}`);
  return read.value;
}

const unlessGiven = (given: Arguments, name: LengthOption): number | undefined =>
  given.options.has(name) ? length(given, name) : undefined;

/** The envelope that a square folds into, in mm: as a record for `--json`, and in lines for people. */
function envelopeFor(given: Arguments): { record: object; lines: string } {
  const card = { width: length(given, 'width'), height: length(given, 'height'), thickness: length(given, 'thickness', 0) };
  const made = squareEnvelope(card, unlessGiven(given, 'ease'), unlessGiven(given, 'overlap'));
  const notation = notationOf(given);
  const say = (mm: number): string => sayLength(mm, notation);
  const { square, firstFold, secondFold, notch, pocket, seam } = made;
  return {
    record: made,
    lines: `A square of ${say(square)}. Call two opposite corners of it A, the others B.
On every edge make a mark ${say(firstFold)} from its corner A, which is ${say(secondFold)} from its corner B.
Cut a notch ${say(notch)} deep at every mark: its point is a corner of the pocket.
Score from point to point and fold all four corners in, A first: the pocket is ${say(pocket[0])} × ${say(pocket[1])} inside, and the flaps of both corners B lap over each other by ${say(seam)}.
`,
  };
}

/** A band round a closed card, in mm. */
function bandFor(given: Arguments): { record: object; lines: string } {
  const around = given.options.get('around') ?? 'width';
  if (around !== 'width' && around !== 'height') throw new UsageError(`--around: “${around}” is not allowed; allowed: width, height`);
  const card = { width: length(given, 'width'), height: length(given, 'height'), thickness: length(given, 'thickness'), around } as const;
  const made = bandRound(card, unlessGiven(given, 'overlap'), unlessGiven(given, 'slip'));
  const notation = notationOf(given);
  const say = (mm: number): string => sayLength(mm, notation);
  return {
    record: { around, ...made },
    lines: `A strip ${say(made.length)} long.
Folds at ${made.folds.map(say).join(', ')} from its first end; the last ${say(made.overlap)} lap over the beginning.
Join it to itself round the closed card, not to the card: it has ${say(made.slip)} to slip, and slides off along the ${made.slidesAlong}.
`,
  };
}

/** The commands for what a card is wrapped in: what each may be given besides a notation, and its work. */
export const WRAPPERS: ReadonlyMap<string, { options: readonly string[]; work: (given: Arguments) => { record: object; lines: string } }> =
  new Map([
    ['envelope', { options: ['width', 'height', 'thickness', 'ease', 'overlap'], work: envelopeFor }],
    ['band', { options: ['width', 'height', 'thickness', 'around', 'slip', 'overlap'], work: bandFor }],
  ]);
