import { SHADES } from '../supplies/shades.js';
import { isClear, type Stock, type StockRole } from '../supplies/stocks.js';
import { stockOf } from '../card/card-stocks.js';
import type { Design } from '../card/join.js';
import { dot, norm, type Vec3 } from '../linkage/rigid.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import type { Panel } from '../sheet/panels.js';

/** Paper colours by what a piece is for, red green blue. */
const PAPER: Readonly<Record<StockRole, readonly [number, number, number]>> = {
  base: [239, 228, 203],
  mechanism: [226, 165, 68],
  display: [172, 188, 136],
  film: [196, 214, 220],
  stop: [140, 111, 86],
};
/** Papers of layers by how many lie under one. */
const LAYER_PAPER: readonly (readonly [number, number, number])[] = [
  [138, 154, 106],
  [232, 214, 166],
  [118, 134, 143],
];
/** Papers of toppers, one after the other. */
const TOPPER_PAPER: readonly (readonly [number, number, number])[] = [
  [217, 144, 58],
  [241, 230, 204],
  [140, 111, 86],
  [106, 122, 134],
];
/** Paper that is darker than this (0 black … 255 white) takes a light ink. */
const DARK = 140;
/** What lies behind is a little darker, so that openings are seen as openings. */
const DEPTH_SHADE = 0.22;
/** Clear film lets what is behind show through. */
const CLEAR = 0.35;

/** One panel as it is painted, or a part of one that is bent: SVG path data (even-odd), colour, and how much it hides. */
export interface Facet {
  panel: string;
  /** which face of the sheet is toward the viewer */
  face: 'up' | 'down';
  path: string;
  fill: string;
  opacity: number;
  /** one of many of a bent panel: it is painted without a line round it */
  bent?: true;
  /** glued on that face of the panel */
  worn?: true;
}

/** Which of several layers on one another, or which topper: both count from 1. */
export type DressedStep = ({ step: number } | { topper: number }) & { stock: Pick<Stock, 'shade' | 'kind'> };

const paperOf = (worn: DressedStep): readonly [number, number, number] =>
  worn.stock.shade
    ? SHADES[worn.stock.shade]
    : 'step' in worn
      ? LAYER_PAPER[(worn.step - 1) % LAYER_PAPER.length]!
      : TOPPER_PAPER[(worn.topper - 1) % TOPPER_PAPER.length]!;

/** From where a card is looked at: directions of the ground panel’s frame, each of length 1. */
export interface Outlook {
  toward: Vec3;
  right: Vec3;
  above: Vec3;
}

export const unit = (a: Vec3): Vec3 => {
  const length = norm(a);
  return [a[0] / length, a[1] / length, a[2] / length];
};

const LIGHT = unit([0.35, 0.45, 0.82]);

/** A point of space on the picture, y down. */
export const onPicture = (p: Vec3, { right, above }: Outlook): Point => [dot(p, right), -dot(p, above)];

/**
 * Paints loops of a panel that lie in one plane.
 * @param layer the layer that is painted, where it is not the panel itself
 * @param normal out of its upper face, of length 1  @param nearness 0 what is farthest away … 1 what is nearest
 */
export function painted(
  design: Design,
  panel: Panel,
  loops: readonly (readonly Point[])[],
  normal: Vec3,
  nearness: number,
  { toward }: Outlook,
  layer?: DressedStep,
): Facet {
  const { stock } = panel.piece;
  const own = stockOf(design, panel.piece);
  const clear = isClear(layer ? layer.stock : own);
  const paper = layer ? (clear && !layer.stock.shade ? PAPER.film : paperOf(layer)) : own.shade ? SHADES[own.shade] : PAPER[stock];
  const shade = (0.72 + 0.28 * Math.abs(dot(normal, LIGHT))) * (1 - DEPTH_SHADE * (1 - nearness));
  return {
    panel: panel.id,
    face: dot(normal, toward) > 0 ? 'up' : 'down',
    path: pathOf(loops),
    fill: `rgb(${paper.map((c) => Math.round(c * shade)).join(' ')})`,
    opacity: clear ? CLEAR : 1,
  };
}

/** A point of a curve that is nearer than this to the line past it is not drawn: small pictures are kept by the dozen. */
const SEEN = 0.12;
/** What has no more corners than this is drawn as it is. */
const FEW = 12;

/** A curve without the points that nobody misses. */
function thinned(loop: readonly Point[]): readonly Point[] {
  if (loop.length <= FEW) return loop;
  const kept: Point[] = [loop[0]!];
  let skipped: Point[] = [];
  for (const [i, point] of loop.entries()) {
    if (i === 0) continue;
    const next = loop[(i + 1) % loop.length]!;
    const from = kept.at(-1)!;
    if ([...skipped, point].every((each) => distanceToSegment(each, from, next) < SEEN)) skipped.push(point);
    else {
      kept.push(point);
      skipped = [];
    }
  }
  return kept.length >= 3 ? kept : loop;
}

/** Loops as the data of one path. */
export const pathOf = (loops: readonly (readonly Point[])[]): string =>
  loops
    .map(thinned)
    .map((loop) => `M${loop.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`)
    .join('');

/** Letters are dark on a light paper, and light on a dark one. */
export function inkOn({ shade }: Pick<Stock, 'shade'>): string {
  const [r, g, b] = shade ? SHADES[shade] : [255, 255, 255];
  return 0.299 * r + 0.587 * g + 0.114 * b > DARK ? 'rgb(58 50 40)' : 'rgb(244 236 216)';
}
