import { shifted } from '../../plane/placement.js';
import { subtract, unite } from '../../plane/boolean.js';
import { spoken } from '../../measure/sentence.js';
import { asArea, boxOf, rectangle, signedArea, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { fitted } from '../../plane/shapes.js';
import { blankPiece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import type { BuildContext } from '../contract.js';
import { num, type SizeItem } from '../sizes.js';
import { uprightCrease } from '../drawing/upright.js';

/** A figure that overhangs a tab is cut this far clear of it. */
const TAB_GAP = 0.5;
/** A divider is cut this much shorter than its wall is wide, for the thickness of both tabs. */
const DIVIDER_CALIPERS = 2;

/** A strip between the second and the fourth wall, at the same distance from the first wall on both. */
export function dividerOf(context: BuildContext, divider: SizeItem, index: number, perimeter: number) {
  const { sizes, mechanismCaliper } = context;
  const wall = num(sizes, 'wall');
  const strip = num(divider, 'height');
  const distance = num(divider, 'distance');
  const id = `divider-${index + 1}`;
  const name = `divider ${index + 1}`;
  const tab = num(sizes, 'tabWidth');
  const right = tab + wall;
  const shorter = DIVIDER_CALIPERS * mechanismCaliper;
  const glue = (x: number): Loop => rectangle(x, 1, tab - TAB_CLEARANCE - 0.5, strip - 2);
  const zones = [glue(0.5), glue(right + TAB_CLEARANCE)];
  const piece = blankPiece({
    id,
    name: `Divider ${index + 1}`,
    stock: 'mechanism',
    faceUp: 'picture up',
    outline: withFigure(context, divider, rectangle(0, 0, wall + 2 * tab, strip), tab + num(divider, 'figureAt'), strip, right),
    because: 'as long as the first wall is wide, less the thickness of its tabs, and a tab at either end',
    creases: [
      uprightCrease('left', `left fold of ${name}`, tab, [0, strip], 'mountain', -Math.PI),
      { ...uprightCrease('right', `right fold of ${name}`, right, [0, strip], 'mountain', 0), allow: -shorter },
    ],
    zones: zones.map((outline, i) => ({
      id: i === 0 ? 'left-glue' : 'right-glue',
      kind: 'glue' as const,
      face: 'up' as const,
      outline,
      says: `glue inside the ${i === 0 ? 'fourth' : 'second'} wall, its fold ${spoken(distance)} from the corner of the first wall`,
    })),
    anchors: [
      { panel: 'left-tab', name: `left tab of ${name}`, at: [tab / 2, 1] },
      { panel: id, name, at: [tab + wall / 2, 1] },
      { panel: 'right-tab', name: `right tab of ${name}`, at: [right + tab / 2, 1] },
    ],
  });
  const bond = (side: 'left' | 'right'): Bond => ({
    id: `${id}-${side}`,
    name: `${name} inside the ${side === 'left' ? 'fourth' : 'second'} wall`,
    panel: `${id}/${side}-tab`,
    face: 'up',
    partner: `base/${side === 'left' ? 'fourth' : 'second'}-wall`,
    partnerFace: 'down',
    zone: `${side}-glue`,
    placement: shifted([side === 'left' ? perimeter - distance - tab : wall + distance - right, 0]),
  });
  return { piece, bonds: [bond('right'), bond('left')], length: wall - shorter, name };
}

/** A strip with a figure rising from it, as one outline. @param right where the right tab begins */
function withFigure({ outline, sizes }: BuildContext, divider: SizeItem, strip: Loop, middle: number, top: number, right: number): Loop {
  const tab = num(sizes, 'tabWidth');
  const figure = String(divider['figure']);
  if (figure === 'none') return strip;
  const sunk = Math.min(3, top / 2);
  const [width, height] = [num(divider, 'figureWidth'), num(divider, 'figureHeight')];
  const shape = fitted(outline(figure), height + sunk, width).map(([x, y]): Point => [x + middle - width / 2, y + top - sunk]);
  // The figure may overhang a tab but not lie on it: the tab folds away from under it.
  const ends = [rectangle(-1e3, -1, 1e3 + tab + TAB_GAP, top + 1 + TAB_GAP), rectangle(right - TAB_GAP, -1, 1e3, top + 1 + TAB_GAP)];
  const free = subtract([asArea(shape)], ends.map(asArea));
  const joined = unite([asArea(strip), ...free.map(asArea)]);
  return joined.reduce((most, loop) => (boxOf(loop).minY < 1e-6 && signedArea(loop) > signedArea(most) ? loop : most), strip);
}
