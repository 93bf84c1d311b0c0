import { stiff } from '../../claim/claims.js';
import { shifted } from '../../plane/placement.js';
import { rectangle } from '../../plane/outline.js';
import { spoken } from '../../measure/sentence.js';
import { toRadians } from '../../measure/units.js';
import { blankPiece, type Crease, type Piece } from '../../sheet/piece.js';
import { EDGE_MARGIN, TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import type { Phase } from '../../linkage/schedule.js';
import type { Base, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { num, type Sizes } from '../sizes.js';
import { floorLayers, hasLayers, isWhole } from '../turned/floor-layers.js';
import { trackedAngle } from '../tracked.js';
import { mm } from '../measures.js';

const LEAST_PART = 10;
const RIGHT_ANGLE = toRadians(90);
/** A floor narrower than this past the upright has no room for a layer with a border. */
const LEAST_CORNER = 12;
/** A layer on the floor shows this much card round it, unless the maker says otherwise. */
const LAYER_BORDER = 4;

const hasStrip = (sizes: Sizes): boolean => sizes['strip'] !== 'none';
const postedForward = (sizes: Sizes): boolean => sizes['posted'] === 'forward';

/**
 * A blank with three cuts to its centre line, one end turned through half a turn about that line: everything
 * turns about the one line, so nothing can meet. Drawn with the line upright at half the width.
 */
export const halfTurnStand: Base = {
  ...introduced('half-turn-stand'),
  difficulty: 'easy',
  gives: ['stands upright', 'posts flat'],
  needs: ['stiff card', 'knife and steel rule'],
  mayGoWrong: [
    'cuts past the centre line: it falls apart',
    'layers cut as mirror images: they are twins of the same hand',
    'thin card sags',
  ],
  forClosedSize: (blankWidth, blankLength) => ({ blankWidth, blankLength }),
  sizes: [
    {
      name: 'blankLength',
      label: 'Blank, along the line',
      kind: 'length',
      default: 200,
      help: 'Length of the blank along its centre line.',
      range: () => ({ min: 80, max: 420, because: 'a shorter blank leaves no floor, and a longer one needs more than a sheet' }),
    },
    {
      name: 'blankWidth',
      label: 'Blank, across the line',
      kind: 'length',
      default: 140,
      help: 'Width of the blank: the upright panel is half as high.',
      range: () => ({ min: 40, max: 320, because: 'a narrower blank does not stand, and a wider one needs more than a sheet' }),
    },
    {
      name: 'inset',
      label: 'Outer cuts from the ends',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'blankLength') * 0.15),
      help: 'What is left of the floor at both ends, outside the upright panel.',
      range: ({ sizes }) => ({
        min: 5,
        max: num(sizes, 'blankLength') / 2 - LEAST_PART,
        because: 'the two outer cuts must leave an upright panel between them: an inset of half the length or more leaves none',
      }),
    },
    {
      name: 'school',
      label: 'Score',
      kind: 'choice',
      default: 'part',
      help: 'The line is folded only between the outer cuts. Scored right across it is quicker; scored in part the floor stays flat.',
      options: [
        { value: 'part', label: 'only between the outer cuts' },
        { value: 'full', label: 'the whole centre line' },
      ],
    },
    {
      name: 'strip',
      label: 'Stiffening strip',
      kind: 'choice',
      default: 'none',
      help: 'Across the upright panel, near its top.',
      options: [
        { value: 'none', label: 'none' },
        { value: 'front', label: 'of card, in front' },
        { value: 'behind', label: 'of card, behind' },
        { value: 'clear', label: 'of clear film, behind' },
      ],
    },
    {
      name: 'stripLength',
      label: 'Strip length',
      kind: 'length',
      default: ({ sizes }) => num(sizes, 'blankLength') - 2 * num(sizes, 'inset'),
      help: 'Along the line, centred on the upright panel.',
      range: ({ sizes }) => {
        const upright = num(sizes, 'blankLength') / 2 - num(sizes, 'inset');
        return {
          min: upright,
          max: num(sizes, 'blankLength'),
          because: 'it must reach across the middle cut, and a longer one sticks out of the closed card',
        };
      },
      shown: hasStrip,
    },
    {
      name: 'stripHeight',
      label: 'Strip width',
      kind: 'length',
      default: ({ sizes }) => Math.max(6, Math.round(num(sizes, 'blankWidth') * 0.1)),
      help: 'Up the panel.',
      range: ({ sizes }) => ({ min: 5, max: num(sizes, 'blankWidth') / 2 - 5, because: 'it lies on the upright panel, clear of its fold' }),
      shown: hasStrip,
    },
    {
      name: 'layers',
      label: 'Layers on the floor',
      kind: 'choice',
      default: 'none',
      help: 'One on each half of the floor. They are half-turn twins of the same hand: cut two alike, not a pair of mirror images; out of paper with one way up, the second turned half round on the sheet.',
      options: [
        { value: 'none', label: 'none' },
        { value: 'floor', label: 'one on each half' },
        { value: 'corner', label: 'one on each half, round the corner of the upright' },
      ],
      cannotBe: (value, { sizes }) =>
        value === 'corner' && num(sizes, 'inset') < LEAST_CORNER
          ? `past the upright the floor is only ${spoken(num(sizes, 'inset'))} wide, and a layer needs ${spoken(LEAST_CORNER)}`
          : undefined,
    },
    {
      name: 'layerBorder',
      label: 'Border of the layers',
      kind: 'length',
      default: LAYER_BORDER,
      help: 'How much of the floor shows round them.',
      range: ({ sizes }) => ({
        min: 0.5,
        max: Math.min(
          num(sizes, 'blankWidth') / 4 - 2,
          num(sizes, 'blankLength') / 4 - 2,
          num(sizes, 'inset') / 2 + (sizes['layers'] === 'corner' ? -3 : 18),
        ),
        because: 'something must be left of the layer',
      }),
      shown: hasLayers,
    },
    {
      name: 'posted',
      label: 'Closed',
      kind: 'choice',
      default: 'forward',
      help: 'Turned already, with the upright folded forward onto the floor; or as the flat blank, turned only when it arrives.',
      options: [
        { value: 'forward', label: 'turned, the upright folded forward' },
        { value: 'flat', label: 'flat, not turned yet' },
      ],
    },
  ],
  build({ sizes }) {
    const [length, width, inset] = [num(sizes, 'blankLength'), num(sizes, 'blankWidth'), num(sizes, 'inset')];
    const line = width / 2;
    const middle = length / 2;
    const forward = postedForward(sizes);
    const closedNear = forward ? Math.PI : 0;
    const piece = blankPiece({
      id: 'base',
      name: 'Card',
      stock: 'base',
      faceUp: 'front up',
      outline: rectangle(0, 0, width, length),
      because: 'as you chose it',
      creases: [
        centreScore('near-fold', 'centre line, near half', line, [inset, middle], 'valley', closedNear),
        centreScore('far-fold', 'centre line, far half', line, [middle, length - inset], 'mountain', 0),
        ...(isWhole(sizes)
          ? [
              centreScore('near-end', 'centre line, near end (stays flat)', line, [0, inset], 'valley', 0),
              centreScore('far-end', 'centre line, far end (stays flat)', line, [length - inset, length], 'mountain', 0),
            ]
          : []),
      ],
      cuts: [
        { id: 'middle-cut', from: [0, middle], to: [line, middle] },
        { id: 'near-cut', from: [line, inset], to: [width, inset] },
        { id: 'far-cut', from: [line, length - inset], to: [width, length - inset] },
      ],
      zones: [
        {
          id: 'upright-foot',
          kind: 'keep-clear',
          face: 'up',
          outline: rectangle(line - TAB_CLEARANCE, inset, 2 * TAB_CLEARANCE, length - 2 * inset),
          says: 'this part of the line folds: nothing glued across it',
        },
      ],
      anchors: [
        { panel: 'near-floor', name: 'near half of the floor', at: [line / 2, middle / 2] },
        { panel: 'far-floor', name: 'far half of the floor', at: [line / 2, (middle + length) / 2] },
        { panel: 'upright', name: 'upright panel', at: [line * 1.5, middle] },
        ...(isWhole(sizes)
          ? [
              { panel: 'near-end', name: 'near end of the floor', at: [line * 1.5, inset / 2] as const },
              { panel: 'far-end', name: 'far end of the floor', at: [line * 1.5, length - inset / 2] as const },
            ]
          : []),
      ],
    });
    const strip = hasStrip(sizes) ? stripAcross(sizes) : undefined;
    const layers = hasLayers(sizes) ? floorLayers(sizes) : [];
    return {
      pieces: [piece, ...(strip ? [strip.piece] : []), ...layers.map((layer) => layer.piece)],
      bonds: [...(strip ? [strip.bond] : []), ...layers.flatMap((layer) => layer.bonds)],
      ground: 'base/near-floor',
      closedOutline: rectangle(0, 0, width, length),
      schedule: {
        phases: [driveOf(sizes)],
        startAt: 0.5,
        opening: { hinge: 'base/near-fold', atZero: forward ? Math.PI : 0, perFold: forward ? -1 : 1 },
      },
      sides: { fold: 'the left edge', free: 'the right edge' },
      rest: {
        at: 1,
        up: [0, 0, 1],
        viewFrom: [-0.9, -0.45, 0.6],
        says: 'both halves of the floor on the table, the panel upright between them',
        heldBy: { by: 'creases', says: 'The upright panel is held up by crease memory alone: it leans back with time and with weight.' },
      },
      measures: standMeasures(sizes),
      tracked: [
        trackedAngle({ id: 'upright', label: 'Upright from the floor' }, ['base/upright', [1, 0]], ['base/near-floor', [-1, 0]]),
        trackedAngle({ id: 'turn', label: 'Far half turned by' }, ['base/far-floor', [-1, 0]], ['base/near-floor', [-1, 0]]),
      ],
      openHeight: { label: 'Height when standing', because: 'half the width of the blank' },
      claims: [
        stiff({
          id: 'upright',
          name: 'the upright panel',
          panel: 'base/upright',
          held: 'cantilever',
          length: width / 2,
          width: length - 2 * inset,
          lean: 0,
          tipWeight: 0,
        }),
      ],
      words: {
        posting: forward
          ? 'Post it turned, with the upright folded forward onto the floor.'
          : 'Post it as a flat sheet; a line on the back tells how to turn it.',
        fitting: [
          'Hold the near end flat on the table and turn the far end over, away from the cut, through half a turn: the panel between the cuts stands up.',
        ],
        settingUp: forward
          ? ['Raise the upright and crease it square.']
          : ['Turn the far end over through half a turn; the panel stands up.'],
      },
    };
  },
};

function centreScore(
  id: string,
  name: string,
  x: number,
  [from, to]: readonly [number, number],
  fold: Crease['fold'],
  closed: number,
): Crease {
  return { id, name, from: [x, from], to: [x, to], fold, closed, ease: 0 };
}

/** From the posted card, or through the half turn from the flat blank, to standing. */
function driveOf(sizes: Sizes): Phase {
  const ends = isWhole(sizes) ? ['near-end', 'far-end'].map((id) => ({ hinge: `base/${id}`, start: 0, end: 0 })) : [];
  const near = { hinge: 'base/near-fold', start: postedForward(sizes) ? Math.PI : 0, end: RIGHT_ANGLE };
  const far = { hinge: 'base/far-fold', start: 0, end: -RIGHT_ANGLE };
  return {
    name: postedForward(sizes) ? 'raise the upright' : 'turn the far end over through half a turn',
    from: 0,
    to: 1,
    targets: [near, far, ...ends],
  };
}

function stripAcross(sizes: Sizes): { piece: Piece; bond: Bond } {
  const [long, high] = [num(sizes, 'stripLength'), num(sizes, 'stripHeight')];
  const [length, width, inset] = [num(sizes, 'blankLength'), num(sizes, 'blankWidth'), num(sizes, 'inset')];
  const upright = length - 2 * inset;
  const glued = Math.min(long, upright) - 2;
  const glue = rectangle(1, (long - glued) / 2, high - 2, glued);
  const inFront = sizes['strip'] === 'front';
  const x = width - EDGE_MARGIN - high;
  const piece = blankPiece({
    id: 'strip',
    name: 'Strip',
    stock: sizes['strip'] === 'clear' ? 'film' : 'mechanism',
    faceUp: 'either face up',
    outline: rectangle(0, 0, high, long),
    because: 'across the upright panel near its top, where it would bow',
    zones: [
      {
        id: 'strip-glue',
        kind: 'glue',
        face: inFront ? 'down' : 'up',
        outline: glue,
        says: `glue to the ${inFront ? 'front' : 'back'} of the upright panel only`,
      },
    ],
    anchors: [{ panel: 'strip', name: 'strip', at: [high / 2, long / 2] }],
  });
  return {
    piece,
    bond: {
      id: 'strip-on-upright',
      name: `strip ${inFront ? 'in front of' : 'behind'} the upright panel`,
      panel: 'strip/strip',
      face: inFront ? 'down' : 'up',
      partner: 'base/upright',
      partnerFace: inFront ? 'up' : 'down',
      zone: 'strip-glue',
      placement: shifted([x, (length - long) / 2]),
    },
  };
}

function standMeasures(sizes: Sizes): Measure[] {
  const [length, width, inset] = [num(sizes, 'blankLength'), num(sizes, 'blankWidth'), num(sizes, 'inset')];
  return [
    mm('centreLine', 'Centre line at', width / 2, 'half the width of the blank'),
    mm('middleCut', 'Middle cut at', length / 2, 'half the length, from the left edge to the centre line'),
    mm('nearCut', 'Near cut at', inset, 'as you chose, from the right edge to the centre line'),
    mm('farCut', 'Far cut at', length - inset, 'as far from the other end, so that both floors are alike'),
    mm('uprightLength', 'Upright panel, along', length - 2 * inset, 'the length less both insets'),
    mm('uprightHeight', 'Upright panel, high', width / 2, 'half the width: it stands on the centre line'),
    mm(
      'valleyLength',
      'Valley part of the line',
      length / 2 - inset,
      'from the near cut to the middle cut; beyond it the same length is a mountain',
    ),
    ...(sizes['layers'] === 'corner'
      ? [
          mm('layerNotchAcross', 'Notch of the layers, across', width / 2, 'half the width: the upright stands where it is'),
          mm(
            'layerNotchAlong',
            'Notch of the layers, along',
            length / 2 - inset,
            'half the length less the inset, as long as half of the upright',
          ),
        ]
      : []),
    ...(hasStrip(sizes)
      ? [
          mm(
            'stripGrip',
            'Strip past the middle on each side',
            num(sizes, 'stripLength') / 2,
            'half the strip: it bridges the place where valley turns to mountain',
          ),
        ]
      : []),
  ];
}
