import { closeCard, type ClosedCard } from './card/closed-card.js';
import { compose, type CardProblem, type Design } from './card/compose.js';
import { standingOf, type Standing } from './card/standing.js';
import type { CardDocument } from './card/document.js';
import { runChecks } from './check/all-checks.js';
import { applyFix, type CheckInput, type Finding, type Fix } from './check/finding.js';
import { followMotion, frameAt, poseOf, type Frame, type Motion } from './linkage/motion.js';
import { carry, carryDirection, dot, minus, type Vec3 } from './linkage/rigid.js';
import type { Measure, Tracked } from './mechanism/contract.js';
import { retold } from './measure/retell.js';
import { cutSheet, type CutSheet } from './sheet/cut-sheet.js';
import { boardById } from './supplies/boards.js';
import { ENVELOPES } from './supplies/envelopes.js';

/** Everything that is known about a card. Plain data: it may cross to another thread. */
export interface Evaluation {
  design: Design;
  motion: Motion;
  closed: ClosedCard;
  sheets: CutSheet[];
  measures: (Measure & { owner: string })[];
  findings: Finding[];
  /** the frame in which the card is put down */
  resting: Frame;
  standing: Standing;
  openHeight: number;
}

export type Outcome = { ok: true; evaluation: Evaluation } | { ok: false; problems: CardProblem[] };

/**
 * The one pipeline: document → design → motion → closed card → cut sheets → findings.
 * Sizes outside their limits come back as problems; a card that cannot work is evaluated and found wanting.
 * @throws RangeError when the document names something that does not exist
 */
export function evaluate(card: CardDocument): Outcome {
  const outcome = judge(card);
  if (!outcome.ok) return outcome;
  const { evaluation } = outcome;
  return { ok: true, evaluation: { ...evaluation, findings: withSoundOffers(evaluation) } };
}

function judge(card: CardDocument): Outcome {
  const composed = compose(card);
  const inNotation = (sentence: string): string => retold(sentence, card.notation);
  if (!composed.ok) return { ok: false, problems: composed.problems.map((problem) => ({ ...problem, says: inNotation(problem.says) })) };
  const { design } = composed;
  const motion = followMotion(design.linkage, design.schedule);
  const closed = closeCard(design, motion);
  giveSpines(design, closed);
  const sheets = design.pieces.map(cutSheet);
  const resting = frameAt(motion, design.schedule, design.base.rest.at);
  const standing = standingOf(design, motion, resting);
  const input: CheckInput = {
    card,
    design,
    motion,
    closed,
    sheets,
    resting,
    standing,
    board: boardById(card.board),
    envelope: ENVELOPES.find((envelope) => envelope.id === card.envelope),
  };
  return {
    ok: true,
    evaluation: {
      design,
      motion,
      closed,
      sheets,
      resting,
      standing,
      measures: [...blankMeasures(sheets, design, closed), ...design.measures],
      findings: runChecks(input).map((finding) => ({
        ...finding,
        says: inNotation(finding.says),
        ...(finding.fix && { fix: { ...finding.fix, says: inNotation(finding.fix.says) } }),
      })),
      openHeight: openHeight(design, motion, resting),
    },
  };
}

/** Offers that may make something else fail are tried out: kept only where nothing fails that does not fail now. */
function withSoundOffers({ design, findings }: Evaluation): Finding[] {
  const failing = (some: readonly Finding[]): string[] => some.filter(({ severity }) => severity === 'fail').map(({ id }) => id);
  const now = failing(findings);
  const sound = new Map<string, boolean>();
  const isSound = (offer: Fix): boolean => {
    const tried = judge(applyFix(design.card, offer));
    return tried.ok && failing(tried.evaluation.findings).every((id) => now.includes(id));
  };
  return findings.map((finding) => {
    if (!finding.fix?.untried) return finding;
    const { says, changes } = finding.fix;
    if (!sound.has(says)) sound.set(says, isSound(finding.fix));
    return { ...finding, fix: sound.get(says) ? { says, changes } : undefined };
  });
}

/** Ease comes once, from the nominal closed stack: cutting is changed by it, motion is not. */
function giveSpines(design: Design, closed: ClosedCard): void {
  for (const closing of design.base.closings) {
    const hinge = design.linkage.hinges[design.linkage.hingeIndex.get(closing.hinge)!]!;
    hinge.source.crease.ease = closing.spined ? closed.spines[closing.hinge]! : 0;
  }
}

function blankMeasures(sheets: readonly CutSheet[], design: Design, closed: ClosedCard): (Measure & { owner: string })[] {
  const owner = (pieceId: string): string => (design.base.pieces.some((piece) => piece.id === pieceId) ? 'base' : pieceId);
  const blanks = sheets.flatMap(({ piece, width, height }) => [
    {
      owner: owner(piece.id),
      name: `${piece.id}Width`,
      label: `${piece.name}, blank across`,
      value: width,
      unit: 'mm' as const,
      because: piece.because,
    },
    {
      owner: owner(piece.id),
      name: `${piece.id}Height`,
      label: `${piece.name}, blank along`,
      value: height,
      unit: 'mm' as const,
      because: piece.because,
    },
  ]);
  const spines = design.base.closings
    .filter((closing) => closing.spined)
    .map((closing) => ({
      owner: 'base',
      name: 'spineWidth',
      label: 'Spine',
      value: closed.spines[closing.hinge]!,
      unit: 'mm' as const,
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
  if (tracked.kind === 'height') return carry(pose[body]!, tracked.at[0], tracked.at[1], 0)[2];
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
