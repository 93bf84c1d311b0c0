import { shifted } from '../../plane/placement.js';
import { rectangle } from '../../plane/outline.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import type { Bond } from '../../linkage/structure.js';
import { num, type Sizes } from '../sizes.js';

/** Layers of card on the film: one on its front and, to hide what holds that, its twin behind. */
export function layersOn(sizes: Sizes, filmWidth: number): { pieces: Piece[]; bonds: Bond[] } {
  const [from, height] = [num(sizes, 'layerFrom'), num(sizes, 'layerHeight')];
  const border = num(sizes, 'layerBorder');
  const width = filmWidth - 2 * border;
  const glue = rectangle(1, 1, height - 2, width - 2);
  const layer = (id: string, name: string, says: string): Piece =>
    blankPiece({
      id,
      name,
      stock: 'display',
      faceUp: 'picture up, foot at the left',
      outline: rectangle(0, 0, height, width),
      because: 'as high as you chose; as wide as the film less its border on both sides',
      zones: [{ id: `${id}-glue`, kind: 'glue', face: 'down', outline: glue, says }],
      anchors: [{ panel: id, name: name.charAt(0).toLowerCase() + name.slice(1), at: [height / 2, width / 2] }],
    });
  const front = {
    id: 'layer-on-film',
    name: 'layer on the film',
    panel: 'layer/layer',
    face: 'down',
    partner: 'film/film',
    partnerFace: 'up',
    zone: 'layer-glue',
    placement: shifted([from, border]),
  } as const;
  // Seen from behind, foot to foot with the one in front.
  const behind = {
    ...front,
    id: 'twin-on-film',
    name: 'twin behind the film',
    panel: 'twin/twin',
    partnerFace: 'down',
    zone: 'twin-glue',
    placement: { to: [from, border + width], turn: Math.PI, flipped: true },
  } as const;
  const pieces = [layer('layer', 'Layer on the film', 'tape clear of the edges')];
  if (!hasTwin(sizes)) return { pieces, bonds: [front] };
  return {
    pieces: [...pieces, layer('twin', 'Twin behind the film', 'tape edge to edge with the layer in front')],
    bonds: [front, behind],
  };
}

export const hasLayer = (sizes: Sizes): boolean => sizes['layer'] !== 'none';
export const hasTwin = (sizes: Sizes): boolean => sizes['layer'] === 'card';

/** How many layers of card lie on one another with the film between them. */
export const layersAcross = (sizes: Sizes): number => (hasTwin(sizes) ? 2 : hasLayer(sizes) ? 1 : 0);
