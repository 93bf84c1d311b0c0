import type { Mm } from '../../measure/units.js';
import { rectangle, type Loop } from '../../plane/outline.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { inFront } from './lift-arm.js';
import { armSide, figureSide, fold, glueOn, heightOf, numberOf, pieceId, type Placed } from './placed-arm.js';

/**
 * The brace: a strip with a tab at either end, flat in the closed card. Its folds lie where it is hinged; what is nearer to the
 * slanting crease lies right on the lower arm.
 */
export function bracePiece(id: string, one: Placed): Piece {
  const { arm, hand, end, braceWide: wide } = one;
  const height = heightOf(arm);
  const front = inFront(arm.hinge);
  const x = (d: Mm): Mm => -hand * d;
  const span = (from: Mm, to: Mm): Loop => rectangle(Math.min(x(from), x(to)), 0, to - from, height);
  const onFigure = fold(
    'figure-fold',
    `brace’s fold on figure ${numberOf(end)}`,
    [x(figureSide(one)), 0],
    [x(figureSide(one)), height],
    front ? 'mountain' : 'valley',
  );
  const lean = (height / 2) * Math.tan(one.braceTurn);
  const onArm = fold(
    'arm-fold',
    `brace’s fold on arm ${numberOf(end)}`,
    [x(armSide(one)) - lean, 0],
    [x(armSide(one)) + lean, height],
    front ? 'valley' : 'mountain',
  );
  const glue = (tab: 'near' | 'far'): Loop =>
    tab === 'near'
      ? glueOn(hand === 1 ? 0 : -arm.tab, 0, arm.tab, height, hand === 1 ? 'left' : 'right')
      : glueOn(hand === 1 ? -wide - arm.tab : wide, 0, arm.tab, height, hand === 1 ? 'right' : 'left');
  return blankPiece({
    id: pieceId(id, end, 'brace'),
    name: `Brace of arm ${numberOf(end)}`,
    stock: 'mechanism',
    faceUp: front ? 'side toward the figure up' : 'side toward the second wing up',
    because: 'as wide between its folds as the figure’s hinge is from the slanting crease, and a tab at either end',
    outline: span(-arm.tab, wide + arm.tab),
    creases: [onFigure, onArm],
    zones: [
      {
        id: 'figure-glue',
        kind: 'glue',
        face: front ? 'up' : 'down',
        outline: glue(front ? 'near' : 'far'),
        says: `glue to the ${front ? 'back' : 'front'} of the figure, its fold on the line`,
      },
      {
        id: 'arm-glue',
        kind: 'glue',
        face: front ? 'down' : 'up',
        outline: glue(front ? 'far' : 'near'),
        says: `glue to the second wing, ${front ? 'outside' : 'inside'}, its fold on the line`,
      },
    ],
    anchors: [
      { panel: 'brace', name: `brace of arm ${numberOf(end)}`, at: [x(wide / 2), height / 2] },
      {
        panel: front ? 'brace-figure-tab' : 'brace-arm-tab',
        name: `brace’s tab nearer arm ${numberOf(end)}’s crease`,
        at: [x(-arm.tab / 2), height / 2],
      },
      {
        panel: front ? 'brace-arm-tab' : 'brace-figure-tab',
        name: `brace’s tab farther from arm ${numberOf(end)}’s crease`,
        at: [x(wide + arm.tab / 2), height / 2],
      },
    ],
  });
}
