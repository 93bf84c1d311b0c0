import Drawing from 'dxf-writer';
import { flattened, pathOf } from '../plane/curves.js';
import { placeIn } from '../plan/beds.js';
import type { Drawing as CutterDrawing } from './layout.js';
import { LAYERS, linesOf, type CutterOptions, type LayerName } from './lines.js';

/** Colours of the layers, by their numbers in the format. */
const COLOURS: Record<LayerName, number> = { cut: 7, 'score-mountain': 30, 'score-valley': 3, perforation: 6, draw: 8 };

/** Curves are polylines whose chords lie this close to them. */
const CHORD = 0.01;

/**
 * A DXF drawing in mm, y up as drawn: one layer for each kind of line of each piece, named `PIECE-KIND`, kinds told by their
 * colour as well. Lines come in the order in which they are made, the outline of a piece last.
 */
export function writeDxf({ placed }: CutterDrawing, options: CutterOptions = { folds: 'score' }): string {
  const drawing = new Drawing();
  drawing.setUnits('Millimeters');
  for (const own of placed) {
    const lines = linesOf(own.sheet, options);
    const layerOf = (layer: LayerName): string => `${own.sheet.piece.id}-${layer}`;
    for (const layer of LAYERS) {
      if (lines.some((line) => line.layer === layer)) drawing.addLayer(layerOf(layer), COLOURS[layer], 'CONTINUOUS');
    }
    for (const { layer, points, closed } of lines) {
      drawing.setActiveLayer(layerOf(layer));
      const fine = flattened(pathOf(points, closed), CHORD).map((point): [number, number] => {
        const [x, y] = placeIn(own, point);
        return [x, y];
      });
      if (closed || fine.length > 2) drawing.drawPolyline(fine, closed);
      else drawing.drawLine(fine[0]![0], fine[0]![1], fine[1]![0], fine[1]![1]);
    }
  }
  return drawing.toDxfString();
}
