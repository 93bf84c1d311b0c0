import {
  movedByHand,
  type CuttingPlan,
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
/** Room that pieces keep which are cut along their outlines, mm. */
const ROOM = 2;

/** All sheets of a plan after some moves, each judged as it lies now. */
export function afterMoves(evaluation: Evaluation, { sheets }: CuttingPlan, tool: CuttingTool, moves: readonly HandMove[]): MovedSheet[] {
  return sheets.map((planned, i) =>
    moves
      .filter((move) => move.sheets.includes(i))
      .reduce<MovedSheet>(({ sheet }, { nth, to }) => movedByHand(evaluation, sheet, sheet.pieces[nth]!.id, to, tool), {
        sheet: planned,
        wrong: [],
        told: [],
      }),
  );
}

/** Where a piece comes to lie that is brought near an edge of the sheet or of another piece: on it, or as near as it may come. */
export function snapped({ pieces, ...sheet }: PlannedSheet, nth: number, to: PutAt, tool: CuttingTool): PutAt {
  const room = tool === 'free' ? ROOM : 0;
  const { width, height } = pieces[nth]!;
  const others = pieces.filter((_, i) => i !== nth);
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
