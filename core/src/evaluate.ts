import { closeCard, type ClosedCard } from './card/closed-card.js';
import { claimsOf, draw, type CardProblem, type Owned } from './card/draw.js';
import { join, type Design } from './card/join.js';
import { standingOf, type Standing } from './card/standing.js';
import type { KeptGeometry } from './card/kept-geometry.js';
import { boardOf, envelopeOf, type CardDocument } from './card/document.js';
import { dress, wearing, wrapped, type Dressed } from './dress/dress.js';
import { withSlits } from './dress/ribbons.js';
import { runChecks } from './check/all-checks.js';
import type { CheckInput, Finding, Fix } from './check/finding.js';
import type { Pose } from './linkage/kinematics.js';
import { followMotion, followQuickly, frameAt, poseOf, type Frame, type Motion } from './linkage/motion.js';
import { stackClosed } from './linkage/stacking.js';
import { carry, carryDirection, dot, minus, type Vec3 } from './linkage/rigid.js';
import type { Measure, Tracked } from './mechanism/contract.js';
import { told } from './measure/sentence.js';
import type { Mm, Notation } from './measure/units.js';
import { cutSheet, type CutSheet, type Eases } from './sheet/cut-sheet.js';
import { starterFor } from './supplies/starter-workshops.js';
import type { Workshop } from './supplies/workshop.js';

/** Everything that is known about a card. Plain data: it may cross to another thread. */
export interface Evaluation {
  design: Design;
  motion: Motion;
  closed: ClosedCard;
  sheets: CutSheet[];
  /** what its panels wear, each with the sheet that it is cut from */
  dressed: Dressed;
  measures: Owned<Measure>[];
  findings: Finding[];
  /** the frame in which the card is put down */
  resting: Frame;
  standing: Standing;
  openHeight: number;
}

export type Outcome = { ok: true; evaluation: Evaluation } | { ok: false; problems: CardProblem[] };

/**
 * The one pipeline: draw → join → move → close → judge. Sizes outside their limits and places that are not there come
 * back as problems; a card that cannot work is evaluated and found wanting.
 * @param workshop what the maker has; where it is left out, the starter workshop of who measures like the card
 * @param kept how the card before moved: a card that differs only in what it wears is not drawn and moved again
 */
export function evaluate(card: CardDocument, workshop: Workshop = starterFor(card.notation), kept?: KeptGeometry): Outcome {
  const known = kept?.of(card);
  if (known) return { ok: true, evaluation: judge(closeUp(known), workshop) };
  const refused = (problems: readonly CardProblem[]): Outcome => ({
    ok: false,
    problems: problems.map((problem) => ({ ...problem, says: told(problem.says, card.notation) })),
  });
  const drawn = draw(card);
  if (!drawn.ok) return refused(drawn.problems);
  const joined = join(drawn.drawing);
  if (!joined.ok) return refused(joined.problems);
  const moved = move(joined.design);
  kept?.keep(moved);
  return { ok: true, evaluation: judge(closeUp(moved), workshop) };
}

/** A card moved and closed, without being judged: what its pictures need. Nothing when its sizes are refused. */
export function closedOnly(card: CardDocument): Closed | undefined {
  const drawn = draw(card);
  const joined = drawn.ok ? join(drawn.drawing) : undefined;
  return joined?.ok ? closeUp(move(joined.design)) : undefined;
}

/** The same, followed quickly: sizes and layers of a card that closes are those of one that is followed whole. */
export function closedQuickly(card: CardDocument): Closed | undefined {
  const drawn = draw(card);
  const joined = drawn.ok ? join(drawn.drawing) : undefined;
  if (!joined?.ok) return undefined;
  const { design } = joined;
  return closeUp({ design, motion: followQuickly(design.linkage, design.schedule) });
}

/** A design and how it moves. */
export type Moved = Pick<Evaluation, 'design' | 'motion'>;

/** Follows a design through its whole drive. */
export const move = (design: Design): Moved => ({ design, motion: followMotion(design.linkage, design.schedule) });

/** The same, roughly and sooner: enough to tell how wrong a card is. What comes of it must be evaluated whole. */
export function evaluateQuickly(card: CardDocument, workshop: Workshop): Outcome {
  const drawn = draw(card);
  if (!drawn.ok) return drawn;
  const joined = join(drawn.drawing);
  if (!joined.ok) return joined;
  const { design } = joined;
  return { ok: true, evaluation: judge(closeUp({ design, motion: followQuickly(design.linkage, design.schedule) }), workshop) };
}

/** A design that has been moved, closed, and cut with the allowances that its closed stack asks for. */
export type Closed = Moved & Pick<Evaluation, 'closed' | 'sheets' | 'dressed'>;

/** Lays a card closed. Ease comes once, from the nominal closed stack: cutting is changed by it, motion is not. */
export function closeUp({ design: drawn, motion }: Moved): Closed {
  const pressed = motion.pressed ?? motion;
  // What is worn changes no order of panels: that is looked for once, and then the pile is added up with it.
  const stack = stackClosed(pressed);
  const worn = dress(drawn, pressed, { stack });
  const design = drawn.card.dressing ? wearing(drawn, worn) : drawn;
  const closed = closeCard(design, pressed, stack);
  const eases = spineEases({ design, closed });
  const dressed = wrapped(worn, design, pressed, closed, eases);
  return { design, motion, closed, dressed, sheets: design.pieces.map((piece) => withSlits(cutSheet(piece, eases), dressed.ribbons)) };
}

/** How much wider each fold with a spine is cut, by its hinge. */
export function spineEases({ design, closed }: Pick<Evaluation, 'design' | 'closed'>): Eases {
  const spined = claimsOf(design, 'closing').filter((closing) => closing.spined);
  return Object.fromEntries(spined.map(({ hinge }) => [hinge, closed.spines[hinge]!]));
}

/** What the checks read of a closed card: how it stands, and what the maker has. */
export function inspect(closedCard: Closed, workshop: Workshop): CheckInput {
  const { design, motion } = closedCard;
  const { card } = design;
  const resting = frameAt(motion, design.schedule, design.base.rest.at);
  const standing = standingOf(design, motion, resting);
  const pressed = motion.pressed ?? motion;
  return {
    ...closedCard,
    motion: pressed,
    free: motion,
    card,
    resting,
    standing,
    board: boardOf(card),
    envelope: envelopeOf(card),
    workshop,
  };
}

/** Asks every check, and prints what they say as the maker measures. */
export function judge(closedCard: Closed, workshop: Workshop): Evaluation {
  const input = inspect(closedCard, workshop);
  const { card, design, free: motion, closed, sheets, dressed, resting, standing } = input;
  const findings = runChecks(input);
  return {
    design,
    motion,
    closed,
    sheets,
    dressed,
    resting,
    standing,
    measures: [...blankMeasures(sheets, design, closed), ...design.measures].map((measure) => ({
      ...measure,
      because: told(measure.because, card.notation),
    })),
    findings: findings.map((finding) => toldFinding(finding, card.notation)),
    openHeight: openHeight(design, motion, resting),
  };
}

function toldFinding(finding: Finding, notation: Notation): Finding {
  const fix: Fix | undefined = finding.fix && { ...finding.fix, says: told(finding.fix.says, notation) };
  return { ...finding, says: told(finding.says, notation), ...(fix && { fix }) };
}

function blankMeasures(sheets: readonly CutSheet[], design: Design, closed: ClosedCard): Owned<Measure>[] {
  const blanks = sheets.flatMap(({ piece, width, height }): Owned<Measure>[] => {
    const own = { owner: piece.part!, unit: 'mm' as const, because: piece.because };
    return [
      { ...own, name: `${piece.id}Width`, label: `${piece.name}, blank across`, value: width },
      { ...own, name: `${piece.id}Height`, label: `${piece.name}, blank along`, value: height },
    ];
  });
  const spined = claimsOf(design, 'closing').filter((fold) => fold.spined);
  const spines = spined.map(({ hinge, name, owner }, i): Owned<Measure> => ({
    owner,
    // A card may have several: each is called by its fold, and the first also as the only one is.
    name: i === 0 ? 'spineWidth' : `spineWidth${i + 1}`,
    label: spined.length === 1 ? 'Spine' : `Spine of the ${name}`,
    value: closed.spines[hinge]!,
    unit: 'mm',
    because: 'as wide as the stack between the leaves is thick, so that the card closes without gaping',
  }));
  return [...blanks, ...spines];
}

function openHeight(design: Design, motion: Motion, resting: Frame): number {
  const up: Vec3 = design.base.rest.up;
  const pose = poseOf(motion, resting);
  let [low, high] = [Infinity, -Infinity];
  design.panels.forEach((panel, body) => {
    for (const [x, y] of panel.area.outer) {
      const h = dot(carry(pose[body]!, x, y, 0), up);
      low = Math.min(low, h);
      high = Math.max(high, h);
    }
  });
  return high - low;
}

/** Reads a tracked angle (radians, 0…π), height (mm over the ground panel) or travel (mm) in a frame. */
export function readTracked(evaluation: Pick<Evaluation, 'design' | 'motion'>, tracked: Tracked, frame: Frame): number {
  const { design, motion } = evaluation;
  const pose = poseOf(motion, frame);
  const body = design.linkage.bodyOf.get(tracked.panel)!;
  if (tracked.kind === 'height') return heightOver(design, pose, carry(pose[body]!, tracked.at[0], tracked.at[1], 0));
  if (tracked.kind === 'travel') {
    const onto = pose[design.linkage.bodyOf.get(tracked.onPanel)!]!;
    const way = minus(carry(pose[body]!, ...tracked.at, 0), carry(onto, ...tracked.from, 0));
    return dot(way, carryDirection(onto, ...tracked.along, 0));
  }
  const other = design.linkage.bodyOf.get(tracked.withPanel)!;
  const a = carryDirection(pose[body]!, tracked.along[0], tracked.along[1], 0);
  const b = carryDirection(pose[other]!, tracked.withAlong[0], tracked.withAlong[1], 0);
  return Math.acos(Math.min(1, Math.max(-1, dot(a, b))));
}

/** How high a point is over the panel that lies on the table; in a card that stands upright, how far before its ground panel. */
function heightOver({ base, linkage }: Design, pose: Pose, point: Vec3): Mm {
  const { up, onTable = base.ground } = base.rest;
  const lies = Math.abs(up[2]) > 0.9;
  return lies ? dot(minus(point, carry(pose[linkage.bodyOf.get(onTable)!]!, 0, 0, 0)), up) : point[2];
}
