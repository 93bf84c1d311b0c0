import {
  inSentence,
  couldBe,
  entriesOf,
  isJointOff,
  isLineOff,
  isStretchOff,
  printLength,
  reconcile,
  repair,
  rescue,
  resized,
  saidOf,
  sampled,
  sayLength,
  starterFor,
  toleranceModel,
  toleranceStudy,
  verdictLine,
  wordsOfStrange,
  type CardDocument,
  type Correction,
  type Finding,
  type Made,
  type Notation,
  type Off,
  type Reconciled,
  type Resized,
  type SaidNumber,
  type SizeChange,
  type Wanted,
  type Workshop,
} from '@diptychon/core';
import { UsageError, type Arguments } from './arguments.js';
import { cardFrom, known } from './card-from-arguments.js';
import { fitSheetFor } from './from-sheet.js';
import { countOf, lengthOf, notationOf, pairOf } from './lengths.js';
import { inLines, type Told } from './told.js';

const leaving = (leaves: readonly Finding[]) => leaves.map(({ id, severity, says }) => ({ id, severity, says }));
const changesRecord = (changes: readonly SizeChange[]) => changes.map(({ owner, size, from, to }) => ({ owner, size, from, to }));

/** The least changes of sizes after which nothing fails. */
function repairFor(given: Arguments): Told {
  const { card, workshop } = cardFrom(given);
  const { aim, offers, conflict, tries } = repair(card, workshop);
  const wishes = conflict.map(({ owner, says }) => ({ owner, says }));
  const none =
    offers.length > 0
      ? []
      : wishes.length > 0
        ? [`Among ${tries} cards that were tried, none has all of these: ${wishes.map(({ says }) => says).join('; ')}.`]
        : [
            aim === 'fail'
              ? `No change of up to three sizes was found that mends it; ${tries} cards were tried.`
              : 'Nothing is to be mended by sizes.',
          ];
  return {
    record: {
      aim,
      offers: offers.map(({ says, changes, cost, leaves }) => ({ says, changes: changesRecord(changes), cost, leaves: leaving(leaves) })),
      conflict: wishes,
      tries,
    },
    lines: inLines([...offers.flatMap(({ says, leaves }) => [says, ...leaves.map((finding) => `    leaves: ${finding.says}`)]), ...none]),
  };
}

/** `--say scores=76,150`, `--say blank=300x105`, `--say closedWidth=150`, `--say layer.front-leaf=69x99`. */
function saidFrom({ repeated }: Arguments, notation: Notation): SaidNumber[] {
  const said = repeated.say.flatMap((pair) => {
    const [name, typed] = pair.split(/=(.*)/s) as [string, string | undefined];
    if (typed === undefined) throw new UsageError(`--say: “${pair}” is not NAME=VALUE`);
    const parts = /^scores/i.test(name) ? typed.split(/[,;]\s*/) : typed.split(/[x×]/i);
    const entries = entriesOf(
      name,
      parts.map((part) => lengthOf(part.trim(), notation, `--say ${name}`)),
    );
    if (!entries)
      throw new UsageError(
        `--say: “${pair}” does not work; allowed: scores=A,B,…, blank=WxH, closedWidth=…, closedHeight=…, layer.PANEL=WxH; of another piece scores.PIECE, blank.PIECE`,
      );
    return entries;
  });
  if (said.length === 0) throw new UsageError('--say: say at least one number of the list, as in --say scores=75,150');
  const twice = said.find(({ entry }, i) => said.findIndex((other) => other.entry === entry) !== i);
  if (twice) throw new UsageError(`--say: ${twice.entry} is said twice`);
  return said.filter(({ entry }) => saidOf(entry));
}

/** A list from elsewhere held against a mechanism; without one, against all of them. */
function reconcileFor(given: Arguments): Told {
  const notation = notationOf(given);
  const said = saidFrom(given, notation);
  const workshop = starterFor(notation);
  const id = given.options.get('mechanism');
  if (!id) {
    const could = couldBe(said, workshop, { notation }).slice(0, 8);
    return {
      record: { could: could.map(reconciledRecord) },
      lines: inLines(
        could.map(
          ({ mechanism, contradictions }) =>
            `${mechanism}: ${contradictions.length === 0 ? 'agrees' : contradictions.length === 1 ? 'one number disagrees' : `${contradictions.length} numbers disagree`}`,
        ),
      ),
    };
  }
  const found = reconcile(known(id).id, said, workshop, { notation });
  const { strange, contradictions, corrections, unsure, card } = found;
  return {
    record: reconciledRecord(found),
    lines: inLines([
      ...strange.map(wordsOfStrange),
      ...(unsure ? [unsure] : []),
      ...contradictions.map(({ says }) => says),
      ...corrections.map(
        ({ says, leaves }) => `It would agree with ${inSentence(says)}${leaves > 0 ? ` ${leaves} others must change besides.` : ''}`,
      ),
      ...(contradictions.length === 0 && strange.length === 0 && card ? ['All numbers agree.'] : []),
    ]),
  };
}

const correctionRecord = ({ entry, from, to, leaves }: Correction) => ({ entry, from, to, leaves });

function reconciledRecord({ mechanism, strange, contradictions, corrections, unsure, card }: Reconciled) {
  return {
    mechanism,
    strange,
    contradictions: contradictions.map(({ entries, says }) => ({ entries, says })),
    corrections: corrections.map(correctionRecord),
    ...(unsure && { unsure }),
    sizes: card ? Object.fromEntries(card.parts.map(({ id, sizes }) => [id, sizes])) : null,
  };
}

/**
 * `--made PIECE/SCORE=76mm`, or `PIECE/width=…`, `PIECE/height=…`; how long a line is `PIECE/SCORE=0..80mm`, a fold the wrong way
 * over `PIECE/SCORE=other-way`, a piece glued beside its place `JOINT=2mm right`.
 */
function madeFrom({ repeated }: Arguments, notation: Notation): Made[] {
  const made = repeated.made.map((pair): Made => {
    const glued = /^([^=]+)=(.+?)\s+(right|left|up|down)$/s.exec(pair);
    if (glued) {
      const by = lengthOf(glued[2]!, notation, `--made ${glued[1]}`);
      const way = glued[3]!;
      const signed = way === 'left' || way === 'down' ? -by : by;
      const across = way === 'left' || way === 'right';
      return { joint: glued[1]!, right: across ? signed : 0, up: across ? 0 : signed };
    }
    const match = /^(.+)\/([^/=]+)=(.+)$/s.exec(pair);
    if (!match)
      throw new UsageError(
        `--made: “${pair}” is not PIECE/SCORE=PLACE, PIECE/SCORE=FROM..TO, PIECE/SCORE=other-way or JOINT=HOW FAR right|left|up|down`,
      );
    const [, piece, line, typed] = match as unknown as [string, string, string, string];
    const name = `--made ${piece}/${line}`;
    if (typed === 'other-way') return { piece, line };
    const ends = typed.split('..');
    if (ends.length !== 2) return { piece, line, at: lengthOf(typed, notation, name) };
    const [from, to] = ends.map((end) => lengthOf(end.trim(), notation, name)) as [number, number];
    if (!(from < to)) throw new UsageError(`${name}: “${typed}” does not work; it must end after it begins`);
    return { piece, line, from, to };
  });
  if (made.length === 0) throw new UsageError('--made: say what was made, as in --made base/main-fold=76mm');
  return made;
}

/** What was made as a record, and in a line. */
function madeRecord(off: Off): object {
  if (isLineOff(off)) {
    const { piece, line, at, meant, off: by } = off;
    return { piece, line, at, meant, off: by };
  }
  if (isJointOff(off)) return { joint: off.joint, right: off.right, up: off.up };
  const { piece, line } = off;
  return isStretchOff(off)
    ? { piece, line, from: off.from, to: off.to, meantFrom: off.meantFrom, meantTo: off.meantTo }
    : { piece, line, otherWay: true };
}

function madeLineOf(off: Off, notation: Notation): string {
  const say = (mm: number): string => sayLength(Math.abs(mm), notation);
  if (isLineOff(off)) return `${off.piece}/${off.line} lies ${say(off.off)} ${off.off < 0 ? 'before' : 'beyond'} where it is meant.`;
  if (isJointOff(off)) return `${off.joint} is glued ${say(Math.hypot(off.right, off.up))} beside its place.`;
  if (!isStretchOff(off)) return `${off.piece}/${off.line} folds the other way over.`;
  return `${off.piece}/${off.line} runs from ${say(off.from)} to ${say(off.to)}; from ${say(off.meantFrom)} to ${say(off.meantTo)} is meant.`;
}

/** The card as it was really made, and the least repair. */
function rescueFor(given: Arguments): Told {
  const { card, workshop } = cardFrom(given);
  const found = rescue(card, madeFrom(given, card.notation), workshop);
  if ('says' in found) throw new UsageError(`--made: ${found.says}`);
  const { made, asMade, ways } = found;
  const verdict = asMade.ok ? verdictLine(asMade.evaluation) : { works: false, says: asMade.says };
  const findings = asMade.ok ? asMade.evaluation.findings.filter(({ severity }) => severity !== 'pass') : [];
  return {
    record: {
      made: made.map(madeRecord),
      works: verdict.works,
      verdict: verdict.says,
      findings: findings.map(({ id, severity, shortfall, says }) => ({ id, severity, shortfall, says })),
      repairs: ways.map(({ kind, says, cost, changes, leaves }) => ({
        kind,
        says,
        cost,
        changes: changesRecord(changes),
        leaves: leaving(leaves),
      })),
    },
    lines: inLines([...made.map((off) => madeLineOf(off, card.notation)), verdict.says, ...ways.map(({ says }, i) => `${i + 1}. ${says}`)]),
  };
}

/** How many of such cards work, made by this hand. */
function toleranceFor(given: Arguments): Told {
  const { card, workshop } = cardFrom(given);
  const samples = countOf(given, 'samples', 10_000, 10, 1_000_000);
  const seed = countOf(given, 'seed', 1, 0, 2 ** 31 - 1);
  const model = toleranceModel(card, workshop);
  if ('says' in model) throw new UsageError(model.says);
  const study = toleranceStudy(model, seed, sampled(model, seed, 0, samples));
  const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
  return {
    record: {
      ...study.shares,
      samples,
      seed,
      hand: workshop.hand,
      critical: study.critical,
      untold: study.untold,
      cutLast: study.cutLast,
      used: study.used,
    },
    lines: inLines([
      ...Object.entries(study.shares).map(
        ([asked, { share, low, high }]) => `${asked}: ${percent(share)} (${percent(low)} to ${percent(high)})`,
      ),
      ...study.critical.map(
        ({ name, ifExact, mustBe }) =>
          `${name}: ${percent(ifExact)} would work were it exact${mustBe === null ? '' : `; ${sayLength(mustBe, card.notation)} off as a rule is exact enough`}.`,
      ),
    ]),
  };
}

/** The same card for another envelope or closed size; for several, separated by semicolons, one after the other. */
function resizeFor(given: Arguments): Told {
  const { options } = given;
  const closed = options.get('closed');
  const envelope = options.get('envelope');
  if ((closed === undefined) === (envelope === undefined)) throw new UsageError('resize: give --envelope ID or --closed WxH');
  const { card, workshop } = cardFrom({ ...given, options: new Map([...options].filter(([name]) => name !== 'envelope')) });
  const wanted = (closed ?? envelope!)
    .split(';')
    .map((one) => (closed === undefined ? { envelope: envelopeNamed(one.trim(), workshop) } : wantedOf(one.trim(), card.notation)));
  const all = wanted.map((one) => {
    const found = resized(card, one, workshop);
    if ('says' in found) throw new UsageError(found.says);
    return resizedTold(card, found);
  });
  if (all.length === 1) return all[0]!;
  return { record: { sizes: all.map(({ record }) => record) }, lines: all.map(({ lines }) => lines).join('\n') };
}

function resizedTold({ notation }: CardDocument, found: Resized): Told {
  const verdict = verdictLine(found.evaluation);
  const leaves = found.evaluation.findings.filter(({ severity }) => severity !== 'pass');
  return {
    record: {
      closed: found.closed,
      changes: changesRecord(found.changes),
      repaired: found.repaired ? changesRecord(found.repaired.changes) : [],
      works: verdict.works,
      verdict: verdict.says,
      leaves: leaving(leaves),
      card: found.card,
    },
    lines: inLines([
      ...found.changes.map(({ label, from, to, owner }) => `${owner}, ${label}: ${say(from, notation)} → ${say(to, notation)}`),
      `Closed it measures ${sayLength(found.closed.width, notation)} × ${sayLength(found.closed.height, notation)}.`,
      verdict.says,
    ]),
  };
}

const say = (value: number, notation: Notation): string => printLength(value, notation).text;
const wantedOf = (closed: string, notation: Notation): Wanted => pairOf(closed, notation, '--closed');

function envelopeNamed(id: string, workshop: Workshop) {
  const all = [...workshop.envelopes, ...starterFor('mm').envelopes, ...starterFor('inch/16').envelopes];
  const found = all.find((envelope) => envelope.id === id);
  if (!found)
    throw new UsageError(
      `--envelope: “${id}” is none of my envelopes; allowed: ${[...new Set(all.map((envelope) => envelope.id))].join(', ')}`,
    );
  return found;
}

export const ANY_CARD = [
  'mechanism',
  'set',
  'part',
  'stock',
  'workshop',
  'board',
  'envelope',
  'within',
  'outline',
  'layers',
  'layer-steps',
  'layer-step',
  'layer-stock',
];

/** The commands that try a card out: what each may be given besides a notation, and its work. */
export const TRIALS: ReadonlyMap<string, { options: readonly string[]; work: (given: Arguments) => Told }> = new Map([
  ['repair', { options: ANY_CARD, work: repairFor }],
  ['reconcile', { options: ['mechanism', 'say'], work: reconcileFor }],
  ['rescue', { options: [...ANY_CARD, 'made'], work: rescueFor }],
  ['tolerance', { options: [...ANY_CARD, 'samples', 'seed'], work: toleranceFor }],
  ['resize', { options: [...ANY_CARD, 'closed'], work: resizeFor }],
  ['fit-sheet', { options: ['mechanism', 'sheet', 'copies', 'look', 'workshop'], work: fitSheetFor }],
]);
