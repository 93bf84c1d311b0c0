import type { LayerJoint, Side } from '../card/dressing.js';
import type { Worn } from '../card/worn.js';
import type { Mm } from '../measure/units.js';
import type { Area } from '../plane/outline.js';
import type { Placement } from '../plane/placement.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Face } from '../sheet/piece.js';
import type { Stock } from '../supplies/stocks.js';
import type { Twin } from './twins.js';

/** When a face is seen from in front: with the card closed, half open, and as it is put down. */
export const MOMENTS = ['closed', 'half', 'open'] as const;
export type Moment = (typeof MOMENTS)[number];

/** A face of a panel that is seen, and as what: when, and which side of the panel as drawn is up for who looks. */
export interface SeenSide {
  panel: string;
  face: Face;
  shows: readonly Moment[];
  up: Side;
}

/** A layer on a panel. Its area, outline and sides are those of the panel as drawn on its piece, upper face toward you. */
export interface DressedLayer extends Worn {
  /** ties drawing, list, sheet and step together: L1, L2 … */
  number: string;
  /** 1 lies on the panel, 2 on layer 1 … */
  step: number;
  stock: Stock;
  panelName: string;
  /** what of the panel's face is free to wear it: without what is glued there */
  free: Area;
  panelBox: { width: Mm; height: Mm };
  box: { width: Mm; height: Mm };
  /** as wide as the border was wanted on each side; where an edge meets another panel's, it is 0 along that edge; negative where it stands past it */
  borders: Readonly<Record<Side, Mm>>;
  /** the border along every edge, where it is one */
  evenBorder?: Mm;
  /** edges without a border because a picture runs over them onto another panel */
  seams: number;
  /** covers a strip that is too narrow for a border */
  covers: boolean;
  /** what of it stands past the edges of its panel: no glue goes there */
  past: readonly Area[];
  /** of two papers that meet, and of the strip over their line: where that runs, from the panel's lower or left end */
  joint?: Pick<LayerJoint, 'runs' | 'at'> & { of: 'first' | 'second' | 'cover' };
  shows: readonly Moment[];
  upWhenOpen: Side;
  /** from the sheet it is cut from, its good side toward you and up at the top, onto the panel's piece */
  placement: Placement;
  /** of layers that are cut in one piece over the folds between them the same for all */
  sheet: CutSheet;
  /** in one piece with others: over which folds, and by how much it is shorter over each than its panels, or with a minus longer */
  liner?: Liner;
  twin?: Twin;
  part: string;
}

/** What is known of a piece that lies over several panels. */
export interface Liner {
  /** the layers that it is, as they are glued on */
  of: readonly string[];
  folds: readonly { name: string; shorter: Mm }[];
}

/** A face that is seen and wears nothing, and why. */
export interface BareFace {
  panel: string;
  name: string;
  face: Face;
  why: 'wished' | 'clear' | 'raised' | 'bends' | 'tab' | 'small' | 'borders';
}

/** All layers of a card, in the order of its panels, and what stays bare. */
export interface Layers {
  layers: readonly DressedLayer[];
  bare: readonly BareFace[];
}

/** Layers by the pieces that are cut for them: of those that are in one piece the first. */
export const cutOnce = (layers: readonly DressedLayer[]): DressedLayer[] =>
  layers.filter(({ sheet }, i) => layers.findIndex((other) => other.sheet === sheet) === i);
