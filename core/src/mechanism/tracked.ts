import type { Point } from '../plane/point.js';
import type { Tracked } from './contract.js';

/** What a reading is called: `id` in files and at the terminal, `label` for the maker. */
interface Called {
  id: string;
  label: string;
}

/** The angle between a direction of one panel and a direction of another, each in its panel's own plane. */
export function trackedAngle(called: Called, [panel, along]: [string, Point], [withPanel, withAlong]: [string, Point]): Tracked {
  return { ...called, kind: 'angle', panel, along, withPanel, withAlong };
}

/** The height of a panel's point above the table. */
export function trackedHeight(called: Called, [panel, at]: [string, Point]): Tracked {
  return { ...called, kind: 'height', panel, at };
}

/** How far a panel's point lies from a point of another panel, along a direction of that other panel. */
export function trackedTravel(called: Called, [panel, at]: [string, Point], [onPanel, from, along]: [string, Point, Point]): Tracked {
  return { ...called, kind: 'travel', panel, at, onPanel, from, along };
}
