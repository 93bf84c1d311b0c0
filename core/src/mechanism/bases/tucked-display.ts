import { shifted } from '../../plane/placement.js';
import { toRadians } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { EDGE_MARGIN, TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Base, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { SPINE_SIZE, lengthSize } from '../common-sizes.js';
import { num, type Sizes } from '../sizes.js';
import { panelStrip, type StripFold } from '../drawing/panel-strip.js';
import { mm } from '../measures.js';
import { closing, meeting, stiff, type ClosingFold, type Said } from '../../claim/claims.js';

/**
 * Width of the middle: closed, the returns pull each wing in by their own width, so the closed width is
 * 2·wing + middle − 2·return.
 */
const middleWidth = (sizes: Sizes): number => num(sizes, 'closedWidth') - 2 * num(sizes, 'wing') + 2 * num(sizes, 'returnWidth');

/** Wings tucked behind a middle band, with doors that close in front of it. */
export const tuckedDisplay: Base = {
  ...introduced('tucked-display'),
  difficulty: 'medium',
  gives: ['stands upright', 'doors', 'something steps forward'],
  needs: ['base card', 'card for a picture'],
  mayGoWrong: ['wings wider than half the closed card: the doors overlap', 'glue beyond the band: the wings stick'],
  forClosedSize: (closedWidth, length) => ({ closedWidth, length }),
  sizes: [
    {
      name: 'closedWidth',
      label: 'Closed width',
      kind: 'length',
      default: 120,
      help: 'Across the closed card.',
      range: () => ({ min: 50, max: 220, because: 'the blank is almost three times as wide and must come out of a sheet' }),
    },
    lengthSize(150, { label: 'Height', help: 'Along the folds: the card stands on this edge.' }),
    {
      name: 'wing',
      label: 'Wing',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'closedWidth') / 2,
      help: 'Width of a wing, and of the door on it.',
      range: ({ sizes }) => ({
        min: Math.max(12, num(sizes, 'closedWidth') / 5),
        max: num(sizes, 'closedWidth') / 2,
        because: 'the doors on wings wider than half the closed width overlap, and narrow ones leave the middle open',
      }),
    },
    {
      name: 'returnWidth',
      label: 'Return',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'wing') / 3),
      help: 'How far the band steps forward.',
      range: ({ sizes }) => ({ min: 6, max: num(sizes, 'wing') - 5, because: 'a wing must be wider than the return it tucks behind' }),
    },
    {
      name: 'bandHeight',
      label: 'Band height',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'length') * 0.4),
      help: 'Of the band that joins the wings; above and below it the blank is cut away.',
      range: ({ sizes }) => ({
        min: 15,
        max: num(sizes, 'length') - 10,
        because: 'a lower band bends, and above and below it must be cut away',
      }),
    },
    {
      name: 'focalWidth',
      label: 'Picture, width',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'closedWidth') - 2 * EDGE_MARGIN,
      help: 'Of the layer glued to the band only.',
      range: ({ sizes }) => ({ min: 15, max: num(sizes, 'closedWidth') * 1.3, because: 'the picture lies behind the doors when closed' }),
    },
    {
      name: 'focalHeight',
      label: 'Picture, height',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'length') - 2 * EDGE_MARGIN,
      help: 'Of the layer glued to the band only.',
      range: ({ sizes }) => ({ min: 15, max: num(sizes, 'length') * 1.3, because: 'the picture lies behind the doors when closed' }),
    },
    {
      name: 'doorAngle',
      label: 'Doors stand at',
      kind: 'angle',
      default: toRadians(60),
      help: 'How far the doors are left turned forward: they are the card’s feet.',
      range: () => ({
        min: toRadians(15),
        max: toRadians(110),
        because: 'flatter doors let it fall over, and further ones hide the wings',
      }),
    },
    { ...SPINE_SIZE, label: 'Door folds', help: 'A spine at both door folds makes room for the band and its picture.' },
  ],
  build({ sizes }) {
    const wing = num(sizes, 'wing');
    const ret = num(sizes, 'returnWidth');
    const length = num(sizes, 'length');
    const band = num(sizes, 'bandHeight');
    const closedWidth = num(sizes, 'closedWidth');
    const middle = middleWidth(sizes);
    const [low, high] = [(length - band) / 2, (length + band) / 2];
    const along = [low, high] as const;
    const door = (side: string): StripFold => ({ id: `${side}-door`, name: `${side} door fold`, fold: 'valley', closed: Math.PI });
    const tuck = (side: string): StripFold => ({ id: `${side}-wing`, name: `${side} wing fold`, fold: 'valley', closed: Math.PI, along });
    const back = (side: string): StripFold => ({
      id: `${side}-return`,
      name: `${side} return fold`,
      fold: 'mountain',
      closed: -Math.PI,
      along,
    });
    const { x, drawn } = panelStrip(length, [
      { panel: 'left-door', name: 'left door', width: wing, then: { ...door('left'), standsFor: { size: 'wing', perMm: 1 } } },
      { panel: 'left-wing', name: 'left wing', width: wing, then: tuck('left') },
      { panel: 'left-return', name: 'left return', width: ret, then: back('left') },
      { panel: 'band', name: 'middle band', width: middle, then: back('right') },
      { panel: 'right-return', name: 'right return', width: ret, then: tuck('right') },
      { panel: 'right-wing', name: 'right wing', width: wing, then: door('right') },
      { panel: 'right-door', name: 'right door', width: wing },
    ]);
    const piece = blankPiece({
      id: 'base',
      name: 'Card',
      stock: 'base',
      faceUp: 'inside up',
      ...drawn,
      outline: wingsAndBand(x, length, low, high),
      because: 'two doors and two wings as wide as each other, two returns and the middle',
      zones: [
        {
          id: 'focal-place',
          kind: 'glue',
          face: 'up',
          outline: rectangle(x[3]! + TAB_CLEARANCE, low + TAB_CLEARANCE, middle - 2 * TAB_CLEARANCE, band - 2 * TAB_CLEARANCE),
          says: 'the picture is glued here and nowhere else',
        },
      ],
    });
    const { focal, bond } = focalLayer(sizes, x[3]!, middle, length);
    const doorClosing = (side: 'left' | 'right'): Said<ClosingFold> => ({
      hinge: `base/${side}-door`,
      name: `${side} door fold`,
      lower: [`base/${side}-wing`],
      upper: [`base/${side}-door`],
      depth: wing,
      length,
      spined: sizes['spine'] === 'auto',
      spineSize: 'spine',
    });
    const both = (name: string, start: number, end: number) =>
      ['left', 'right'].map((side) => ({ hinge: `base/${side}-${name}`, start, end }));
    return {
      pieces: [piece, focal],
      bonds: [bond],
      ground: 'base/band',
      closedOutline: rectangle(x[3]! + ret - wing, 0, closedWidth, length),
      schedule: {
        phases: [
          {
            name: 'open the doors',
            from: 0,
            to: 0.55,
            targets: [
              ...both('door', Math.PI, num(sizes, 'doorAngle')),
              ...both('wing', Math.PI, Math.PI),
              ...both('return', -Math.PI, -Math.PI),
            ],
          },
          {
            name: 'draw the wings out; the band steps forward',
            from: 0.55,
            to: 1,
            targets: [...both('wing', Math.PI, Math.PI / 2), ...both('return', -Math.PI, -Math.PI / 2)],
          },
        ],
        startAt: 0.5,
        opening: { hinge: 'base/left-door', atZero: Math.PI, perFold: -1 },
      },
      sides: { fold: 'the left door fold', free: 'the right door fold' },
      rest: {
        at: 1,
        up: [0, 1, 0],
        viewFrom: [0.5, 0.45, 1],
        says: 'standing upright on wings and doors; the returns hold by their creases',
      },
      measures: tuckedMeasures(sizes),
      openHeight: { label: 'Height when standing', because: 'wings and doors are as high as the card is long' },
      claims: [
        meeting({
          id: 'doors',
          name: 'the two doors',
          a: { panel: 'base/left-door', from: [0, 0], to: [0, length] },
          b: { panel: 'base/right-door', from: [x[7]!, 0], to: [x[7]!, length] },
          sideBySide: { outward: [-1, 0], gap: middle - 2 * ret },
        }),
        closing(doorClosing('left')),
        closing(doorClosing('right')),
        // Drawn out by its fold, a wing pushes the band forward.
        stiff({
          id: 'wings',
          name: 'a wing',
          panel: 'base/left-wing',
          held: 'cantilever',
          length: wing,
          width: length,
          lean: 0,
          tipWeight: 0,
        }),
      ],
      words: {
        fitting: ['Tuck the wings behind the band and close the doors: do the doors meet, and does the picture hide behind them?'],
        settingUp: ['Open the doors, draw both wings out from behind the band, then turn the doors a little forward: they are the feet.'],
      },
    };
  },
};

function wingsAndBand(x: readonly number[], length: number, low: number, high: number): Point[] {
  const [start, a, b, end] = [0, x[2]!, x[5]!, x[7]!];
  return [
    [start, 0],
    [a, 0],
    [a, low],
    [b, low],
    [b, 0],
    [end, 0],
    [end, length],
    [b, length],
    [b, high],
    [a, high],
    [a, length],
    [start, length],
  ];
}

/** The picture on the band: glued where it lies on the middle, loose where it stands over the wings. */
function focalLayer(sizes: Sizes, middleX: number, middle: number, length: number) {
  const [width, height, band] = [num(sizes, 'focalWidth'), num(sizes, 'focalHeight'), num(sizes, 'bandHeight')];
  const glueWidth = Math.min(width, middle) - 2 * TAB_CLEARANCE;
  const glueHeight = Math.min(height, band) - 2 * TAB_CLEARANCE;
  const glue = rectangle((width - glueWidth) / 2, (height - glueHeight) / 2, glueWidth, glueHeight);
  const focal: Piece = blankPiece({
    id: 'focal',
    name: 'Picture',
    stock: 'display',
    faceUp: 'picture up',
    outline: rectangle(0, 0, width, height),
    because: 'smaller than the closed card, so that it hides behind the doors',
    zones: [
      { id: 'focal-glue', kind: 'glue', face: 'down', outline: glue, says: 'glue to the band’s middle only: past it the wings move' },
    ],
    anchors: [{ panel: 'focal', name: 'picture', at: [width / 2, height / 2] }],
  });
  const bond = {
    id: 'focal-on-band',
    name: 'picture on the middle of the band',
    panel: 'focal/focal',
    face: 'down' as const,
    partner: 'base/band',
    partnerFace: 'up' as const,
    zone: 'focal-glue',
    placement: shifted([middleX + (middle - width) / 2, (length - height) / 2] as Point),
  };
  return { focal, bond };
}

function tuckedMeasures(sizes: Sizes): Measure[] {
  const middle = middleWidth(sizes);
  const ret = num(sizes, 'returnWidth');
  return [
    mm(
      'middle',
      'Middle of the band',
      middle,
      'closed width less both wings, and both returns again, because closed each return pulls its wing in by its own width',
    ),
    mm('doorGap', 'Gap between the closed doors', middle - 2 * ret, 'closed width less both wings: wings of half the closed width meet'),
    mm(
      'largestFocalWidth',
      'Widest picture',
      num(sizes, 'closedWidth') - 2 * EDGE_MARGIN,
      'the closed width less 3 mm on both sides, so that it hides behind the doors',
    ),
    mm('largestFocalHeight', 'Highest picture', num(sizes, 'length') - 2 * EDGE_MARGIN, 'the height less 3 mm above and below'),
    mm('stepForward', 'Band steps forward', ret, 'the returns stand at right angles to the wings'),
    mm(
      'openWidth',
      'Wing to wing when shown',
      middle + 2 * num(sizes, 'wing'),
      'the middle with a wing on either side, the doors turned forward',
    ),
  ];
}
