import {
  CUTTING_GAP,
  movedByHand,
  type CuttingTool,
  type Evaluation,
  type MovedSheet,
  type PlannedSheet,
  type PutAt,
} from '@diptychon/core';

/** A piece that was put elsewhere: on every sheet of some that are cut alike, the one in that place of their lists. */
export interface HandMove {
  sheets: readonly number[];
  nth: number;
  to: PutAt;
}

/** An edge comes onto another when it is brought as near as this, mm. */
const NEAR = 3;
/** All sheets after one more move, each that it changes judged as it lies now. */
export function afterMove(
  evaluation: Evaluation,
  laid: readonly MovedSheet[],
  tool: CuttingTool,
  { sheets, nth, to }: HandMove,
): MovedSheet[] {
  return laid.map((one, i) => (sheets.includes(i) ? movedByHand(evaluation, one.sheet, one.sheet.pieces[nth]!.id, to, tool) : one));
}

/** Where a piece comes to lie that is brought near an edge of the sheet or of another piece: on it, or as near as it may come. */
export function snapped({ pieces, ...sheet }: PlannedSheet, nth: number, to: PutAt, tool: CuttingTool): PutAt {
  const room = tool === 'free' ? CUTTING_GAP : 0;
  const { width, height, beside } = pieces[nth]!;
  // What lies side by side with it goes with it.
  const others = pieces.filter(({ id }, i) => i !== nth && id !== beside);
  const near = (at: number, size: number, whole: number, edges: readonly (readonly [number, number])[]): number => {
    const places = [0, whole - size, ...edges.flatMap(([low, high]) => [low, high - size, high + room, low - size - room])];
    const nearest = places.reduce((best, place) => (Math.abs(place - at) < Math.abs(best - at) ? place : best));
    return Math.abs(nearest - at) <= NEAR ? nearest : at;
  };
  return {
    ...to,
    x: near(
      to.x,
      width,
      sheet.width,
      others.map((one) => [one.x, one.x + one.width]),
    ),
    y: near(
      to.y,
      height,
      sheet.height,
      others.map((one) => [one.y, one.y + one.height]),
    ),
  };
}
