import { stockOf } from '../card/card-stocks.js';
import type { LayerRule, LinedFold } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import { poseOf, type Motion } from '../linkage/motion.js';
import { dot, type Vec3 } from '../linkage/rigid.js';
import type { HingeJoint } from '../linkage/structure.js';
import type { Mm, Radians } from '../measure/units.js';
import { areasOf, unite } from '../plane/boolean.js';
import { areaOf, asArea, boxOf, movedArea, type Area } from '../plane/outline.js';
import { composed, place, shifted, undone } from '../plane/placement.js';
import { distance, distanceToSegment, type Point } from '../plane/point.js';
import { straightened } from '../plane/straightened.js';
import { cutSheet, type Eases } from '../sheet/cut-sheet.js';
import { linerAllowance } from '../sheet/liner-allowance.js';
import { blankPiece, type Crease, type Face } from '../sheet/piece.js';
import { laidOn } from './layer-piece.js';
import type { DressedLayer, SeenSide } from './layer.js';

/** Lines this close lie on one another. */
const ON_LINE: Mm = 0.05;
/** Pieces that hang together by less tear apart. */
const LEAST_SHARED: Mm = 3;

/** A fold over which two layers are cut in one piece. */
interface Link {
  hinge: HingeJoint;
  a: DressedLayer;
  b: DressedLayer;
}

/** The fold between two panels of one piece; nothing where there is none. */
export function foldBetween({ linkage, panels }: Design, [a, b]: LinedFold['panels']): HingeJoint | undefined {
  const [left, right] = [linkage.bodyOf.get(a), linkage.bodyOf.get(b)];
  if (left === undefined || right === undefined || panels[left]!.piece !== panels[right]!.piece) return undefined;
  return linkage.hinges.find((hinge) => (hinge.left === left && hinge.right === right) || (hinge.left === right && hinge.right === left));
}

/** A rule that keeps the folds over which layers can run on: both faces are seen, wear something, and there is a fold between them. */
export function withLiveFolds(design: Design, rule: LayerRule, sides: readonly Pick<SeenSide, 'panel' | 'face'>[]): LayerRule {
  if (!rule.overFolds) return rule;
  const wears = (panel: string, face: Face): boolean =>
    sides.some((side) => side.panel === panel && side.face === face) &&
    !rule.own?.some((own) => own.panel === panel && own.face === face && own.bare);
  return {
    ...rule,
    overFolds: rule.overFolds.filter(({ panels, face }) => foldBetween(design, panels) && panels.every((panel) => wears(panel, face))),
  };
}

/** Whether the layer of a face shares a piece with a neighbour’s. */
export const isLined = ({ overFolds }: LayerRule, panel: string, face: Face): boolean =>
  (overFolds ?? []).some((fold) => fold.face === face && fold.panels.includes(panel));

/** Whether an edge of a panel is a fold over which its layer runs on. */
export function runsOver(design: Design, { overFolds }: LayerRule, panel: string, face: Face, from: Point, to: Point): boolean {
  return (overFolds ?? []).some((fold) => {
    const hinge = fold.face === face && fold.panels.includes(panel) ? foldBetween(design, fold.panels) : undefined;
    const crease = hinge?.source.crease;
    return crease !== undefined && [from, to].every((point) => distanceToSegment(point, crease.from, crease.to) < ON_LINE);
  });
}

/** The folds over which layers can really be cut in one piece: the lowest layer of both faces is one, in one part. */
function linksOf(design: Design, layers: readonly DressedLayer[], { overFolds = [] }: LayerRule): Link[] {
  return overFolds.flatMap(({ panels, face }): Link[] => {
    const hinge = foldBetween(design, panels);
    const [a, b] = panels.map((panel) => {
      const lowest = layers.filter((layer) => layer.panel === panel && layer.face === face && layer.step === 1);
      return lowest.length === 1 ? lowest[0] : undefined;
    });
    return hinge && a && b && reachesUpTo(hinge, a.area, b.area) ? [{ hinge, a, b }] : [];
  });
}

/** Layers that are one piece, each list in the order in which they follow from its first. */
function groupsOf(layers: readonly DressedLayer[], links: readonly Link[]): DressedLayer[][] {
  const left = new Set(layers.filter((layer) => links.some(({ a, b }) => a === layer || b === layer)));
  const groups: DressedLayer[][] = [];
  for (const first of left) {
    const group = [first];
    left.delete(first);
    for (const layer of group) {
      for (const { a, b } of links) {
        const next = a === layer ? b : b === layer ? a : undefined;
        if (next && left.delete(next)) group.push(next);
      }
    }
    groups.push(group);
  }
  return groups;
}

/** Layers that are one piece have one paper: that of the first. */
export function oneStock(design: Design, layers: readonly DressedLayer[], rule: LayerRule): DressedLayer[] {
  const groups = groupsOf(layers, linksOf(design, layers, rule));
  return layers.map((layer) => {
    const first = groups.find((group) => group.includes(layer))?.[0];
    if (!first || first === layer) return layer;
    return { ...layer, stock: first.stock, thickness: first.thickness, weight: first.weight };
  });
}

/** Those that are one piece have one number. @returns for each layer the place in the list of the one that it is counted as */
export function countedAs(design: Design, layers: readonly DressedLayer[], rule: LayerRule): number[] {
  const groups = groupsOf(layers, linksOf(design, layers, rule));
  return layers.map((layer, i) => {
    const first = groups.find((group) => group.includes(layer))?.[0];
    return first ? layers.indexOf(first) : i;
  });
}

/**
 * Layers of which those that run on over folds are one piece each: as long as its panels less what the way round is shorter inside a
 * fold, or with what it is longer outside, and with what a spine widens it by.
 * @param eases of the card’s folds, as its pieces are cut
 */
export function inOnePiece(design: Design, motion: Motion, layers: readonly DressedLayer[], rule: LayerRule, eases: Eases): DressedLayer[] {
  const links = linksOf(design, layers, rule);
  if (links.length === 0) return [...layers];
  const made = new Map<DressedLayer, DressedLayer>();
  for (const group of groupsOf(layers, links)) {
    const own = links.filter(({ a }) => group.includes(a));
    for (const [layer, cut] of linerOf(design, motion, group, own, eases)) made.set(layer, cut);
  }
  const lined = new Set([...made.values()].map(({ id }) => id));
  return layers.map((layer) => withoutTwin(made.get(layer) ?? layer, lined));
}

/** What is in one piece with others is no twin of anything, and nothing is one of it. */
function withoutTwin({ twin, ...layer }: DressedLayer, lined: ReadonlySet<string>): DressedLayer {
  return twin === undefined || layer.liner || lined.has(twin.of) ? layer : { ...layer, twin };
}

/** A fold of a liner as it lies flat, between two of its layers. */
interface LinerFold {
  hinge: HingeJoint;
  /** the stretch of it that both layers reach up to */
  line: readonly [Point, Point];
  /** away from the layer that is placed already */
  way: Point;
  /** how much wider its stretch is than on the piece; less where negative */
  wider: Mm;
  spine: Mm;
  /** how far the layer that is placed already lies from its place on the piece */
  from: Point;
}

function linerOf(
  design: Design,
  motion: Motion,
  group: readonly DressedLayer[],
  links: readonly Link[],
  eases: Eases,
): [DressedLayer, DressedLayer][] {
  const [first] = group as readonly [DressedLayer, ...DressedLayer[]];
  const moved = new Map<DressedLayer, Point>([[first, [0, 0]]]);
  const folds: LinerFold[] = [];
  for (const layer of group) {
    for (const { hinge, a, b } of links) {
      const next = a === layer ? b : b === layer ? a : undefined;
      if (!next || moved.has(next)) continue;
      const way = across(hinge, next);
      const spine = Math.max(0, eases[hinge.id] ?? 0);
      const wider = spine - shorterOver(design, motion, hinge, first);
      const from = moved.get(layer)!;
      folds.push({ hinge, line: sharedLine(hinge, layer.area, next.area), way, wider, spine, from });
      moved.set(next, [from[0] + way[0] * wider, from[1] + way[1] * wider]);
    }
  }
  const areas: Area[] = [...moved].map(([layer, [dx, dy]]) => movedArea(layer.area, ([x, y]) => [x + dx, y + dy]));
  const [whole] = areasOf(unite([...areas, ...folds.filter(({ wider }) => wider > 0).map(filler)])).sort(
    (a, b) => areaOf(b) - areaOf(a),
  ) as [Area, ...Area[]];
  const laid = laidOn(whole, { face: first.face, up: first.upWhenOpen });
  const onSheet = (point: Point): Point => place(point, undone(laid));
  const cut = movedArea({ outer: straightened(whole.outer), holes: whole.holes.map((hole) => straightened(hole)) }, onSheet);
  const names = group.map(({ panelName }) => panelName);
  const sheet = cutSheet(
    blankPiece({
      ...first.sheet.piece,
      name: `${first.number}, liner over the ${listed(names)}`,
      outline: cut.outer,
      windows: cut.holes.map((outline, i) => ({ id: `opening-${i + 1}`, outline })),
      creases: folds.flatMap((fold) =>
        scoresOf(fold, first.face).map((crease) => ({ ...crease, from: onSheet(crease.from), to: onSheet(crease.to) })),
      ),
      because: 'as large as its panels, less the border on each side, and shorter across a fold that it lies inside of, longer outside',
    }),
  );
  const liner = {
    of: group.map(({ id }) => id),
    folds: folds.map(({ hinge, wider, spine }) => ({ name: hinge.source.crease.name, shorter: spine - wider })),
  };
  return group.map((layer): [DressedLayer, DressedLayer] => {
    const [dx, dy] = moved.get(layer)!;
    return [layer, { ...layer, name: sheet.piece.name, placement: composed(shifted([-dx, -dy]), laid), sheet, liner }];
  });
}

/** The direction across a fold, on the flat piece, toward a layer beyond it. */
function across({ source: { crease } }: HingeJoint, toward: DressedLayer): Point {
  const [dx, dy] = [crease.to[0] - crease.from[0], crease.to[1] - crease.from[1]];
  const length = Math.hypot(dx, dy);
  const box = boxOf(toward.area.outer);
  const [x, y] = [(box.minX + box.maxX) / 2 - crease.from[0], (box.minY + box.maxY) / 2 - crease.from[1]];
  const side = Math.sign(x * -dy + y * dx);
  return [(side * -dy) / length, (side * dx) / length];
}

/** The way round is shorter inside a fold, longer outside of it, by its greatest turn. */
function shorterOver(design: Design, motion: Motion, hinge: HingeJoint, { face, stock }: DressedLayer): Mm {
  const { fold } = hinge.source.crease;
  const base = stockOf(design, design.panels[hinge.left]!.piece);
  const inside = (fold === 'valley') === (face === 'up');
  return (inside ? 1 : -1) * linerAllowance(greatestTurn(motion, hinge), base.caliper, stock.caliper);
}

function greatestTurn(motion: Motion, { left, right }: HingeJoint): Radians {
  return Math.max(
    ...motion.frames.map((frame) => {
      const pose = poseOf(motion, frame);
      const normal = (body: number): Vec3 => [pose[body]![2]!, pose[body]![6]!, pose[body]![10]!];
      return Math.acos(Math.min(1, Math.max(-1, dot(normal(left), normal(right)))));
    }),
  );
}

/** The stretch of a fold that two areas both have as an edge. */
function sharedLine({ source: { crease } }: HingeJoint, a: Area, b: Area): readonly [Point, Point] {
  const { from, to } = crease;
  const length = distance(from, to);
  const [ux, uy] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  const stretch = ({ outer }: Area): [Mm, Mm] => {
    const on = outer.filter((point) => distanceToSegment(point, from, to) < ON_LINE);
    const along = on.map(([x, y]) => (x - from[0]) * ux + (y - from[1]) * uy);
    return [Math.min(...along), Math.max(...along)];
  };
  const [[a0, a1], [b0, b1]] = [stretch(a), stretch(b)];
  const at = (along: Mm): Point => [from[0] + ux * along, from[1] + uy * along];
  return [at(Math.max(a0, b0)), at(Math.min(a1, b1))];
}

/** Whether two areas both reach up to a fold, beside one another. */
function reachesUpTo(hinge: HingeJoint, a: Area, b: Area): boolean {
  const { from, to } = hinge.source.crease;
  const [start, end] = sharedLine(hinge, a, b);
  return (end[0] - start[0]) * (to[0] - from[0]) + (end[1] - start[1]) * (to[1] - from[1]) > LEAST_SHARED * distance(from, to);
}

/** What lies between two layers where the fold is wider than on the piece. */
function filler({ line: [start, end], way, wider, from }: LinerFold): Area {
  const [near, far] = [from, [from[0] + way[0] * wider, from[1] + way[1] * wider] as const];
  return asArea([movedBy(start, near), movedBy(end, near), movedBy(end, far), movedBy(start, far)]);
}

/** The score in the middle of a fold; two where the card has a spine there. */
function scoresOf({ hinge, line, way, wider, spine, from }: LinerFold, face: Face): Crease[] {
  const { crease } = hinge.source;
  const fold = face === 'up' ? crease.fold : crease.fold === 'valley' ? 'mountain' : 'valley';
  const at = (by: Mm, nth: '' | '-2'): Crease => {
    const [start, end] = line.map((point) => movedBy(point, [from[0] + way[0] * by, from[1] + way[1] * by])) as [Point, Point];
    return {
      ...{ id: `fold-${crease.id.replace(/[^a-z0-9]+/gi, '-')}`.slice(0, 60) + nth, fold, closed: crease.closed, ease: 0 },
      name: spine === 0 ? crease.name : `${crease.name}, ${nth === '' ? 'first' : 'second'} spine score`,
      from: start,
      to: end,
    };
  };
  return spine > 0 ? [at((wider - spine) / 2, ''), at((wider + spine) / 2, '-2')] : [at(wider / 2, '')];
}

const movedBy = ([x, y]: Point, [dx, dy]: Point): Point => [x + dx, y + dy];

const listed = (names: readonly string[]): string => `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
