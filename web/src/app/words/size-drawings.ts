import type { SmallDrawing } from './small-drawing';

/** A V-fold from above: the card open, its fold upright, the figure's two glue lines and its crest. */
const V: SmallDrawing = [
  { as: 'paper', d: 'M8 4H88V52H8Z' },
  { as: 'valley', d: 'M48 4V52' },
  { as: 'paper', d: 'M48 42L76 18M48 42L20 18' },
];
/** The figure by itself, flat: crest in the middle, a wing and its glue line on both sides. */
const FIGURE: SmallDrawing = [
  { as: 'paper', d: 'M48 50L14 34L20 14L48 6L76 14L82 34Z' },
  { as: 'valley', d: 'M48 6V50' },
];
/** An easel from the side: base, strut, display, stop. */
const EASEL: SmallDrawing = [{ as: 'paper', d: 'M86 48H10M86 48L52 26M32 48L58 8M26 44H32V48H26Z' }];
/** An easel's base from above, its fold at the right, the stop on it. */
const BASE: SmallDrawing = [
  { as: 'paper', d: 'M8 6H88V50H8Z' },
  { as: 'valley', d: 'M88 6V50' },
  { as: 'paper', d: 'M30 16H36V40H30Z' },
];

/** The same before a smaller one that stands on foam: its raised base is the stop. */
const NESTED: SmallDrawing = [{ as: 'paper', d: 'M90 50H6M90 50L64 30M44 50L68 14M12 40H42L30 28M16 40V50H38V40' }];

const measuring = (under: SmallDrawing, d: string): SmallDrawing => [...under, { as: 'measure', d }];

const EASEL_SIZES: Readonly<Record<string, SmallDrawing>> = {
  depth: measuring(EASEL, 'M10 53H86'),
  length: measuring(BASE, 'M92 6V50'),
  width: measuring(BASE, 'M92 6V50'),
  displayHeight: measuring(EASEL, 'M32 48L58 8'),
  displayWidth: measuring(BASE, 'M4 12V44'),
  stopDistance: measuring(EASEL, 'M32 53H86'),
  lean: measuring(EASEL, 'M50 48A18 18 0 0 0 42 33'),
  stopHeight: measuring(EASEL, 'M22 44V48'),
  stopWidth: measuring(BASE, 'M30 12H36'),
  stopLength: measuring(BASE, 'M24 16V40'),
  strut: measuring(EASEL, 'M86 48L52 26'),
  base: measuring(EASEL, 'M10 53H86'),
  flap: measuring([...EASEL, { as: 'meant', d: 'M52 26L42 42' }], 'M58 29L48 45'),
  size: measuring(EASEL, 'M27 45L53 5'),
  chord: measuring(EASEL, 'M57 30L69 11'),
  nestFoam: measuring(NESTED, 'M9 40V50'),
  innerThickness: measuring([{ as: 'paper', d: 'M10 48H86M86 48L14 20M60 48V42H30V48' }], 'M24 42V48'),
  innerFrom: measuring([{ as: 'paper', d: 'M10 48H86M86 48L14 20M60 48V42H30V48' }], 'M60 53H86'),
};

/** What a size measures, drawn: by mechanism, then by the size's name. */
const DRAWINGS: Readonly<Record<string, Readonly<Record<string, SmallDrawing>>>> = {
  'v-fold': {
    rayAngle: measuring(V, 'M48 24A18 18 0 0 1 62 30'),
    secondRayAngle: measuring(V, 'M48 24A18 18 0 0 0 34 30'),
    wingAngle: measuring(FIGURE, 'M48 30A20 20 0 0 1 66 41'),
    secondWingAngle: measuring(FIGURE, 'M48 30A20 20 0 0 0 30 41'),
    apex: measuring(V, 'M43 52V42'),
    wingLength: measuring(V, 'M48 42L76 18'),
    crestLength: measuring(FIGURE, 'M48 6V50'),
    tabWidth: measuring([...FIGURE, { as: 'glue', d: 'M48 50L82 34L86 42L52 56Z' }], 'M82 34L86 42'),
  },
  'easel-folded-front': EASEL_SIZES,
  'easel-strip': EASEL_SIZES,
  'easel-shape': EASEL_SIZES,
};

/** The small picture of what a size measures, where there is one. */
export const sizeDrawing = (mechanism: string, size: string): SmallDrawing | undefined => DRAWINGS[mechanism]?.[size];
