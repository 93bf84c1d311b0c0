import { CLOSING_PLAY } from '../supplies/limits.js';
import { toRadians, type Mm, type Radians } from '../measure/units.js';
import { foldInPose, poseAt, emptyPose, type Pose } from './kinematics.js';
import { drivenHinges, targetsAt, type Schedule } from './schedule.js';
import { LoopSolver } from './solver.js';
import { bendingBodies, type Linkage } from './structure.js';
import type { SpanningTree } from './spanning-tree.js';

/** Play of a creased and glued joint: a misfit up to this is no binding. */
export const JOINT_SLACK: Mm = 0.05;
/** Loops that close to this are closed as far as arithmetic can tell. */
export const EXACT: Mm = 1e-6;
export const FRAMES = 61;

/** The card at one point of the drive. */
export interface Frame {
  /** 0 closed … 1 open */
  s: number;
  opening: Radians;
  folds: Float64Array;
  misfit: Mm;
}

export interface Motion {
  linkage: Linkage;
  tree: SpanningTree;
  frames: Frame[];
  worstMisfit: Mm;
  /** the longest stretch of the drive where nothing binds, and the same as openings */
  reachable: Stretch;
  /** every stretch where nothing binds, from closed to open */
  fits: Stretch[];
  /** movements left over when the drive is held; 0 for a card that knows one way to open */
  freedom: number;
  /** creases whose fold came out the other way round than they are scored */
  wrongWay: string[];
  /**
   * whether every crease can lie at its nominal angle when closed, how far a joint is off if it is put there, and which
   * panels it joins; within the play of a closing card it holds, and the card moves as if the joints met
   */
  closedFlat: { holds: boolean; misfit: Mm; joint: string[] };
  /** folds at which its joints are taken to meet, whatever they miss each other by there; where left out, joints meet as drawn */
  meetingAt?: Float64Array;
  /** beyond that play: the card as if its joints met where they lie when it is pressed flat */
  pressed?: Motion;
}

/** A stretch of the drive, as shares of it and as openings. */
export interface Stretch {
  from: number;
  to: number;
  opening: [Radians, Radians];
}

type StartFold = (crease: { fold: 'mountain' | 'valley'; closed: Radians }) => Radians;

const signed =
  (size: Radians): StartFold =>
  ({ fold }) =>
    fold === 'valley' ? size : -size;
/** Part of the way from closed: creases that close folded over begin well folded, those that close flat hardly. */
const fromClosed =
  (share: number): StartFold =>
  ({ fold, closed }) =>
    closed === 0 ? signed(toRadians(20))({ fold, closed }) : closed * share;

/** Starting angles for creases that are solved for: clearly folded, clearly not flat. */
const STARTS: readonly StartFold[] = [...[60, 30, 95, 130].map(toRadians).map(signed), fromClosed(0.75), fromClosed(0.5)];

/**
 * Follows a card through its whole drive: starts about half open where its way of folding is plain,
 * keeps that way outward to both ends, sets the flat end exactly if it closes there, and bisects how
 * far the drive can be taken before a joint is strained.
 *
 * A card closes flat by how far its joints miss each other when every crease lies at its nominal angle: that grows evenly
 * with an error of cutting, while the tilt it leaves behind near the flat end grows as the error's root. Within the play of
 * a closing card the joints meet as they fall there.
 */
export function followMotion(linkage: Linkage, schedule: Schedule, frameCount = FRAMES): Motion {
  const strict = new Tracker(linkage, schedule);
  const flat = strict.nominalClosed();
  const { misfit } = flat.frame;
  const joint = strict.solver.worstJoint();
  const names = joint && joint.misfit > EXACT ? joint.bodies.map((body) => linkage.panels[body]!.id) : [];
  const closedFlat = { holds: misfit <= CLOSING_PLAY, misfit, joint: names };
  if (misfit < EXACT) return { ...follow(strict, frameCount), closedFlat };
  const meetingAt = flat.frame.folds;
  const pressed = { ...follow(new Tracker(linkage, schedule, meetingAt), frameCount), closedFlat, meetingAt };
  if (closedFlat.holds) return pressed;
  return { ...follow(strict, frameCount, pressed.frames), closedFlat, pressed };
}

/** Frames of a motion that is followed quickly, and how often a step is halved there. */
const FEW_FRAMES = 21;
const FEW_HALVINGS = 1;

/**
 * The same, roughly and much sooner where joints are strained: a card that does not close is followed pressed flat only, in few
 * frames. Enough to tell how wrong a card is while sizes are looked for; what is found must be followed whole.
 */
export function followQuickly(linkage: Linkage, schedule: Schedule): Motion {
  const strict = new Tracker(linkage, schedule, undefined, FEW_HALVINGS);
  const { folds, misfit } = strict.nominalClosed().frame;
  const closedFlat = { holds: misfit <= CLOSING_PLAY, misfit, joint: [] };
  if (misfit < EXACT) return { ...follow(strict, FEW_FRAMES), closedFlat };
  return { ...follow(new Tracker(linkage, schedule, folds, FEW_HALVINGS), FEW_FRAMES), closedFlat, meetingAt: folds };
}

/** @param near folds of a card whose joints are off by a little in every frame: no frame need be off by more than those are */
function follow(tracker: Tracker, frameCount: number, near?: readonly Frame[]): Omit<Motion, 'closedFlat'> {
  const { linkage, schedule } = tracker;
  const last = frameCount - 1;
  const sOf = (i: number): number => i / last;
  const frames: Frame[] = new Array<Frame>(frameCount);
  const { start, wrongWay } = tracker.beginSomewhere(startsFor(schedule, last), sOf);
  frames[start] = tracker.frame(sOf(start));
  for (let i = start - 1; i >= 0; i--) frames[i] = tracker.advance(frames[i + 1]!, frames[i + 2], sOf(i));
  for (let i = start + 1; i < frameCount; i++) frames[i] = tracker.advance(frames[i - 1]!, frames[i - 2], sOf(i));

  const flat = tracker.nominalClosed().frame;
  if (flat.misfit < EXACT) {
    frames[0] = flat;
    tracker.settleNearFlat(frames);
    tracker.keepFlat(frames, start);
  }
  near?.forEach((frame, i) => (frames[i] = tracker.leastStrained(frames[i]!, frame)));
  const fits = tracker.fits(frames);
  return {
    linkage,
    tree: tracker.solver.tree,
    frames,
    worstMisfit: frames.reduce((worst, frame) => Math.max(worst, frame.misfit), 0),
    reachable: fits.reduce(
      (longest, stretch) => (stretch.to - stretch.from > longest.to - longest.from ? stretch : longest),
      fits[0] ?? tracker.stretch(sOf(start), sOf(start)),
    ),
    fits,
    // Flat poses seem looser than the card is: what is loose everywhere is loose.
    freedom: Math.min(
      ...[start, Math.round(start / 2), Math.round((start + last) / 2)].map((i) => tracker.solver.freedom(frames[i]!.folds)),
    ),
    wrongWay,
  };
}

/** Places of the drive to begin at, as shares of it: where the schedule says, then well inside each of its phases, then anywhere. */
function startsFor({ startAt, phases }: Schedule, last: number): number[] {
  const inside = phases.flatMap(({ from, to }) => [0.5, 0.75].map((share) => from + (to - from) * share)).reverse();
  const anywhere = [0.3, 0.7, 0.15, 0.85, 0.95];
  return [...new Set([startAt, ...inside, ...anywhere].map((s) => Math.round(s * last)))];
}

/** The panels' places in a frame: worked out once and kept with the frame, so nothing may write into them. */
export function poseOf(motion: Pick<Motion, 'linkage' | 'tree'>, frame: Frame): Pose {
  const known = POSES.get(frame);
  if (known) return known;
  const pose = emptyPose(motion.linkage);
  poseAt(pose, motion.linkage, motion.tree, frame.folds);
  POSES.set(frame, pose);
  return pose;
}

const NONE: ReadonlySet<number> = new Set();

/** Panels whose place in a frame is not known from its folds: those that bend, but at both ends of the drive. */
export const unplacedIn = ({ linkage }: Pick<Motion, 'linkage'>, { s }: Pick<Frame, 's'>): ReadonlySet<number> =>
  s > 0 && s < 1 ? bendingBodies(linkage) : NONE;

const POSES = new WeakMap<Frame, Pose>();

/** The card between two frames for showing: folds led evenly from one to the next, not solved. */
export function frameBetween(motion: Pick<Motion, 'frames'>, s: number): Frame {
  const last = motion.frames.length - 1;
  const i = Math.min(last - 1, Math.max(0, Math.floor(s * last)));
  const [before, after] = [motion.frames[i]!, motion.frames[i + 1]!];
  const share = Math.min(1, Math.max(0, s * last - i));
  const mix = (a: number, b: number): number => a + (b - a) * share;
  return {
    s,
    opening: mix(before.opening, after.opening),
    folds: before.folds.map((fold, h) => mix(fold, after.folds[h]!)),
    misfit: mix(before.misfit, after.misfit),
  };
}

/** The card at any point of the drive, between frames too: folds are led on from the nearest frame and solved. */
export function frameAt(motion: Motion, schedule: Schedule, s: number): Frame {
  const i = Math.min(motion.frames.length - 2, Math.floor(s * (motion.frames.length - 1)));
  const before = motion.frames[i]!;
  const after = motion.frames[i + 1]!;
  const share = (s - before.s) / (after.s - before.s);
  if (share < 1e-9) return before;
  if (share > 1 - 1e-9) return after;
  const tracker = new Tracker(motion.linkage, schedule, motion.meetingAt);
  tracker.folds.set(before.folds.map((fold, h) => fold + (after.folds[h]! - fold) * share));
  return tracker.frame(s);
}

/** Nearer to half a turn than this a crease is folded over. */
const FOLDED_OVER: Radians = 1e-3;

/** How often a step is halved where the way is lost. */
const HALVINGS = 3;

class Tracker {
  readonly solver: LoopSolver;
  readonly folds: Float64Array;
  private readonly driven: ReadonlySet<number>;

  constructor(
    readonly linkage: Linkage,
    readonly schedule: Schedule,
    meetingAt?: Float64Array,
    private readonly halvings = HALVINGS,
  ) {
    this.driven = new Set([...drivenHinges(schedule)].map((id) => linkage.hingeIndex.get(id)!));
    this.solver = new LoopSolver(linkage, this.driven, meetingAt);
    this.folds = new Float64Array(linkage.hinges.length);
  }

  openingAt(s: number): Radians {
    const { hinge, atZero, perFold } = this.schedule.opening;
    return atZero + perFold * Math.abs(targetsAt(this.schedule, s).get(hinge) ?? 0);
  }

  /**
   * Begins at the first place of the drive where every crease folds the way it is scored and no joint is strained, or
   * where fewest do not: what stands on a fold that opens late lies flat until then, and cannot begin there.
   */
  beginSomewhere(starts: readonly number[], sOf: (i: number) => number): { start: number; wrongWay: string[] } {
    let best: { start: number; wrongWay: string[]; unfit: number; misfit: Mm; folds: Float64Array } | undefined;
    for (const start of starts) {
      const wrongWay = this.begin(sOf(start));
      const misfit = this.solver.misfit(this.folds);
      const unfit = wrongWay.length + this.foldedOver() + this.lyingFlat();
      const better = !best || unfit < best.unfit || (unfit === best.unfit && misfit < best.misfit - EXACT);
      if (better) best = { start, wrongWay, unfit, misfit, folds: this.folds.slice() };
      if (best!.unfit === 0 && best!.misfit < JOINT_SLACK) break;
    }
    this.folds.set(best!.folds);
    return best!;
  }

  /** How many creases that are solved for lie folded all the way over: from there no way of opening is plain. */
  private foldedOver(): number {
    return this.linkage.hinges.filter(({ loose }, h) => !loose && !this.driven.has(h) && Math.abs(this.folds[h]!) > Math.PI - FOLDED_OVER)
      .length;
  }

  /**
   * How many parts lie flat with all their creases unfolded, or folded over: on a fold that does not open yet. Which way they
   * will fold is left to rounding there. The base itself begins where its own schedule says.
   */
  private lyingFlat(): number {
    const stirred = new Array<boolean>(this.linkage.tiers).fill(false);
    const creased = new Array<boolean>(this.linkage.tiers).fill(false);
    this.linkage.hinges.forEach(({ tier, loose }, h) => {
      if (loose || this.driven.has(h)) return;
      creased[tier] = true;
      const fold = Math.abs(this.folds[h]!);
      if (fold > FOLDED_OVER && fold < Math.PI - FOLDED_OVER) stirred[tier] = true;
    });
    return creased.filter((is, tier) => tier > 0 && is && !stirred[tier]).length;
  }

  /** Solves from several plain starting angles until every crease folds the way it is scored. */
  begin(s: number): string[] {
    let best: { folds: Float64Array; misfit: Mm; wrong: string[] } | undefined;
    for (const startFold of STARTS) {
      this.linkage.hinges.forEach(({ source }, h) => (this.folds[h] = this.schedule.begin?.[source.id] ?? startFold(source.crease)));
      const { misfit } = this.frame(s);
      const wrong = this.linkage.hinges
        .filter(
          ({ source, loose }, h) => !loose && !this.driven.has(h) && (source.crease.fold === 'valley' ? -1 : 1) * this.folds[h]! > 1e-6,
        )
        .map((hinge) => hinge.id);
      const better = !best || wrong.length < best.wrong.length || (wrong.length === best.wrong.length && misfit < best.misfit - EXACT);
      if (better) best = { folds: this.folds.slice(), misfit, wrong };
      if (best!.wrong.length === 0 && best!.misfit < JOINT_SLACK) break;
    }
    this.folds.set(best!.folds);
    return best!.wrong;
  }

  /** Solves at `s` from the folds held now. */
  frame(s: number): Frame {
    for (const [id, fold] of targetsAt(this.schedule, s)) this.folds[this.linkage.hingeIndex.get(id)!] = fold;
    const misfit = this.solver.solve(this.folds);
    for (const h of this.solver.tree.openHinges) this.folds[h] = foldInPose(this.solver.pose, this.linkage, h);
    return { s, opening: this.openingAt(s), folds: this.folds.slice(), misfit };
  }

  /** Goes from one frame to `s`, led by the one before; halves the step where the way is lost. */
  advance(last: Frame, beforeLast: Frame | undefined, s: number, depth = 0): Frame {
    const stride = beforeLast ? (s - last.s) / (last.s - beforeLast.s) : 0;
    this.folds.set(last.folds);
    if (beforeLast) {
      for (let h = 0; h < this.folds.length; h++) this.folds[h]! += stride * (last.folds[h]! - beforeLast.folds[h]!);
    }
    const expected = this.folds.slice();
    const next = this.frame(s);
    if (depth < this.halvings && (next.misfit > JOINT_SLACK || this.strays(expected, next.folds))) {
      const middle = this.advance(last, beforeLast, (last.s + s) / 2, depth + 1);
      return this.advance(middle, last, s, depth + 1);
    }
    return next;
  }

  /** The closed card with every crease at its nominal angle, checked by forward kinematics alone. */
  nominalClosed(): { frame: Frame } {
    this.linkage.hinges.forEach(({ source }, h) => (this.folds[h] = source.crease.closed));
    for (const [id, fold] of targetsAt(this.schedule, 0)) this.folds[this.linkage.hingeIndex.get(id)!] = fold;
    const misfit = this.solver.misfit(this.folds);
    return { frame: { s: 0, opening: this.openingAt(0), folds: this.folds.slice(), misfit } };
  }

  /**
   * In the last degrees before a flat end the equations hardly hold a fold: half a millimetre can throw
   * a panel far out. There, and only there, a weak pull leads toward the flat pose; the misfit kept is
   * the one without the pull.
   */
  settleNearFlat(frames: Frame[]): void {
    const flat = frames[0]!;
    for (let i = 1; i < frames.length && frames[i]!.opening - flat.opening < toRadians(2.5); i++) {
      const outer = frames[i + 1];
      if (!outer) return;
      const share = frames[i]!.s / outer.s;
      const expected = outer.folds.map((fold, h) => flat.folds[h]! + (fold - flat.folds[h]!) * share);
      if (!this.strays(expected, frames[i]!.folds)) continue;
      this.folds.set(expected);
      for (const [id, fold] of targetsAt(this.schedule, frames[i]!.s)) this.folds[this.linkage.hingeIndex.get(id)!] = fold;
      const misfit = this.solver.solve(this.folds, { toward: expected, strength: 1 });
      frames[i] = { ...frames[i]!, folds: this.folds.slice(), misfit };
    }
  }

  /**
   * What stands on a fold that is still closed lies flat with it, though nothing holds it there: from the closed end on
   * each part keeps its nominal angles for as long as they close.
   */
  keepFlat(frames: Frame[], start: number): void {
    for (let tier = 1; tier < this.linkage.tiers; tier++) {
      const own = this.linkage.hinges.flatMap((hinge, h) => (hinge.tier === tier && !this.driven.has(h) ? [h] : []));
      for (let i = 1; i < start; i++) {
        this.folds.set(frames[i]!.folds);
        for (const h of own) this.folds[h] = this.linkage.hinges[h]!.source.crease.closed;
        const misfit = this.solver.misfit(this.folds);
        if (misfit >= EXACT) break;
        frames[i] = { ...frames[i]!, folds: this.folds.slice(), misfit };
      }
    }
  }

  /** Of a frame and another way of lying there the one whose joints are off least: a search may get stuck where they are off more. */
  leastStrained(frame: Frame, near: Frame): Frame {
    if (frame.misfit <= JOINT_SLACK) return frame;
    this.folds.set(near.folds);
    const asNear = this.solver.misfit(this.folds);
    const ways = [frame, { ...frame, folds: near.folds, misfit: asNear }, this.frame(frame.s)];
    return ways.reduce((least, way) => (way.misfit < least.misfit - EXACT ? way : least));
  }

  /** Whether a solution lies far from where the frames before it led: another way of folding. */
  private strays(expected: Float64Array, found: Float64Array): boolean {
    return this.linkage.hinges.some(({ loose }, h) => !loose && Math.abs(expected[h]! - found[h]!) > 0.3);
  }

  stretch(from: number, to: number): Stretch {
    return { from, to, opening: [this.openingAt(from), this.openingAt(to)] };
  }

  /** Every stretch without binding, its ends found by bisection to 1/4000 of the drive. */
  fits(frames: readonly Frame[]): Stretch[] {
    const stretches: Stretch[] = [];
    for (let i = 0; i < frames.length; i++) {
      if (frames[i]!.misfit > JOINT_SLACK) continue;
      const first = i;
      while (i + 1 < frames.length && frames[i + 1]!.misfit <= JOINT_SLACK) i++;
      const [from, to] = [this.fitsUpTo(frames[first]!, frames[first - 1]), this.fitsUpTo(frames[i]!, frames[i + 1])];
      stretches.push(this.stretch(from, to));
    }
    return stretches;
  }

  /** How far from a frame that fits toward one that does not. */
  private fitsUpTo(fitting: Frame, binding: Frame | undefined): number {
    let good = fitting;
    let bad = binding?.s;
    while (bad !== undefined && Math.abs(bad - good.s) > 1 / 4000) {
      this.folds.set(good.folds);
      const middle = this.frame((good.s + bad) / 2);
      if (middle.misfit <= JOINT_SLACK) good = middle;
      else bad = middle.s;
    }
    return good.s;
  }
}
