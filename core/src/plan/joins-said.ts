import type { Evaluation } from '../evaluate.js';
import { spineEases } from '../evaluate.js';
import { carryFlat } from '../linkage/rigid.js';
import type { BondJoint } from '../linkage/structure.js';
import type { PlacedBand } from '../dress/bands.js';
import type { DressedLayer } from '../dress/layer.js';
import type { PlacedMagnet, SunkDisc } from '../dress/magnets.js';
import type { Mm } from '../measure/units.js';
import type { PlacedTopper } from '../dress/toppers.js';
import { areasOf, intersect, subtract, totalArea } from '../plane/boolean.js';
import { place, undone } from '../plane/placement.js';
import { areaOf, boxOf, rectangle, type Area, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { onCutSheet } from '../sheet/cut-sheet.js';
import type { Face } from '../sheet/piece.js';

/** An area of one face of a flat piece, in mm on its blank lying upper face up, from the lower left corner. */
export interface GluedFace {
  piece: string;
  face: Face;
  outline: Loop;
  /** what of it is cut out: a layer leaves room for what is glued inside its outline */
  holes: readonly Loop[];
}

/** What a step glues together: the area that glue goes on, and where that comes to lie. Corners of both come in the same order. */
export interface Join {
  id: string;
  /** what it is called in words and drawings, where it has a number */
  number?: string;
  glued: GluedFace;
  onto: GluedFace;
}

/** A joint of the card. */
export function joinOf(evaluation: Evaluation, { id, source, corners, a, b, fixed }: BondJoint): Join {
  const { panels } = evaluation.design;
  const eases = spineEases(evaluation);
  const [own, partner] = [panels[a]!.piece, panels[b]!.piece];
  return {
    id,
    glued: { piece: own.id, face: source.face, outline: corners.map(onCutSheet(own, eases)), holes: [] },
    onto: {
      piece: partner.id,
      face: source.partnerFace,
      outline: corners.map((corner) => onCutSheet(partner, eases)(carryFlat(fixed, corner))),
      holes: [],
    },
  };
}

/**
 * A layer on its panel, or on the layer under it; where it hides a magnet, part by part: on the blank layers round the disc, and
 * on what is beside them.
 */
export function joinsOfLayer(evaluation: Evaluation, layer: DressedLayer): Join[] {
  const { design, dressed } = evaluation;
  const { piece } = design.panels[design.linkage.bodyOf.get(layer.panel)!]!;
  // Of a layer that came apart, or is cut in strips, the part that lies under it; a strip over a joint lies on two.
  const under = dressed.layers
    .filter(({ panel, face, step }) => panel === layer.panel && face === layer.face && step === layer.step - 1)
    .filter(({ area }) => totalArea(intersect([area], [layer.area])) > NOTHING);
  const onLayer = (lower: DressedLayer): Carrier => ({
    onto: { piece: lower.sheet.piece.id, face: 'up' },
    carry: (corner) => place(corner, undone(lower.placement)),
    ...(under.length > 1 && { areas: [lower.area] }),
  });
  const ground: readonly Carrier[] =
    under.length > 0
      ? under.map(onLayer)
      : [{ onto: { piece: piece.id, face: layer.face }, carry: onCutSheet(piece, spineEases(evaluation)) }];
  const blanks = dressed.magnets.flatMap((magnet) =>
    discsOf(magnet).flatMap(({ disc, sheets }) =>
      disc.panel === layer.panel && disc.face === layer.face && disc.coveredBy === layer.number ? sheets.slice(-1) : [],
    ),
  );
  const { outline, windows } = layer.sheet;
  const onPanel = (loop: Loop): Loop => loop.map((corner) => place(corner, layer.placement));
  // Of a piece that lies over several panels what lies on this one.
  const glue = layer.liner ? layer.area : { outer: onPanel(outline), holes: windows.map((opening) => onPanel(opening.outline)) };
  // Exactly as it is cut where it lies on one thing alone: corners keep their order.
  const [only] = ground;
  if (blanks.length === 0 && ground.length === 1 && layer.past.length === 0) return [joinOn(layer, glue, only!)];
  const held = layer.past.length === 0 || under.length > 0 ? [glue] : areasOf(subtract([glue], layer.past));
  return inParts(layer, held, [...blanks.map((blank) => carrierOf(blank)), ...ground]);
}

/** An area elsewhere, its corners in the order that they have: of two that lie on one another they go together. */
const carried = ({ outer, holes }: Area, carry: (corner: Point) => Point): Area => ({
  outer: outer.map(carry),
  holes: holes.map((hole) => hole.map(carry)),
});

/** A place on whatever lies there: of a thing that was placed with its number. */
function joinOn({ id, number, placement, sheet }: Worn, area: Area, { onto, carry }: Pick<Carrier, 'onto' | 'carry'>): Join {
  const own = carried(area, (corner) => place(corner, undone(placement)));
  const theirs = carried(area, carry);
  return {
    ...{ id, number },
    glued: { piece: sheet.piece.id, face: 'down', outline: own.outer, holes: own.holes },
    onto: { ...onto, outline: theirs.outer, holes: theirs.holes },
  };
}

type Worn = Pick<PlacedTopper | DressedLayer, 'id' | 'number' | 'placement' | 'sheet'>;

/** Glue that reaches over an edge of what is under it, uppermost first, part by part. */
function inParts(worn: Worn, glue: readonly Area[], carriers: readonly Carrier[]): Join[] {
  let left = glue;
  const parts = carriers.flatMap((carrier) => {
    const on = carrier.areas ? areasOf(intersect(left, carrier.areas)) : left;
    left = carrier.areas ? areasOf(subtract(left, carrier.areas)) : [];
    return on.filter((area) => areaOf(area) > NOTHING).map((area) => ({ carrier, area }));
  });
  return parts.map(({ carrier, area }, i) => {
    const join = joinOn(worn, area, carrier);
    return parts.length === 1 ? join : { ...join, id: `${join.id}-${i + 1}` };
  });
}

/** A disc in its blank layers, the lowest first, and the cover of one that no layer hides. */
interface Sunk {
  disc: SunkDisc;
  sheets: readonly BlankLayer[];
  cover?: BlankLayer;
}

interface BlankLayer {
  piece: string;
  /** the face that looks away from the panel: blanks are cut as they lie on its piece, upper face up */
  outer: Face;
  area: Area;
  carry: (corner: Point) => Point;
}

function discsOf({ closure, first, second, sheets }: PlacedMagnet): Sunk[] {
  const of = (disc: SunkDisc | undefined, nth: 'first' | 'second'): Sunk[] => {
    if (!disc?.patch) return [];
    const { minX, minY } = boxOf(disc.patch.outer);
    const area = disc.patch;
    const blank = (piece: string): BlankLayer => ({ piece, outer: disc.face, area, carry: ([x, y]) => [x - minX, y - minY] });
    const own = sheets.map(({ piece }) => piece.id).filter((id) => id.startsWith(`${closure.id}-${nth}-`));
    const cover = own.find((id) => id.endsWith('-cover'));
    return [{ disc, sheets: own.filter((id) => id !== cover).map(blank), ...(cover !== undefined && { cover: blank(cover) }) }];
  };
  return [...of(first, 'first'), ...of(second, 'second')];
}

const carrierOf = ({ piece, outer, area, carry }: BlankLayer): Carrier => ({ onto: { piece, face: outer }, areas: [area], carry });

/** The blank layers of both discs on their panels and on one another, and the covers of those that no layer hides. */
export function joinsOfMagnet(evaluation: Evaluation, magnet: PlacedMagnet): Join[] {
  const { panels, linkage } = evaluation.design;
  return discsOf(magnet).flatMap(({ disc, sheets, cover }) => {
    const { piece } = panels[linkage.bodyOf.get(disc.panel)!]!;
    const ground: Pick<Carrier, 'onto' | 'carry'> = {
      onto: { piece: piece.id, face: disc.face },
      carry: onCutSheet(piece, spineEases(evaluation)),
    };
    const all = cover ? [...sheets, cover] : sheets;
    return all.map(({ piece: id, outer, area, carry }, i): Join => {
      const { onto, carry: there } = i === 0 ? ground : carrierOf(all[i - 1]!);
      const [own, theirs] = [carried(area, carry), carried(area, there)];
      return {
        ...{ id, number: magnet.number },
        glued: { piece: id, face: outer === 'up' ? 'down' : 'up', outline: own.outer, holes: own.holes },
        onto: { ...onto, outline: theirs.outer, holes: theirs.holes },
      };
    });
  });
}

/** The end of a band on its own beginning: its inside on the outside, as far past the last edge of the card as past the first end. */
export function joinOfBand({ number, band, sheet, closure: { wide } }: PlacedBand): Join {
  const lap = (from: Mm): Loop => rectangle(from, 0, band.overlap, wide);
  return {
    ...{ id: sheet.piece.id, number },
    glued: { piece: sheet.piece.id, face: 'up', outline: lap(band.folds[3]), holes: [] },
    onto: { piece: sheet.piece.id, face: 'down', outline: lap(0), holes: [] },
  };
}

/** Less of a place for glue than this is none, mm². */
const NOTHING = 0.01;

/** What may lie under something, highest first: where it is on the panel, and how that is carried to its own sheet. */
interface Carrier {
  onto: Pick<GluedFace, 'piece' | 'face'>;
  /** all that is left of a place for glue where none are given */
  areas?: readonly Area[];
  carry: (corner: Point) => Point;
}

/**
 * A topper on whatever lies uppermost where its glue is: toppers that were glued on before it, layers, the panel. Glue that reaches over an
 * edge of one of them is told part by part; where there is nothing under it, it is left bare.
 */
export function joinsOfTopper(evaluation: Evaluation, topper: PlacedTopper): Join[] {
  const lowest = stackOf(topper)[0]!;
  const lying = inParts(lowest, topper.glue, carriersOf(evaluation, topper));
  const twin = topper.under.find(({ as, face }) => as === 'twin' && face !== topper.face);
  if (!twin) return lying;
  // Through clear film it is seen from behind: it lies on the other face of that, and past its edges on the topper's back.
  const { panels, linkage } = evaluation.design;
  const panel = panels[linkage.bodyOf.get(topper.panel)!]!;
  const film: Carrier = {
    onto: { piece: panel.piece.id, face: twin.face },
    areas: [panel.area],
    carry: onCutSheet(panel.piece, spineEases(evaluation)),
  };
  return [...lying, ...inParts(twin, [twin.area], [film, backOf(lowest)])];
}

/** What a topper is put together from before it is glued on: each sheet on the one under it, and the twin on its back. */
export function joinsTogether(topper: PlacedTopper): Join[] {
  const stack = stackOf(topper);
  const on = stack.slice(1).flatMap((sheet, i) => {
    const under = stack[i]!;
    return inParts(sheet, [sheet.area], [{ onto: { piece: under.id, face: 'up' }, areas: [under.area], carry: carriedTo(under) }]).slice(
      0,
      1,
    );
  });
  const twin = topper.under.find(({ as, face }) => as === 'twin' && face === topper.face);
  return twin ? [...on, ...inParts(twin, [twin.area], stack.map(backOf))] : on;
}

type Sheet = Pick<PlacedTopper, 'id' | 'number' | 'area' | 'placement' | 'sheet'>;

/** The sheets of a topper that lie on one another, the lowest first; its twin is none of them. */
const stackOf = (topper: PlacedTopper): Sheet[] => [...topper.under.filter(({ as }) => as !== 'twin'), topper];

const carriedTo =
  ({ placement }: Sheet): Carrier['carry'] =>
  (corner) =>
    place(corner, undone(placement));

const backOf = (sheet: Sheet): Carrier => ({ onto: { piece: sheet.id, face: 'down' }, areas: [sheet.area], carry: carriedTo(sheet) });

function carriersOf(evaluation: Evaluation, { panel, face, ground, id }: PlacedTopper): Carrier[] {
  const { design, dressed } = evaluation;
  const { piece } = design.panels[design.linkage.bodyOf.get(panel)!]!;
  const isHere = (worn: { panel: string; face: Face }): boolean => worn.panel === panel && worn.face === face;
  const before = dressed.toppers.slice(
    0,
    dressed.toppers.findIndex((other) => other.id === id),
  );
  const sheetOf = (worn: Sheet): Carrier => ({
    onto: { piece: worn.sheet.piece.id, face: 'up' },
    areas: [worn.area],
    carry: carriedTo(worn),
  });
  const layers = dressed.layers.filter(isHere).sort((a, b) => b.step - a.step);
  const covers = dressed.magnets.flatMap((magnet) =>
    discsOf(magnet).flatMap(({ disc, cover }) => (isHere(disc) && cover ? [carrierOf(cover)] : [])),
  );
  return [
    ...before
      .filter(isHere)
      .reverse()
      .flatMap((topper) => stackOf(topper).reverse())
      .map(sheetOf),
    ...layers.map(sheetOf),
    ...covers,
    { onto: { piece: piece.id, face }, areas: ground, carry: onCutSheet(piece, spineEases(evaluation)) },
  ];
}
