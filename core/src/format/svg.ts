import type { Point } from '../plane/point.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { layOut } from './layout.js';
import { LAYERS, linesOf, type CutterOptions, type LayerName } from './lines.js';

/** Solid strokes: a cutter may take a dash for a perforation. It reads the group; the colour is for people. */
const STROKES: Record<LayerName, string> = {
  cut: '#1d2327',
  'score-mountain': '#8a4b12',
  'score-valley': '#2c5a3a',
  perforation: '#7a1f4b',
  draw: '#7d8790',
};

/**
 * A drawing for an electronic cutter: true size in mm, each piece one group, in it one group for each
 * kind of line. No transforms: coordinates are final. y runs down as SVG has it, so a piece is seen as
 * on the table, upper face up.
 */
export function writeSvg(sheets: readonly CutSheet[], title: string, options: CutterOptions = { folds: 'score' }): string {
  const { placed, width, height } = layOut(sheets);
  const groups = placed.map(({ sheet, x, y }) => {
    const at = ([px, py]: Point): string => `${mm(x + px)} ${mm(y + sheet.height - py)}`;
    const lines = linesOf(sheet, options);
    const { id, name, faceUp } = sheet.piece;
    const layers = LAYERS.flatMap((layer) => {
      const paths = lines
        .filter((line) => line.layer === layer)
        .map((line) => `      <path data-id="${escaped(line.id)}" d="M ${line.points.map(at).join(' L ')}${line.closed ? ' Z' : ''}"/>`);
      if (paths.length === 0) return [];
      return [`    <g id="${id}-${layer}" class="${layer}" stroke="${STROKES[layer]}">`, ...paths, '    </g>'];
    });
    return [`  <g id="${id}" class="piece">`, `    <title>${escaped(`${name}, ${faceUp}`)}</title>`, ...layers, '  </g>'].join('\n');
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

/** Four decimals of a mm, without trailing zeros. */
function mm(value: number): string {
  return String(Number(value.toFixed(4)));
}

function escaped(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
}
