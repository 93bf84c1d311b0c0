import { envelopeOf, withOwnSupplies, type CardDocument } from '../card/document.js';
import { draw } from '../card/draw.js';
import { join } from '../card/join.js';
import { nominalClosedPose } from '../card/nominal-pose.js';
import { carryFlat } from '../linkage/rigid.js';
import { setSize } from '../card/set-size.js';
import type { SizeRow } from '../card/size-rows.js';
import { postedCard } from '../dress/posted-card.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { rulerStep, type Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { largestBetween } from '../measure/largest.js';
import { closestEnvelope, easeIn, fits, type Envelope } from '../supplies/envelopes.js';
import { ENVELOPE_EASE } from '../supplies/limits.js';
import type { Workshop } from '../supplies/workshop.js';
import { freeRows } from './changed-sizes.js';
import { dressingInProportion } from './dressing-in-proportion.js';
import { repairOffers, type RepairOffer } from './repair.js';
import type { SizeChange } from './size-search.js';
import { tried } from './trouble.js';

/** What a card is to become: of a closed size as it really lies there, or for an envelope. */
export type Wanted = { width: Mm; height: Mm } | { envelope: Envelope };

/** The same card for another size. */
export interface Resized {
  card: CardDocument;
  evaluation: Evaluation;
  changes: SizeChange[];
  /** what the closed card measures, with thickness and what sticks out */
  closed: { width: Mm; height: Mm; thickness: Mm };
  /** what was changed besides so that it works, where anything was */
  repaired?: RepairOffer;
}

/** Why there is no such card. */
export interface NotResized {
  says: string;
}

/** Which way a size runs, as the closed card shows: across the fold, along it, both, or neither. */
type Way = 'across' | 'along' | 'both' | 'neither';

/** What paper, glue and clearance ask for does not grow with a card. */
const STAYS = /tab|clear|slip|gap|thick|caliper|film|lap|allow|border|rim|trim|spine|foam|zone|glue/i;
const ROUNDS = 4;
const NUDGE: Mm = 0.5;
const HALVINGS = 40;
/** No card grows or shrinks by more at once. */
const LEAST_SHARE = 0.2;
const MOST_SHARE = 5;
/** What is aimed at is met when it is missed by less. */
const MET: Mm = 0.05;

/**
 * The same card, larger or smaller: every length that the maker may set goes along by how much the card grows across its fold, or
 * along it, whichever way it runs in the closed card. Tabs, clearances, borders and what follows from thickness stay. Aimed at the
 * closed card as it really lies, thickness and what sticks out counted; on marks where it is snapped; mended where it fails then.
 * @param onMarks whether sizes come to lie on marks of the maker's ruler: never larger than wanted
 */
export function resized(card: CardDocument, wanted: Wanted, workshop: Workshop, onMarks = true): Resized | NotResized {
  const begun = evaluate(card, workshop);
  if (!begun.ok) return { says: begun.problems[0]!.says };
  const target = 'envelope' in wanted ? inEnvelope(wanted.envelope, begun.evaluation) : wanted;
  // By its size alone a card may outgrow its envelope: which it goes into is looked for at last.
  const begunFor: CardDocument = 'envelope' in wanted ? withEnvelope(card, wanted.envelope, workshop) : withoutEnvelope(card);
  const inItsEnvelope = (made: Evaluation): Evaluation => ('envelope' in wanted ? made : goingInto(envelopeOf(card), made, workshop));
  const rows = freeRows(card).filter(isScaled);
  const ways = rows.map((row) => wayOf(card, row));
  const size = sizeOf(begun.evaluation);
  let aim = { width: target.width / size.width, height: target.height / size.height };
  if (Object.values(aim).some((share) => !(share >= LEAST_SHARE && share <= MOST_SHARE)))
    return { says: `A card is made up to ${MOST_SHARE} times as large, or as small, at once: go there by steps.` };
  let found: Evaluation | undefined;
  for (let round = 0; round < ROUNDS; round++) {
    const scaled = scaledBy(begunFor, rows, ways, aim, onMarks);
    const outcome = evaluate(scaled, workshop);
    if (!outcome.ok) {
      const mended = mendedTo(scaled, workshop);
      return mended
        ? done(card, inItsEnvelope(mended.evaluation), mended.offer)
        : { says: `It cannot be made that size: ${outcome.problems[0]!.says}` };
    }
    found = dressedAlong(begun.evaluation, outcome.evaluation, workshop);
    const now = sizeOf(found);
    const off = { width: now.width - target.width, height: now.height - target.height };
    if (Math.abs(off.width) < MET && Math.abs(off.height) < MET) break;
    if (onMarks && round > 0 && off.width <= MET && off.height <= MET) break;
    aim = { width: (aim.width * target.width) / now.width, height: (aim.height * target.height) / now.height };
  }
  if (!found) return { says: 'It cannot be made that size.' };
  if (tried(found.design.card, workshop, 'fail').trouble === 0) return done(card, inItsEnvelope(found));
  const mended = mendedTo(found.design.card, workshop);
  return mended ? done(card, inItsEnvelope(mended.evaluation), mended.offer) : done(card, inItsEnvelope(found));
}

/** A card in the envelope that it was for, or, where that does not take it, in the closest of the maker's that does; else in none. */
function goingInto(own: Envelope | undefined, evaluation: Evaluation, workshop: Workshop): Evaluation {
  if (!own) return evaluation;
  const { width, height, thickness } = sizeOf(evaluation);
  const envelope = fits(width, height, thickness, own) ? own : closestEnvelope(width, height, thickness, workshop);
  const outcome = envelope && evaluate(withEnvelope(evaluation.design.card, envelope, workshop), workshop);
  return outcome?.ok ? outcome.evaluation : evaluation;
}

const withoutEnvelope = ({ envelope: _, ...rest }: CardDocument): CardDocument => rest;

/** What it wears goes along with its panels: what stands where it did would stick out of a smaller card. */
function dressedAlong(before: Evaluation, after: Evaluation, workshop: Workshop): Evaluation {
  const dressing = dressingInProportion(before, after);
  const outcome = dressing && evaluate({ ...after.design.card, dressing }, workshop);
  return outcome?.ok ? outcome.evaluation : after;
}

function done(before: CardDocument, evaluation: Evaluation, offer?: RepairOffer): Resized {
  const after = freeRows(evaluation.design.card);
  const changes = freeRows(before).flatMap((row): SizeChange[] => {
    const now = after.find((other) => other.owner === row.owner && other.name === row.name);
    if (!now || row.insteadOf || typeof row.value !== 'number' || typeof now.value !== 'number') return [];
    if (Math.abs(now.value - row.value) < 1e-9) return [];
    return [{ owner: row.owner, size: row.name, label: row.label, from: row.value, to: now.value }];
  });
  return { card: evaluation.design.card, evaluation, changes, closed: sizeOf(evaluation), ...(offer && { repaired: offer }) };
}

function mendedTo(card: CardDocument, workshop: Workshop): { evaluation: Evaluation; offer: RepairOffer } | undefined {
  const [offer] = repairOffers(card, workshop);
  const outcome = offer && evaluate(offer.card, workshop);
  return offer && outcome?.ok ? { evaluation: outcome.evaluation, offer } : undefined;
}

/** The closed card as it is posted, across its fold and along it. */
const sizeOf = ({ closed, dressed }: Evaluation): Resized['closed'] => {
  const { width, height, thickness } = postedCard(closed, dressed);
  return { width, height, thickness };
};

/** The largest closed card of the same thickness that slips easily into an envelope, its fold along the side along which it is now. */
function inEnvelope(envelope: Envelope, evaluation: Evaluation): { width: Mm; height: Mm } {
  const { width, height, thickness } = sizeOf(evaluation);
  const fits = (long: Mm, short: Mm): boolean => {
    const ease = easeIn(long, short, thickness, envelope);
    return Math.min(ease.long, ease.short) >= ENVELOPE_EASE;
  };
  const long = largestBetween((mm) => fits(mm, 1), 1, envelope.long, HALVINGS);
  const short = largestBetween((mm) => fits(long, Math.min(mm, long)), 1, envelope.short, HALVINGS);
  return width >= height ? { width: long, height: short } : { width: short, height: long };
}

function withEnvelope(card: CardDocument, envelope: Envelope, workshop: Workshop): CardDocument {
  if (envelopeOf(card)?.id === envelope.id) return card;
  return withOwnSupplies({ ...card, envelope: envelope.id }, { ...workshop, envelopes: [envelope, ...workshop.envelopes] });
}

/** What was left out and follows other sizes goes on following them. */
const isScaled = ({ kind, name, label, insteadOf, asCut, given, follows }: SizeRow): boolean =>
  kind === 'length' && !insteadOf && !asCut && (given || !follows) && !STAYS.test(name) && !STAYS.test(label);

function scaledBy(
  card: CardDocument,
  rows: readonly SizeRow[],
  ways: readonly Way[],
  { width, height }: { width: number; height: number },
  onMarks: boolean,
): CardDocument {
  const step = rulerStep(card.notation);
  const shares: Readonly<Record<Way, number>> = { across: width, along: height, both: Math.min(width, height), neither: 1 };
  return rows.reduce((changed, { owner, name, value }, i) => {
    const share = shares[ways[i]!];
    const to = Number(value) * share;
    if (Math.abs(share - 1) < 1e-9) return changed;
    return setSize(changed, owner, name, onMarks ? Math.floor(to / step + 1e-6) * step : Math.round(to * 1e6) / 1e6);
  }, card);
}

/** Which way a size runs: what of the closed card moves when it is changed a little. */
function wayOf(card: CardDocument, row: SizeRow): Way {
  const value = Number(row.value);
  for (const by of [NUDGE, -NUDGE]) {
    const [before, after] = [pointsOf(card), pointsOf(setSize(card, row.owner, row.name, value + by))];
    if (!before || !after) continue;
    if (before.length !== after.length) return 'both';
    const moves = (axis: 0 | 1): boolean => before.some((point, i) => Math.abs(point[axis] - after[i]![axis]) > 1e-6);
    const [across, along] = [moves(0), moves(1)];
    return across && along ? 'both' : across ? 'across' : along ? 'along' : 'neither';
  }
  return 'both';
}

/** Every corner of every panel as it lies in the closed card: x across its fold, y along it. */
function pointsOf(card: CardDocument): Point[] | undefined {
  const drawn = draw(card);
  const joined = drawn.ok ? join(drawn.drawing) : undefined;
  if (!joined?.ok) return undefined;
  const { design } = joined;
  const pose = nominalClosedPose(design);
  return design.panels.flatMap(({ area }, body) =>
    [area.outer, ...area.holes].flatMap((loop) => loop.map((point) => carryFlat(pose[body]!, point))),
  );
}
