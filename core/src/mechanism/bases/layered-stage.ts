import { rectangle, type Loop } from '../../plane/outline.js';
import { blankPiece, type Mark, type Piece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import type { Base, BuildContext, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { itemSizeName, items, num, type SizeContext, type SizeItem } from '../sizes.js';
import { trackedAngle } from '../tracked.js';
import { panelStrip, type StripFold } from '../drawing/panel-strip.js';
import { uprightCrease } from '../drawing/upright.js';
import { openingSize, shrunk, windowLoop, windowSizes } from '../opening/window-sizes.js';
import { mm } from '../measures.js';
import { equalWidths, tornWidth, type EqualWidths, type Said, type TornWidth } from '../../claim/claims.js';

/** A rim narrower than this round an opening tears. */
const RIM = 4;

/** The clear stretch behind a layer in which its tabs must lie. */
const behind = ({ sizes, item }: SizeContext): number => num(sizes, 'depth') - num(item!, 'depth');

/** Back, front and layers joined by side walls: it shears flat sideways as a parallelogram. */
export const layeredStage: Base = {
  ...introduced('layered-stage'),
  difficulty: 'medium',
  gives: ['stands upright', 'a scene in depth', 'a window'],
  needs: ['base card', 'glue that can be slid'],
  mayGoWrong: ['layers of unequal width: it will not shear flat', 'tabs longer than the room behind a layer'],
  forClosedSize: (across, height) => {
    const depth = Math.round(across / 4);
    return { innerWidth: across - depth, depth, height };
  },
  sizes: [
    {
      name: 'innerWidth',
      label: 'Inner width',
      kind: 'length',
      default: 110,
      help: 'Between the walls: the same for back, front and every layer.',
      range: () => ({ min: 40, max: 240, because: 'a stage must be large enough to handle and its blanks small enough for a sheet' }),
    },
    {
      name: 'height',
      label: 'Height',
      kind: 'length',
      default: 140,
      help: 'Of all pieces: the stage stands on this edge.',
      range: () => ({ min: 40, max: 320, because: 'a stage must be large enough to handle and its blanks small enough for a sheet' }),
    },
    {
      name: 'depth',
      label: 'Depth',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'innerWidth') / 3),
      help: 'From the front to the back when it stands: the width of the walls.',
      range: ({ sizes }) => ({
        min: 15,
        max: num(sizes, 'innerWidth'),
        because: 'shallower walls leave no room for tabs, and deeper ones make the flat stage twice as wide',
      }),
    },
    ...windowSizes({
      shape: 'arch',
      width: ({ sizes }) => num(sizes, 'innerWidth') - 16,
      height: ({ sizes }) => num(sizes, 'height') - 20,
      widthRange: ({ sizes }) => ({
        min: 10,
        max: num(sizes, 'innerWidth') - 2 * RIM,
        because: 'a rim of 4 mm must be left on both sides',
      }),
      heightRange: ({ sizes }) => ({ min: 10, max: num(sizes, 'height') - 2 * RIM, because: 'a rim of 4 mm must be left above and below' }),
    }),
    {
      name: 'layers',
      label: 'Layers between front and back',
      kind: 'list',
      itemLabel: 'layer',
      help: 'From the front to the back.',
      least: 0,
      most: 6,
      default: ({ sizes }) => [1, 2].map((k) => ({ depth: Math.round((num(sizes, 'depth') * k) / 3) })),
      item: [
        {
          name: 'depth',
          label: 'Behind the front',
          kind: 'length',
          default: ({ sizes, index }) => (num(sizes, 'depth') * (index! + 1)) / 8 + 5,
          help: 'Distance of this layer from the front.',
          range: ({ sizes }) => ({ min: 2, max: num(sizes, 'depth') - 6, because: 'behind a layer its tabs need 6 mm of wall' }),
        },
        {
          name: 'window',
          label: 'Opening',
          kind: 'choice',
          default: 'nested',
          help: 'Nested openings are each smaller than the one in front by the border.',
          options: [
            { value: 'nested', label: 'nested in the one before' },
            { value: 'none', label: 'none, a whole sheet' },
          ],
        },
        {
          name: 'tab',
          label: 'Tab',
          kind: 'length',
          default: (context) => Math.min(10, behind(context) - 1),
          help: 'Width of its glue tabs.',
          range: (context) => ({ min: 4, max: behind(context), because: 'tabs lie on the wall between their layer and the back' }),
        },
        {
          name: 'width',
          label: 'Width',
          kind: 'length',
          default: ({ sizes }) => num(sizes, 'innerWidth'),
          help: 'Follows the inner width. Set it only for a layer that is already cut.',
          asCut: true,
          range: ({ sizes }) => ({
            min: Math.max(num(sizes, 'innerWidth') * 0.8, num(sizes, 'windowWidth') + 2 * RIM),
            max: num(sizes, 'innerWidth') * 1.2,
            because: 'a narrower layer does not reach or is cut through by its window, and a wider one bends double',
          }),
        },
      ],
    },
    {
      name: 'windowBorder',
      label: 'Border between openings',
      kind: 'length',
      default: 5,
      help: 'Each further opening is smaller by this all round: a border, so twice as much across.',
      range: ({ sizes }) => {
        const nested = items(sizes, 'layers').filter((layer) => layer['window'] === 'nested').length;
        const room = Math.min(num(sizes, 'windowWidth'), num(sizes, 'windowHeight')) / 2 - 3;
        return { min: 0, max: room / Math.max(1, nested), because: 'the last opening must still be 6 mm wide' };
      },
    },
  ],
  build(context) {
    const { sizes } = context;
    const width = num(sizes, 'innerWidth');
    const height = num(sizes, 'height');
    const depth = num(sizes, 'depth');
    const layers = items(sizes, 'layers');
    const base = backOf(
      width,
      height,
      depth,
      layers.map((layer) => num(layer, 'depth')),
    );
    const shape = windowLoop(context.outline(String(sizes['windowShape'])), num(sizes, 'windowWidth'), num(sizes, 'windowHeight'), [
      0,
      (height - num(sizes, 'windowHeight')) / 2,
    ]);
    const front = framed(context, { id: 'front', name: 'Front', inner: width, tab: depth, behind: 0, opening: [shape] });
    let nested = 0;
    const middle = layers.map((layer, i) => {
      if (layer['window'] === 'nested') nested++;
      const opening = layer['window'] === 'nested' ? shrunk(shape, nested * num(sizes, 'windowBorder')) : [];
      return framed(context, {
        id: `layer-${i + 1}`,
        name: `Layer ${i + 1}`,
        inner: num(layer, 'width'),
        tab: num(layer, 'tab'),
        behind: num(layer, 'depth'),
        opening,
      });
    });
    const frames = [...middle, front];
    return {
      pieces: [base, ...frames.map((frame) => frame.piece)],
      bonds: frames.flatMap((frame) => frame.bonds),
      ground: 'base/back',
      closedOutline: rectangle(depth, 0, width + depth, height),
      schedule: {
        phases: [
          {
            name: 'push it square',
            from: 0,
            to: 1,
            targets: [{ hinge: 'base/left-wall', start: Math.PI, end: Math.PI / 2 }],
          },
        ],
        startAt: 0.6,
        opening: { hinge: 'base/left-wall', atZero: Math.PI, perFold: -1 },
      },
      sides: { fold: 'the left edge', free: 'the right edge' },
      rest: { at: 1, up: [0, 1, 0], viewFrom: [0.4, 0.35, 1], says: 'standing upright on the edges of its walls and layers' },
      measures: stageMeasures(context, middle, layers),
      tracked: [trackedAngle({ id: 'square', label: 'Left wall to the back' }, ['base/left-wall', [-1, 0]], ['base/back', [1, 0]])],
      openHeight: { label: 'Height when standing', because: 'all pieces are equally high' },
      claims: [
        ...frames
          .map(({ piece }, i): Said<EqualWidths> => ({
            id: piece.id,
            name: `the back and ${piece.name.toLowerCase()}`,
            a: { says: 'the back', panels: ['base/back'] },
            b: { says: piece.name.toLowerCase(), panels: [`${piece.id}/${piece.id}`] },
            or: 'the stage does not shear flat',
            ...(i < middle.length && { mend: { size: itemSizeName('layers', i, 'width'), label: piece.name.toLowerCase(), value: width } }),
          }))
          .map(equalWidths),
        ...frames.flatMap((frame) => frame.torn).map(tornWidth),
      ],
      words: {
        settingUp: ['Push the front sideways until the walls stand square.'],
      },
    };
  },
};

function backOf(width: number, height: number, depth: number, layers: readonly number[]): Piece {
  const line = (k: number, side: string, x: number): Mark => ({
    id: `layer-${k}-${side}`,
    from: [x, 0],
    to: [x, height],
    says: `the fold of layer ${k} goes here`,
  });
  const leftFold: StripFold = {
    id: 'left-wall',
    name: 'left wall fold',
    fold: 'valley',
    closed: Math.PI,
    standsFor: { size: 'depth', perMm: 1 },
  };
  const { drawn } = panelStrip(height, [
    { panel: 'left-wall', name: 'left wall', width: depth, then: leftFold },
    { panel: 'back', name: 'back', width, then: { id: 'right-wall', name: 'right wall fold', fold: 'valley', closed: 0 } },
    { panel: 'right-wall', name: 'right wall', width: depth },
  ]);
  return blankPiece({
    id: 'base',
    name: 'Back and walls',
    stock: 'base',
    faceUp: 'inside up',
    ...drawn,
    because: 'the inner width and a wall on either side',
    marks: layers.flatMap((behind, i) => [line(i + 1, 'left', behind), line(i + 1, 'right', 2 * depth + width - behind)]),
  });
}

interface Frame {
  id: string;
  name: string;
  inner: number;
  /** width of its tabs; for the front the returns, as wide as the walls */
  tab: number;
  behind: number;
  /** opening as placed on a sheet whose left edge is the frame's own */
  opening: readonly Loop[];
}

/**
 * A sheet with tabs folded back. The front's returns lie outside the walls, a layer's tabs inside them.
 * Standing square the front therefore wants two calipers more than the walls are apart and a layer two
 * less; lying flat all want the same. Each is cut half of that off: the conflict is shared by both ends.
 */
function framed({ sizes, baseCaliper }: BuildContext, { id, name, inner, tab, behind, opening }: Frame) {
  const height = num(sizes, 'height');
  const depth = num(sizes, 'depth');
  const width = num(sizes, 'innerWidth');
  const isFront = id === 'front';
  const given = isFront ? baseCaliper : -baseCaliper;
  const inset = (inner - openingWidth(opening)) / 2;
  const windows = opening.map((loop, i) => ({ id: `window-${i + 1}`, outline: shiftedTo(loop, tab + inset, openingLeft(opening)) }));
  // The front's returns end at the walls' own folds; a layer's tabs end on the wall.
  const end = isFront ? TAB_CLEARANCE : 0.5;
  const glue = (x: number): Loop => rectangle(x, TAB_CLEARANCE, tab - TAB_CLEARANCE - end, height - 2 * TAB_CLEARANCE);
  const zones = [glue(end), glue(tab + inner + TAB_CLEARANCE)];
  const face = isFront ? ('down' as const) : ('up' as const);
  const piece = blankPiece({
    id,
    name,
    stock: 'base',
    faceUp: 'picture up',
    outline: rectangle(0, 0, inner + 2 * tab, height),
    because: isFront ? 'the inner width and a return as wide as a wall on either side' : 'the inner width and a tab on either side',
    creases: [
      uprightCrease('left', `left fold of ${name.toLowerCase()}`, tab, [0, height], 'mountain', 0),
      { ...uprightCrease('right', `right fold of ${name.toLowerCase()}`, tab + inner, [0, height], 'mountain', -Math.PI), allow: given },
    ],
    windows,
    zones: zones.map((outline, i) => ({
      id: i === 0 ? 'left-glue' : 'right-glue',
      kind: 'glue' as const,
      face,
      outline,
      says: isFront ? 'glue to the outside of the wall' : 'glue to the inside of the wall, the fold on its pencil line',
    })),
    anchors: [
      { panel: 'left-tab', name: `left tab of ${name.toLowerCase()}`, at: [tab / 2, 1] },
      { panel: id, name: name.toLowerCase(), at: [tab + 1, 1] },
      { panel: 'right-tab', name: `right tab of ${name.toLowerCase()}`, at: [tab * 1.5 + inner, 1] },
    ],
  });
  // Creases of the frame lie on the walls at this distance from the back's folds.
  const fromBack = depth - behind;
  const bond = (side: 'left' | 'right'): Bond => ({
    id: `${id}-${side}`,
    name: `${name.toLowerCase()} ${isFront ? 'outside' : 'inside'} the ${side} wall`,
    panel: `${id}/${side}-tab`,
    face,
    partner: `base/${side}-wall`,
    partnerFace: face,
    zone: `${side}-glue`,
    slides: true,
    placement: {
      to: [side === 'left' ? depth - fromBack + tab : depth + width + fromBack + tab + inner, 0],
      turn: 0,
      flipped: true,
    },
  });
  const torn: Said<TornWidth> = {
    id,
    piece: id,
    name: name.toLowerCase(),
    wantedOpen: 2 * given,
    wantedClosed: 0,
    given,
  };
  return { piece, bonds: [bond('right'), bond('left')], torn: [torn], opening };
}

function openingLeft(opening: readonly Loop[]): number {
  return Math.min(...opening.flatMap((loop) => loop.map(([x]) => x)));
}

function openingWidth(opening: readonly Loop[]): number {
  return opening.length === 0 ? 0 : Math.max(...opening.flatMap((loop) => loop.map(([x]) => x))) - openingLeft(opening);
}

function shiftedTo(loop: Loop, x: number, left: number): Loop {
  return loop.map(([px, py]) => [px - left + x, py] as const);
}

function stageMeasures(
  { sizes, baseCaliper }: BuildContext,
  middle: readonly { opening: readonly Loop[] }[],
  layers: readonly SizeItem[],
): Measure[] {
  const width = num(sizes, 'innerWidth');
  const depth = num(sizes, 'depth');
  const flat: Measure[] = [
    mm('flatWidth', 'Width lying flat', width + depth, 'sheared over, one wall lies beside the inner width'),
    mm('frontBlank', 'Front, nominal blank', width + 2 * depth, 'the inner width and a return over each wall'),
    mm(
      'thicknessConflict',
      'Pull of thickness',
      2 * baseCaliper,
      'standing, a layer inside the walls wants this much less than lying flat, the front outside them this much more; half is given to each end',
    ),
  ];
  const openings = middle.flatMap(({ opening }, i): Measure[] => {
    if (layers[i]!['window'] !== 'nested') return [];
    const { width: across, height } = openingSize(opening);
    const why = 'the opening before it less the border all round';
    return [
      mm(`window${i + 1}Width`, `Opening of layer ${i + 1}, across`, across, why),
      mm(`window${i + 1}Height`, `Opening of layer ${i + 1}, along`, height, why),
    ];
  });
  return [...flat, ...openings];
}
