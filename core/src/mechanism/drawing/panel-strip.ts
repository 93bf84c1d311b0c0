import type { Mm, Radians } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import type { Fold, Piece, StandsFor } from '../../sheet/piece.js';
import { edgesOf, uprightCrease } from './upright.js';

/** The score behind a panel of a strip. */
export interface StripFold {
  id: string;
  name: string;
  fold: Fold;
  closed: Radians;
  standsFor?: StandsFor;
  /** where it runs, when not right across */
  along?: readonly [from: Mm, to: Mm];
}

/** A panel of a strip, and the score between it and the next one. */
export interface StripPanel {
  panel: string;
  name: string;
  width: Mm;
  then?: StripFold;
}

/** A strip of panels side by side. */
export interface PanelStrip {
  /** where each panel begins, and where the last one ends */
  x: number[];
  /** what a piece has of it */
  drawn: Pick<Piece, 'outline' | 'creases' | 'anchors'>;
}

/** @param anchorAt how far up the strip its panels are told apart: where no window or slot is cut */
export function panelStrip(height: Mm, panels: readonly StripPanel[], anchorAt: Mm = height / 2): PanelStrip {
  const x = edgesOf(panels.map(({ width }) => width));
  return {
    x,
    drawn: {
      outline: rectangle(0, 0, x[panels.length]!, height),
      creases: panels.flatMap(({ then }, i) => {
        if (!then) return [];
        const { id, name, fold, closed, standsFor, along = [0, height] } = then;
        return [uprightCrease(id, name, x[i + 1]!, along, fold, closed, standsFor)];
      }),
      anchors: panels.map(({ panel, name }, i) => ({ panel, name, at: [(x[i]! + x[i + 1]!) / 2, anchorAt] })),
    },
  };
}
