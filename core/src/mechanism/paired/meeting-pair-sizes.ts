import { spoken } from '../../measure/sentence.js';
import { toRadians, type Mm } from '../../measure/units.js';
import { SHAPE_OPTIONS } from '../../plane/shapes.js';
import { EDGE_MARGIN, LEAST_TAB } from '../../supplies/limits.js';
import type { Range } from '../contract.js';
import { sidesOf, wingRange } from '../crested/wing-limits.js';
import { leastDepth, type FoldSite } from '../sites.js';
import { num, type FreeSize, type SizeContext, type Sizes } from '../sizes.js';
import { aboveCard, BESIDE, inFront, LEAST_MOUNT, mostGap, mountOf, paperNeeded, TONGUE_CLEAR, TONGUE_RIM } from './lift-arm.js';

/** Where there is less, arms with tabs that hold have no room. */
export const LEAST_PAIR_DEPTH: Mm = 50;
export const LEAST_PAIR_LENGTH: Mm = 90;

/** A hinge nearer to k leaves a brace too narrow to fold. */
const LEAST_BRACE: Mm = 5;
/** A shorter glue line tears out. */
const LEAST_RAY: Mm = 15;
const LEAST_FIGURE: Mm = 8;
const [LEAST_WING, MOST_WING] = [toRadians(30), toRadians(150)];

/** Defaults are drawn for leaves 100 deep and 150 long. */
const scale = (site: FoldSite): number => Math.min(leastDepth(site) / 100, site.length / 150);
const scaled = (context: SizeContext, of: Mm): Mm => Math.round(of * scale(context.site!));
const within = (wanted: Mm, { min, max }: Pick<Range, 'min' | 'max'>): Mm => Math.max(min, Math.min(wanted, max));

const hinges = ({ sizes }: Pick<SizeContext, 'sizes'>): { hinge: Mm; brace: Mm; tab: Mm } => ({
  hinge: num(sizes, 'figureHinge'),
  brace: num(sizes, 'braceHinge'),
  tab: num(sizes, 'tabWidth'),
});

const rayRange = () => ({
  min: toRadians(20),
  max: toRadians(85),
  because: 'a glue line nearer the fold leaves no room for its tab, and one across the fold lifts nothing',
});

function armWing(context: SizeContext, which: 1 | 2): Range {
  const { min, max, because } = wingRange(context, which);
  return { min: Math.max(min, LEAST_WING), max: Math.min(max, MOST_WING), because };
}

/** The longest tab crease on a leaf: its far end 3 mm inside it, and before the middle between both arms. */
function longestRay({ sizes, site }: SizeContext, which: 0 | 1): Mm {
  const { ray } = sidesOf({ sizes })[which]!;
  const depth = site!.leaves[which === 0 ? 1 : 0].depth;
  return Math.min((depth - EDGE_MARGIN) / Math.sin(ray), site!.length / 2 / Math.cos(ray));
}

/** The least of a hinge: behind the wing its tab lies between it and k. */
const leastHinge = (sizes: Sizes, front: boolean): Mm => (front ? LEAST_BRACE : num(sizes, 'tabWidth') + BESIDE);

/** The nearest brace hinge to k: beyond a tongue’s opening, or with its tab between it and k. */
const leastBrace = ({ sizes }: Pick<SizeContext, 'sizes'>): Mm => {
  const hinge = num(sizes, 'figureHinge');
  const tab = num(sizes, 'tabWidth');
  return inFront(hinge) ? tab - hinge + TONGUE_RIM + TONGUE_CLEAR : tab + BESIDE;
};

function rayLength(context: SizeContext, which: 0 | 1): Range {
  const needed = paperNeeded(hinges(context))[which]!;
  const { wing } = sidesOf(context)[which]!;
  return {
    min: Math.max(LEAST_RAY, needed / Math.sin(wing)),
    max: longestRay(context, which),
    because: 'the wing must carry its hinge, and the far end of the glue line stays 3 mm inside the leaf, on its own half of it',
  };
}

/** How far across k a wing can have paper, however long its glue line is made. */
const roomOn = (context: SizeContext, which: 0 | 1): Mm => longestRay(context, which) * Math.sin(sidesOf(context)[which]!.wing);

/** What a hinge before the arm needs of the second wing besides itself: two tabs, and what is kept between. */
const besideHinge = (tab: Mm): Mm => 2 * tab + TONGUE_RIM + TONGUE_CLEAR + BESIDE;

/** How far from k the figure's hinge may be: the second wing has room for its tongue and the brace, or the first for itself. */
function mostHinge(context: SizeContext, front: boolean): Mm {
  const tab = num(context.sizes, 'tabWidth');
  const room = front ? roomOn(context, 1) - besideHinge(tab) : roomOn(context, 0) - BESIDE;
  return Math.max(leastHinge(context.sizes, front), Math.min(leastDepth(context.site!) / 5, room));
}

/** How far the brace's hinge may be. */
function mostBrace(context: SizeContext): Mm {
  const room = roomOn(context, 1) - BESIDE - (inFront(num(context.sizes, 'figureHinge')) ? num(context.sizes, 'tabWidth') : 0);
  return Math.max(leastBrace(context), Math.min(leastDepth(context.site!) / 2, room));
}

function mostTab(context: SizeContext): Mm {
  const room = (roomOn(context, 1) - besideHinge(0) - LEAST_BRACE) / 2;
  return Math.max(LEAST_TAB, Math.min(15, leastDepth(context.site!) / 8, room));
}

const FIGURE_BECAUSE = 'a picture so far out would not lie in any card that has room for its arms';
const mostFigure = ({ site }: SizeContext): Mm => leastDepth(site!) + site!.length / 2;

/** Free sizes of a meeting pair: angles and lengths of an arm, where its parallelogram hinges, the figure, and its placing. */
export const PAIR_SIZES: readonly FreeSize[] = [
  {
    name: 'rayAngle',
    label: 'Glue line from the fold',
    kind: 'angle',
    default: toRadians(35),
    help: 'Of the large tab, on the second leaf: the angle between the fold and the line where a wing is glued.',
    range: rayRange,
  },
  {
    name: 'wingAngle',
    label: 'Slanting crease from the glue line',
    kind: 'angle',
    default: ({ sizes }) => num(sizes, 'rayAngle') + toRadians(20),
    help: 'On the wing. Nearer to the angle of the glue line the arm comes farther down to the card as it opens.',
    range: (context) => armWing(context, 1),
  },
  {
    name: 'secondRayAngle',
    label: 'Other glue line from the fold',
    kind: 'angle',
    default: ({ sizes }) => num(sizes, 'rayAngle'),
    help: 'Of the small tab, on the first leaf.',
    range: rayRange,
  },
  {
    name: 'secondWingAngle',
    label: 'Slanting crease from the other glue line',
    kind: 'angle',
    default: ({ sizes }) => num(sizes, 'rayAngle') + num(sizes, 'wingAngle') - num(sizes, 'secondRayAngle'),
    help: 'On the other wing. Both angles together must be the same on both sides to close flat.',
    range: (context) => armWing(context, 2),
  },
  {
    name: 'tabWidth',
    label: 'Tab width',
    kind: 'length',
    default: (context) => within(scaled(context, 8), { min: LEAST_TAB, max: mostTab(context) }),
    help: 'Of all tabs.',
    range: (context) => ({
      min: LEAST_TAB,
      max: mostTab(context),
      because: 'a narrower tab peels off, and a wider one leaves no room for the others',
    }),
  },
  {
    name: 'figureHinge',
    label: 'Figure’s hinge',
    kind: 'length',
    default: (context) => -within(scaled(context, 8), { min: LEAST_BRACE, max: mostHinge(context, true) }),
    help: 'From the slanting crease: how far the figure stands off the arm. With a minus in front of it, on a tongue cut out of the second wing; without, behind it, on the first wing.',
    range: (context) => {
      const { sizes } = context;
      const front = !(num(sizes, 'figureHinge') > 0);
      const [least, most] = [leastHinge(sizes, front), mostHinge(context, front)];
      const because = `a nearer one leaves the brace too narrow, and a farther one leaves the arm no room; ${front ? `behind the arm it may be ${spoken(leastHinge(sizes, false))} or more` : `before the arm it may be ${spoken(LEAST_BRACE)} or more, with a minus`}`;
      return front ? { min: -most, max: -least, because } : { min: least, max: most, because };
    },
  },
  {
    name: 'braceHinge',
    label: 'Brace’s hinge',
    kind: 'length',
    default: (context) =>
      within(Math.max(scaled(context, 20), Math.ceil(leastBrace(context))), { min: leastBrace(context), max: mostBrace(context) }),
    help: 'From the slanting crease, on the second wing; the figure is held as far from its own hinge.',
    range: (context) => ({
      min: leastBrace(context),
      max: mostBrace(context),
      because: 'its tab lies clear of the figure’s, and a wider brace leaves the leaf',
    }),
  },
  {
    name: 'wingLength',
    label: 'Large tab’s glue line',
    kind: 'length',
    default: (context) => within(scaled(context, 38), rayLength(context, 0)),
    help: 'On the second leaf, from the apex.',
    range: (context) => rayLength(context, 0),
  },
  {
    name: 'secondWingLength',
    label: 'Small tab’s glue line',
    kind: 'length',
    default: (context) => within(scaled(context, 38), rayLength(context, 1)),
    help: 'On the first leaf, from the apex.',
    range: (context) => rayLength(context, 1),
  },
  {
    name: 'trim',
    label: 'Cut off at the apex',
    kind: 'length',
    default: 0,
    help: 'The creases only aim at the apex: its paper may be cut away.',
    range: ({ sizes }) => ({
      min: 0,
      max: Math.min(num(sizes, 'wingLength'), num(sizes, 'secondWingLength')) / 3,
      because: 'both glue lines keep at least two thirds of their length',
    }),
  },
  {
    name: 'crestLength',
    label: 'Slanting crease',
    kind: 'length',
    default: (context) => within(scaled(context, 46), { min: Math.ceil(leastCrest(context)), max: Infinity }),
    help: 'From the apex to the far edge of the arm.',
    range: (context) => ({
      min: leastCrest(context),
      max: Math.max(leastCrest(context), leastDepth(context.site!) * 1.5),
      because: 'hinges 6 mm long find room along it, and a much longer arm has no card to lie in',
    }),
  },
  {
    name: 'figureOutline',
    label: 'Outline of the figures',
    kind: 'outline',
    default: 'oval',
    help: 'Its top points along the slanting crease; the other figure is its mirror image.',
    options: SHAPE_OPTIONS,
  },
  {
    name: 'figureHigh',
    label: 'Figure along the crease',
    kind: 'length',
    default: (context) => Math.max(LEAST_FIGURE, scaled(context, 45)),
    help: 'How far the outline goes on from there.',
    range: (context) => ({ min: LEAST_FIGURE, max: mostFigure(context), because: FIGURE_BECAUSE }),
  },
  {
    name: 'figureWide',
    label: 'Figure across the crease',
    kind: 'length',
    default: (context) => Math.max(LEAST_FIGURE, scaled(context, 34)),
    help: 'How wide the outline is.',
    range: (context) => ({ min: LEAST_FIGURE, max: mostFigure(context), because: FIGURE_BECAUSE }),
  },
  {
    name: 'figureAlong',
    label: 'Figure from the apex, along the crease',
    kind: 'length',
    default: (context) => Math.round(Math.max(mountIn(context)[0], behindCard(context))),
    help: 'To the near edge of the outline.',
    range: (context) => ({ min: 0, max: mostFigure(context), because: FIGURE_BECAUSE }),
  },
  {
    name: 'figureAcross',
    label: 'Figure from its hinge',
    kind: 'length',
    default: 0,
    help: 'To the outline’s edge nearest to it; with a minus it goes on past the hinge, where there is no arm.',
    range: (context) => ({
      min: -num(context.sizes, 'figureWide') / 2,
      max: mostFigure(context),
      because: 'at least half of it lies on the arm’s side of its hinge',
    }),
  },
  {
    name: 'gapAtOpen',
    label: 'Gap between the figures, open',
    kind: 'length',
    default: 0,
    help: 'At the full opening; with none they just touch there. The arms are placed for it.',
    range: ({ site }) => ({ min: 0, max: mostGap(site!.length), because: 'arms farther apart do not both stand on the fold' }),
  },
  {
    name: 'middle',
    label: 'Middle of the pair along the fold',
    kind: 'length',
    default: ({ site }) => site!.length / 2,
    help: 'From the lower end of the fold to where the figures meet.',
    range: ({ site }) => ({
      min: EDGE_MARGIN,
      max: site!.length - EDGE_MARGIN,
      because: 'they meet over the fold',
    }),
  },
  {
    name: 'braceWide',
    label: 'Brace between its folds',
    kind: 'length',
    asCut: true,
    default: ({ sizes }) => Math.abs(num(sizes, 'figureHinge')),
    help: 'As wide as the figure’s hinge is from the slanting crease; another width is for one that is already cut.',
    range: ({ sizes }) => ({
      min: Math.abs(num(sizes, 'figureHinge')) - 2,
      max: Math.abs(num(sizes, 'figureHinge')) + 2,
      because: 'a brace that is off by more is no brace',
    }),
  },
  {
    name: 'braceTurn',
    label: 'Brace’s fold, out of parallel',
    kind: 'angle',
    asCut: true,
    default: 0,
    help: 'Parallel to the slanting crease it is 0°; another angle is for one that is already cut.',
    range: () => ({ min: toRadians(-5), max: toRadians(5), because: 'a fold that is off by more is another fold' }),
  },
];

/** From where a figure behind the arm stays above the card: most outlines leave the corners of their box free. */
const behindCard = (context: SizeContext): Mm =>
  inFront(num(context.sizes, 'figureHinge'))
    ? 0
    : aboveCard({ sides: sidesOf(context), hinge: num(context.sizes, 'figureHinge') }, num(context.sizes, 'figureWide') * 0.9);

/** Where hinges have room along the crease, with the sizes as far as they are known. */
function mountIn(context: SizeContext): readonly [Mm, Mm] {
  return mountOf({
    sides: sidesOf(context),
    crest: num(context.sizes, 'crestLength'),
    trim: num(context.sizes, 'trim'),
    ...hinges(context),
  });
}

/** The shortest crease along which hinges have room. */
function leastCrest(context: SizeContext): Mm {
  const [low, high] = mountIn({ ...context, sizes: { ...context.sizes, crestLength: 0 } });
  return low - high + LEAST_MOUNT;
}
