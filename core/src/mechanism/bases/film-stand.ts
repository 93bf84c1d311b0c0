import { toRadians, type Mm } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { EDGE_MARGIN, SLOT_CLEARANCE, TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import type { Base, BuildContext, Measure } from '../contract.js';
import { introduced } from '../introductions.js';
import { hasLayer, layersAcross, layersOn } from '../filmed/film-layer.js';
import { slotTravel } from '../filmed/film-slot.js';
import { leastSlot } from '../../sheet/slot.js';
import { num, type SizeContext, type Sizes } from '../sizes.js';
import { trackedAngle, trackedTravel } from '../tracked.js';
import { panelStrip, type StripFold } from '../drawing/panel-strip.js';
import { mm } from '../measures.js';
import { slot, stiff } from '../../claim/claims.js';

/** Steeper than this between film and top the edges of the slot give; flatter they need not pass. */
const SLOT_ANGLE = toRadians(30);
const START_AT = 0.5;

const filmWidth = (sizes: Sizes): Mm => num(sizes, 'length') - 2 * num(sizes, 'slotMargin') - num(sizes, 'sideClearance');

/** A box whose top slides up a sheet of film as its sides are pressed together. */
export const filmStand: Base = {
  ...introduced('film-stand'),
  difficulty: 'hard',
  gives: ['something floats', 'stands upright'],
  needs: ['base card', 'clear film', 'strong glue or tape', 'knife and steel rule'],
  mayGoWrong: ['a slot too narrow once the film carries a layer', 'film too thin for its height', 'glued before the film is threaded'],
  forClosedSize: (across, along) => {
    const wall = Math.round(across * 0.14);
    return { wall, floor: Math.round((across * 0.62 - wall) / 2), filmHeight: across, length: along };
  },
  sizes: [
    {
      name: 'floor',
      label: 'Floor, half',
      kind: 'length',
      default: 32,
      help: 'From the film to a wall: the box is twice as wide.',
      range: () => ({ min: 15, max: 120, because: 'a narrower box does not stand, and the blank is four times as long' }),
    },
    {
      name: 'wall',
      label: 'Wall',
      kind: 'length',
      default: ({ sizes }) => Math.round(num(sizes, 'floor') * 0.6),
      help: 'Height of the box, and of the tabs that hold the film.',
      range: ({ sizes }) => ({
        min: 10,
        max: Math.min(num(sizes, 'floor') * 2, 315 - 2 * num(sizes, 'floor')),
        because: 'lower tabs do not hold the film, a box higher than wide falls over, and film comes no longer than 330 mm',
      }),
    },
    {
      name: 'length',
      label: 'Length of folds',
      kind: 'length',
      default: 110,
      help: 'Along the folds and the slot.',
      range: () => ({ min: 40, max: 320, because: 'a shorter slot holds no film, and a longer blank needs more than a sheet' }),
    },
    {
      name: 'slotMargin',
      label: 'Slot from both ends',
      kind: 'length',
      default: ({ sizes }) => Math.min(10, Math.round(num(sizes, 'length') / 8)),
      help: 'What is left of the top’s score at both ends: the hinge.',
      range: ({ sizes }) => ({
        min: 5,
        max: num(sizes, 'length') / 2 - 12,
        because: 'a shorter hinge tears, and the film must be 23 mm wide',
      }),
    },
    {
      name: 'filmHeight',
      label: 'Film height',
      kind: 'length',
      default: ({ sizes }) => Math.round((num(sizes, 'wall') + 2 * num(sizes, 'floor')) * 1.55),
      help: 'From its foot between the tabs to its top.',
      range: ({ sizes }) => ({
        min: num(sizes, 'wall') + 2 * num(sizes, 'floor') + 5,
        max: 330,
        because: 'pressed flat the slot slides up to wall and two floors: shorter film slips out of it',
      }),
    },
    {
      name: 'sideClearance',
      label: 'Film narrower than its slot by',
      kind: 'length',
      default: 1,
      help: 'So that it slides without catching at the ends.',
      range: () => ({ min: 0.4, max: 5, because: 'a film as wide as its slot binds, and a much narrower one tilts' }),
    },
    {
      name: 'layer',
      label: 'Layer on the film',
      kind: 'choice',
      default: 'card',
      help: 'Raised decoration; a twin on the back hides what holds it.',
      options: [
        { value: 'card', label: 'a layer of card on the front, its twin behind' },
        { value: 'front', label: 'a layer of card on the front alone' },
        { value: 'none', label: 'none' },
      ],
    },
    {
      name: 'layerFrom',
      label: 'Layer begins at',
      kind: 'length',
      default: ({ sizes }) => Math.min(slotTravel(num(sizes, 'floor'), num(sizes, 'wall')).to + EDGE_MARGIN, num(sizes, 'filmHeight') - 8),
      help: 'Above the film’s foot. Below the slot’s highest place it has to pass the slot.',
      range: ({ sizes }) => ({
        min: num(sizes, 'wall') + 1,
        max: num(sizes, 'filmHeight') - 6,
        because: 'below the box’s top it never comes out, and something of it must lie on the film',
      }),
      shown: hasLayer,
    },
    {
      name: 'layerHeight',
      label: 'Layer height',
      kind: 'length',
      default: ({ sizes }) => Math.max(5, num(sizes, 'filmHeight') - num(sizes, 'layerFrom') - 2),
      help: 'Up the film.',
      range: ({ sizes }) => ({ min: 4, max: num(sizes, 'filmHeight') - num(sizes, 'layerFrom'), because: 'it ends with the film' }),
      shown: hasLayer,
    },
    {
      name: 'layerBorder',
      label: 'Border beside the layer',
      kind: 'length',
      default: EDGE_MARGIN,
      help: 'The layer is narrower than the film by this on both sides.',
      range: ({ sizes }) => ({ min: 0, max: Math.max(0, filmWidth(sizes) / 2 - 5), because: 'something of the layer must be left' }),
      shown: hasLayer,
    },
    {
      name: 'slotWidth',
      label: 'Slot width',
      kind: 'length',
      default: (context) => autoSlot(context),
      help: 'Follows from film and card, with a little clearance; with a layer that has to pass it must be wider.',
      range: () => ({ min: 0.3, max: 6, because: 'a narrower slot is a single cut, and in a wider one the film does not stand' }),
    },
    {
      name: 'tipWeight',
      label: 'Weight carried at the top',
      kind: 'weight',
      default: 0,
      help: 'What hangs or stands at the film’s upper edge besides the layer.',
      range: () => ({ min: 0, max: 200, because: 'no film carries more' }),
    },
  ],
  build(context) {
    const { sizes } = context;
    const [a, b, length] = [num(sizes, 'floor'), num(sizes, 'wall'), num(sizes, 'length')];
    const margin = num(sizes, 'slotMargin');
    const slotWide = num(sizes, 'slotWidth');
    const filmHeight = num(sizes, 'filmHeight');
    const fold = (id: string, name: string, closed: number, more: Partial<StripFold> = {}): StripFold => ({
      id,
      name,
      fold: 'valley',
      closed,
      ...more,
    });
    const { x, drawn } = panelStrip(
      length,
      [
        {
          panel: 'left-tab',
          name: 'left tab',
          width: b,
          then: fold('left-tab', 'left tab fold', Math.PI, { standsFor: { size: 'wall', perMm: 1 } }),
        },
        { panel: 'left-floor', name: 'left floor', width: a, then: fold('left-foot', 'left wall, lower fold', 0) },
        { panel: 'left-wall', name: 'left wall', width: b, then: fold('left-edge', 'left wall, upper fold', 0) },
        { panel: 'left-top', name: 'left half of the top', width: a, then: fold('ridge', 'centre of the top', Math.PI) },
        { panel: 'right-top', name: 'right half of the top', width: a, then: fold('right-edge', 'right wall, upper fold', 0) },
        { panel: 'right-wall', name: 'right wall', width: b, then: fold('right-foot', 'right wall, lower fold', 0) },
        { panel: 'right-floor', name: 'right floor', width: a, then: fold('right-tab', 'right tab fold', Math.PI) },
        { panel: 'right-tab', name: 'right tab', width: b },
      ],
      margin / 2,
    );
    const middle = length / 2;
    const tabGlue = (from: Mm) => rectangle(from + TAB_CLEARANCE, margin + 1, b - 2 * TAB_CLEARANCE, length - 2 * margin - 2);
    const piece = blankPiece({
      id: 'base',
      name: 'Box',
      stock: 'base',
      faceUp: 'inside up',
      because: 'four floors wide and four walls: tab, floor, wall and top, and the same back again',
      windows: [{ id: 'slot', slot: true, outline: rectangle(x[4]! - slotWide / 2, margin, slotWide, length - 2 * margin) }],
      zones: [
        {
          id: 'left-tab-glue',
          kind: 'glue',
          face: 'down',
          outline: tabGlue(0),
          says: 'to the film’s foot, the fold level with its lower edge',
        },
        { id: 'right-tab-glue', kind: 'glue', face: 'down', outline: tabGlue(x[7]!), says: 'to the other side of the film’s foot' },
      ],
      ...drawn,
    });
    const film = filmPiece(sizes);
    const layers = hasLayer(sizes) ? layersOn(sizes, filmWidth(sizes)) : { pieces: [], bonds: [] };
    return {
      pieces: [piece, film, ...layers.pieces],
      bonds: [...tabsOnFilm(sizes, x[8]!), ...layers.bonds],
      touches: [{ id: 'slot-on-film', panel: 'base/left-top', at: [x[4]!, middle], on: 'film/film' }],
      couplings: [
        // The walls stay parallel to the film, and the right side is the left one in a mirror.
        { id: 'left-parallel', terms: together('left-tab', 'left-foot'), constant: Math.PI },
        { id: 'right-parallel', terms: together('right-tab', 'right-foot'), constant: Math.PI },
        { id: 'mirror', terms: [...together('left-tab'), { hinge: 'base/right-tab', factor: -1 }], constant: 0 },
      ],
      ground: 'film/film',
      closedOutline: rectangle(0, (filmWidth(sizes) - length) / 2, Math.max(filmHeight, slotTravel(a, b).to), length),
      schedule: {
        phases: [
          {
            name: 'press the box down: it spreads and the film rises out of the slot',
            from: 0,
            to: 1,
            targets: [{ hinge: 'base/left-tab', start: Math.PI, end: Math.PI / 2 }],
          },
        ],
        startAt: START_AT,
        begin: startFolds(),
        opening: { hinge: 'base/left-tab', atZero: Math.PI, perFold: -1 },
      },
      sides: { fold: 'the foot', free: 'the top' },
      rest: {
        at: 1,
        up: [1, 0, 0],
        viewFrom: [0.45, 0.75, 1],
        says: 'the floor on the table, the film upright in its slot',
        heldBy: {
          by: 'friction',
          says: 'It settles by its own weight only if the film slides easily in its slot; a tight slot holds the box half-way.',
        },
      },
      measures: filmMeasures(context),
      tracked: [
        trackedTravel(
          { id: 'slot', label: 'Slot above the film’s foot' },
          ['base/left-top', [x[4]!, middle]],
          ['film/film', [0, 0], [1, 0]],
        ),
        trackedAngle({ id: 'floor', label: 'Floor from the film' }, ['base/left-floor', [1, 0]], ['film/film', [1, 0]]),
      ],
      openHeight: { label: 'Height when standing', because: 'the top of the film over the table' },
      claims: [
        slot({
          id: 'slot',
          name: 'the slot',
          panel: 'base/left-top',
          at: [x[4]!, middle],
          width: slotWide,
          length: length - 2 * margin,
          film: 'film/film',
          filmWidth: filmWidth(sizes),
          sideClearance: num(sizes, 'sideClearance'),
          widthSize: 'slotWidth',
        }),
        stiff({
          id: 'film',
          name: 'the film above the box',
          panel: 'film/film',
          held: 'free',
          length: filmHeight - b,
          width: filmWidth(sizes),
          lean: Math.PI / 2,
          tipWeight: num(sizes, 'tipWeight'),
        }),
      ],
      words: {
        fitting: ['Thread the film through the slot before anything is glued: afterwards it does not go in.'],
        settingUp: ['Hold the film and press the box down along it until the floor lies flat on the table.'],
        posting: 'Post it pressed flat, the box drawn up the film.',
      },
    };
  },
};

const together = (...hinges: readonly string[]) => hinges.map((hinge) => ({ hinge: `base/${hinge}`, factor: 1 }));

/** Half-way, the floors tilted by 45°: tabs and floors 135° folded, walls 45° at either end, the ridge a right angle. */
function startFolds(): Record<string, number> {
  const tilt = (Math.PI / 2) * (1 - START_AT);
  const side = (name: string) => ({
    [`base/${name}-tab`]: Math.PI / 2 + tilt,
    [`base/${name}-foot`]: Math.PI / 2 - tilt,
    [`base/${name}-edge`]: Math.PI / 2 - tilt,
  });
  return { ...side('left'), ...side('right'), 'base/ridge': 2 * tilt, 'base/ridge+base/left-top': 2 * tilt };
}

/** The slot for what has to pass it, at 30° between film and top, to a twentieth of a mm. */
function autoSlot({ sizes, baseCaliper, filmCaliper, displayCaliper }: SizeContext): Mm {
  const { to } = slotTravel(num(sizes, 'floor'), num(sizes, 'wall'));
  const passes = filmCaliper + (num(sizes, 'layerFrom') < to ? layersAcross(sizes) * displayCaliper : 0);
  return Math.ceil(leastSlot(passes, baseCaliper, SLOT_ANGLE, SLOT_CLEARANCE) * 20) / 20;
}

/** The film lies with its foot at x = 0, so that its travel is read along x. */
function filmPiece(sizes: Sizes): Piece {
  const [height, width] = [num(sizes, 'filmHeight'), filmWidth(sizes)];
  const { from, to } = slotTravel(num(sizes, 'floor'), num(sizes, 'wall'));
  const free = Math.max(1, height - to - EDGE_MARGIN);
  return blankPiece({
    id: 'film',
    name: 'Film',
    stock: 'film',
    faceUp: 'front up, foot at the left',
    outline: rectangle(0, 0, height, width),
    because: 'as high as you chose; as wide as the slot is long, less 1 mm',
    zones: [
      {
        id: 'travel',
        kind: 'keep-clear',
        face: 'up',
        outline: rectangle(from, 0, Math.min(to, height) - from, width),
        says: 'the slot slides here: nothing raised, or the slot must be wider',
      },
      ...(free > 1
        ? [
            {
              id: 'decorate-here',
              kind: 'decorate' as const,
              face: 'up' as const,
              outline: rectangle(height - free, 1, free - 1, width - 2),
              says: 'decorate here: above the slot’s highest place',
            },
          ]
        : []),
    ],
    anchors: [{ panel: 'film', name: 'film', at: [height / 2, width / 2] }],
  });
}

/**
 * The tabs stand up along the film with their outsides on it. The left one lies on the film's front, turned
 * over; the right one on its back.
 */
function tabsOnFilm(sizes: Sizes, blank: Mm): Bond[] {
  const b = num(sizes, 'wall');
  // Both lie turned end for end on the film, its middle on the film's.
  const across = (filmWidth(sizes) + num(sizes, 'length')) / 2;
  return [
    {
      id: 'left-tab-on-film',
      name: 'left tab on the film’s foot',
      panel: 'base/left-tab',
      face: 'down',
      partner: 'film/film',
      partnerFace: 'up',
      zone: 'left-tab-glue',
      placement: { to: [b, across], turn: Math.PI, flipped: false },
    },
    {
      id: 'right-tab-on-film',
      name: 'right tab on the other side of the film’s foot',
      panel: 'base/right-tab',
      face: 'down',
      partner: 'film/film',
      partnerFace: 'down',
      zone: 'right-tab-glue',
      placement: { to: [b - blank, across], turn: Math.PI, flipped: true },
    },
  ];
}

function filmMeasures({ sizes, baseCaliper, displayCaliper, filmCaliper }: BuildContext): Measure[] {
  const [a, b] = [num(sizes, 'floor'), num(sizes, 'wall')];
  const travel = slotTravel(a, b);
  const slot = (thickness: number): number => leastSlot(thickness, baseCaliper, SLOT_ANGLE, SLOT_CLEARANCE);
  return [
    mm('boxWidth', 'Box, width', 2 * a, 'a floor on either side of the film'),
    mm('boxHeight', 'Box, height', b, 'the wall; the tabs are as high and stop the top'),
    mm('slotLow', 'Slot above the foot, standing', travel.from, 'the wall: the top lies level on it'),
    mm('slotHigh', 'Slot above the foot, flat', travel.to, 'wall and two floors: wall + 2 × floor × sin(tilt of the floor) at any tilt'),
    mm('decorateFrom', 'Decorate from', travel.to + EDGE_MARGIN, 'above the slot’s highest place, and 3 mm more'),
    mm('slotAt', 'Slot on the flat blank at', 2 * a + 2 * b, 'the middle of the blank'),
    mm('slotLength', 'Slot, length', num(sizes, 'length') - 2 * num(sizes, 'slotMargin'), 'the length less both margins'),
    mm('filmAcross', 'Film, along the slot', filmWidth(sizes), 'the slot’s length less the clearance at its sides'),
    mm(
      'slotForFilm',
      'Slot needed for plain film',
      slot(filmCaliper),
      'film ÷ sin(30°) + card ÷ tan(30°) + clearance: flatter than that the edges give',
    ),
    mm(
      'slotForLayer',
      'Slot needed if a layer has to pass',
      slot(filmCaliper + displayCaliper),
      'film and layer ÷ sin(30°) + card ÷ tan(30°) + clearance',
    ),
    mm('flatHeight', 'Flat, foot to top', Math.max(num(sizes, 'filmHeight'), travel.to), 'the longer of film, and wall with two floors'),
  ];
}
