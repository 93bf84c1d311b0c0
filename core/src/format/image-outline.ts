import type { OwnOutline } from './outline-svg.js';
import { outlineId, shortName } from './outline-name.js';
import { outlineTrouble } from '../card/own-outlines.js';
import { boxOf, rectangle, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { thinned, tidied } from '../plane/tidy-outline.js';
import { whatShows, type Pixels } from '../image/pixels.js';
import { silhouetteOf } from '../image/silhouette.js';

/** What a picture is cut along: the line round what it shows, or its own edge. */
export type CutAlong = 'shows' | 'whole';

/** Outlines are brought to this size, the longer way. */
const LONGER = 1000;
/** The edges of pixels are smoothed by so much of one. */
const SMOOTHED = 0.75;

/** An outline read from a picture, and what of it is left out, in a sentence. */
export interface ImageOutline {
  outline: OwnOutline;
  note?: string;
}

/**
 * The outline that a picture is cut along, with where the picture lies on it.
 * @param name of its file  @param image id under which the card keeps it
 */
export function outlineOfImage(pixels: Pixels, name: string, image: string, along: CutAlong): ImageOutline {
  const shows = along === 'shows' ? whatShows(pixels) : undefined;
  const shape = shows && silhouetteOf(shows, pixels.width);
  const traced = shape && placed(shape.line, pixels, name, image);
  if (!traced || outlineTrouble(traced.points)) {
    const outline = placed(rectangle(0, 0, pixels.width, pixels.height), pixels, name, image);
    return along === 'whole' ? { outline } : { outline, note: `${name} shows no shape on a plain ground: it is cut along its own edge.` };
  }
  const { apart } = shape;
  if (apart === 0) return { outline: traced };
  const other = apart === 1 ? 'One other part lies' : `${apart} other parts lie`;
  return { outline: traced, note: `${other} apart in ${name} and would be cut off: cut it along its edge, or join them in the picture.` };
}

/** A line in pixels as an outline of a card, the picture lying on it as it did. */
function placed(line: Loop, { width, height }: Pixels, name: string, image: string): OwnOutline {
  const box = boxOf(line);
  const scale = LONGER / Math.max(box.maxX - box.minX, box.maxY - box.minY);
  const scaled = line.map(([x, y]): Point => [(x - box.minX) * scale, (y - box.minY) * scale]);
  const { outline } = tidied(thinned(scaled, SMOOTHED * scale), SMOOTHED * scale);
  return {
    id: outlineId(name),
    name: shortName(name),
    points: outline.map(([x, y]): [number, number] => [rounded(x), rounded(y)]),
    image: {
      of: image,
      x: rounded(-box.minX * scale),
      y: rounded(-box.minY * scale),
      width: rounded(width * scale),
      height: rounded(height * scale),
    },
  };
}

const rounded = (value: number): number => Number(value.toFixed(2));
