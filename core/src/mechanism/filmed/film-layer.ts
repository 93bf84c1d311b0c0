import { shifted } from '../../plane/placement.js';
import { rectangle } from '../../plane/outline.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { EDGE_MARGIN } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import { num, type Sizes } from '../sizes.js';

/** A layer of card on the front of the film. */
export function layerOn(sizes: Sizes, filmWidth: number): { piece: Piece; bond: Bond } {
  const [from, height] = [num(sizes, 'layerFrom'), num(sizes, 'layerHeight')];
  const width = filmWidth - 2 * EDGE_MARGIN;
  const glue = rectangle(1, 1, height - 2, width - 2);
  return {
    piece: blankPiece({
      id: 'layer',
      name: 'Layer on the film',
      stock: 'display',
      faceUp: 'picture up, foot at the left',
      outline: rectangle(0, 0, height, width),
      because: 'as high as you chose; as wide as the film less 3 mm on both sides',
      zones: [{ id: 'layer-glue', kind: 'glue', face: 'down', outline: glue, says: 'strong thin tape; a twin on the back hides it' }],
      anchors: [{ panel: 'layer', name: 'layer on the film', at: [height / 2, width / 2] }],
    }),
    bond: {
      id: 'layer-on-film',
      name: 'layer on the film',
      panel: 'layer/layer',
      face: 'down',
      partner: 'film/film',
      partnerFace: 'up',
      zone: 'layer-glue',
      placement: shifted([from, EDGE_MARGIN]),
    },
  };
}
