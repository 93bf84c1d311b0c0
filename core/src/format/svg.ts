import type { Point } from '../plane/point.js';
import type { Loop } from '../plane/outline.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { layOut } from './layout.js';

/** One group of lines of a piece in a cutter's drawing. */
type LayerName = 'cut' | 'score-mountain' | 'score-valley' | 'draw';

/** Solid strokes: a cutter may take a dash for a perforation. It reads the group; the colour is for people. */
const STROKES: Record<LayerName, string> = {
  cut: 'stroke="#1d2327"',
  'score-mountain': 'stroke="#8a4b12"',
  'score-valley': 'stroke="#2c5a3a"',
  draw: 'stroke="#7d8790"',
};

/**
 * A drawing for an electronic cutter: true size in mm, each piece one group, in it one group for each
 * kind of line. No transforms: coordinates are final. y runs down as SVG has it, so a piece is seen as
 * on the table, upper face up.
 */
export function writeSvg(sheets: readonly CutSheet[], title: string): string {
  const { placed, width, height } = layOut(sheets);
  const groups = placed.map(({ sheet, x, y }) => {
    const at = ([px, py]: Point): string => `${mm(x + px)} ${mm(y + sheet.height - py)}`;
    const closed = (loop: Loop): string => `M ${loop.map(at).join(' L ')} Z`;
    const open = (line: { from: Point; to: Point }): string => `M ${at(line.from)} L ${at(line.to)}`;
    const lines: Record<LayerName, string[]> = {
      cut: [
        path('outline', closed(sheet.outline)),
        ...sheet.windows.map((window) => path(window.id, closed(window.outline))),
        ...sheet.cuts.map((cut) => path(cut.id, open(cut))),
      ],
      'score-mountain': sheet.scores.filter((s) => s.fold === 'mountain').map((score) => path(score.id, open(score))),
      'score-valley': sheet.scores.filter((s) => s.fold === 'valley').map((score) => path(score.id, open(score))),
      draw: sheet.marks.map((mark) => path(mark.id, open(mark))),
    };
    const { id, name, faceUp } = sheet.piece;
    const layers = (Object.keys(lines) as LayerName[])
      .filter((layer) => lines[layer].length > 0)
      .map(
        (layer) =>
          `    <g id="${id}-${layer}" class="${layer}" ${STROKES[layer]}>\n${lines[layer].map((l) => `      ${l}`).join('\n')}\n    </g>`,
      );
    return `  <g id="${id}" class="piece">\n    <title>${escaped(`${name}, ${faceUp}`)}</title>\n${layers.join('\n')}\n  </g>`;
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width)}mm" height="${mm(height)}mm" viewBox="0 0 ${mm(width)} ${mm(height)}" fill="none" stroke-width="0.25">`,
    `  <title>${escaped(title)}</title>`,
    ...groups,
    '</svg>',
    '',
  ].join('\n');
}

function path(id: string, d: string): string {
  return `<path data-id="${escaped(id)}" d="${d}"/>`;
}

/** Four decimals of a mm, without trailing zeros. */
function mm(value: number): string {
  return String(Number(value.toFixed(4)));
}

function escaped(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
}
