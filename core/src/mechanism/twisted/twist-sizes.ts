import { spoken } from '../../measure/sentence.js';
import type { Mm } from '../../measure/units.js';
import { EDGE_MARGIN, TAB_CLEARANCE } from '../../supplies/limits.js';
import type { UsedUp } from '../contract.js';
import { leastDepth, type FoldSite } from '../sites.js';
import { num, type FreeSize, type SizeContext, type Sizes } from '../sizes.js';

/** A narrower strip has no room for glue on its triangles. */
export const LEAST_TWIST_WIDTH: Mm = 15;
/** Glue on a leg that holds what hangs on it, with the clearance that it keeps from the folds at its ends. */
export const LEAST_LEG_GLUE: Mm = 10 + TAB_CLEARANCE;

/** All sizes of a twist carrier. The strip and the carrier lie with their middles on the fold. */
export interface Twist {
  /** of strip and carrier alike */
  width: Mm;
  strip: Mm;
  carrier: Mm;
  /** where both have their middle along the fold */
  middle: Mm;
  /** whether the carrier’s ends are glued to opposite halves of the legs, as they must be */
  opposite: boolean;
}

export const twistOf = (sizes: Sizes): Twist => ({
  width: num(sizes, 'width'),
  strip: num(sizes, 'stripLength'),
  carrier: num(sizes, 'carrierLength'),
  middle: num(sizes, 'middle'),
  opposite: sizes['secondHalf'] !== 'same',
});

/** From the fold’s middle to where glue on a leg begins: past the square, and past the carrier’s first fold. */
export const glueFrom = ({ carrier, width }: Pick<Twist, 'carrier' | 'width'>): Mm => Math.max(carrier / 4, width / 2);
/** And where it ends: with the shorter of both. */
export const glueTo = ({ strip, carrier }: Pick<Twist, 'strip' | 'carrier'>): Mm => Math.min(strip, carrier) / 2;

/** The widest strip: within the fold, and a carrier that fits the leaf still has quarters as long as half of it. */
export const widestTwist = (site: FoldSite, margin: Mm): Mm =>
  Math.min(site.length - 2 * margin, leastDepth(site), 2 * leastDepth(site) - 2 * LEAST_LEG_GLUE);

const marginOf = ({ sizes }: Pick<SizeContext, 'sizes'>): Mm => num(sizes, 'margin');

/** As long as the leaf allows with a margin, and never less than what must be. */
const asLongAsFits = ({ site, sizes }: SizeContext, least: Mm): Mm => Math.max(least, 2 * (leastDepth(site!) - marginOf({ sizes })));

const leastStrip = ({ sizes }: SizeContext): Mm => num(sizes, 'width') + 2 * LEAST_LEG_GLUE;
const leastCarrier = ({ sizes }: SizeContext): Mm => Math.max(2 * num(sizes, 'width'), 4 * LEAST_LEG_GLUE);

export const TWIST_SIZES: readonly FreeSize[] = [
  {
    name: 'margin',
    label: 'Margin inside the card',
    kind: 'length',
    default: ({ site }) => Math.min(EDGE_MARGIN, (site!.length - LEAST_TWIST_WIDTH) / 2, leastDepth(site!) - LEAST_TWIST_WIDTH),
    help: 'Strip and carrier keep this far inside the closed card, at the free edges and at both ends of the fold.',
    range: ({ site }) => ({
      min: 0,
      max: Math.max(0, Math.min(10, (site!.length - LEAST_TWIST_WIDTH) / 2, leastDepth(site!) - LEAST_TWIST_WIDTH)),
      because: 'a larger one leaves no room for the strip',
    }),
  },
  {
    name: 'width',
    label: 'Width of strip and carrier',
    kind: 'length',
    default: ({ site, sizes }) =>
      Math.max(
        LEAST_TWIST_WIDTH,
        Math.floor(Math.min(widestTwist(site!, marginOf({ sizes })), site!.length / 3, leastDepth(site!) * 0.45)),
      ),
    help: 'Both are as wide: the square in the middle of the strip turns, and the carrier rides on it.',
    range: (context) => ({
      min: LEAST_TWIST_WIDTH,
      max: widestTwist(context.site!, marginOf(context)),
      because: `the folded strip lies along the fold as long as it is wide, inside ${spoken(context.site!.length)} less two margins, and a quarter of a carrier that the leaf takes must be half as long`,
    }),
  },
  {
    name: 'stripLength',
    label: 'Length of the strip',
    kind: 'length',
    default: (context) => asLongAsFits(context, leastStrip(context)),
    help: 'Its legs stand out of the closed card’s fold, half as long as the strip.',
    range: (context) => ({
      min: leastStrip(context),
      max: 2 * leastDepth(context.site!),
      because: 'its legs need room for glue beyond the square, and closed they lie on the leaf, half a strip deep',
    }),
  },
  {
    name: 'carrierLength',
    label: 'Length of the carrier',
    kind: 'length',
    default: (context) => Math.max(leastCarrier(context), Math.min(mostCarrier(context), asLongAsFits(context, leastCarrier(context)))),
    help: 'Folded in quarters: the outer two are glued to the legs, the middle two turn with what you put on them.',
    range: (context) => ({
      min: leastCarrier(context),
      max: Math.max(leastCarrier(context), mostCarrier(context)),
      because:
        'a quarter must be half as long as the strip is wide, glue needs room on the legs, and closed it lies on the leaf, half its length deep',
    }),
  },
  {
    name: 'middle',
    label: 'Middle along the fold',
    kind: 'length',
    default: ({ site }) => site!.length / 2,
    help: 'From the lower end of the fold to the middle of the strip.',
    range: (context) => {
      const half = num(context.sizes, 'width') / 2 + marginOf(context);
      return {
        min: half,
        max: context.site!.length - half,
        because: 'closed, half the width lies on either side of it, inside the margins',
      };
    },
  },
  {
    name: 'secondHalf',
    label: 'Carrier’s last quarter',
    kind: 'choice',
    asCut: true,
    default: 'opposite',
    help: 'It belongs on the half of its leg across from where the first quarter is glued; the other is for one that is already made.',
    options: [
      { value: 'opposite', label: 'glued across from the first' },
      { value: 'same', label: 'glued on the same side as the first' },
    ],
  },
];

/** The longest carrier: on the leaf, and the legs reach far enough past its first fold for glue. */
const mostCarrier = ({ site, sizes }: SizeContext): Mm =>
  Math.min(2 * leastDepth(site!), 2 * num(sizes, 'stripLength') - 4 * LEAST_LEG_GLUE);

/**
 * Strip and carrier are cut off one long side of a sheet, as long as it is; what is left is the card, its fold across the
 * middle of that length. Closed, both then reach to its free edge.
 */
export const TWIST_FROM_SHEET: UsedUp = {
  size: 'width',
  // A third of the fold that is left.
  usual: ({ width, height }) => Math.max(LEAST_TWIST_WIDTH, Math.floor(Math.min(width, height) / 5)),
  range: ({ width, height }) => ({
    min: LEAST_TWIST_WIDTH,
    max: Math.min(Math.min(width, height) / 3, Math.max(width, height) / 2),
    because: 'strip and carrier take two widths off the sheet, and what is left must be as long along the fold as the strip is wide',
  }),
  from: ({ width, height }, value) => {
    const [long, short] = [Math.max(width, height), Math.min(width, height)];
    return { depth: long / 2, length: short - 2 * value, sizes: { margin: 0, width: value, stripLength: long, carrierLength: long } };
  },
};
