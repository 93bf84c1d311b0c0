import * as v from 'valibot';
import { STYLE_IDS } from '../letters/styles.js';

/** What a maker glues on a card that is built, as the card keeps it. Lengths mm. */

/** No border is wider than this. */
export const MOST_BORDER = 60;
/** A layer stands at most so far past an edge of its panel. */
export const MOST_PAST = 40;
/** A panel wears at most so many layers on one another. */
export const MOST_STEPS = 3;

const within = (min: number, max: number, unit = ' mm') => {
  const says = `allowed: ${min} to ${max}${unit}`;
  return v.pipe(v.number(says), v.minValue(min, says), v.maxValue(max, says));
};

const border = within(0, MOST_BORDER);
/** of one side: past the edge where it is negative */
const edge = within(-MOST_PAST, MOST_BORDER);
const identifier = v.pipe(
  v.string('allowed: text'),
  v.regex(/^[a-z0-9][a-z0-9-]{0,63}$/i, 'allowed: letters, digits and hyphens, at most 64'),
);
const steps = v.picklist([1, 2, 3], `allowed: 1 to ${MOST_STEPS}`);

/** The sides of a panel as it is drawn on its piece, upper face toward you. */
export const SIDES = ['left', 'right', 'bottom', 'top'] as const;
export type Side = (typeof SIDES)[number];

/** A panel of the design, by its id. */
const panelName = v.pipe(v.string('allowed: text'), v.maxLength(140, 'allowed: at most 140 characters'));

/** Strips are so wide where there is no window that says how wide. */
export const STRIP_WIDTH = { min: 5, max: 100 } as const;
const strips = v.strictObject({
  /** the strips that run on to the corners: those across, or those along */
  corners: v.picklist(['across', 'along'], 'allowed: across, along'),
  /** between neighbours */
  gap: border,
  wide: v.optional(within(STRIP_WIDTH.min, STRIP_WIDTH.max)),
});

/** Where two papers of one layer meet, from the lower or the left end of the panel as drawn on its piece, upper face toward you. */
export const JOINT_PLACE = { min: 5, max: 600 } as const;
export const COVER_WIDTH = { min: 3, max: 60 } as const;
const joint = v.strictObject({
  /** which way the line runs along which they meet: from side to side, or up and down */
  runs: v.picklist(['across', 'along'], 'allowed: across, along'),
  at: within(JOINT_PLACE.min, JOINT_PLACE.max),
  /** of the paper beyond the line */
  stock: identifier,
  /** a strip over the line */
  cover: v.optional(v.strictObject({ wide: within(COVER_WIDTH.min, COVER_WIDTH.max), stock: identifier })),
});

/** A face of a panel that is dressed otherwise than the rule says. What it does not say is as in the rule. */
const ownDress = v.strictObject({
  panel: panelName,
  face: v.picklist(['up', 'down'], 'allowed: up, down'),
  /** it wears nothing */
  bare: v.optional(v.literal(true, 'allowed: true, or left out')),
  steps: v.optional(steps),
  border: v.optional(border),
  left: v.optional(edge),
  right: v.optional(edge),
  bottom: v.optional(edge),
  top: v.optional(edge),
  /** cut in four strips round its window or round a bare middle; in one piece where left out */
  strips: v.optional(strips),
  /** its uppermost layer is cut from two papers that meet; a layer in strips is not */
  joint: v.optional(joint),
});

/** A fold over which the lowest layers of its two panels are cut in one piece. */
const linedFold = v.strictObject({
  face: v.picklist(['up', 'down'], 'allowed: up, down'),
  panels: v.tuple([panelName, panelName], 'allowed: two panels'),
});

/** One rule for every panel that is seen, and what differs from it. */
const layers = v.strictObject({
  border,
  /** by how much each further layer is smaller, each side; the border where it is left out */
  step: v.optional(border),
  steps,
  /** what they are cut from; a layer with a stock of its own stands among the pieces’ stocks */
  stock: identifier,
  /** a pattern runs on over the borders between neighbours: they are cut beside one another, what lies between them left out */
  runsOn: v.optional(v.literal(true, 'allowed: true, or left out')),
  overFolds: v.optional(v.pipe(v.array(linedFold), v.maxLength(40, 'allowed: at most 40 folds'))),
  own: v.optional(v.pipe(v.array(ownDress), v.maxLength(200, 'allowed: at most 200 entries'))),
});

/** A card carries at most so many toppers. */
export const MOST_TOPPERS = 30;
/** Foam is built up so high at most. */
export const MOST_FOAM = 6;
export const TOPPER_HEIGHT = { min: 4, max: 400 } as const;
/** A topper may stand past its panel, but not be nowhere near it. */
export const TOPPER_PLACE = { min: -200, max: 800 } as const;

const place = within(TOPPER_PLACE.min, TOPPER_PLACE.max);

/** What a side is called where people read it. */
export const SIDE_NAMES: Readonly<Record<Side, string>> = { left: 'left', right: 'right', bottom: 'lower', top: 'upper' };
const side = v.picklist(SIDES, `allowed: ${SIDES.join(', ')}`);
/** A topper is cut at most so often, and all of it glued together. */
export const MOST_TIMES = 8;
/** How far glue goes in from an edge. */
export const GLUE_DEEP = { min: 2, max: 300 } as const;
const deep = within(GLUE_DEEP.min, GLUE_DEEP.max);

/** Where a topper is glued; its sides are those of the upright outline, as it is looked at. */
const glued = v.variant(
  'as',
  [
    // along one side, so far in from it: the rest hangs free
    v.strictObject({ as: v.literal('strip'), side, deep }),
    // along its edge but for one side, which is left open for a tag
    v.strictObject({ as: v.literal('pocket'), side, deep }),
  ],
  'allowed: strip, pocket',
);
export const TOPPER_WIDTH = { min: 4, max: 400 } as const;

export const CAPITALS = { min: 1.5, max: 120 } as const;
/** A greeting is at most so long. */
export const MOST_WORDS = 80;

/** Words on a topper, in outlines of shipped letters. */
const greeting = v.strictObject({
  words: v.pipe(
    v.string('allowed: text'),
    v.minLength(1, 'allowed: at least one character'),
    v.maxLength(MOST_WORDS, `allowed: at most ${MOST_WORDS} characters`),
  ),
  letters: v.picklist(STYLE_IDS, `allowed: ${STYLE_IDS.join(', ')}`),
  /** height of its capitals */
  capital: within(CAPITALS.min, CAPITALS.max),
});

/** A topper has at most so many papers behind it, each so much wider all round than what lies on it. */
export const MOST_BACKINGS = 3;
export const BACKING_BORDER = { min: 0.5, max: 30 } as const;
/** How far outside its outline a topper is cut. */
export const MARGIN = { min: 0, max: 20 } as const;
/** The strip of film that a topper stands on. */
export const FILM_WIDTH = { min: 3, max: 200 } as const;
export const FILM_LENGTH = { min: 10, max: 400 } as const;

const backing = v.strictObject({ border: within(BACKING_BORDER.min, BACKING_BORDER.max), stock: identifier });
const film = v.strictObject({
  wide: within(FILM_WIDTH.min, FILM_WIDTH.max),
  /** from just under the topper's upper edge down onto the panel, as the topper stands upright */
  long: within(FILM_LENGTH.min, FILM_LENGTH.max),
  stock: identifier,
});

/** An outline that is glued on a face, flat, on foam, or on film. */
const topperAsKept = v.strictObject({
  id: identifier,
  name: v.optional(
    v.pipe(v.string('allowed: text'), v.minLength(1, 'allowed: at least one character'), v.maxLength(60, 'allowed: at most 60 characters')),
  ),
  panel: panelName,
  face: v.picklist(['up', 'down'], 'allowed: up, down'),
  /** its middle, from the left and the lower end of the panel as drawn on its piece, upper face toward you */
  across: place,
  along: place,
  outline: v.pipe(v.string('allowed: text'), v.maxLength(64, 'allowed: at most 64 characters')),
  height: within(TOPPER_HEIGHT.min, TOPPER_HEIGHT.max),
  /** drawn out to this width; as wide as its outline asks where left out */
  width: v.optional(within(TOPPER_WIDTH.min, TOPPER_WIDTH.max)),
  /** cut so far outside its outline, all round; on it where left out */
  margin: v.optional(within(MARGIN.min, MARGIN.max)),
  /** how far it is turned to the left from standing upright on the open card, seen on its good side; radians */
  turn: v.optional(within(-Math.PI, Math.PI, ' radians')),
  /** cut so often and glued on one another; once where left out */
  times: v.optional(v.pipe(within(2, MOST_TIMES, ' times'), v.integer(`allowed: a whole number, 2 to ${MOST_TIMES}`))),
  /** papers behind it, the one right behind it first */
  backings: v.optional(
    v.pipe(
      v.array(backing),
      v.minLength(1, `allowed: 1 to ${MOST_BACKINGS} papers, or left out`),
      v.maxLength(MOST_BACKINGS, `allowed: 1 to ${MOST_BACKINGS} papers, or left out`),
    ),
  ),
  /** on film, that alone is glued to the panel: there is no foam then, and no glue on a part */
  film: v.optional(film),
  /** the mirror image of it glued behind it, wherever its back is free */
  twin: v.optional(v.literal(true, 'allowed: true, or left out')),
  /** on foam so high; glued flat where left out */
  foam: v.optional(within(0.5, MOST_FOAM)),
  /** where its glue or foam goes; all over where left out */
  glued: v.optional(glued),
  greeting: v.optional(greeting),
  /** held so that it may come off again */
  removable: v.optional(v.literal(true, 'allowed: true, or left out')),
  stock: identifier,
});

const topper = v.pipe(
  topperAsKept,
  v.check(
    ({ film, foam, glued }) => film === undefined || (foam === undefined && glued === undefined),
    'stands on film; allowed then: no foam, and no glue on a part, as the film alone is glued on',
  ),
);

/** A card is closed with at most so many things. */
export const MOST_CLOSURES = 6;
/** How wide a band may be, and where along the card its middle lies. */
export const BAND_WIDTH = { min: 6, max: 150 } as const;
export const BAND_PLACE = { min: 0, max: 600 } as const;

/** A hook or a sticky dot between the ends of a band. */
export const FASTENER_THICK = { min: 0.2, max: 6 } as const;
export const GIFT_THICK = { min: 0.2, max: 30 } as const;
export const GIFT_GRAMS = { min: 0, max: 500 } as const;

/** A strip wrapped round the closed card and joined to itself, so that it slides off. */
const band = v.strictObject({
  id: identifier,
  kind: v.literal('band', 'allowed: band'),
  /** what it goes round: the measure across the fold, or that along it */
  around: v.picklist(['across', 'along'], 'allowed: across, along'),
  wide: within(BAND_WIDTH.min, BAND_WIDTH.max),
  /** its middle: from the lower end, or, round the measure along the fold, from the fold's side */
  at: within(BAND_PLACE.min, BAND_PLACE.max),
  overlap: v.optional(within(2, 60)),
  slip: v.optional(within(0, 30)),
  /** its ends are held by a fastener so thick, and come apart; they are glued where left out */
  fastener: v.optional(within(FASTENER_THICK.min, FASTENER_THICK.max)),
  /** something small that is dotted on it: how far it stands out, and its weight */
  gift: v.optional(v.strictObject({ thick: within(GIFT_THICK.min, GIFT_THICK.max), grams: within(GIFT_GRAMS.min, GIFT_GRAMS.max, ' g') })),
  stock: identifier,
});

/** Discs as they are bought. */
export const DISC = { min: 3, max: 25 } as const;
export const DISC_THICK = { min: 0.5, max: 5 } as const;

/** A disc sunk into blank layers on a face; the second lies where this one comes to lie when the card is closed. */
const magnet = v.strictObject({
  id: identifier,
  kind: v.literal('magnet', 'allowed: magnet'),
  panel: panelName,
  face: v.picklist(['up', 'down'], 'allowed: up, down'),
  /** its middle, from the left and the lower end of the panel as drawn on its piece, upper face toward you */
  across: place,
  along: place,
  disc: within(DISC.min, DISC.max),
  thick: within(DISC_THICK.min, DISC_THICK.max),
  /** the blank layers cover the whole face, so that nothing stands out; else a patch round the disc */
  whole: v.optional(v.literal(true, 'allowed: true, or left out')),
  /** what the blank layers, and a cover where one is needed, are cut from */
  stock: identifier,
});

export const RIBBON_WIDTH = { min: 3, max: 60 } as const;
export const RIBBON_LOOP = { min: 0, max: 200 } as const;
export const RIBBON_END = { min: 30, max: 500 } as const;

/** A ribbon tied round the closed card, out of two slits in its fold, or round one panel. */
const ribbon = v.strictObject({
  id: identifier,
  kind: v.literal('ribbon', 'allowed: ribbon'),
  way: v.picklist(['round', 'slits', 'panel'], 'allowed: round, slits, panel'),
  /** the panel that it goes round, where that is its way; across and along are then as its piece is drawn */
  panel: v.optional(panelName),
  around: v.picklist(['across', 'along'], 'allowed: across, along'),
  wide: within(RIBBON_WIDTH.min, RIBBON_WIDTH.max),
  /** its middle, as of a band */
  at: within(BAND_PLACE.min, BAND_PLACE.max),
  /** how high each loop of its bow stands; a plain knot where it is 0 */
  loop: within(RIBBON_LOOP.min, RIBBON_LOOP.max),
  end: within(RIBBON_END.min, RIBBON_END.max),
});

export const ENVELOPE_EASE_LIMITS = { min: 0, max: 30 } as const;
export const FLAP_OVERLAP_LIMITS = { min: 4, max: 60 } as const;

/** An envelope of its own for the card, folded from a square. */
const foldedEnvelope = v.strictObject({
  stock: identifier,
  /** glued inside: what shows when it is opened */
  liner: v.optional(identifier),
  ease: v.optional(within(ENVELOPE_EASE_LIMITS.min, ENVELOPE_EASE_LIMITS.max)),
  overlap: v.optional(within(FLAP_OVERLAP_LIMITS.min, FLAP_OVERLAP_LIMITS.max)),
});

export const dressingSchema = v.strictObject({
  layers: v.optional(layers),
  toppers: v.optional(v.pipe(v.array(topper), v.maxLength(MOST_TOPPERS, `allowed: at most ${MOST_TOPPERS} toppers`))),
  closures: v.optional(
    v.pipe(
      v.array(v.variant('kind', [band, magnet, ribbon], 'allowed: band, magnet, ribbon')),
      v.maxLength(MOST_CLOSURES, `allowed: at most ${MOST_CLOSURES} closures`),
    ),
  ),
  envelope: v.optional(foldedEnvelope),
});

export type Dressing = v.InferOutput<typeof dressingSchema>;
export type LayerRule = NonNullable<Dressing['layers']>;
export type Topper = NonNullable<Dressing['toppers']>[number];
export type Greeting = NonNullable<Topper['greeting']>;
export type TopperFilm = NonNullable<Topper['film']>;
export type GluedPart = NonNullable<Topper['glued']>;
export type Closure = NonNullable<Dressing['closures']>[number];
export type BandClosure = Extract<Closure, { kind: 'band' }>;
export type MagnetClosure = Extract<Closure, { kind: 'magnet' }>;
export type RibbonClosure = Extract<Closure, { kind: 'ribbon' }>;
export type OwnEnvelope = NonNullable<Dressing['envelope']>;
export type LayerJoint = v.InferOutput<typeof joint>;
export type LinedFold = v.InferOutput<typeof linedFold>;
export type LayerStrips = v.InferOutput<typeof strips>;
export type OwnDress = NonNullable<LayerRule['own']>[number];

/** The closures of one kind, in their order. */
export const closuresOf = <K extends Closure['kind']>(
  dressing: Pick<Dressing, 'closures'> | undefined,
  kind: K,
): Extract<Closure, { kind: K }>[] =>
  (dressing?.closures ?? []).filter((closure): closure is Extract<Closure, { kind: K }> => closure.kind === kind);
