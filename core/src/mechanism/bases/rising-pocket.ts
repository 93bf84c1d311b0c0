import { agreement, closing, innerLayer, meeting } from '../../claim/claims.js';
import { spoken } from '../../measure/sentence.js';
import { toRadians, type Mm, type Radians } from '../../measure/units.js';
import type { Bond } from '../../linkage/structure.js';
import { rectangle, type Loop } from '../../plane/outline.js';
import { shifted } from '../../plane/placement.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Base, Measure } from '../contract.js';
import { panelStrip, type StripFold } from '../drawing/panel-strip.js';
import { introduced } from '../introductions.js';
import { angle, mm } from '../measures.js';
import {
  hasPocket,
  insertFor,
  insideOf,
  neededBy,
  OPEN_ANGLE,
  platformHeight,
  platformOf,
  POCKET_SIZES,
  tautAt,
} from '../pocketed/pocket-sizes.js';
import { num, type Sizes } from '../sizes.js';
import { trackedHeight } from '../tracked.js';

/** Glue keeps this far inside the edges of its area. */
const GLUE_INSET: Mm = 0.5;

/** All sizes of a rising pocket. */
interface Rising {
  back: Mm;
  flap: Mm;
  length: Mm;
  glueAt: Mm;
  run: Mm;
  platform: Mm;
  tab: Mm;
  strip: Mm;
  /** from the lower end of the hinges to the strip */
  from: Mm;
  openTo: Radians;
}

function risingOf(sizes: Sizes): Rising {
  const [length, strip] = [num(sizes, 'length'), num(sizes, 'stripWidth')];
  return {
    ...{ back: num(sizes, 'backHeight'), flap: num(sizes, 'flapHeight'), length, strip },
    ...{ glueAt: num(sizes, 'glueAt'), run: num(sizes, 'run'), tab: num(sizes, 'tabWidth'), openTo: num(sizes, 'openTo') },
    platform: platformOf(sizes),
    from: (length - strip) / 2,
  };
}

/** Closed, both flaps lie on the back; the strip’s legs lie on the platform, its tabs on the legs. */
const overPlatform = (id: string, name: string): StripFold => ({ id, name, fold: 'valley', closed: Math.PI });
const underTab = (id: string, name: string): StripFold => ({ id, name, fold: 'mountain', closed: -Math.PI });

/**
 * A back with a flap at either end, and a strip between the flaps that is folded like a Z at both ends: turned outward, the
 * flaps draw it straight, and its middle rises from the back as a platform with a pocket on it.
 */
export const risingPocket: Base = {
  ...introduced('rising-pocket'),
  difficulty: 'medium',
  gives: ['something rises', 'doors', 'room for a gift'],
  needs: ['base card', 'light card', 'strong glue or tape'],
  mayGoWrong: [
    'legs longer than the glue lines are from their hinges: the platform stays down',
    'tabs that touch the hinges: the flaps spring open',
    'the insert put in before the glue has set: it is glued in',
  ],
  forClosedSize: (backHeight, length, step) => ({ backHeight, length, ...insertFor(backHeight, length, step) }),
  sizes: POCKET_SIZES,
  alternatives: [OPEN_ANGLE],
  build({ sizes }) {
    const rising = risingOf(sizes);
    const { back, flap, length, openTo } = rising;
    const { drawn } = panelStrip(length, [
      {
        panel: 'left-flap',
        name: 'left flap',
        width: flap,
        then: { id: 'left-hinge', name: 'left hinge', fold: 'valley', closed: Math.PI },
      },
      { panel: 'back', name: 'back', width: back, then: { id: 'right-hinge', name: 'right hinge', fold: 'valley', closed: Math.PI } },
      { panel: 'right-flap', name: 'right flap', width: flap },
    ]);
    const card = blankPiece({
      id: 'base',
      name: 'Card',
      stock: 'base',
      faceUp: 'inside up',
      because: 'the back, and a flap on either side of it',
      marks: glueLines(rising),
      ...drawn,
    });
    const front = sizes['front'] === 'left';
    const turned = (side: 'left' | 'right') => ({ hinge: `base/${side}-hinge`, start: Math.PI, end: Math.PI - openTo });
    const overBack = (side: 'left' | 'right') =>
      closing({
        hinge: `base/${side}-hinge`,
        name: `${side} hinge`,
        lower: ['base/back'],
        upper: [`base/${side}-flap`],
        depth: flap,
        length,
        spined: sizes['spine'] === 'auto',
        spineSize: 'spine',
      });
    return {
      pieces: [card, stripPiece(rising), ...(hasPocket(sizes) ? [pocketPiece(sizes, rising)] : []), ...(front ? [frontPiece(rising)] : [])],
      bonds: [...(hasPocket(sizes) ? [pocketBond(rising)] : []), ...tabBonds(rising), ...(front ? [frontBond(rising)] : [])],
      couplings: [
        {
          // The flaps leave the platform free to sway: it is shown level, where the insert's weight finds it.
          id: 'the platform stays level',
          terms: [
            { hinge: 'strip/left-turned', factor: 1 },
            { hinge: 'strip/right-turned', factor: -1 },
          ],
          constant: 0,
        },
      ],
      ground: 'base/back',
      closedOutline: rectangle(flap, 0, back, length),
      schedule: {
        phases: [{ name: 'turn the flaps out; the platform rises', from: 0, to: 1, targets: [turned('left'), turned('right')] }],
        startAt: 0.5,
        begin: foldsAt(rising, openTo / 2),
        opening: { hinge: 'base/left-hinge', atZero: Math.PI, perFold: -1 },
      },
      sides: { fold: 'the left hinge', free: 'the right hinge' },
      rest: {
        at: 1,
        up: [0, 0, 1],
        viewFrom: [0.35, -1, 0.7],
        says: 'lying on its back, both flaps turned out as far as the strip lets them',
      },
      openHeight: { label: 'Height of the card', because: 'the flaps, or the platform between them, above the table' },
      measures: measuresOf(sizes, rising),
      tracked: [trackedHeight({ id: 'platform', label: 'Height of the platform' }, ['strip/platform', [rising.tab + rising.run + 1, 1]])],
      claims: [...pocketClaims(sizes, rising), ...(front ? [] : [flapsMeet(rising)]), overBack('left'), overBack('right')],
      words: {
        fitting: ['Turn both flaps out until the strip is straight: the platform rises, and can sway sideways until it is taut.'],
        settingUp: [
          'Turn both flaps out evenly. Short of taut the platform sways: the weight of what is in it finds its place.',
          'Only now, when all glue has set: ' +
            (hasPocket(sizes)
              ? `slide the insert into its pocket from the ${sizes['openSide'] === 'upper' ? 'upper' : 'lower'} end.`
              : 'fix the insert on the platform.'),
        ],
      },
    };
  },
};

/** Where the strip is glued on the flaps’ insides. */
const glueLines = ({ flap, back, glueAt, from, strip }: Rising): Piece['marks'] =>
  [flap - glueAt, flap + back + glueAt].map((x, i) => ({
    id: `${i === 0 ? 'left' : 'right'}-glue-line`,
    from: [x, from] as const,
    to: [x, from + strip] as const,
    says: 'the fold of the strip’s tab lies here, its tab toward the hinge',
  }));

/** The strip, its face toward the open card up: tab, leg, platform, leg, tab. */
function stripPiece({ tab, run, platform, strip }: Rising): Piece {
  const { x, drawn } = panelStrip(strip, [
    { panel: 'left-tab', name: 'left tab', width: tab, then: underTab('left-glue', 'left tab’s fold') },
    { panel: 'left-leg', name: 'left leg', width: run, then: overPlatform('left-turned', 'left turned crease') },
    { panel: 'platform', name: 'platform', width: platform, then: overPlatform('right-turned', 'right turned crease') },
    { panel: 'right-leg', name: 'right leg', width: run, then: underTab('right-glue', 'right tab’s fold') },
    { panel: 'right-tab', name: 'right tab', width: tab },
  ]);
  const glue = (from: Mm): Loop => rectangle(from, GLUE_INSET, tab - TAB_CLEARANCE - GLUE_INSET, strip - 2 * GLUE_INSET);
  return blankPiece({
    id: 'strip',
    name: 'Strip',
    stock: 'mechanism',
    faceUp: 'side of the pocket up',
    because: 'the platform, and a leg and a tab at both ends of it',
    zones: [
      {
        id: 'left-glue',
        kind: 'glue',
        face: 'up',
        outline: glue(GLUE_INSET),
        says: 'glue to the inside of the left flap, the fold on its line',
      },
      {
        id: 'right-glue',
        kind: 'glue',
        face: 'up',
        outline: glue(x[4]! + TAB_CLEARANCE),
        says: 'glue to the inside of the right flap, the fold on its line',
      },
    ],
    ...drawn,
  });
}

/** On a flap’s inside a tab lies face over, its fold on the glue line and the tab toward the hinge. */
function tabBonds({ flap, back, glueAt, tab, run, platform, from }: Rising): Bond[] {
  const bond = (side: 'left' | 'right', x: Mm): Bond => ({
    id: `${side}-tab-bond`,
    name: `${side} tab of the strip on the ${side} flap`,
    panel: `strip/${side}-tab`,
    face: 'up',
    partner: `base/${side}-flap`,
    partnerFace: 'up',
    zone: `${side}-glue`,
    placement: { to: [x, from], turn: 0, flipped: true },
  });
  return [bond('left', flap - glueAt + tab), bond('right', flap + back + glueAt + tab + 2 * run + platform)];
}

/** The pocket’s front, as wide as the platform but for its creases, glued along three edges. */
function pocketPiece(sizes: Sizes, { platform, strip }: Rising): Piece {
  const rim = num(sizes, 'rim');
  const wide = platform - 2 * TAB_CLEARANCE;
  const up = sizes['openSide'] === 'upper';
  // Along both sides, and along the closed end: like a U.
  const [shut, open] = up ? [0, strip] : [strip, 0];
  const inside = up ? rim : strip - rim;
  const u: Loop = [
    [0, open],
    [0, shut],
    [wide, shut],
    [wide, open],
    [wide - rim, open],
    [wide - rim, inside],
    [rim, inside],
    [rim, open],
  ];
  return blankPiece({
    id: 'pocket',
    name: 'Pocket',
    stock: 'display',
    faceUp: 'picture up',
    outline: rectangle(0, 0, wide, strip),
    because: 'as wide as the platform, but 2 mm clear of its creases',
    zones: [
      {
        id: 'rim-glue',
        kind: 'glue',
        face: 'down',
        outline: up ? u : [...u].reverse(),
        says: `glue along three edges, ${spoken(rim)} wide; the ${up ? 'upper' : 'lower'} edge stays open`,
      },
    ],
    anchors: [{ panel: 'pocket', name: 'pocket', at: [wide / 2, strip / 2] }],
  });
}

const pocketBond = ({ tab, run }: Rising): Bond => ({
  id: 'pocket-bond',
  name: 'pocket on the platform',
  panel: 'pocket/pocket',
  face: 'down',
  partner: 'strip/platform',
  partnerFace: 'up',
  zone: 'rim-glue',
  placement: shifted([tab + run + TAB_CLEARANCE, 0]),
  made: 'on the table',
});

/** A picture over the whole closed front, glued on the left flap only. */
const frontPiece = ({ back, flap, length }: Rising): Piece =>
  blankPiece({
    id: 'front',
    name: 'Front panel',
    stock: 'display',
    faceUp: 'picture up',
    outline: rectangle(0, 0, back, length),
    because: 'the whole front of the closed card',
    zones: [
      {
        id: 'flap-glue',
        kind: 'glue',
        face: 'down',
        outline: rectangle(TAB_CLEARANCE, GLUE_INSET, flap - TAB_CLEARANCE - GLUE_INSET, length - 2 * GLUE_INSET),
        says: `glue only the part that lies on the left flap: ${spoken(flap)} from the left edge`,
      },
    ],
    anchors: [{ panel: 'front', name: 'front panel', at: [back / 2, length / 2] }],
  });

const frontBond = ({ flap }: Rising): Bond => ({
  id: 'front-bond',
  name: 'front panel on the left flap',
  panel: 'front/front',
  face: 'down',
  partner: 'base/left-flap',
  partnerFace: 'down',
  zone: 'flap-glue',
  placement: { to: [flap, 0], turn: 0, flipped: true },
});

/** How the strip is folded with the flaps turned by an angle from closed: by where its legs lie between glue line and platform. */
function foldsAt({ glueAt, run }: Rising, opening: Radians): Readonly<Record<string, Radians>> {
  const height = platformHeight(glueAt, run, opening);
  const leg = Math.atan2(glueAt * Math.sin(opening) - height, glueAt * Math.cos(opening) - glueAt + run);
  const [turned, glued] = [Math.PI - leg, -(Math.PI - (leg - opening))];
  return { 'strip/left-turned': turned, 'strip/right-turned': turned, 'strip/left-glue': glued, 'strip/right-glue': glued };
}

function pocketClaims(sizes: Sizes, { tab, run, platform, strip }: Rising) {
  const [inside, needed] = [insideOf(sizes), neededBy(sizes)];
  const [high, wide, thick] = [num(sizes, 'insertHeight'), num(sizes, 'insertWidth'), num(sizes, 'insertThickness')];
  const rim = hasPocket(sizes) ? num(sizes, 'rim') : 0;
  const low = hasPocket(sizes) && sizes['openSide'] === 'upper' ? rim : 0;
  const fits = (id: 'across' | 'along', size: string, label: string) =>
    agreement({
      id: `insert-${id}`,
      name: `The ${hasPocket(sizes) ? 'pocket' : 'platform'} inside, ${id}`,
      with: 'the insert and its room',
      value: inside[id],
      wanted: needed[id],
      atLeast: true,
      unit: 'mm',
      play: SAME,
      or: 'the insert does not go in freely',
      panels: ['strip/platform'],
      mend: { size, label, value: num(sizes, size) + needed[id] - inside[id] },
    });
  return [
    fits('across', 'backHeight', 'back'),
    fits('along', 'stripWidth', 'strip'),
    ...(thick > 0
      ? [
          innerLayer({
            id: 'insert',
            name: 'the insert',
            panel: 'strip/platform',
            outline: rectangle(tab + run + (platform - high) / 2, low + (strip - rim - wide) / 2, high, wide),
            thickness: thick,
          }),
        ]
      : []),
  ];
}

/** The flaps have begun to move. */
const JUST_OPEN: Radians = toRadians(10);
/** A hand cannot set less. */
const SAME: Mm = 0.05;

/** Flaps that meet, or leave a gap that is wanted as it is. */
const flapsMeet = ({ flap, back, length }: Rising) =>
  meeting({
    id: 'flaps',
    name: 'the two flaps',
    a: { panel: 'base/left-flap', from: [0, 0], to: [0, length] },
    b: { panel: 'base/right-flap', from: [2 * flap + back, 0], to: [2 * flap + back, length] },
    sideBySide: { outward: [-1, 0], gap: back - 2 * flap },
  });

function measuresOf(sizes: Sizes, { glueAt, run, platform, flap, tab, openTo }: Rising): Measure[] {
  const taut = tautAt(glueAt, run);
  const inside = insideOf(sizes);
  return [
    mm('platform', 'Platform', platform, 'the back, less both glue lines from their hinges, and both legs'),
    angle(
      'tautAt',
      'Strip is taut at',
      taut,
      'there the legs lie in line with the platform: leg = glue line from the hinge × (1 − cos) ÷ 2',
    ),
    mm('tautHeight', 'Platform above the back, taut', glueAt * Math.sin(taut), 'glue line from the hinge × sin of that opening'),
    mm(
      'platformHeight',
      'Platform above the back, as far as it opens',
      platformHeight(glueAt, run, openTo),
      'glue line × sin(opening), less what the legs still hang down; the last degree lifts most',
    ),
    mm('turnedAt', 'Turned creases inside the hinges, closed', glueAt - run, 'glue line from the hinge, less the leg'),
    mm(
      'firstLift',
      'Platform above the back, opened by 10°',
      platformHeight(glueAt, run, JUST_OPEN),
      'it must be more than what lies there is thick; it vanishes as the leg comes near the glue line',
    ),
    mm('tabFromHinge', 'Tabs end before the hinge by', glueAt - tab, 'they come up to the hinge without touching it'),
    mm(
      'insideAcross',
      'Room for the insert, across',
      inside.across,
      hasPocket(sizes) ? 'the platform less both glued edges, which keep 2 mm clear of its creases' : 'the platform',
    ),
    mm(
      'insideAlong',
      'Room for the insert, along',
      inside.along,
      hasPocket(sizes) ? 'the strip’s width less the glued edge' : 'the strip’s width',
    ),
    ...(sizes['front'] === 'left'
      ? [mm('frontGlued', 'Front panel is glued', flap, 'as far as it lies on its flap, from the left edge; the rest swings free')]
      : []),
  ];
}
