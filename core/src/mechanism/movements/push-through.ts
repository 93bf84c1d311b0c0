import { agreement } from '../../claim/claims.js';
import { spoken } from '../../measure/sentence.js';
import type { Mm, Radians } from '../../measure/units.js';
import { offset } from '../../plane/boolean.js';
import type { Loop } from '../../plane/outline.js';
import { composed, place, shifted } from '../../plane/placement.js';
import type { Point } from '../../plane/point.js';
import type { Anchor, Crease, Cut, Fold, StandsFor } from '../../sheet/piece.js';
import { EDGE_MARGIN } from '../../supplies/limits.js';
import type { Measure, Movement } from '../contract.js';
import { introduced } from '../introductions.js';
import { angle, mm } from '../measures.js';
import {
  bridgeOn,
  closedReachOf,
  cutHalf,
  cutLines,
  mirrored,
  movingPart,
  type BridgeLine,
  type CutHalf,
  type HalfOutline,
} from '../pushed/half-outline.js';
import { coreHalf, hasCore, LEAST_AT, LEAST_SIZE, lineOf, onFold, PUSHED_SIZES, ringHalf, roomIn } from '../pushed/push-through-sizes.js';
import { leastDepth, neitherMeetNorLieFlat, type Edit, type FoldSite, type SiteLeaf } from '../sites.js';
import { num, type SizeContext, type Sizes } from '../sizes.js';
import { trackedHeight } from '../tracked.js';

/** What is cut round, once: the ring, or the core in it. */
interface Moving {
  /** `ring` or `core` */
  name: 'ring' | 'core';
  half: HalfOutline;
  line: BridgeLine;
  cut: CutHalf;
  bridge: Mm;
  /** how far the upper end of its second bridge is cut beyond the line: none, but where a hand erred */
  off: Mm;
}

/**
 * A shape cut into the fold but for bridges on two lines, one on either leaf, that are mirror images in the fold. With the
 * leaves it makes a rhombus: it comes forward as the card opens. Inside it another may go back in the same way.
 */
export const pushThrough: Movement = {
  ...introduced('push-through'),
  difficulty: 'medium',
  gives: ['something rises', 'carried by a fold', 'carries a movement'],
  needs: ['knife and steel rule'],
  mayGoWrong: [
    'bridges of one side not on one line: it bulges half open',
    'bridges not mirror images in the fold: it tips sideways as it closes',
    'glue under what moves',
  ],
  stands: 'fold',
  usualId: 'shape',
  placeSize: 'offset',
  alongSize: 'size',
  cannotStand: (site) => {
    if (!site.oneSheet) return 'the two leaves of this fold are separate pieces, so nothing can be cut across it';
    if (site.shape === 'ridge') return 'over a ridge it would close inside out';
    if (site.length < LEAST_SIZE + 2 * EDGE_MARGIN) return `the fold is only ${spoken(site.length)} long`;
    if (leastDepth(site) < LEAST_AT + EDGE_MARGIN || (site.closedAt < Math.PI / 2 && roomIn(site) < 2 * LEAST_AT + 1)) {
      return `its leaves are only ${spoken(site.leaves[0].depth)} and ${spoken(site.leaves[1].depth)} deep`;
    }
    return neitherMeetNorLieFlat(site);
  },
  sizes: PUSHED_SIZES,
  build({ sizes, id, outline }, site) {
    const context = { sizes, ownOutlines: { [String(sizes['outline'])]: outline(String(sizes['outline'])), ...coreShape(sizes, outline) } };
    const moving = movingOf(context);
    const [ring, core] = moving as [Moving, Moving?];
    const flat = site.closedAt > Math.PI / 2;
    return {
      edits: [
        {
          leaf: 1,
          region: movingPart(ring.cut),
          cuts: moving.flatMap((part) => cutsOf(id, part)),
          creases: [...foldsOf(id, ring, flat, core), ...(core ? foldsOf(id, core, flat) : [])],
          anchors: moving.flatMap((part) => anchorsOf(id, part)),
          zones: [
            {
              id: `${id}-no-glue`,
              kind: 'keep-clear',
              face: 'down',
              outline: offset(movingPart(ring.cut), CLEAR_OF_GLUE)[0]!,
              says: 'no glue under what is pushed through',
            },
          ],
        } satisfies Edit,
      ],
      sites: moving.flatMap((part) => sitesOn(id, part, site, core)),
      claims: [
        agreement({
          id: `${id}-bridge-end`,
          name: 'The upper end of the second bridge, beyond its line',
          with: 'the other bridge ends, which lie on theirs',
          value: ring.off,
          wanted: 0,
          unit: 'mm',
          play: CANNOT_BE_SET,
          or: 'what is pushed through bulges half open, and its halves do not lie on each other when it is closed',
          panels: [panelOf(site, id, 'ring', 'first'), panelOf(site, id, 'ring', 'second')],
          mend: { size: 'bridgeEndOff', label: 'bridge end beyond its line', value: 0 },
        }),
      ],
      measures: measuresOf(moving, num(sizes, 'slant'), site),
      tracked: moving.map(({ name, half }) =>
        trackedHeight({ id: `${id}-${name}`, label: `Height of the ${name}’s fold` }, [
          panelOf(site, id, name, 'second'),
          place([0, onFold(half)[name === 'ring' ? 1 : 0]], site.leaves[1].frame),
        ]),
      ),
      words: {
        fitting: [
          `Push the ring through from behind: its fold, which ran with the ${site.name}, is turned the other way${core ? ', and the core’s is turned back' : ''}.`,
        ],
      },
    };
  },
};

/** A hand cannot set less. */
const CANNOT_BE_SET: Mm = 0.05;
/** Glue stays this far from what moves. */
const CLEAR_OF_GLUE: Mm = 2;

const coreShape = (sizes: Sizes, outline: (name: string) => Loop): Record<string, Loop> =>
  sizes['core'] === 'outline' ? { [String(sizes['coreOutline'])]: outline(String(sizes['coreOutline'])) } : {};

function movingOf(context: Pick<SizeContext, 'sizes' | 'ownOutlines'>): Moving[] {
  const { sizes } = context;
  const half = ringHalf(context);
  const ring = { ...part('ring', context, half, num(sizes, 'bridgeAt'), num(sizes, 'bridgeLength')), off: num(sizes, 'bridgeEndOff') };
  if (!hasCore(sizes)) return [ring];
  const inner = coreHalf(context)!;
  return [ring, part('core', context, inner, num(sizes, 'coreBridgeAt'), num(sizes, 'coreBridgeLength'))];
}

function part(name: Moving['name'], context: Pick<SizeContext, 'sizes'>, half: HalfOutline, at: Mm, bridge: Mm): Moving {
  const line = lineOf(context, half, at);
  return { name, half, line, cut: cutHalf(half, line)!, bridge, off: 0 };
}

/** Where the second bridge ends above: on its line, or where it was cut. */
const upperEnd = ({ cut, bridge, off }: Moving): Point => {
  const { to } = bridgeOn(cut, bridge);
  return [to[0] + off, to[1]];
};

function linesRound(moving: Moving): [Point[], Point[]] {
  const [lower, upper] = cutLines(moving.cut, moving.bridge);
  return [lower, [...upper.slice(0, -1), upperEnd(moving)]];
}

const cutsOf = (id: string, moving: Moving): Cut[] =>
  linesRound(moving).flatMap((points, k) =>
    points.slice(1).map((to, i) => ({
      id: `${id}-${moving.name}-${k === 0 ? 'lower' : 'upper'}-${i + 1}`,
      line: `${id}-${moving.name}-${k === 0 ? 'lower' : 'upper'}`,
      from: points[i]!,
      to,
    })),
  );

/** Bridges fold toward the side that the fold was on before, what they carry folds the other way. */
function foldsOf(id: string, moving: Moving, flat: boolean, inner?: Moving): Crease[] {
  const { name, half, cut, bridge } = moving;
  const outward = name === 'ring';
  const [bridges, middle]: [Fold, Fold] = outward ? ['valley', 'mountain'] : ['mountain', 'valley'];
  const crease = (suffix: string, called: string, from: Point, to: Point, fold: Fold, standsFor?: StandsFor): Crease => ({
    id: `${id}-${name}-${suffix}`,
    name: `${called} of the ${name}`,
    from,
    to,
    fold,
    closed: flat ? 0 : fold === 'valley' ? Math.PI : -Math.PI,
    ease: 0,
    ...(standsFor && { standsFor }),
  });
  const { from, to } = bridgeOn(cut, bridge);
  const size = outward ? 'bridgeAt' : 'coreBridgeAt';
  const [low, high] = onFold(half);
  const fold = (suffix: string, called: string, a: Mm, b: Mm): Crease => crease(suffix, called, [0, a], [0, b], middle);
  const gap = inner && onFold(inner.half);
  return [
    crease('first-bridge', 'first bridge', mirrored(from), mirrored(to), bridges, { size, perMm: -1 }),
    crease('second-bridge', 'second bridge', from, upperEnd(moving), bridges, { size, perMm: 1 }),
    ...(gap
      ? [fold('lower-fold', 'lower fold', low, gap[0]), fold('upper-fold', 'upper fold', gap[1], high)]
      : [fold('fold', 'fold', low, high)]),
  ];
}

/** Just inside a bridge there is always paper of what it carries. */
const BESIDE_BRIDGE: Mm = 0.3;

function anchorsOf(id: string, moving: Moving): Anchor[] {
  const { name, cut, bridge, off } = moving;
  const { middle } = bridgeOn(cut, bridge);
  const beside = (x: Mm): Point => [x - BESIDE_BRIDGE, middle[1]];
  // A bridge whose end is off its line is off it by half in its middle.
  const at = beside(middle[0] + off / 2);
  return [
    { panel: `${id}-${name}-first`, name: `first half of the ${name}`, at: mirrored(beside(middle[0])) },
    { panel: `${id}-${name}-second`, name: `second half of the ${name}`, at },
  ];
}

const panelOf = (site: FoldSite, id: string, name: string, half: 'first' | 'second'): string =>
  `${site.leaves[1].panel.slice(0, site.leaves[1].panel.indexOf('/'))}/${id}-${name}-${half}`;

/** The folds of what moves: where a core interrupts it, the ring’s is offered above and below by itself. */
function sitesOn(id: string, { name, half, line }: Moving, site: FoldSite, core?: Moving): FoldSite[] {
  const [low, high] = onFold(half);
  const gap = name === 'ring' && core ? onFold(core.half) : undefined;
  const stretches: [string, Mm, Mm][] = gap
    ? [
        ['lower-fold', low, gap[0]],
        ['upper-fold', gap[1], high],
      ]
    : [['fold', low, high]];
  const { frame, face } = site.leaves[1];
  return stretches.map(([suffix, from, to]): FoldSite => {
    const leaf = (which: 'first' | 'second'): SiteLeaf => ({
      panel: panelOf(site, id, name, which),
      name: `${which} half of the ${name}`,
      face,
      frame: composed(frame, shifted([0, from])),
      depth: line.at,
      caliper: site.leaves[which === 'first' ? 0 : 1].caliper,
    });
    return {
      kind: 'fold',
      id: `${name}-${suffix}`,
      name: suffix === 'fold' ? `fold of the ${name}` : `${suffix.replace('-', ' ')} of the ${name}`,
      part: id,
      hinge: `${panelOf(site, id, name, 'first').split('/')[0]}/${id}-${name}-${suffix}`,
      leaves: [leaf('first'), leaf('second')],
      length: to - from,
      shape: name === 'ring' ? 'ridge' : 'valley',
      closedAt: site.closedAt,
      opensTo: site.opensTo,
      oneSheet: true,
    };
  });
}

/** It stands farthest before both leaves at a right angle: bridges × sine of the opening. */
const SHOWS_BEST: Radians = Math.PI / 2;

function measuresOf([ring, core]: readonly Moving[], slant: Radians, site: FoldSite): Measure[] {
  const best = Math.min(SHOWS_BEST, site.opensTo);
  const cos = Math.cos(best / 2);
  const { at } = ring!.line;
  const reach = closedReachOf(ring!.cut, ring!.line);
  return [
    mm(
      'closedReach',
      'Farthest from the fold, closed',
      reach,
      'closed, each half lies mirrored in its bridges; it must stay inside the card',
    ),
    angle('showsBest', 'Shows best open to', best, 'it stands farthest before both leaves at a right angle'),
    mm(
      'ringStands',
      'Ring’s fold from the card’s fold, there',
      2 * at * cos,
      'twice the bridges’ distance, times the cosine of half the opening',
    ),
    mm(
      'ringChord',
      'Line of the ring’s bridges',
      ring!.cut.chord,
      'as long as it is inside the outline: the bridge is scored, the rest is cut',
    ),
    ...(core
      ? [
          mm(
            'coreStands',
            'Core’s fold from the card’s fold, there',
            2 * (at - core.line.at) * cos,
            'as the ring’s, less what the core goes back: its own bridges count from those of the ring',
          ),
          mm('coreChord', 'Line of the core’s bridges', core.cut.chord, 'as long as it is inside the core’s outline'),
        ]
      : []),
    ...(slant === 0
      ? []
      : [angle('slanted', 'Bridges slant by', slant, 'mirrored on both sides: the ring leans instead of coming straight forward')]),
  ];
}
