import { inSentence } from '../card/part-titles.js';
import { laidOn } from '../dress/layer-piece.js';
import type { PlacedTopper } from '../dress/toppers.js';
import type { Evaluation } from '../evaluate.js';
import { capitalised } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { boxOf, type Loop } from '../plane/outline.js';
import { place, undone } from '../plane/placement.js';
import type { Point } from '../plane/point.js';
import type { Primitive } from '../sheet/piece-drawing.js';
import type { PaperId } from './papers.js';
import type { PdfFonts } from './pdf-page.js';
import { writeTrueSize, type TrueSizeDrawing, type TrueSizeFile } from './pdf-true-size.js';

/**
 * Every face that carries toppers, at its true size and as it is looked at: the outline of each topper with its number, in
 * the order in which they are glued on, and where its glue goes. To place them by, or to lay under a tacky mat.
 */
export const writeArrangement = (evaluation: Evaluation, paper: PaperId, fonts: PdfFonts): Promise<TrueSizeFile> =>
  writeTrueSize(evaluation, arrangementOf(evaluation), 'where the toppers go', paper, fonts);

/** A number stands so far over its topper. */
const ABOVE: Mm = 1.2;

/** The drawings of that sheet; none of a card that carries no topper. */
export function arrangementOf({ design, dressed }: Pick<Evaluation, 'design' | 'dressed'>): TrueSizeDrawing[] {
  const faces = new Map<string, PlacedTopper[]>();
  for (const placed of dressed.toppers) {
    const key = `${placed.panel} ${placed.face}`;
    faces.set(key, [...(faces.get(key) ?? []), placed]);
  }
  return [...faces.values()].map((own): TrueSizeDrawing => {
    const [{ panel, face, panelName }] = own as [PlacedTopper];
    const { area } = design.panels[design.linkage.bodyOf.get(panel)!]!;
    const up = dressed.sides.find((side) => side.panel === panel && side.face === face)?.up ?? 'top';
    const back = undone(laidOn(area, { face, up }));
    const seen = (loop: Loop): Point[] => loop.map((point) => place(point, back));
    const everything = [...seen(area.outer), ...own.flatMap((placed) => placed.whole.flatMap(({ outer }) => seen(outer)))];
    const { minX, minY, maxX, maxY } = boxOf(everything);
    const drawn = (loop: Loop): Point[] => seen(loop).map(([x, y]): Point => [x - minX, y - minY]);
    const line = (role: Primitive['role'], id: string, loop: Loop): Primitive => ({
      role,
      id,
      points: drawn(loop),
      closed: true,
      face: 'up',
    });
    return {
      title: `${capitalised(inSentence(panelName))}${face === 'down' ? ', its back' : ''}: where the toppers go`,
      width: maxX - minX,
      height: maxY - minY,
      piece: [
        line('outline', panel, area.outer),
        ...area.holes.map((hole, i) => line('window', `${panel}-${i}`, hole)),
        ...own.flatMap((placed) => [
          ...[placed, ...placed.under.filter(({ as }) => as !== 'twin')].map(({ id, area: lies }) => line('pencil', id, lies.outer)),
          ...(placed.greeting?.onPanel ?? []).map((loop, i) => line('lettering', `${placed.id}-letters-${i}`, loop)),
          // All over is no place to be shown: only a part is, and pads are.
          ...(placed.topper.glued || placed.pads.length > 0
            ? placed.glue.map(({ outer }, i) => line('glue', `${placed.id}-${i}`, outer))
            : []),
        ]),
      ],
      // Over its upper edge: on the topper itself stand its letters.
      notes: own.map((placed) => {
        const { minX: left, maxY: top } = boxOf(drawn(placed.area.outer));
        return { at: [left + 1, top + ABOVE], words: `${placed.number}: ${placed.topper.name ?? placed.outlineName}` };
      }),
    };
  });
}
