import Drawing from 'dxf-writer';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { layOut } from './layout.js';
import { LAYERS, linesOf, type CutterOptions, type LayerName } from './lines.js';

/** AutoCAD colour numbers of the layers. */
const COLOURS: Record<LayerName, number> = { cut: 7, 'score-mountain': 30, 'score-valley': 3, perforation: 6, draw: 8 };

/** A DXF drawing in mm: one layer for each kind of line, pieces apart, y up as drawn. */
export function writeDxf(sheets: readonly CutSheet[], options: CutterOptions = { folds: 'score' }): string {
  const drawing = new Drawing();
  drawing.setUnits('Millimeters');
  for (const layer of LAYERS) drawing.addLayer(layer, COLOURS[layer], 'CONTINUOUS');
  const { placed, height } = layOut(sheets);
  for (const { sheet, x, y } of placed) {
    // The layout runs down from the top; DXF runs up from the bottom.
    const bottom = height - y - sheet.height;
    for (const line of linesOf(sheet, options)) {
      drawing.setActiveLayer(line.layer);
      const points = line.points.map(([px, py]): [number, number] => [x + px, bottom + py]);
      if (line.closed) drawing.drawPolyline(points, true);
      else drawing.drawLine(points[0]![0], points[0]![1], points[1]![0], points[1]![1]);
    }
  }
  return drawing.toDxfString();
}
