import { unite } from '../../plane/boolean.js';
import { rectangle, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { inFront } from './lift-arm.js';
import { fold, glueOn, numberOf, pieceId, type Placed } from './placed-arm.js';

/** A figure, its picture up: its hinge upright at x = 0, the picture left of it on the lower arm. */
export function figurePiece(id: string, { arm, hand, end, figure }: Placed): Piece {
  const [low, high] = arm.mount;
  const turned = figure.map(([r, s]): Point => [-hand * r, s]);
  const tab = hand === 1 ? rectangle(0, low, arm.tab, high - low) : rectangle(-arm.tab, low, arm.tab, high - low);
  const at = -hand * arm.brace;
  return blankPiece({
    id: pieceId(id, end, 'figure'),
    name: `Figure of arm ${numberOf(end)}`,
    stock: 'display',
    faceUp: 'picture up',
    because: 'the outline, what joins it to its hinge, and the tab',
    outline: withTab(hand === 1 ? [...turned].reverse() : turned, tab),
    creases: [fold('hinge', `hinge of figure ${numberOf(end)}`, [0, low], [0, high], 'valley')],
    zones: [
      {
        id: 'tab-glue',
        kind: 'glue',
        face: 'down',
        outline: glueOn(hand === 1 ? 0 : -arm.tab, low, arm.tab, high - low, hand === 1 ? 'left' : 'right'),
        says: inFront(arm.hinge) ? 'glue under the tongue, its fold on the line' : 'glue inside the first wing, its fold on the line',
      },
    ],
    marks: [
      {
        id: 'brace-line',
        from: [at, low],
        to: [at, high],
        says: `the fold of the brace lies here, its tab ${inFront(arm.hinge) ? 'toward' : 'away from'} the hinge`,
        ...(inFront(arm.hinge) && { face: 'down' as const }),
      },
    ],
    anchors: [
      { panel: 'figure', name: `figure of arm ${numberOf(end)}`, at: [-hand * 0.4, (low + high) / 2] },
      { panel: 'figure-tab', name: `tab of figure ${numberOf(end)}`, at: [hand * (arm.tab / 2), (low + high) / 2] },
    ],
  });
}

/** A loop with a tab put on where its edge runs straight up: both counter-clockwise. */
function withTab(loop: Loop, tab: Loop): Loop {
  return unite([
    { outer: loop, holes: [] },
    { outer: tab, holes: [] },
  ])[0]!;
}
