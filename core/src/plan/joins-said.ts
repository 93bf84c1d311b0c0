import type { Evaluation } from '../evaluate.js';
import { spineEases } from '../evaluate.js';
import { carryFlat } from '../linkage/rigid.js';
import type { BondJoint } from '../linkage/structure.js';
import type { DressedLayer } from '../dress/layer.js';
import type { PlacedTopper } from '../dress/toppers.js';
import { areasOf, intersect, subtract } from '../plane/boolean.js';
import { place, undone } from '../plane/placement.js';
import { areaOf, movedArea, type Area, type Loop } from '../plane/outline.js';
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

/** A layer on its panel, or on the layer under it. */
export function joinOfLayer(evaluation: Evaluation, layer: DressedLayer): Join {
  const { design, dressed } = evaluation;
  const { piece } = design.panels[design.linkage.bodyOf.get(layer.panel)!]!;
  const under = dressed.layers.find(({ panel, face, step }) => panel === layer.panel && face === layer.face && step === layer.step - 1);
  const { outline, windows } = layer.sheet;
  const holes = windows.map((opening) => opening.outline);
  const onPanel = (loop: Loop): Loop => loop.map((corner) => place(corner, layer.placement));
  const laid = (onto: Pick<GluedFace, 'piece' | 'face'>, carry: (corner: Point) => Point): GluedFace => ({
    ...onto,
    outline: onPanel(outline).map(carry),
    holes: holes.map((hole) => onPanel(hole).map(carry)),
  });
  return {
    id: layer.id,
    number: layer.number,
    glued: { piece: layer.id, face: 'down', outline, holes },
    onto: under
      ? laid({ piece: under.id, face: 'up' }, (corner) => place(corner, undone(under.placement)))
      : laid({ piece: piece.id, face: layer.face }, onCutSheet(piece, spineEases(evaluation))),
  };
}

/** Less of a place for glue than this is none, mm². */
const NOTHING = 0.01;

/** What may lie under a topper, highest first: where it is on the panel, and how that is carried to its own sheet. */
interface Carrier {
  onto: Pick<GluedFace, 'piece' | 'face'>;
  areas: readonly Area[];
  carry: (corner: Point) => Point;
}

/**
 * A topper on whatever lies uppermost where its glue is: toppers that were glued on before it, layers, the panel. Glue that reaches over an
 * edge of one of them is told part by part; where there is nothing under it, it is left bare.
 */
export function joinsOfTopper(evaluation: Evaluation, topper: PlacedTopper): Join[] {
  let left: readonly Area[] = topper.glue;
  const parts = carriersOf(evaluation, topper).flatMap(({ onto, areas, carry }) => {
    const on = areasOf(intersect(left, areas)).filter((area) => areaOf(area) > NOTHING);
    left = areasOf(subtract(left, areas));
    return on.map((area) => ({ onto, carry, area }));
  });
  return parts.map(({ onto, carry, area }, i): Join => {
    const own = movedArea(area, (corner) => place(corner, undone(topper.placement)));
    const theirs = movedArea(area, carry);
    return {
      id: parts.length === 1 ? topper.id : `${topper.id}-${i + 1}`,
      number: topper.number,
      glued: { piece: topper.id, face: 'down', outline: own.outer, holes: own.holes },
      onto: { ...onto, outline: theirs.outer, holes: theirs.holes },
    };
  });
}

function carriersOf(evaluation: Evaluation, { panel, face, ground, id }: PlacedTopper): Carrier[] {
  const { design, dressed } = evaluation;
  const { piece } = design.panels[design.linkage.bodyOf.get(panel)!]!;
  const isHere = (worn: { panel: string; face: Face }): boolean => worn.panel === panel && worn.face === face;
  const before = dressed.toppers.slice(
    0,
    dressed.toppers.findIndex((other) => other.id === id),
  );
  const sheetOf = (worn: Pick<PlacedTopper | DressedLayer, 'id' | 'area' | 'placement'>): Carrier => ({
    onto: { piece: worn.id, face: 'up' },
    areas: [worn.area],
    carry: (corner) => place(corner, undone(worn.placement)),
  });
  const layers = dressed.layers.filter(isHere).sort((a, b) => b.step - a.step);
  return [
    ...before.filter(isHere).reverse().map(sheetOf),
    ...layers.map(sheetOf),
    { onto: { piece: piece.id, face }, areas: ground, carry: onCutSheet(piece, spineEases(evaluation)) },
  ];
}
