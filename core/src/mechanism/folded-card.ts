import { rectangle } from '../plane/outline.js';
import { blankPiece } from '../sheet/piece.js';
import { toRadians } from '../measure/units.js';
import type { Base } from './contract.js';
import { depthSize, INNER_FROM, INNER_THICKNESS, lengthSize, SPINE_SIZE, STRAIGHT } from './common-sizes.js';
import { innerLayersOf } from './inner-layer.js';
import { num } from './sizes.js';

/** A card folded once: the plain ground that movements on a fold stand on. */
export const foldedCard: Base = {
  id: 'folded-card',
  kind: 'base',
  name: 'Folded card',
  summary: 'Two leaves and one fold. Carries movements that stand up as it opens.',
  difficulty: 'easy',
  needs: ['base card'],
  mayGoWrong: ['a stack inside near the fold props the card open', 'a fold across the grain cracks'],
  alternatives: [],
  sizes: [
    depthSize(105),
    lengthSize(148),
    {
      name: 'openTo',
      label: 'Opens to',
      kind: 'angle',
      default: STRAIGHT,
      help: 'How far the leaves are opened. 180° is flat on the table.',
      range: () => ({ min: toRadians(60), max: STRAIGHT, because: 'a single fold opens no further than flat' }),
    },
    {
      name: 'shown',
      label: 'Shown',
      kind: 'choice',
      default: 'lying',
      help: 'How the open card is put down.',
      options: [
        { value: 'lying', label: 'lying on its back leaf' },
        { value: 'standing', label: 'standing upright, half open' },
      ],
    },
    SPINE_SIZE,
    INNER_THICKNESS,
    INNER_FROM,
  ],
  build({ sizes }) {
    const depth = num(sizes, 'depth');
    const length = num(sizes, 'length');
    const openTo = num(sizes, 'openTo');
    const piece = blankPiece({
      id: 'base',
      name: 'Card',
      stock: 'base',
      faceUp: 'inside up',
      outline: rectangle(0, 0, 2 * depth, length),
      because: 'two leaves side by side, one score between them',
      creases: [
        {
          id: 'main-fold',
          name: 'main fold',
          from: [depth, 0],
          to: [depth, length],
          fold: 'valley',
          closed: Math.PI,
          ease: 0,
          standsFor: { size: 'depth', perMm: 1 },
        },
      ],
      anchors: [
        { panel: 'front-leaf', name: 'front leaf', at: [depth / 2, length / 2] },
        { panel: 'back-leaf', name: 'back leaf', at: [1.5 * depth, length / 2] },
      ],
    });
    const standing = sizes['shown'] === 'standing';
    const halfOpen = Math.min(1, Math.PI / 2 / openTo);
    return {
      pieces: [piece],
      bonds: [],
      touches: [],
      couplings: [],
      ground: 'base/back-leaf',
      closedOutline: rectangle(depth, 0, depth, length),
      schedule: {
        phases: [
          { name: 'open the leaves', from: 0, to: 1, targets: [{ hinge: 'base/main-fold', start: Math.PI, end: Math.PI - openTo }] },
        ],
        startAt: Math.min(halfOpen, 0.6),
        opening: { hinge: 'base/main-fold', atZero: Math.PI, perFold: -1 },
      },
      hostFolds: [
        {
          id: 'main-fold',
          piece: 'base',
          hinge: 'base/main-fold',
          leaves: ['base/front-leaf', 'base/back-leaf'],
          x: depth,
          fromY: 0,
          toY: length,
          depth,
          innerFace: 'up',
        },
      ],
      meetings: [
        {
          id: 'free-edges',
          name: 'the free edges of the two leaves',
          a: { panel: 'base/front-leaf', from: [0, 0], to: [0, length] },
          b: { panel: 'base/back-leaf', from: [2 * depth, 0], to: [2 * depth, length] },
        },
      ],
      closings: [
        {
          hinge: 'base/main-fold',
          name: 'main fold',
          lower: ['base/back-leaf'],
          upper: ['base/front-leaf'],
          depth,
          length,
          spined: sizes['spine'] === 'fitted',
          spineSize: 'spine',
        },
      ],
      innerLayers: innerLayersOf(sizes, 'base/back-leaf', depth),
      rest: standing
        ? { at: halfOpen, up: [0, 1, 0], viewFrom: [1.1, 0.7, 0.9], says: 'standing on the edges of both leaves, half open' }
        : { at: 1, up: [0, 0, 1], viewFrom: [0.3, -1, 0.75], says: 'lying on its back leaf' },
      measures: [
        { name: 'mainFold', label: 'Main fold at', value: depth, unit: 'mm', because: 'one leaf deep, so that both leaves are the same' },
      ],
      tracked: [],
      openHeight: { label: 'Height when open', because: 'the highest point over the table' },
    };
  },
};
