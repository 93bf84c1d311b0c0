import { shifted } from '../../plane/placement.js';
import { rectangle, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import type { Bond } from '../../linkage/structure.js';
import type { Mm } from '../../measure/units.js';
import { num, type PlainSize, type Sizes } from '../sizes.js';

export const isTwo = (sizes: Sizes): boolean => sizes['swings'] === '2';

/** How much narrower than its arm a frame is: at the score, and round the opening of the panel. */
const setBack = (sizes: Sizes): { score: Mm; opening: Mm } => ({
  score: num(sizes, 'frameFromScore'),
  opening: num(sizes, 'frameFromOpening'),
});
const isBehind = (sizes: Sizes): boolean => sizes['frameSide'] === 'behind';
export const hasFrames = (sizes: Sizes): boolean => sizes['frames'] === 'outer';

/** A frame keeps at least this much beside the opening and above and below it. */
const LEAST_FRAME: Mm = 4;

/** What there is to set of the frames, shown once there are any. */
export const FRAME_SIZES: readonly PlainSize[] = [
  {
    name: 'frameFromScore',
    label: 'Frames set back from the score',
    kind: 'length',
    default: 0,
    help: 'So much of the arm shows beside its score.',
    range: ({ sizes }) => ({
      min: 0,
      max: Math.max(0, num(sizes, 'scoreAt') - num(sizes, 'panelFrom') - LEAST_FRAME),
      because: 'the frame reaches past the opening’s edge, above and below the panel',
    }),
    shown: hasFrames,
  },
  {
    name: 'frameFromOpening',
    label: 'Frames set back from the opening',
    kind: 'length',
    default: 0,
    help: 'So much of the arm shows round the panel.',
    range: ({ sizes }) => ({
      min: 0,
      max: Math.max(0, Math.min(num(sizes, 'panelFrom'), num(sizes, 'border')) - LEAST_FRAME),
      because: 'a frame narrower than 4 mm tears',
    }),
    shown: hasFrames,
  },
  {
    name: 'frameSide',
    label: 'Frames glued',
    kind: 'choice',
    default: 'front',
    help: 'In front they are seen beside the picture; behind they only stiffen.',
    options: [
      { value: 'front', label: 'in front of the arms' },
      { value: 'behind', label: 'behind the arms' },
    ],
    shown: hasFrames,
  },
  {
    name: 'frameStock',
    label: 'Frames cut from',
    kind: 'choice',
    default: 'base',
    help: 'The card’s own stock, or another for contrast.',
    options: [
      { value: 'base', label: 'the card’s stock' },
      { value: 'display', label: 'the display stock' },
    ],
    shown: hasFrames,
  },
];

/** What falls out of the frames’ window, for a layer of a panel: across and along. */
export function frameWaste(sizes: Sizes): [Mm, Mm] {
  const { score, opening } = setBack(sizes);
  return [
    2 * (num(sizes, 'scoreAt') - score - num(sizes, 'panelFrom') + opening),
    num(sizes, 'height') - 2 * (num(sizes, 'border') - opening),
  ];
}

/**
 * One blank as wide as both frames, with a window that leaves the border, halved: the two frames, each of its arm’s outline
 * less what it is set back. Without that, what falls out of the window is one panel’s layer.
 */
export function armFrames(sizes: Sizes): { piece: Piece; bonds: Bond[] } {
  const [length, height] = [num(sizes, 'blankLength'), num(sizes, 'height')];
  const { score, opening } = setBack(sizes);
  const [x1, xs, b] = [num(sizes, 'scoreAt') - score, num(sizes, 'panelFrom') - opening, num(sizes, 'border') - opening];
  const behind = isBehind(sizes);
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
    stock: sizes['frameStock'] === 'display' ? 'display' : 'base',
    faceUp: 'front up',
    outline: two ? rectangle(0, 0, width, height) : half,
    because: two
      ? 'twice the first score, less what is set back: framed as one piece and then halved, so that both frames are alike'
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
      face: behind ? ('up' as const) : ('down' as const),
      outline,
      says: behind ? 'glue all over the back of its arm, not over the score' : 'glue all over its arm, not over the score',
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
      name: `${side} frame ${behind ? 'behind' : 'on'} the ${side} arm`,
      panel: `frames/${side}`,
      face: behind ? 'up' : 'down',
      partner: `base/${side}-arm`,
      partnerFace: behind ? 'down' : 'up',
      zone: `${side}-glue`,
      placement: shifted([i === 0 ? 0 : length - width, 0]),
    };
  });
  return { piece, bonds };
}
