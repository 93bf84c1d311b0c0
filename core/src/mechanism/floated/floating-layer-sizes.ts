import type { Mm } from '../../measure/units.js';
import { EDGE_MARGIN, LEAST_TAB, TAB_CLEARANCE } from '../../supplies/limits.js';
import { leastDepth, type FoldSite } from '../sites.js';
import { num, type FreeSize, type SizeContext, type Sizes } from '../sizes.js';

/** Supports nearer to each other than this hold the layer no better than one. */
const LEAST_APART: Mm = 2;
/** Supports keep this far inside the layer's sides, so that they do not show. */
const HIDDEN: Mm = 2;
/** A narrower support twists. */
const LEAST_SUPPORT: Mm = 5;
/** Glue on it is wide enough to hold. */
export const LEAST_TAB_WIDTH: Mm = LEAST_TAB + TAB_CLEARANCE;
/** A support that does not twist hides behind it. */
export const LEAST_WIDTH: Mm = LEAST_SUPPORT + 2 * HIDDEN;

/** The lowest layer that has room for two supports with tabs of this width, one above the other, clear of its fold. */
const leastHeight = (tab: Mm): Mm => 2 * (tab + TAB_CLEARANCE) + LEAST_APART;
/** A layer nearer than this to its leaf leaves no room for the tab behind its foot. */
const leastLift = (tab: Mm): Mm => tab + TAB_CLEARANCE;

/**
 * How far a layer may reach. Between leaves that close on each other its upper edge comes to lie lift + height from the
 * fold, over the longer leaf; where the closed leaves lie flat it is laid back over the first leaf, lift less far.
 */
function room(site: FoldSite): { lift: Mm; height: Mm; both: Mm } {
  const [first, second] = site.leaves.map((leaf) => leaf.depth - EDGE_MARGIN);
  return { lift: second!, height: first!, both: site.closedAt > Math.PI / 2 ? first! + second! : Math.max(first!, second!) };
}

/** The widest tab for which there is room. */
export function mostTab(site: FoldSite): Mm {
  const { lift, height, both } = room(site);
  return Math.min(
    lift - TAB_CLEARANCE,
    (height - LEAST_APART) / 2 - TAB_CLEARANCE,
    (both - LEAST_APART) / 3 - TAB_CLEARANCE,
    leastDepth(site) / 4,
  );
}

/** Width of all its tabs. */
export const tabOf = (sizes: Sizes): Mm => num(sizes, 'tabWidth');
const mostLift = ({ site, sizes }: SizeContext): Mm => Math.min(room(site!).lift, room(site!).both - leastHeight(tabOf(sizes)));
const mostHeight = ({ site, sizes }: SizeContext): Mm => Math.min(room(site!).height, room(site!).both - num(sizes, 'lift'));
const within = (wanted: Mm, least: Mm, most: Mm): Mm => Math.max(least, Math.min(wanted, most));

/** Free sizes of a floating layer, with limits that keep its supports hidden and all of it inside the card. */
export const LAYER_SIZES: readonly FreeSize[] = [
  {
    name: 'tabWidth',
    label: 'Tab width',
    kind: 'length',
    default: ({ site }) => within(Math.min(10, Math.round(leastDepth(site!) / 8)), LEAST_TAB_WIDTH, mostTab(site!)),
    help: 'Of all tabs: the one behind the layer’s foot, and both of each support.',
    range: ({ site }) => ({
      min: LEAST_TAB_WIDTH,
      max: mostTab(site!),
      because: 'a narrower tab peels off, and a wider one leaves no room for two supports behind the layer',
    }),
  },
  {
    name: 'lift',
    label: 'Lift',
    kind: 'length',
    default: (context) => within(Math.round(leastDepth(context.site!) / 5), leastLift(tabOf(context.sizes)), mostLift(context)),
    help: 'From the first leaf to the layer: how far in front of it the layer floats.',
    range: (context) => ({
      min: leastLift(tabOf(context.sizes)),
      max: mostLift(context),
      because: 'the tab is hidden behind the layer, and closed, lift and height together stay 3 mm inside the card',
    }),
  },
  {
    name: 'height',
    label: 'Height',
    kind: 'length',
    default: (context) => within(Math.round(leastDepth(context.site!) / 2), leastHeight(tabOf(context.sizes)), mostHeight(context)),
    help: 'Of the layer, from the second leaf up to its upper edge.',
    range: (context) => ({
      min: leastHeight(tabOf(context.sizes)),
      max: mostHeight(context),
      because: 'two supports must find room behind it, and closed, lift and height together stay 3 mm inside the card',
    }),
  },
  {
    name: 'width',
    label: 'Width',
    kind: 'length',
    default: ({ site }) => within(Math.round(site!.length / 2), LEAST_WIDTH, site!.length - 2 * EDGE_MARGIN),
    help: 'Of the layer, along the fold.',
    range: ({ site }) => ({
      min: LEAST_WIDTH,
      max: site!.length - 2 * EDGE_MARGIN,
      because: 'a support 5 mm wide must hide behind it, and it leaves 3 mm of the fold at both ends',
    }),
  },
  {
    name: 'offset',
    label: 'From the lower end of the fold',
    kind: 'length',
    default: ({ site, sizes }) => (site!.length - num(sizes, 'width')) / 2,
    help: 'To the layer.',
    range: ({ site, sizes }) => ({
      min: EDGE_MARGIN,
      max: site!.length - EDGE_MARGIN - num(sizes, 'width'),
      because: 'the fold goes on for at least 3 mm at both ends',
    }),
  },
  {
    name: 'upperSupport',
    label: 'Upper support',
    kind: 'length',
    default: ({ sizes }) => num(sizes, 'height') - tabOf(sizes) - TAB_CLEARANCE,
    help: 'How far above the layer’s foot it holds the layer; it stands as far up the first leaf.',
    range: ({ sizes }) => ({
      min: tabOf(sizes) + TAB_CLEARANCE + LEAST_APART,
      max: num(sizes, 'height') - tabOf(sizes) - TAB_CLEARANCE,
      because: 'its tab lies on the layer’s back, and another support stands below it',
    }),
  },
  {
    name: 'lowerSupport',
    label: 'Lower support',
    kind: 'length',
    default: ({ sizes }) => {
      const upper = num(sizes, 'upperSupport');
      return within(Math.round(upper / 2), tabOf(sizes) + TAB_CLEARANCE, upper - LEAST_APART);
    },
    help: 'The same of the lower one.',
    range: ({ sizes }) => ({
      min: tabOf(sizes) + TAB_CLEARANCE,
      max: num(sizes, 'upperSupport') - LEAST_APART,
      because: 'its foot is clear of the fold, and it stands below the upper one',
    }),
  },
  {
    name: 'supportWidth',
    label: 'Width of the supports',
    kind: 'length',
    default: ({ sizes }) => Math.max(LEAST_SUPPORT, num(sizes, 'width') - 10),
    help: 'Along the fold; they stand behind the middle of the layer.',
    range: ({ sizes }) => ({
      min: LEAST_SUPPORT,
      max: num(sizes, 'width') - 2 * HIDDEN,
      because: 'a narrower one twists, and a wider one shows beside the layer',
    }),
  },
];
