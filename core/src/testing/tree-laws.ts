import { draw } from '../card/draw.js';
import { movementsOf, ROOT, type CardDocument } from '../card/document.js';
import { carriedBy, removePart, renamePart } from '../card/parts.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { poseOf } from '../linkage/motion.js';

/** What must hold of any tree of parts: says what is broken, or nothing. */
export interface TreeLaw {
  says: string;
  broken: (card: CardDocument) => string | undefined;
}

/** What a card may be told that does not close as it should. */
const MAY_KEEP_OPEN = ['paper-taken', 'closes-loop', 'folds-flat', 'equal-widths', 'clears', 'glue-clear'];
const COINCIDE = 1e-6;
/** A part on a fold that lies flat on itself is nearly free there: its place follows the joints' misfit as the square root. */
const ALIKE = 1e-3;

/** A card judged, or why it is refused. */
function judged(card: CardDocument): Evaluation | string {
  const outcome = evaluate(card);
  return outcome.ok ? outcome.evaluation : outcome.problems.map(({ says }) => says).join(' ');
}

/** How the panels lie in every frame, by panel. */
function lying({ design, motion }: Evaluation, of: (part: string) => boolean = () => true): Map<string, number[]> {
  return new Map(
    design.panels.flatMap(({ id, part }, body) =>
      of(part ?? ROOT) ? [[id, motion.frames.flatMap((frame) => [...poseOf(motion, frame)[body]!])] as const] : [],
    ),
  );
}

/** The first panel that lies elsewhere, or is not there. */
function unlike(a: Map<string, number[]>, b: Map<string, number[]>): string | undefined {
  if (a.size !== b.size) return `${a.size} panels, and ${b.size}`;
  for (const [id, numbers] of a) {
    const others = b.get(id);
    if (others?.length !== numbers.length) return `${id}: ${numbers.length} numbers, and ${others?.length ?? 'none'}`;
    const most = numbers.reduce((worst, n, i) => Math.max(worst, Math.abs(n - others[i]!)), 0);
    if (!(most < ALIKE)) return `${id} lies ${most} elsewhere`;
  }
  return undefined;
}

const verdicts = ({ findings }: Evaluation): string[] => findings.map(({ id, severity }) => `${severity} ${id}`).sort();

const numbersOf = ({ motion, measures, findings, closed }: Evaluation): number[] => [
  ...motion.frames.flatMap((frame) => poseOf(motion, frame).flatMap((pose) => [...pose])),
  ...measures.map(({ value }) => value),
  ...findings.flatMap(({ value, limit, shortfall }) => [value ?? 0, limit ?? 0, shortfall]),
  closed.thickest.thickness,
];

/** The first movement that stands on the base. */
const firstOf = (card: CardDocument) => movementsOf(card).find(({ on }) => on.part === ROOT);

export const TREE_LAWS: readonly TreeLaw[] = [
  {
    says: 'closes flat with its corners together, or says why not; never a number that is none',
    broken: (card) => {
      const evaluation = judged(card);
      if (typeof evaluation === 'string') return /\w.*\.$/.test(evaluation) ? undefined : `refused without a sentence: ${evaluation}`;
      if (!numbersOf(evaluation).every(Number.isFinite)) return 'a number that is none';
      const ids = evaluation.findings.map(({ id }) => id);
      const twice = ids.find((id, i) => ids.indexOf(id) !== i);
      if (twice) return `two findings are called ${twice}`;
      const told = evaluation.findings.some(({ severity, check }) => severity === 'fail' && MAY_KEEP_OPEN.includes(check));
      const { misfit } = evaluation.motion.frames[0]!;
      return told || misfit < COINCIDE ? undefined : `closed, its joints miss each other by ${misfit}, and nothing says so`;
    },
  },
  {
    says: 'is the same card in whatever order its parts were placed',
    broken: (card) => {
      const [root, ...rest] = card.parts;
      const [a, b] = [judged(card), judged({ ...card, parts: [root!, ...rest.reverse()] })];
      if (typeof a === 'string' || typeof b === 'string') return typeof a === typeof b ? undefined : 'refused in one order only';
      const [before, after] = [verdicts(a), verdicts(b)];
      const changed = before.filter((each) => !after.includes(each)).concat(after.filter((each) => !before.includes(each)));
      return unlike(lying(a), lying(b)) ?? (changed.length > 0 ? changed.join(', ') : undefined);
    },
  },
  {
    says: 'moves a part alike alone and beside others',
    broken: (card) => {
      const first = firstOf(card);
      if (!first) return undefined;
      const own = new Set([first.id, ...carriedBy(card, first.id)]);
      const alone = { ...card, parts: card.parts.filter(({ id }) => id === ROOT || own.has(id)) };
      const [a, b] = [judged(card), judged(alone)];
      if (typeof a === 'string' || typeof b === 'string' || a.design.overlaps.length > 0) return undefined;
      // A card with parts that cannot all move stops where the first of them does.
      if (a.motion.frames.length !== b.motion.frames.length) return undefined;
      const of = (part: string): boolean => own.has(part);
      const misfits = [a, b].some(({ motion }) => motion.frames.some(({ misfit }) => misfit > COINCIDE));
      return misfits ? undefined : unlike(lying(a, of), lying(b, of));
    },
  },
  {
    says: 'gives back the same design, byte for byte, when what was added is taken away',
    broken: (card) => {
      const first = firstOf(card);
      if (!first) return undefined;
      const gone = new Set([first.id, ...carriedBy(card, first.id)]);
      const before = { ...card, parts: card.parts.filter(({ id }) => !gone.has(id)) };
      const after = removePart(card, first.id);
      return JSON.stringify([after, draw(after)]) === JSON.stringify([before, draw(before)]) ? undefined : `without ${first.id} it differs`;
    },
  },
  {
    says: 'changes only a name when a part is called something else',
    broken: (card) => {
      const first = firstOf(card);
      if (!first) return undefined;
      const [a, b] = [draw(card), draw(renamePart(card, first.id, 'toadstool'))];
      if (!a.ok || !b.ok) return a.ok === b.ok ? undefined : 'refused under one name only';
      const [text, other] = [a, b].map(({ drawing }) => JSON.stringify({ ...drawing, card: undefined }));
      return other!.replaceAll('toadstool', first.name!) === text ? undefined : `renaming ${first.id} changes more than its name`;
    },
  },
];
