import type { Mm, Notation } from '../measure/units.js';
import type { Board } from './boards.js';
import type { Calibration } from './calibration.js';
import type { Envelope, Region } from './envelopes.js';
import type { SheetSize } from './sheets.js';
import type { Stock, StockRole } from './stocks.js';

/** Something that joins paper. */
export interface Adhesive {
  id: string;
  name: string;
  grip: 'strong' | 'slidable' | 'removable' | 'film';
  /** before the next step may begin */
  setMinutes: number;
}

export interface Magnet {
  id: string;
  name: string;
  diameter: Mm;
  thickness: Mm;
}

/** A sliding-blade trimmer. */
export interface Trimmer {
  id: string;
  name: string;
  /** longest cut */
  length: Mm;
  /** edges with a scale that a sheet is laid against */
  guides: 'left' | 'right' | 'both';
  /** what a cut is off by, more often than not less */
  error: Mm;
}

export interface Knife {
  id: string;
  name: string;
  error: Mm;
}

/** An electronic cutter. */
export interface Cutter {
  id: string;
  name: string;
  width: Mm;
  height: Mm;
  /** width of what the blade takes away */
  kerf: Mm;
  folds: 'score' | 'dashes';
  /** the tightest curve it follows */
  smallestRadius: Mm;
}

/** A die or punch: one outline in nested sizes. */
export interface Die {
  id: string;
  name: string;
  outline: string;
  /** width of what each size cuts out, and of the opening that stays in the sheet, largest first */
  sizes: readonly { cut: Mm; opening: Mm }[];
}

/** Sizes a maker uses again and again. A new part begins with them. */
export interface Habits {
  /** of a layer, each side */
  border: Mm;
  /** from one layer to the next, each side */
  layerStep: Mm;
  /** between a glued tab and a fold, and wherever something must clear */
  clearance: Mm;
  tabWidth: Mm;
}

/** What this maker's hand is off by, as a standard deviation. */
export interface HandErrors {
  score: Mm;
  cut: Mm;
  glue: Mm;
}

/** Ways of working that makers differ in. */
export interface Schools {
  scoring: 'one-face' | 'flip';
  cutting: 'knife' | 'trimmer';
}

/** What the maker has and how the maker works. Kept beside the cards; every list on the bench comes from it. */
export interface Workshop {
  format: 'diptychon-workshop';
  version: 1;
  notation: Notation;
  region: Region;
  stocks: readonly Stock[];
  adhesives: readonly Adhesive[];
  magnets: readonly Magnet[];
  boards: readonly Board[];
  trimmers: readonly Trimmer[];
  knives: readonly Knife[];
  cutters: readonly Cutter[];
  dies: readonly Die[];
  envelopes: readonly Envelope[];
  sheets: readonly SheetSize[];
  /** what a new card begins with */
  usual: { board: string; stocks: Readonly<Record<StockRole, string>> };
  habits: Habits;
  hand: HandErrors;
  schools: Schools;
  /** what was found from measurements and accepted */
  calibrations?: readonly Calibration[];
}

/** The lists of a workshop. */
export const SUPPLY_LISTS = [
  'stocks',
  'adhesives',
  'magnets',
  'boards',
  'trimmers',
  'knives',
  'cutters',
  'dies',
  'envelopes',
  'sheets',
] as const;
export type SupplyList = (typeof SUPPLY_LISTS)[number];
export type SupplyOf<L extends SupplyList> = Workshop[L][number];
export type Supply = SupplyOf<SupplyList>;
