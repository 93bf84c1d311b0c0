import { shifted } from '../../plane/placement.js';
import { rectangle, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import type { Bond } from '../../linkage/structure.js';
import { num, type Sizes } from '../sizes.js';

export const isTwo = (sizes: Sizes): boolean => sizes['swings'] === '2';

/**
 * One blank as wide as both outer arms, with a window that leaves the border, halved: the two frames. What falls
 * out of the window is one panel's layer.
 */
export function armFrames(sizes: Sizes): { piece: Piece; bonds: Bond[] } {
  const [length, height, b] = [num(sizes, 'blankLength'), num(sizes, 'height'), num(sizes, 'border')];
  const [x1, xs] = [num(sizes, 'scoreAt'), num(sizes, 'panelFrom')];
  const width = 2 * x1;
  const two = isTwo(sizes);
  const strip = Math.max(1, Math.min(xs, b) - 2);
  const zones = [rectangle(1, 1, strip, height - 2), rectangle(width - 1 - strip, 1, strip, height - 2)].slice(0, two ? 2 : 1);
  const half: Loop = [
    [0, 0],
    [x1, 0],
    [x1, b],
    [xs, b],
    [xs, height - b],
    [x1, height - b],
    [x1, height],
    [0, height],
  ];
  const piece = blankPiece({
    id: 'frames',
    name: two ? 'Frames of both outer arms' : 'Frame of the left arm',
    stock: 'base',
    faceUp: 'front up',
    outline: two ? rectangle(0, 0, width, height) : half,
    because: two
      ? 'twice the first score: framed as one piece and then halved, so that both frames are alike'
      : 'the outline of its arm; framed out of a blank of twice the first score and halved, it leaves a spare',
    windows: two ? [{ id: 'window', outline: rectangle(xs, b, width - 2 * xs, height - 2 * b) }] : [],
    cuts: two
      ? [
          { id: 'halve-lower', from: [x1, 0], to: [x1, b] },
          { id: 'halve-upper', from: [x1, height - b], to: [x1, height] },
        ]
      : [],
    zones: zones.map((outline, i) => ({
      id: i === 0 ? 'left-glue' : 'right-glue',
      kind: 'glue' as const,
      face: 'down' as const,
      outline,
      says: 'glue all over its arm, not over the score',
    })),
    anchors: [
      { panel: 'left', name: 'left frame', at: [1, height / 2] as Point },
      { panel: 'right', name: 'right frame', at: [width - 1, height / 2] as Point },
    ].slice(0, two ? 2 : 1),
  });
  const bonds = zones.map((_, i): Bond => {
    const side = i === 0 ? 'left' : 'right';
    return {
      id: `${side}-frame-on`,
      name: `${side} frame on the ${side} arm`,
      panel: `frames/${side}`,
      face: 'down',
      partner: `base/${side}-arm`,
      partnerFace: 'up',
      zone: `${side}-glue`,
      placement: shifted([i === 0 ? 0 : length - width, 0]),
    };
  });
  return { piece, bonds };
}
