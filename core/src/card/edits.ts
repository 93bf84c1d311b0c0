import type { Mm } from '../measure/units.js';
import { intersect, offset, subtract, totalArea } from '../plane/boolean.js';
import { apart, areaContains, boxOf, centroid, loopContains, signedArea, type Area, type Box, type Loop } from '../plane/outline.js';
import { chordsAt } from '../plane/chords.js';
import { place, type Placement } from '../plane/placement.js';
import { distance, turn, type Point } from '../plane/point.js';
import type { Edit, FoldSite, SiteLeaf } from '../mechanism/sites.js';
import { splitPiece } from '../sheet/panels.js';
import type { Anchor, Crease, Face, Fold, Piece, Zone } from '../sheet/piece.js';

/** What one part changes on the paper that it stands on. */
export interface PlacedEdits {
  part: string;
  title: string;
  site: FoldSite;
  edits: readonly Edit[];
}

/** Two parts that take the same paper. */
export interface Overlap {
  parts: readonly [string, string];
  piece: string;
  /** how much paper both take, and how far they reach over each other along and across it */
  area: number;
  by: number;
}

const pieceOf = (panel: string): string => panel.slice(0, panel.indexOf('/'));
const leafOf = ({ site }: PlacedEdits, { leaf }: Edit): SiteLeaf => site.leaves[leaf];

/** The paper that a part takes on each piece, in that piece's coordinates. */
function regionsOf(placed: PlacedEdits): { part: string; piece: string; loop: Loop; box: Box }[] {
  return placed.edits.flatMap((edit) => {
    if (!edit.region) return [];
    const leaf = leafOf(placed, edit);
    const loop = edit.region.map((p) => place(p, leaf.frame));
    return [{ part: placed.part, piece: pieceOf(leaf.panel), loop, box: boxOf(loop) }];
  });
}

/** Less than this is a shared line, not shared paper. */
const LEAST_AREA = 1e-3;

/** Which parts take the same paper. A part may take paper of those that carry it: it stands on them. */
export function overlapsOf(all: readonly PlacedEdits[], carriers: ReadonlyMap<string, readonly string[]>): Overlap[] {
  const regions = all.flatMap(regionsOf);
  const related = (a: string, b: string): boolean => a === b || carriers.get(a)!.includes(b) || carriers.get(b)!.includes(a);
  return regions.flatMap((a, i) =>
    regions.slice(i + 1).flatMap((b): Overlap[] => {
      if (a.piece !== b.piece || related(a.part, b.part) || apart(a.box, b.box)) return [];
      const shared = intersect([{ outer: a.loop, holes: [] }], [{ outer: b.loop, holes: [] }]);
      const area = totalArea(shared);
      if (area < LEAST_AREA) return [];
      const { minX, maxX, minY, maxY } = boxOf(shared.flat());
      return [{ parts: [a.part, b.part], piece: a.piece, area, by: Math.min(maxX - minX, maxY - minY) }];
    }),
  );
}

/**
 * The pieces of a card with everything that parts draw on the paper of others. Pieces that nobody touches stay the same
 * objects. A panel keeps its name: where its anchor lies in paper that was taken, it is moved to another place of that panel.
 */
export function editedPieces(pieces: readonly Piece[], all: readonly PlacedEdits[]): readonly Piece[] {
  const touched = new Set(all.flatMap((placed) => placed.edits.map((edit) => pieceOf(leafOf(placed, edit).panel))));
  if (touched.size === 0) return pieces;
  return pieces.map((piece) => (touched.has(piece.id) ? edited(piece, all) : piece));
}

function edited(piece: Piece, all: readonly PlacedEdits[]): Piece {
  const own = all.flatMap((placed) =>
    placed.edits
      .filter((edit) => pieceOf(leafOf(placed, edit).panel) === piece.id)
      .map((edit) => ({ placed, edit, frame: leafOf(placed, edit).frame })),
  );
  const regions = own.flatMap(({ edit, frame }) => (edit.region ? [edit.region.map((p) => place(p, frame))] : []));
  const added = {
    cuts: own.flatMap(({ edit, frame }) =>
      (edit.cuts ?? []).map((cut) => ({ ...cut, from: place(cut.from, frame), to: place(cut.to, frame) })),
    ),
    windows: own.flatMap(({ edit, frame }) =>
      (edit.windows ?? []).map((window) => ({ ...window, outline: window.outline.map((p) => place(p, frame)) })),
    ),
    zones: own.flatMap(({ edit, frame }) =>
      (edit.zones ?? []).map((zone) => ({
        ...zone,
        face: carriedFace(zone.face, frame),
        outline: zone.outline.map((p) => place(p, frame)),
      })),
    ),
    marks: own.flatMap(({ edit, frame }) =>
      (edit.marks ?? []).map((mark) => ({
        ...mark,
        from: place(mark.from, frame),
        to: place(mark.to, frame),
        face: carriedFace(mark.face ?? 'up', frame),
      })),
    ),
    anchors: own.flatMap(({ edit, frame }) => (edit.anchors ?? []).map((anchor) => ({ ...anchor, at: place(anchor.at, frame) }))),
  };
  // In the order of building: a fold ends where a part takes its paper, then that part's own folds are drawn there.
  const creases = own.reduce<readonly Crease[]>((before, { placed, edit, frame }) => {
    const left = edit.region && placed.site.oneSheet ? before.flatMap((crease) => outside(crease, edit.region!, frame)) : before;
    return [...left, ...(edit.creases ?? []).map((crease) => carriedCrease(crease, frame))];
  }, piece.creases);
  return {
    ...piece,
    creases: [...creases],
    cuts: [...piece.cuts, ...added.cuts],
    windows: [...piece.windows, ...added.windows],
    zones: [...piece.zones.flatMap((zone) => keptClear(zone, added.zones, regions)), ...added.zones],
    marks: [...piece.marks, ...added.marks],
    anchors: [...piece.anchors.map((anchor) => anchorOutside(piece, anchor, regions)), ...added.anchors],
  };
}

/** Glue under what moves would hold it: it stays this far from paper that a part takes for itself. */
const CLEAR_OF_GLUE: Mm = 2;

/** What is left of a glued area beside what a part keeps clear of glue, and the paper it takes: the largest of it. */
function keptClear(zone: Zone, added: readonly Zone[], regions: readonly Loop[]): Zone[] {
  const clear = added.filter(({ kind, face }) => kind === 'keep-clear' && face === zone.face).map(({ outline }) => outline);
  const taken = regions.flatMap((region) => offset(signedArea(region) > 0 ? region : [...region].reverse(), CLEAR_OF_GLUE));
  if (zone.kind !== 'glue' || clear.length + taken.length === 0) return [zone];
  const areas = [...clear, ...taken].map((outer) => ({ outer, holes: [] }));
  const left = subtract([{ outer: zone.outline, holes: [] }], areas).sort((a, b) => Math.abs(signedArea(b)) - Math.abs(signedArea(a)));
  return left[0] ? [{ ...zone, outline: left[0] }] : [];
}

const carriedFace = (face: Face, { flipped }: Placement): Face => (flipped ? (face === 'up' ? 'down' : 'up') : face);
const otherFold = (fold: Fold): Fold => (fold === 'valley' ? 'mountain' : 'valley');

/** A crease as seen from the site's face, on the piece: what is a valley from one face is a mountain from the other. */
function carriedCrease(crease: Crease, frame: Placement): Crease {
  const moved = { ...crease, from: place(crease.from, frame), to: place(crease.to, frame) };
  return frame.flipped ? { ...moved, fold: otherFold(crease.fold), closed: -crease.closed } : moved;
}

const ON_LINE = 1e-6;

/** The stretches of a crease that are left where a region is taken out of its site's fold (x = 0 of the site). */
function outside(crease: Crease, region: Loop, frame: Placement): Crease[] {
  // On the fold itself, not in its box: a region may be widest beside it.
  return chordsAt([region], 0).reduce<readonly Crease[]>(
    (left, [from, to]) => left.flatMap((stretch) => without(stretch, place([0, from], frame), place([0, to], frame))),
    [crease],
  ) as Crease[];
}

/** What is left of a crease on both sides of a stretch of its line. */
function without(crease: Crease, a: Point, b: Point): Crease[] {
  if (!liesOn(crease, a, b)) return [crease];
  const length = distance(crease.from, crease.to);
  const along = (p: Point): number =>
    ((p[0] - crease.from[0]) * (crease.to[0] - crease.from[0]) + (p[1] - crease.from[1]) * (crease.to[1] - crease.from[1])) / length;
  const [low, high] = [along(a), along(b)].sort((p, q) => p - q) as [number, number];
  if (high <= ON_LINE || low >= length - ON_LINE) return [crease];
  const at = (t: number): Point => [
    crease.from[0] + ((crease.to[0] - crease.from[0]) * t) / length,
    crease.from[1] + ((crease.to[1] - crease.from[1]) * t) / length,
  ];
  const whole = crease.stretchOf ?? { id: crease.id, from: crease.from, to: crease.to };
  const stretch = (from: number, to: number, id: string): Crease[] =>
    to - from > ON_LINE ? [{ ...crease, id, from: at(from), to: at(to), stretchOf: whole }] : [];
  return [...stretch(0, low, crease.id), ...stretch(high, length, low > ON_LINE ? nextStretch(crease.id) : crease.id)];
}

/** Stretches are numbered from the second: `main-fold`, `main-fold-stretch-2`. */
function nextStretch(id: string): string {
  const [, name, count] = /^(.*)-stretch-(\d+)$/.exec(id) ?? [undefined, id, '1'];
  return `${name}-stretch-${Number(count) + 1}`;
}

function liesOn(crease: Crease, a: Point, b: Point): boolean {
  const length = distance(a, b);
  if (length < ON_LINE) return false;
  return Math.abs(turn(a, b, crease.from)) / length < ON_LINE && Math.abs(turn(a, b, crease.to)) / length < ON_LINE;
}

/** The same anchor, or one in the same panel that lies clear of all paper that was taken. */
function anchorOutside(piece: Piece, anchor: Anchor, regions: readonly Loop[]): Anchor {
  const isTaken = (p: Point): boolean => regions.some((loop) => loopContains(loop, p));
  if (!isTaken(anchor.at)) return anchor;
  const panel = splitPiece(piece).panels.find(({ id }) => id === `${piece.id}/${anchor.panel}`);
  const free = panel && placesIn(panel.area).find((p) => !isTaken(p));
  return free ? { ...anchor, at: free } : anchor;
}

/** Places just inside the corners of an area, and of its edges' middles. */
function placesIn(area: Area): Point[] {
  const centre = centroid(area);
  return area.outer
    .flatMap((corner, i): Point[] => {
      const next = area.outer[(i + 1) % area.outer.length]!;
      return [corner, [(corner[0] + next[0]) / 2, (corner[1] + next[1]) / 2]];
    })
    .map((p): Point => {
      const far = distance(p, centre);
      return [p[0] + ((centre[0] - p[0]) * INSIDE) / far, p[1] + ((centre[1] - p[1]) * INSIDE) / far];
    })
    .filter((p) => areaContains(area, p));
}

const INSIDE = 0.5;
