import { arrange, type ArrangedEdge, type LabelledSegment } from '../plane/arrangement.js';
import { areaContains, centroid, loopContains, type Area, type Loop } from '../plane/outline.js';
import { distance, turn, type Point } from '../plane/point.js';
import type { Crease, Piece } from './piece.js';

/** A rigid part of a piece, between creases and cuts. Id: `piece/panel`. */
export interface Panel {
  id: string;
  name: string;
  piece: Piece;
  area: Area;
  /** the part that it moves with */
  part?: string;
}

/** A crease between two panels. `left` lies to the left of from→to as drawn. Id: `piece/crease`. */
export interface PanelHinge {
  id: string;
  crease: Crease;
  from: Point;
  to: Point;
  left: string;
  right: string;
}

/** Something about a drawing that cannot be folded as it stands. */
export interface SplitFault {
  kind: 'crease-in-one-panel' | 'locked-panels' | 'panel-without-name' | 'name-without-panel';
  says: string;
}

export interface SplitPiece {
  panels: Panel[];
  hinges: PanelHinge[];
  faults: SplitFault[];
}

type Label = { role: 'edge' } | { role: 'crease'; crease: Crease };

/**
 * Splits a piece into its rigid panels along creases and cuts, and finds the hinges between them.
 * A crease with the same panel on both sides, two panels locked by creases that are not in one
 * line, and names that do not match exactly one panel come back as faults.
 */
export function splitPiece(piece: Piece): SplitPiece {
  const known = SPLIT.get(piece);
  if (known) return known;
  const split = splitAnew(piece);
  SPLIT.set(piece, split);
  return split;
}

/** Pieces are never changed once drawn, so each is split once however often it is asked for. */
const SPLIT = new WeakMap<Piece, SplitPiece>();

function splitAnew(piece: Piece): SplitPiece {
  const { faces, edges } = arrange(segmentsOf(piece));
  const faults: SplitFault[] = [];
  const panelOfFace = new Map<number, Panel>();
  faces.forEach((area, i) => {
    if (!isMaterial(piece, area)) return;
    const names = piece.anchors.filter((anchor) => areaContains(area, anchor.at));
    if (names.length !== 1) {
      const says = names.length === 0 ? 'has no name' : `is named ${names.map((a) => a.name).join(' and ')}`;
      faults.push({ kind: 'panel-without-name', says: `A part of ${piece.name} ${says}.` });
    }
    const name = names[0];
    panelOfFace.set(i, {
      id: `${piece.id}/${name?.panel ?? namelessAt(area)}`,
      name: name?.name ?? `a loose part of ${piece.name}`,
      piece,
      area,
      ...((name?.part ?? piece.part) !== undefined && { part: name?.part ?? piece.part }),
    });
  });
  const panels = [...panelOfFace.values()];
  for (const anchor of piece.anchors) {
    if (!panels.some((panel) => areaContains(panel.area, anchor.at))) {
      faults.push({ kind: 'name-without-panel', says: `The part “${anchor.name}” of ${piece.name} has no material left.` });
    }
  }
  const hinges: PanelHinge[] = [];
  for (const crease of piece.creases) collectHinges(crease, edges, panelOfFace, piece, hinges, faults);
  faults.push(...lockedPairs(hinges));
  return { panels, hinges, faults };
}

function segmentsOf(piece: Piece): LabelledSegment<Label>[] {
  const edge: Label = { role: 'edge' };
  const around = (loop: Loop): LabelledSegment<Label>[] => loop.map((from, i) => ({ from, to: loop[(i + 1) % loop.length]!, label: edge }));
  return [
    ...around(piece.outline),
    ...piece.windows.flatMap((window) => around(window.outline)),
    ...piece.cuts.map(({ from, to }) => ({ from, to, label: edge })),
    ...piece.creases.map((crease) => ({
      from: crease.from,
      to: crease.to,
      label: { role: 'crease', crease } as Label,
    })),
  ];
}

function isMaterial(piece: Piece, area: Area): boolean {
  const inside = insidePoint(area);
  return loopContains(piece.outline, inside) && !piece.windows.some((w) => loopContains(w.outline, inside));
}

/** What is nameless is known by where it lies: the order in which things were drawn says nothing of it. Tenths of a mm. */
function namelessAt(area: Area): string {
  const [x, y] = centroid(area);
  return `part-at-${Math.round(10 * x)}-${Math.round(10 * y)}`;
}

/** A point surely inside a face: just off the middle of one of its edges. */
function insidePoint(area: Area): Point {
  const centre = centroid(area);
  if (areaContains(area, centre)) return centre;
  const [a, b] = [area.outer[0]!, area.outer[1]!];
  const shift = 1e-4 / distance(a, b);
  return [(a[0] + b[0]) / 2 - (b[1] - a[1]) * shift, (a[1] + b[1]) / 2 + (b[0] - a[0]) * shift];
}

function collectHinges(
  crease: Crease,
  edges: readonly ArrangedEdge<Label>[],
  panelOfFace: ReadonlyMap<number, Panel>,
  piece: Piece,
  hinges: PanelHinge[],
  faults: SplitFault[],
): void {
  const isAlong = (label: Label): boolean => label.role === 'crease' && label.crease === crease;
  const pairs: { left: Panel; right: Panel }[] = [];
  for (const edge of edges) {
    if (!edge.labels.some(isAlong) || edge.labels.some((label) => label.role === 'edge')) continue;
    const runsWith =
      (edge.to[0] - edge.from[0]) * (crease.to[0] - crease.from[0]) + (edge.to[1] - edge.from[1]) * (crease.to[1] - crease.from[1]) > 0;
    const left = panelOfFace.get(runsWith ? edge.left : edge.right);
    const right = panelOfFace.get(runsWith ? edge.right : edge.left);
    if (!left || !right) continue;
    if (left === right) {
      faults.push({
        kind: 'crease-in-one-panel',
        says: `The ${crease.name} of ${piece.name} ends inside a panel: nothing can fold there.`,
      });
      continue;
    }
    if (!pairs.some((pair) => pair.left === left && pair.right === right)) pairs.push({ left, right });
  }
  // The crease's own name goes to the panels of its own piece: a strip that another part cut out of them does not inherit it.
  const isOwn = ({ left, right }: (typeof pairs)[number]): boolean => left.part === piece.part && right.part === piece.part;
  for (const { left, right } of [...pairs.filter(isOwn), ...pairs.filter((pair) => !isOwn(pair))]) {
    const known = hinges.find((h) => h.left === left.id && h.right === right.id && isOneLine(h, crease));
    if (known) continue;
    const again = hinges.some((h) => h.crease === crease);
    hinges.push({
      id: `${piece.id}/${crease.id}${again ? `+${left.id}` : ''}`,
      crease,
      from: crease.from,
      to: crease.to,
      left: left.id,
      right: right.id,
    });
  }
}

/** Scores in one line between the same two panels (hung by two chords, say) are one hinge. */
function isOneLine(a: PanelHinge, b: Crease): boolean {
  const length = distance(a.from, a.to);
  return Math.abs(turn(a.from, a.to, b.from)) / length < 1e-6 && Math.abs(turn(a.from, a.to, b.to)) / length < 1e-6;
}

/** Two panels joined along two lines that are not one line cannot move: that is a lock, not a hinge. */
function lockedPairs(hinges: readonly PanelHinge[]): SplitFault[] {
  const faults: SplitFault[] = [];
  hinges.forEach((a, i) => {
    for (const b of hinges.slice(i + 1)) {
      const samePair = [a.left, a.right].sort().join() === [b.left, b.right].sort().join();
      if (!samePair) continue;
      const length = distance(a.from, a.to);
      const apart = Math.max(Math.abs(turn(a.from, a.to, b.from)), Math.abs(turn(a.from, a.to, b.to))) / length;
      if (apart > 1e-6) {
        faults.push({
          kind: 'locked-panels',
          says: `${a.crease.name} and ${b.crease.name} join the same two panels along different lines: neither can fold.`,
        });
      }
    }
  });
  return faults;
}
