import { shifted } from '../../plane/placement.js';
import { intersect, largestOf } from '../../plane/boolean.js';
import { asArea, rectangle, boxOf, type Loop } from '../../plane/outline.js';
import { fitted } from '../../plane/shapes.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import type { RisingUnit, Said } from '../../claim/claims.js';
import type { BuildContext } from '../contract.js';
import { easelLean, stopStrip, strutRise, type EaselSides } from './easel-parts.js';
import { insideOf } from './hung-front.js';
import { isNested, layersOn } from './nested-set.js';
import { raisedRim, type RimFoot } from './raised-rim.js';
import { isOfStrips, wholeStrip } from './whole-strip.js';
import { clearanceOn, items, num, type SizeContext, type SizeItem, type Sizes } from '../sizes.js';
import { panelStrip } from '../drawing/panel-strip.js';
import { shrunk } from '../opening/window-sizes.js';

const STOP_WIDTH = 6;
/** A stop closer to the next back edge than this is that edge itself. */
const SAME_PLACE = 0.5;

/** Back edge of the easel in front of one, if there is one. */
export function nextBack(sizes: Sizes, index: number): number | undefined {
  const next = (sizes['easels'] as readonly SizeItem[] | undefined)?.[index + 1]?.['back'];
  return typeof next === 'number' ? next : undefined;
}

/** Whether an easel’s foot needs a stop of its own: it does not where it stands at the next one’s back edge. */
function hasOwnStop(sizes: Sizes, index: number): boolean {
  const easel = items(sizes, 'easels')[index]!;
  const next = nextBack(sizes, index);
  return next === undefined || Math.abs(next - num(easel, 'back') - num(easel, 'stopDistance')) > SAME_PLACE;
}

/** The feet that stand against stops of their own: how each leans, and how thick it is. */
export function ownFeet({ sizes, baseCaliper, displayCaliper }: Omit<SizeContext, 'item' | 'index'>): RimFoot[] {
  return items(sizes, 'easels')
    .filter((_, index) => hasOwnStop(sizes, index))
    .map((easel) => ({
      lean: easelLean(num(easel, 'strut'), num(easel, 'flap'), num(easel, 'stopDistance')),
      thickness: baseCaliper + (isOfStrips(sizes) ? baseCaliper : displayCaliper),
    }));
}

/** One easel of a row: its pieces, and where it stands. */
export interface EaselOnBoard {
  id: string;
  pieces: Piece[];
  bonds: Bond[];
  unit: Said<RisingUnit>;
  width: number;
  back: number;
  stop: number;
  sides: EaselSides;
  lean: number;
  rise: number;
  high: number;
  ownStop: boolean;
  /** the panel that stands on the board, and how far along its piece its foot lies */
  foot: { panel: string; at: number };
  /** a fold that is made for good: the display’s over its flap */
  heldFold?: string;
}

/** A strip of flap, strut and glue tab, and the display on the flap. */
export function easelOn(context: BuildContext, easel: SizeItem, index: number): EaselOnBoard {
  const { sizes } = context;
  if (isOfStrips(sizes)) return stripOn(context, easel, index);
  const id = `easel-${index + 1}`;
  const name = `Easel ${index + 1}`;
  const [flap, strut, back, stop] = [num(easel, 'flap'), num(easel, 'strut'), num(easel, 'back'), num(easel, 'stopDistance')];
  const shape = displayShape(context, easel);
  const { maxX: displayWidth, maxY: high } = boxOf(shape);
  const width = Math.min(displayWidth, num(sizes, 'width')) * (isNested(sizes) ? 0.5 : 1);
  const own = name.toLowerCase();
  const tab = num(sizes, 'tabWidth');
  const { x, drawn } = panelStrip(width, [
    { panel: 'flap', name: `flap of ${own}`, width: flap, then: { id: 'flap-fold', name: `hinge of ${own}`, fold: 'valley', closed: 0 } },
    {
      panel: 'strut',
      name: `strut of ${own}`,
      width: strut,
      then: { id: 'back-fold', name: `back fold of ${own}`, fold: 'valley', closed: Math.PI },
    },
    { panel: 'tab', name: `tab of ${own}`, width: tab },
  ]);
  const aside = (num(sizes, 'width') - width) / 2;
  const tabGlue = rectangle(x[2]! + TAB_CLEARANCE, 1, tab - TAB_CLEARANCE - 1, width - 2);
  const sides = { strut, foot: flap };
  const ownStop = hasOwnStop(sizes, index);
  const strip = blankPiece({
    id,
    name,
    stock: 'base',
    faceUp: 'inside up',
    because: 'flap, strut and a glue tab one after the other',
    zones: [
      {
        id: 'tab-glue',
        kind: 'glue',
        face: 'down',
        outline: tabGlue,
        says: 'glue to the board, the fold on its line, the tab to the front',
      },
    ],
    ...drawn,
  });
  const display = displayOn(id, name, shape, { flap, width });
  const tabBond: Bond = {
    id: `${id}-on-board`,
    name: `${name.toLowerCase()} on the board`,
    panel: `${id}/tab`,
    face: 'down',
    partner: 'board/board',
    partnerFace: 'up',
    zone: 'tab-glue',
    placement: shifted([back - x[2]!, aside]),
  };
  const stopped = ownStop ? stopsOf(context, index, width, back + stop) : [];
  const layers = isNested(sizes) ? layersOn(context, id, shape) : [];
  return {
    id,
    pieces: [strip, display.piece, ...layers.map((layer) => layer.piece), ...stopped.map((strip) => strip.piece)],
    bonds: [tabBond, display.bond, ...layers.map((layer) => layer.bond), ...stopped.map((strip) => strip.bond)],
    unit: { id, name: name.toLowerCase(), hinge: `${id}/back-fold`, panels: [`${id}/flap`, `${id}/strut`, `${id}-display/display`] },
    width,
    back,
    stop,
    sides,
    lean: easelLean(strut, flap, stop),
    rise: strutRise(sides, stop),
    high,
    ownStop,
    foot: { panel: `${id}/flap`, at: 0 },
  };
}

/** The same cut as one strip, its display folded over its flap, its base lying on the board. */
function stripOn(context: BuildContext, easel: SizeItem, index: number): EaselOnBoard {
  const { sizes } = context;
  const id = `easel-${index + 1}`;
  const [flap, strut, back, stop] = [num(easel, 'flap'), num(easel, 'strut'), num(easel, 'back'), num(easel, 'stopDistance')];
  const { piece, bonds, footFold, backFold, width } = wholeStrip(sizes, index);
  const sides = { strut, foot: flap };
  const ownStop = hasOwnStop(sizes, index);
  // A stop lies on the easel’s own base where that reaches under all of it.
  const onBase = stop + STOP_WIDTH + 1 <= num(easel, 'base');
  const onTop = onBase ? { panel: `${id}/tab`, from: backFold + stop, width } : undefined;
  const stopped = ownStop ? stopsOf(context, index, width, back + stop, onTop) : [];
  return {
    id,
    pieces: [piece, ...stopped.map((strip) => strip.piece)],
    bonds: [...bonds, ...stopped.map((strip) => strip.bond)],
    unit: { id, name: `easel ${index + 1}`, hinge: `${id}/back-fold`, panels: [`${id}/flap`, `${id}/strut`, `${id}/display`] },
    width,
    back,
    stop,
    sides,
    lean: easelLean(strut, flap, stop),
    rise: strutRise(sides, stop),
    high: num(easel, 'displayHeight'),
    ownStop,
    foot: { panel: `${id}/flap`, at: footFold },
    heldFold: `${id}/foot-fold`,
  };
}

/** The raised strip against which a foot stands, and where wished the rim on top of it. */
function stopsOf(
  { sizes, marks }: BuildContext,
  index: number,
  easelWidth: number,
  at: number,
  onBase?: { panel: string; from: number; width: number },
): { piece: Piece; bond: Bond }[] {
  const length = clearanceOn(marks, Math.max(10, easelWidth * 0.6));
  const stopWidth = clearanceOn(marks, STOP_WIDTH);
  const stop = stopStrip(
    `stop-${index + 1}`,
    { width: stopWidth, length, height: num(sizes, 'stopHeight') },
    onBase
      ? { panel: onBase.panel, at: [onBase.from, (onBase.width - length) / 2] }
      : { panel: 'board/board', at: [at, (num(sizes, 'width') - length) / 2] },
  );
  if (sizes['stopForm'] !== 'rim') return [stop];
  return [stop, raisedRim({ of: stop.piece, index: index + 1 }, { width: stopWidth, length, lip: num(sizes, 'rimLip') })];
}

/** A plain panel, or the set’s shape at this easel’s height. */
function displayShape({ sizes, outline }: BuildContext, easel: SizeItem): Loop {
  if (!isNested(sizes)) return rectangle(0, 0, num(easel, 'displayWidth'), num(easel, 'displayHeight'));
  return fitted(outline(String(sizes['outline'])), num(easel, 'displayHeight'));
}

function displayOn(easel: string, name: string, shape: Loop, { flap, width }: { flap: number; width: number }) {
  const id = `${easel}-display`;
  const { maxX, maxY } = boxOf(shape);
  const wide = Math.min(maxX, width);
  const glue = glueWithin(
    shape,
    rectangle(
      (maxX - wide) / 2 + TAB_CLEARANCE + wide * 0.1,
      flap * 0.3,
      wide * 0.8 - 2 * TAB_CLEARANCE,
      Math.min(flap, maxY) * 0.7 - TAB_CLEARANCE,
    ),
  );
  const piece = blankPiece({
    id,
    name: `Display of ${name.toLowerCase()}`,
    stock: 'display',
    faceUp: 'picture up, foot at the bottom',
    outline: shape,
    because: 'as you chose it',
    zones: [{ id: 'display-glue', kind: 'glue', face: 'down', outline: glue, says: 'glue to the flap only, feet level' }],
    anchors: [{ panel: 'display', name: `display of ${name.toLowerCase()}`, at: insideOf(shape) }],
  });
  const bond: Bond = {
    id: `${id}-on-flap`,
    name: `display on the flap of ${name.toLowerCase()}`,
    panel: `${id}/display`,
    face: 'down',
    partner: `${easel}/flap`,
    partnerFace: 'down',
    zone: 'display-glue',
    placement: { to: [0, (width - maxX) / 2], turn: -Math.PI / 2, flipped: true },
  };
  return { piece, bond };
}

/** What of a place for glue lies within a shape, a little in from its edge: a heart is narrow at its foot. */
function glueWithin(shape: Loop, place: Loop): Loop {
  const common = intersect(shrunk(shape, 1).map(asArea), [asArea(place)]);
  return largestOf(common) ?? place;
}
