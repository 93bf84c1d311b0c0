import { largestFrom, smallestFrom } from '../../measure/largest.js';
import { toRadians, type Mm, type Radians } from '../../measure/units.js';
import { offset, subtract, totalArea } from '../../plane/boolean.js';
import { asArea, type Loop } from '../../plane/outline.js';
import type { Point } from '../../plane/point.js';
import { shapeNamed, SHAPE_OPTIONS } from '../../plane/shapes.js';
import { EDGE_MARGIN } from '../../supplies/limits.js';
import { leastDepth, type FoldSite } from '../sites.js';
import { num, type FreeSize, type SizeContext, type Sizes } from '../sizes.js';
import { closedReachOf, cutHalf, halfOf, shrunkHalf, wholeOf, type BridgeLine, type CutHalf, type HalfOutline } from './half-outline.js';
import { remembered } from './remembered.js';

/** A shorter bridge tears. */
const LEAST_BRIDGE: Mm = 5;
/** Bridges nearer to the fold leave a ring too narrow to fold. */
export const LEAST_AT: Mm = 8;
/** The same of the core. */
const LEAST_CORE_AT: Mm = 4;
/** Between the bridges of ring and core, and between the edges of both. */
const LEAST_RING: Mm = 3;
/** A smaller outline has no room for bridges. */
export const LEAST_SIZE: Mm = 20;
const MOST_SLANT = toRadians(30);

/** Whether something goes back inside the ring. */
export const hasCore = (sizes: Sizes): boolean => sizes['core'] !== 'none';

/** How high a half is on the fold: its lowest and its highest point there. */
export const onFold = (half: HalfOutline): [Mm, Mm] => [half[0]![1], half.at(-1)![1]];
const middleOf = (half: HalfOutline): Mm => (onFold(half)[0] + onFold(half)[1]) / 2;

function outlineIn({ sizes, ownOutlines }: Pick<SizeContext, 'sizes' | 'ownOutlines'>, size: string): Loop {
  // An outline that is not there is told of by its own size; until then a circle stands for it.
  return shapeNamed(String(sizes[size]), ownOutlines) ?? shapeNamed('circle')!;
}

type OutlineContext = Pick<SizeContext, 'sizes' | 'ownOutlines'>;

const moved = (half: HalfOutline, by: Mm): HalfOutline => half.map(([x, y]): Point => [x, y + by]);

/** The outline’s right half, its box’s lower end at 0: what a shape is like does not depend on where it stands. */
const standingRing = (context: OutlineContext): HalfOutline => standing(outlineIn(context, 'outline'), num(context.sizes, 'size'));

/** A size that is refused says no more of what others may be than this one, which is far too small as well. */
const LEAST_DRAWN: Mm = 1;

const standing = (outline: Loop, size: Mm): HalfOutline =>
  remembered(['half', outline, size], () => halfOf(outline, size >= LEAST_DRAWN ? size : LEAST_DRAWN, 0));

/** The core’s right half in such a ring, nothing where a border leaves none. */
function standingCore(context: OutlineContext, measure: Mm): HalfOutline | undefined {
  const ring = standingRing(context);
  if (context.sizes['core'] === 'border') {
    return remembered(['border', outlineIn(context, 'outline'), num(context.sizes, 'size'), measure], () => shrunkHalf(ring, measure));
  }
  const half = standing(outlineIn(context, 'coreOutline'), measure);
  return moved(half, middleOf(ring) - middleOf(half));
}

/** The outline’s right half where it is cut, y from the lower end of the fold. */
export const ringHalf = (context: OutlineContext): HalfOutline => moved(standingRing(context), num(context.sizes, 'offset'));

/** The core’s, as its sizes say; nothing where there is none, or a border leaves none. */
export function coreHalf(context: OutlineContext): HalfOutline | undefined {
  if (!hasCore(context.sizes)) return undefined;
  const half = standingCore(context, num(context.sizes, context.sizes['core'] === 'border' ? 'coreBorder' : 'coreSize'));
  return half && moved(half, num(context.sizes, 'offset'));
}

/** The line of a half’s bridges. */
export const lineOf = ({ sizes }: Pick<SizeContext, 'sizes'>, half: HalfOutline, at: Mm): BridgeLine => ({
  at,
  middle: middleOf(half),
  lean: Math.tan(num(sizes, 'slant')),
});

/** How near to the fold bridges may lie: slanting ones come nearer at one end. */
const leastAt = (least: Mm, height: Mm, slant: Radians): Mm => least + (height / 2) * Math.tan(Math.abs(slant));
const heightOf = (half: HalfOutline): Mm => onFold(half)[1] - onFold(half)[0];
const leastBridgeAt = ({ sizes }: Pick<SizeContext, 'sizes'>): Mm => leastAt(LEAST_AT, num(sizes, 'size'), num(sizes, 'slant'));
const leastCoreAt = ({ sizes }: Pick<SizeContext, 'sizes'>, half: HalfOutline): Mm =>
  leastAt(LEAST_CORE_AT, heightOf(half), num(sizes, 'slant'));

const holdsBridges = (cut: CutHalf | undefined): boolean => cut !== undefined && cut.chord >= LEAST_BRIDGE;

/** Whether an outline made so large has room for bridges. */
function ringHolds(context: SizeContext, size: Mm): boolean {
  const half = standingRing({ ...context, sizes: { ...context.sizes, size } });
  return holdsBridges(cutHalf(half, { at: LEAST_AT, middle: middleOf(half), lean: 0 }));
}

const mostSize = (site: FoldSite): Mm => site.length - 2 * EDGE_MARGIN;
const leastSize = (context: SizeContext): Mm => smallestFrom(LEAST_SIZE, mostSize(context.site!), (size) => ringHolds(context, size));

/** A bridge’s line is followed outward in so many steps: an outline may be narrow in one place and wide beyond it. */
const STEPS = 24;

/** How far out bridges may lie on a half, at the most. */
function mostAt(half: HalfOutline, line: (at: Mm) => BridgeLine, least: Mm, holds: (cut: CutHalf, line: BridgeLine) => boolean): Mm {
  const widest = Math.max(...half.map(([x]) => x));
  const held = (at: Mm): boolean => {
    const cut = cutHalf(half, line(at));
    return cut !== undefined && holdsBridges(cut) && holds(cut, line(at));
  };
  return largestFrom(least, widest, held, { steps: STEPS });
}

/** How far the moving part may reach in the closed card: over the longer leaf, or where its leaves lie flat within its sheet. */
export const roomIn = (site: FoldSite): Mm => Math.max(site.leaves[0].depth, site.leaves[1].depth) - EDGE_MARGIN;

function mostBridgeAt(context: SizeContext): Mm {
  const site = context.site!;
  const flat = site.closedAt > Math.PI / 2;
  const half = ringHalf(context);
  return Math.min(
    leastDepth(site) - EDGE_MARGIN,
    mostAt(
      half,
      (at) => lineOf(context, half, at),
      leastBridgeAt(context),
      (cut, line) => flat || closedReachOf(cut, line) <= roomIn(site),
    ),
  );
}

function mostCoreAt(context: SizeContext, half: HalfOutline): Mm {
  return Math.min(
    num(context.sizes, 'bridgeAt') - LEAST_RING,
    mostAt(
      half,
      (at) => lineOf(context, half, at),
      leastCoreAt(context, half),
      () => true,
    ),
  );
}

const coreHolds = (context: SizeContext, half: HalfOutline | undefined): boolean =>
  half !== undefined && holdsBridges(cutHalf(half, lineOf(context, half, leastCoreAt(context, half))));

/** Whether a core of this measure can be cut out and pushed back. */
function coreFits(context: SizeContext, measure: Mm): boolean {
  const half = standingCore(context, measure);
  if (!half || !coreHolds(context, half)) return false;
  if (context.sizes['core'] === 'border') return true;
  const [outline, size] = [outlineIn(context, 'outline'), num(context.sizes, 'size')];
  const inside = remembered(['inside', outline, size], () => offset(wholeOf(standingRing(context)), -LEAST_RING));
  return remembered(
    ['core', outline, size, outlineIn(context, 'coreOutline'), measure],
    () => totalArea(subtract([asArea(wholeOf(half))], inside.map(asArea))) < 1e-3,
  );
}

/** The same sizes with another core, its own outline known. */
const withCore = (context: SizeContext, core: string): SizeContext => ({
  ...context,
  sizes: { coreOutline: 'circle', ...context.sizes, core },
});

function cannotHaveCore(value: string, context: SizeContext): string | undefined {
  if (value === 'none') return undefined;
  return coreFits(withCore(context, value), value === 'border' ? LEAST_RING : coreSizes(context).min)
    ? undefined
    : 'inside this outline there is no room for a core with bridges of its own';
}

/** To a few hundredths of a millimetre: each try grows or cuts an outline, which takes long. */
const COARSELY = { halvings: 10 };

function mostBorder(given: SizeContext): Mm {
  const context = withCore(given, 'border');
  return largestFrom(LEAST_RING, num(context.sizes, 'size') / 2, (border) => coreFits(context, border), COARSELY);
}

/** An outline of its own is large enough for its bridges, and small enough to stay inside the ring. */
function coreSizes(given: SizeContext): { min: Mm; max: Mm } {
  const context = withCore(given, 'outline');
  const most = Math.max(LEAST_SIZE / 2, heightOf(standingRing(context)) - 2 * LEAST_RING);
  const min = smallestFrom(LEAST_SIZE / 2, most, (size) => coreHolds(context, standingCore(context, size)));
  return { min, max: largestFrom(min, most, (size) => coreFits(context, size), COARSELY) };
}

const chordOf = (context: Pick<SizeContext, 'sizes'>, half: HalfOutline | undefined, at: Mm): Mm =>
  (half && cutHalf(half, lineOf(context, half, at))?.chord) ?? LEAST_BRIDGE;

const rounded = (wanted: Mm, least: Mm, most: Mm): Mm => Math.max(least, Math.min(Math.round(wanted), most));

/** Free sizes of a shape that is pushed through, with limits that keep all its bridges on paper. */
export const PUSHED_SIZES: readonly FreeSize[] = [
  {
    name: 'outline',
    label: 'Outline',
    kind: 'outline',
    default: 'circle',
    help: 'Of what is pushed through. Its right half is cut on both sides of the fold.',
    options: SHAPE_OPTIONS,
    cannotBe: (value, context) =>
      ringHolds({ ...context, sizes: { ...context.sizes, outline: value } }, mostSize(context.site!))
        ? undefined
        : 'as large as the fold allows it still has no room for a bridge 5 mm long, 8 mm from the fold',
  },
  {
    name: 'size',
    label: 'Size along the fold',
    kind: 'length',
    default: (context) =>
      rounded(Math.min(context.site!.length / 2, leastDepth(context.site!) * 0.9), leastSize(context), mostSize(context.site!)),
    help: 'How high the outline is, along the fold.',
    range: (context) => ({
      min: leastSize(context),
      max: mostSize(context.site!),
      because: 'a smaller one has no room for its bridges, and it leaves 3 mm of the fold at both ends',
    }),
  },
  {
    name: 'offset',
    label: 'From the lower end of the fold',
    kind: 'length',
    default: ({ site, sizes }) => (site!.length - num(sizes, 'size')) / 2,
    help: 'To the lower end of the outline.',
    range: ({ site, sizes }) => ({
      min: EDGE_MARGIN,
      max: site!.length - EDGE_MARGIN - num(sizes, 'size'),
      because: 'the fold goes on for at least 3 mm at both ends',
    }),
  },
  {
    name: 'slant',
    label: 'Slant of the bridges',
    kind: 'angle',
    default: 0,
    help: 'Leans the bridges of both sides apart, upward along the fold: the shape comes forward leaning. 0° lifts it straight.',
    range: (context) => {
      const { sizes } = context;
      const half = ringHalf(context);
      const clear = Math.atan((num(sizes, 'bridgeAt') - LEAST_AT) / (num(sizes, 'size') / 2));
      const most = largestFrom(0, Math.min(MOST_SLANT, Math.max(0, clear)), (slant) =>
        [slant, -slant].every((way) =>
          holdsBridges(cutHalf(half, { at: num(sizes, 'bridgeAt'), middle: middleOf(half), lean: Math.tan(way) })),
        ),
      );
      return { min: -most, max: most, because: 'bridges that slant more run into the fold' };
    },
  },
  {
    name: 'bridgeAt',
    label: 'Bridges from the fold',
    kind: 'length',
    default: (context) => rounded(num(context.sizes, 'size') / 4, leastBridgeAt(context), mostBridgeAt(context)),
    help: 'Where what is pushed through stays joined to both leaves. Open to a right angle it stands that far before either leaf.',
    range: (context) => ({
      min: leastBridgeAt(context),
      max: mostBridgeAt(context),
      because: 'a bridge 5 mm long lies inside the outline there, and closed, twice as far stays 3 mm inside the card',
    }),
  },
  {
    name: 'bridgeLength',
    label: 'Length of a bridge',
    kind: 'length',
    default: (context) => {
      const most = chordOf(context, ringHalf(context), num(context.sizes, 'bridgeAt'));
      return rounded(most * 0.6, LEAST_BRIDGE, most);
    },
    help: 'Scored, not cut, in the middle of the line that the bridges lie on; the rest of that line is cut.',
    range: (context) => ({
      min: LEAST_BRIDGE,
      max: chordOf(context, ringHalf(context), num(context.sizes, 'bridgeAt')),
      because: 'a shorter bridge tears, and a longer one ends outside the outline',
    }),
  },
  {
    name: 'core',
    label: 'Core',
    kind: 'choice',
    default: (context) => (cannotHaveCore('border', context) ? 'none' : 'border'),
    help: 'What goes back again inside the ring that comes forward.',
    options: [
      { value: 'border', label: 'an even border inside the outline' },
      { value: 'outline', label: 'an outline of its own' },
      { value: 'none', label: 'none: all of it comes forward' },
    ],
    cannotBe: cannotHaveCore,
  },
  {
    name: 'coreBorder',
    label: 'Border of the ring',
    kind: 'length',
    default: (context) => rounded(num(context.sizes, 'size') / 6, LEAST_RING, mostBorder(context)),
    help: 'How wide the ring is, from the outline to the core.',
    range: (context) => ({
      min: LEAST_RING,
      max: mostBorder(context),
      because: 'a narrower ring tears, and the core needs bridges 5 mm long',
    }),
    shown: (sizes) => sizes['core'] === 'border',
  },
  {
    name: 'coreOutline',
    label: 'Outline of the core',
    kind: 'outline',
    default: 'circle',
    help: 'Its right half is cut on both sides of the fold.',
    options: SHAPE_OPTIONS,
    shown: (sizes) => sizes['core'] === 'outline',
  },
  {
    name: 'coreSize',
    label: 'Core along the fold',
    kind: 'length',
    default: (context) => rounded(num(context.sizes, 'size') / 2, coreSizes(context).min, coreSizes(context).max),
    help: 'How high the core’s outline is.',
    range: (context) => ({
      ...coreSizes(context),
      because: 'the core stays 3 mm inside the outline, and needs bridges 5 mm long',
    }),
    shown: (sizes) => sizes['core'] === 'outline',
  },
  {
    name: 'coreBridgeAt',
    label: 'Bridges of the core from the fold',
    kind: 'length',
    default: (context) => {
      const half = coreHalf(context);
      return half ? rounded(num(context.sizes, 'bridgeAt') / 2, leastCoreAt(context, half), mostCoreAt(context, half)) : LEAST_CORE_AT;
    },
    help: 'Where the core stays joined to the ring. Nearer to the fold it stays further forward.',
    range: (context) => {
      const half = coreHalf(context);
      return {
        min: half ? leastCoreAt(context, half) : LEAST_CORE_AT,
        max: half ? mostCoreAt(context, half) : LEAST_CORE_AT,
        because: 'they lie inside the core, and 3 mm nearer to the fold than the bridges of the ring',
      };
    },
    shown: hasCore,
  },
  {
    name: 'coreBridgeLength',
    label: 'Length of a core bridge',
    kind: 'length',
    default: (context) => {
      const most = chordOf(context, coreHalf(context), num(context.sizes, 'coreBridgeAt'));
      return rounded(most * 0.6, LEAST_BRIDGE, most);
    },
    help: 'As of the ring’s.',
    range: (context) => ({
      min: LEAST_BRIDGE,
      max: chordOf(context, coreHalf(context), num(context.sizes, 'coreBridgeAt')),
      because: 'a shorter bridge tears, and a longer one ends outside the core',
    }),
    shown: hasCore,
  },
  {
    name: 'bridgeEndOff',
    label: 'Bridge end beyond its line',
    kind: 'length',
    asCut: true,
    default: 0,
    help: 'Of the second bridge, its upper end. On its line it is 0; another is for one that is already cut.',
    range: () => ({ min: -3, max: 3, because: 'an end that is off by more is another bridge' }),
  },
];
