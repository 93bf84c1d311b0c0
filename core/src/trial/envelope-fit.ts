import { closedSizeOf, type ClosedSize } from '../card/closed-size.js';
import { partsOf } from '../card/draw.js';
import { envelopeOf, ROOT, rootOf, type CardDocument, type CardPart } from '../card/document.js';
import { setSize } from '../card/set-size.js';
import { sizesForClosed } from '../card/try-out.js';
import type { Fix } from '../check/finding.js';
import { postedCard } from '../dress/posted-card.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { mechanismById } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { itemSizeName } from '../mechanism/sizes.js';
import { rulerStep, type Mm } from '../measure/units.js';
import { easeIn } from '../supplies/envelopes.js';
import { ENVELOPE_EASE } from '../supplies/limits.js';
import type { Workshop } from '../supplies/workshop.js';
import { dressingInProportion, wearsSame } from './dressing-in-proportion.js';
import { changedSizes, freeRows } from './changed-sizes.js';

/** What sticks out, and how thick the card is, follow its size: it is measured again after each change. */
const ROUNDS = 4;

/**
 * The change of sizes after which a closed card slips easily into its envelope: what is too large is made smaller, down to a
 * mark of the maker's ruler, and the rest is left. The base alone is tried first, then with all that was set on it made
 * smaller in proportion. Nothing where the card has no envelope, fits it already, or comes to no such size.
 */
export function fittedToEnvelope(evaluation: Evaluation, workshop?: Workshop): Fix | undefined {
  const { card } = evaluation.design;
  if (!envelopeOf(card) || tooLarge(evaluation) === undefined) return undefined;
  for (const inProportion of [false, true]) {
    const fitting = made(evaluation, workshop, inProportion);
    if (!fitting) continue;
    const { words, changes } = changedSizes(card, fitting);
    const along = wearsSame(card, fitting) ? undefined : fitting.dressing;
    const says = `Make it fit this envelope: ${words}${along ? '; what it wears goes along' : ''}.`;
    return { says, changes, ...(along && { dressing: along }) };
  }
  return undefined;
}

function made(begun: Evaluation, workshop: Workshop | undefined, inProportion: boolean): CardDocument | undefined {
  let now = begun;
  for (let round = 0; round < ROUNDS; round++) {
    const over = tooLarge(now);
    if (!over) return now.design.card;
    const smaller = lessened(now, over, inProportion);
    if (partsOf(smaller).problems.length > 0) return undefined;
    const outcome = evaluate(smaller, workshop);
    if (!outcome.ok) return undefined;
    // What it wears goes along with its panels, from how it was worn at first.
    const worn = dressingInProportion(begun, outcome.evaluation);
    const dressed = worn && evaluate({ ...smaller, dressing: worn }, workshop);
    if (dressed && !dressed.ok) return undefined;
    now = (dressed ?? outcome).evaluation;
  }
  return tooLarge(now) ? undefined : now.design.card;
}

/** How much too large a closed card is for its envelope across and along its fold (mm); nothing when it slips in. */
function tooLarge({ design, closed, dressed }: Evaluation): ClosedSize | undefined {
  const { width: across, height: along, thickness } = postedCard(closed, dressed);
  const ease = easeIn(across, along, thickness, envelopeOf(design.card)!);
  if (Math.min(ease.long, ease.short) >= 0) return undefined;
  // A side that has to give way gives way until the card slips in easily.
  const over = (left: Mm): Mm => (left < 0 ? ENVELOPE_EASE - left : 0);
  const [long, short] = [over(ease.long), over(ease.short)];
  return across >= along ? { depth: long, length: short } : { depth: short, length: long };
}

/** The card with its closed size that much less. */
function lessened(evaluation: Evaluation, over: ClosedSize, inProportion: boolean): CardDocument {
  const { card } = evaluation.design;
  const base = mechanismById(rootOf(card).mechanism) as Base;
  const size = closedSizeOf(evaluation);
  const step = rulerStep(card.notation);
  const onMark = (now: Mm, less: Mm): Mm => (less === 0 ? now : Math.floor((now - less) / step + 1e-6) * step);
  const wanted = { depth: onMark(size.depth, over.depth), length: onMark(size.length, over.length) };
  const [from, to] = [size, wanted].map(({ depth, length }) => singleSizes(sizesForClosed(base, depth, length))) as [Lengths, Lengths];
  const rows = freeRows(card);
  // Sizes move as the base says that they do; what the maker set besides keeps its difference.
  const moved = [...to.keys()].filter((name) => from.get(name) !== to.get(name));
  const valueOf = (name: string): Mm => Number(rows.find((row) => row.owner === ROOT && row.name === name)?.value ?? from.get(name));
  const shifted = moved.reduce((changed, name) => setSize(changed, ROOT, name, valueOf(name) + to.get(name)! - from.get(name)!), card);
  if (!inProportion) return shifted;
  const share = Math.min(wanted.depth / size.depth, wanted.length / size.length);
  const others = rows.filter(
    ({ owner, name, kind, given, insteadOf, asCut }) =>
      kind === 'length' && given && !insteadOf && !asCut && !(owner === ROOT && moved.includes(name)),
  );
  return others.reduce(
    (changed, { owner, name, value }) => setSize(changed, owner, name, Math.floor((Number(value) * share) / step + 1e-6) * step),
    shifted,
  );
}

type Lengths = ReadonlyMap<string, Mm>;

/** Every length by its own name, those of entries of lists too. */
function singleSizes(sizes: CardPart['sizes']): Lengths {
  return new Map(
    Object.entries(sizes).flatMap(([name, value]): [string, Mm][] => {
      if (typeof value === 'number') return [[name, value]];
      if (typeof value === 'string') return [];
      return value.flatMap((item, i) =>
        Object.entries(item).flatMap(([own, length]): [string, Mm][] =>
          typeof length === 'number' ? [[itemSizeName(name, i, own), length]] : [],
        ),
      );
    }),
  );
}
