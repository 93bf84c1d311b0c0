import { CAPITALS } from '../card/dressing.js';
import { inSentence } from '../card/part-titles.js';
import { visibleFaces } from '../card/visibility.js';
import { filmFoot } from '../dress/film-foot.js';
import type { PlacedTopper } from '../dress/toppers.js';
import { spoken } from '../measure/sentence.js';
import type { Mm } from '../measure/units.js';
import { printAngle } from '../measure/print.js';
import { intersect, subtract, totalArea } from '../plane/boolean.js';
import { apart, asArea, boxOf, type Area } from '../plane/outline.js';
import { reach } from '../plane/reach.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Check, CheckInput, Verdict } from './finding.js';

/** Turned farther than this from upright a topper is read as lying on its head. */
const ON_ITS_HEAD = (100 * Math.PI) / 180;
/** So much of a topper may lie over an opening or past an edge before what is under it counts as missing. */
const LEAST_HELD = 0.5;
/** No hand sees letters that are so much nearer to an edge than they should be. */
const LEAST_PAST: Mm = 0.05;
/** Film that is glued on by less of its length comes off. */
const LEAST_FOOT: Mm = 8;

/** Does every topper have its place: on one panel, clear of folds, held, the right way up, and seen? */
export const toppersPlaced: Check = (input) => {
  const { toppers, lost } = input.dressed;
  const found = [
    ...lost.map(({ topper, why }): Verdict => ({
      id: `dressing-placed/${topper.id}`,
      check: 'dressing-placed',
      severity: 'warn',
      says:
        why === 'panel'
          ? `A topper (${topper.name ?? topper.outline}) was put on ${topper.panel}, which this card has not any more: it is left out until the panel is there again.`
          : `A topper has the outline “${topper.outline}”, which this card has not: it is left out until the outline is there again.`,
    })),
    ...toppers.flatMap((topper) => [
      ...overFolds(input, topper),
      ...held(topper),
      ...onItsHead(topper),
      ...takesNoTag(topper),
      ...hasTwin(topper),
      ...greetingFits(topper),
      ...(topper.shows.length > 0 ? [] : hidden(input, topper)),
      ...raisedWhereKeptClear(input, topper),
    ]),
  ];
  if (found.length > 0 || toppers.length === 0) return found;
  return [
    {
      id: 'dressing-placed/toppers',
      check: 'dressing-placed',
      severity: 'pass',
      says: `${toppers.length === 1 ? 'The topper has its place' : `All ${toppers.length} toppers have their places`}: on one panel each, held, the right way up and seen.`,
    },
  ];
};

const about = ({ topper, panel }: PlacedTopper, what: string): Pick<Verdict, 'id' | 'check' | 'panels' | 'unit'> => ({
  id: `dressing-placed/${topper.id}/${what}`,
  check: 'dressing-placed',
  panels: [panel],
  unit: 'mm',
});

const called = ({ number, topper, outlineName }: PlacedTopper): string => `${number} (${topper.name ?? outlineName})`;

/** Glued to one panel and lying over another, it holds the fold between them, or catches as that closes. */
function overFolds({ design }: CheckInput, placed: PlacedTopper): Verdict[] {
  const own = design.panels[design.linkage.bodyOf.get(placed.panel)!]!;
  const box = boxOf(placed.whole.flatMap(({ outer }) => outer));
  return design.panels.flatMap((other): Verdict[] => {
    if (other === own || other.piece !== own.piece || apart(box, boxOf(other.area.outer))) return [];
    const over = intersect(placed.whole, [other.area]);
    const by = reach(over);
    if (by <= CLOSING_PLAY) return [];
    return [
      {
        ...about(placed, other.id),
        severity: 'fail',
        value: by,
        limit: CLOSING_PLAY,
        panels: [own.id, other.id],
        says: `${called(placed)} reaches ${spoken(by)} over the fold onto the ${inSentence(other.name)}: it would hold the fold. Move it that far back, or make it smaller.`,
      },
    ];
  });
}

/** Foam needs a place for its pads; what is glued flat needs most of it to lie on paper. */
function held(placed: PlacedTopper): Verdict[] {
  if (placed.topper.foam !== undefined) {
    if (placed.pads.length > 0) return [];
    return [
      {
        ...about(placed, 'pads'),
        severity: 'fail',
        says: `There is no room for a foam pad under ${called(placed)}: it lies over an opening, past an edge, or on what is glued there. Move it onto paper, or glue it flat.`,
      },
    ];
  }
  if (placed.topper.film) return heldByFilm(placed);
  const [widest] = placed.whole as [Area];
  const whole = totalArea([widest.outer]);
  const share = (whole - totalArea(subtract([widest], placed.ground))) / whole;
  if (share >= LEAST_HELD) return [];
  return [
    {
      ...about(placed, 'held'),
      severity: 'warn',
      says: `Only ${Math.round(100 * share)} % of ${called(placed)} lies on paper that is free; the rest is over an opening, past an edge or on what is glued there. Move it, or make it smaller.`,
    },
  ];
}

/** Film holds a topper by what of it lies on its panel, along the way that it stands. */
function heldByFilm(placed: PlacedTopper): Verdict[] {
  const foot = filmFoot(placed);
  if (foot.on >= LEAST_FOOT) return [];
  return [
    {
      ...about(placed, 'film'),
      severity: 'fail',
      value: foot.on,
      limit: LEAST_FOOT,
      says:
        foot.on > 0
          ? `The film of ${called(placed)} lies only ${spoken(foot.on)} on its panel; ${spoken(LEAST_FOOT)} hold it: make the film ${spoken(LEAST_FOOT - foot.on)} longer, or move it.`
          : `The film of ${called(placed)} does not reach its panel: make it longer, or move it.`,
    },
  ];
}

/** A twin that was wished and has no place would be looked for in vain. */
function hasTwin(placed: PlacedTopper): Verdict[] {
  if (!placed.topper.twin || placed.under.some(({ as }) => as === 'twin')) return [];
  return [
    {
      ...about(placed, 'twin'),
      severity: 'warn',
      says: `${called(placed)} gets no twin: nothing of its back is free. Move it past an edge or onto clear film, or leave the twin out.`,
    },
  ];
}

/** Letters that stand past the edge are cut off with it, and those that a face has not are left out. */
function greetingFits(placed: PlacedTopper): Verdict[] {
  const { greeting } = placed;
  if (!greeting) return [];
  const { missing, past, fits } = greeting;
  const lacking: Verdict[] =
    missing.length === 0
      ? []
      : [
          {
            ...about(placed, 'letters'),
            severity: 'warn',
            says: `The greeting of ${called(placed)} is set without ${missing.map((letter) => `“${letter}”`).join(', ')}: its letters have none. Write it otherwise, or take other letters.`,
          },
        ];
  if (past <= LEAST_PAST) return lacking;
  return [
    ...lacking,
    {
      ...about(placed, 'greeting'),
      severity: 'warn',
      value: past,
      limit: 0,
      says: `The greeting of ${called(placed)} comes ${spoken(past)} too near its edge or past it: ${fits && fits >= CAPITALS.min ? `capitals ${spoken(fits)} high keep inside` : 'shorten it'}, or make the topper larger.`,
    },
  ];
}

/** A pocket whose glued edges meet is none. */
function takesNoTag(placed: PlacedTopper): Verdict[] {
  const { glued } = placed.topper;
  if (glued?.as !== 'pocket' || placed.tag) return [];
  return [
    {
      ...about(placed, 'tag'),
      severity: 'warn',
      says: `${called(placed)} takes no tag: its glued edges, ${spoken(glued.deep)} wide, leave no room between them. Glue less of it, or make it larger.`,
    },
  ];
}

function onItsHead(placed: PlacedTopper): Verdict[] {
  const { turn = 0 } = placed.topper;
  if (Math.abs(turn) <= ON_ITS_HEAD) return [];
  return [
    {
      ...about(placed, 'up'),
      severity: 'warn',
      says: `${called(placed)} stands on its head when the card is open: it is turned by ${printAngle(Math.abs(turn))} from upright.`,
    },
  ];
}

/** Seen neither from in front nor by who turns the card over. */
function hidden({ design, motion, closed, resting }: CheckInput, placed: PlacedTopper): Verdict[] {
  const isSeenBehind = [motion.frames[0]!, resting].some((frame) =>
    visibleFaces(design, motion, closed, frame, 'behind').some(({ panel, face }) => panel === placed.panel && face === placed.face),
  );
  if (isSeenBehind) return [];
  const face = `${placed.face === 'up' ? 'upper face' : 'back'} of the ${inSentence(placed.panelName)}`;
  return [
    {
      ...about(placed, 'hidden'),
      severity: 'warn',
      says: `${called(placed)} is never seen: the ${face} is hidden, closed and open, from in front and from behind.`,
    },
  ];
}

/** Foam or several sheets where only flat things may lie. */
function raisedWhereKeptClear({ design }: CheckInput, placed: PlacedTopper): Verdict[] {
  const { topper } = placed;
  const sheets = placed.times + placed.under.filter(({ as }) => as !== 'twin').length;
  const stands = topper.foam !== undefined ? 'stands on foam' : sheets > 1 ? `is ${sheets} sheets high` : undefined;
  if (!stands) return [];
  const { piece } = design.panels[design.linkage.bodyOf.get(placed.panel)!]!;
  return piece.zones.flatMap((zone): Verdict[] => {
    if (zone.kind !== 'keep-clear' || zone.face !== placed.face) return [];
    const by = reach(intersect(placed.whole, [asArea(zone.outline)]));
    if (by <= CLOSING_PLAY) return [];
    return [
      {
        ...about(placed, zone.id),
        severity: 'warn',
        value: by,
        limit: CLOSING_PLAY,
        says: `${called(placed)} ${stands} where the paper is kept clear, by ${spoken(by)}: ${zone.says}. ${topper.foam !== undefined ? 'Glue it flat' : 'Leave it one sheet high'}, or move it.`,
      },
    ];
  });
}
