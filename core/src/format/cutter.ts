import { cutterMoves, USUAL_CUTTER, type CutterJob, type CutterMachine, type CutterMove } from '../plan/cutter-job.js';
import { cutterReport, type CutterReport } from '../plan/cutter-report.js';
import { pictureOfCut, readCutterSvg } from './cutter-svg.js';

export type CutterState = 'waiting' | 'plotting' | 'paused' | 'done' | 'cancelled';

/** How far a drawing is on the machine. */
export interface CutterProgress {
  id: string;
  state: CutterState;
  /** share of the whole time, 0 … 1 */
  done: number;
  /** of the machine's own time: gone, and all of it */
  seconds: number;
  of: number;
  /** what the head does now */
  tool: CutterMove['tool'] | null;
}

export interface CutterSetting {
  pace: number;
  now: () => number;
  newId: () => string;
  machine?: CutterMachine;
}

interface Plot {
  id: string;
  job: CutterJob;
  moves: CutterMove[];
  report: CutterReport;
  state: CutterState;
  /** seconds of the machine's time that are gone, and when they were counted last (ms) */
  gone: number;
  counted: number;
}

/** A drawing that the machine does not take, and why. */
export class NotTaken extends Error {}

/** A drawing that the machine does not hold any more, or cannot do that with now. */
export class NoSuchPlot extends Error {}

const MOST_KEPT = 16;
const ENDED: readonly CutterState[] = ['done', 'cancelled'];

/**
 * A machine that follows drawings in its memory only, one after the other, at its own speed or faster: a stand-in for one that
 * stands on a table.
 */
export class Cutter {
  private readonly plots: Plot[] = [];

  private readonly pace: number;
  private readonly now: () => number;
  private readonly newId: () => string;
  private readonly machine: CutterMachine;

  /**
   * @param given.pace how many times faster than the machine itself @param given.now the time, ms
   * @param given.newId a name for a drawing that nobody guesses
   */
  constructor({ pace, now, newId, machine = USUAL_CUTTER }: CutterSetting) {
    this.pace = pace;
    this.now = now;
    this.newId = newId;
    this.machine = machine;
  }

  /** Takes a drawing. @throws NotTaken with what is wrong with it, or when too many wait */
  take(svg: string): CutterProgress {
    this.goOn();
    const read = readCutterSvg(svg, this.machine);
    if (!read.ok) throw new NotTaken(read.says);
    const ended = this.plots.find(({ state }) => ENDED.includes(state));
    if (this.plots.length >= MOST_KEPT && !ended)
      throw new NotTaken(`The machine holds ${MOST_KEPT} drawings already: wait, or cancel one.`);
    if (this.plots.length >= MOST_KEPT) this.plots.splice(this.plots.indexOf(ended!), 1);
    const { job } = read;
    const plot: Plot = {
      id: this.newId(),
      job,
      moves: cutterMoves(job, this.machine),
      report: cutterReport(job, this.machine),
      state: 'waiting',
      gone: 0,
      counted: this.now(),
    };
    this.plots.push(plot);
    this.goOn();
    return this.progressOf(plot);
  }

  /** All drawings that it holds, taken first first. */
  all(): CutterProgress[] {
    this.goOn();
    return this.plots.map((plot) => this.progressOf(plot));
  }

  /** @throws NoSuchPlot */
  progress(id: string): CutterProgress {
    this.goOn();
    return this.progressOf(this.plot(id));
  }

  /** Holds a drawing that is being followed; it keeps its place. @throws NoSuchPlot */
  pause(id: string): CutterProgress {
    return this.turn(id, ['plotting', 'waiting'], 'paused');
  }

  /** @throws NoSuchPlot */
  resume(id: string): CutterProgress {
    return this.turn(id, ['paused'], 'waiting');
  }

  /** Ends a drawing where it is. @throws NoSuchPlot */
  cancel(id: string): CutterProgress {
    return this.turn(id, ['plotting', 'waiting', 'paused'], 'cancelled');
  }

  /** What has been cut by now, as a drawing. @throws NoSuchPlot */
  picture(id: string): string {
    this.goOn();
    const { job, moves, gone } = this.plot(id);
    return pictureOfCut(job, until(moves, gone), this.machine);
  }

  /** What comes of the drawing. @throws NoSuchPlot */
  report(id: string): CutterReport {
    return this.plot(id).report;
  }

  private plot(id: string): Plot {
    const found = this.plots.find((plot) => plot.id === id);
    if (!found) throw new NoSuchPlot('There is no such drawing on the machine.');
    return found;
  }

  private turn(id: string, from: readonly CutterState[], to: CutterState): CutterProgress {
    this.goOn();
    const plot = this.plot(id);
    if (!from.includes(plot.state)) throw new NoSuchPlot(`This drawing is ${plot.state}: that cannot be done with it now.`);
    plot.state = to;
    this.goOn();
    return this.progressOf(plot);
  }

  /** Counts the time that is gone, and begins the next drawing where none is being followed: a paused one keeps the machine. */
  private goOn(): void {
    const now = this.now();
    for (const plot of this.plots) {
      if (plot.state === 'plotting') {
        plot.gone = Math.min(plot.report.seconds, plot.gone + ((now - plot.counted) / 1000) * this.pace);
        if (plot.gone >= plot.report.seconds) plot.state = 'done';
      }
      plot.counted = now;
    }
    const isHeld = this.plots.some(({ state, gone }) => state === 'plotting' || (state === 'paused' && gone > 0));
    const begun = this.plots.find(({ state, gone }) => state === 'waiting' && gone > 0);
    const next = begun ?? this.plots.find(({ state }) => state === 'waiting');
    if (!isHeld && next) next.state = 'plotting';
  }

  private progressOf({ id, state, gone, moves, report: { seconds } }: Plot): CutterProgress {
    const tool = state === 'plotting' ? (until(moves, gone).at(-1)?.tool ?? null) : null;
    return { id, state, done: seconds > 0 ? gone / seconds : 1, seconds: gone, of: seconds, tool };
  }
}

/** The way that has been gone in some seconds, the last stretch as far as it has come. */
function until(moves: readonly CutterMove[], seconds: number): { tool: CutterMove['tool']; points: CutterMove['points'] }[] {
  let left = seconds;
  const gone: { tool: CutterMove['tool']; points: CutterMove['points'] }[] = [];
  for (const move of moves) {
    if (left >= move.seconds - 1e-9) {
      gone.push(move);
      left -= move.seconds;
      continue;
    }
    if (left > 0) gone.push({ tool: move.tool, points: partOf(move.points, (left / move.seconds) * move.length) });
    break;
  }
  return gone;
}

function partOf(points: CutterMove['points'], length: number): CutterMove['points'] {
  const part = [points[0]!];
  let left = length;
  for (const [i, to] of points.slice(1).entries()) {
    const from = points[i]!;
    const long = Math.hypot(to[0] - from[0], to[1] - from[1]);
    if (left < long) {
      const share = left / long;
      part.push([from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1])]);
      break;
    }
    part.push(to);
    left -= long;
  }
  return part;
}
