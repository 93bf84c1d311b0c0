import type { Point } from '../plane/point.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Material } from './materials.js';
import type { LineReading } from './reading.js';
import type { Join } from './joins-said.js';
import type { ScoreReading } from './score-runs.js';
import type { Mm } from '../measure/units.js';

export type StepKind = 'ready' | 'trim' | 'score' | 'mark' | 'cut' | 'fold' | 'dry-fit' | 'burnish' | 'dress' | 'glue' | 'test' | 'post';

/** What the drawing of a step shows: a flat piece with only what this step needs, or the standing card. */
export type StepPicture =
  | {
      kind: 'flat';
      piece: string;
      face: 'up' | 'down';
      turned: boolean;
      scores: string[];
      zones: string[];
      marks: boolean;
      cuts: boolean;
      /** its outline has not been cut yet: it lies there as a blank */
      blank?: true;
      /** numbers of readings that are told in words, each at its cut */
      numbers?: { order: number; at: Point }[];
    }
  | { kind: 'standing'; at: number };

/** A piece trimmed to its blank: as wide and high as the finished piece. */
export interface TrimmedBlank {
  piece: string;
  width: Mm;
  height: Mm;
}

/** One thing to do, with the numbers of just this step. */
export interface BenchStep {
  id: string;
  kind: StepKind;
  title: string;
  says: string[];
  /** settings of the board, in the order in which they are scored */
  scores?: ScoreReading[];
  /** every line that the step makes, once */
  readings: LineReading[];
  /** what it trims from a sheet */
  blanks?: TrimmedBlank[];
  /** what it glues together */
  joins?: Join[];
  /** the card is closed onto what it glues */
  closesCard?: true;
  /** ids of the joints that it glues */
  glues?: string[];
  materials?: Material[];
  picture?: StepPicture;
  cautions: string[];
  /** to wait before the next step */
  dryMinutes?: number;
}

export const KNIFE =
  'Knife and trimmer: cut away from your fingers, on a cutting mat, with a fresh blade. Follow your local workshop rules.';
export const GLUE = 'Strong glues: open a window, keep them off skin, follow the label and your local rules.';
export const FOAM = 'Small parts and foam: keep away from small children.';

/** A step that makes no line. */
export const plainStep = (step: Omit<BenchStep, 'readings' | 'cautions'> & Partial<BenchStep>): BenchStep => ({
  readings: [],
  cautions: [],
  ...step,
});

/** The blank of a sheet. */
export const blankOf = ({ piece, width, height }: CutSheet): TrimmedBlank => ({ piece: piece.id, width, height });

type Flat = Extract<StepPicture, { kind: 'flat' }>;

/** A picture of a flat piece, upper face up, with nothing on it but what is asked for. */
export function flat(sheet: CutSheet, shown: Partial<Flat> = {}): StepPicture {
  return { kind: 'flat', piece: sheet.piece.id, face: 'up', turned: false, scores: [], zones: [], marks: false, cuts: false, ...shown };
}
