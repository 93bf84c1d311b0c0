import { printAngle } from '../../measure/print.js';
import { toRadians, type Mm, type Radians } from '../../measure/units.js';
import { polar, type Point } from '../../plane/point.js';
import { composed, place } from '../../plane/placement.js';
import { blankPiece, type Crease, type Cut, type Face, type Fold } from '../../sheet/piece.js';
import { EDGE_MARGIN } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import type { Measure, Movement } from '../contract.js';
import { FIGURE_OUTLINES, isOwnTop, shapedFigure, toppedFigure } from '../crested/figure-outline.js';
import { rayOnLeaf, rayPlacement, rayTab, type RayTab, type Side } from '../crested/ray-tab.js';
import { sidesOf, wingRange } from '../crested/wing-limits.js';
import { introduced } from '../introductions.js';
import { leastDepth, type FoldSite } from '../sites.js';
import { spoken } from '../../measure/sentence.js';
import { num, type FreeSize, type SizeContext } from '../sizes.js';
import { trackedAngle, trackedHeight } from '../tracked.js';
import { mm, angle } from '../measures.js';

/** A slit is longer than its tab at either end by this. */
const SLIT_EASE: Mm = 0.5;
/** Leaves that lie this close together when the card is closed meet. */
const CLOSED_ENOUGH: Radians = toRadians(1);
/** A shorter glue line tears out. */
const LEAST_RAY: Mm = 15;
/** A third of it makes a tab that holds. */
const LEAST_FIRM_RAY: Mm = 24;
/** Room for a tab of 3 mm and the least glue line. */
const LEAST_DEPTH: Mm = 18;

/** On a ridge the crest falls on the other side of the fold, and the difference of ray and wing counts, not their sum. */
const isRidge = ({ site }: Pick<SizeContext, 'site'>): boolean => site?.shape === 'ridge';

const rayRange = () => ({
  min: toRadians(10),
  max: toRadians(85),
  because: 'a glue line nearer the fold leaves no room for its tab, and one across the fold lifts nothing',
});

/** Longest ray whose tab still lies on both leaves. */
function longestRay({ sizes, site }: SizeContext): Mm {
  const dir = sizes['direction'] === 'away' ? -1 : 1;
  const room = dir > 0 ? site!.length - num(sizes, 'apex') : num(sizes, 'apex');
  const across = Math.sin(Math.max(num(sizes, 'rayAngle'), num(sizes, 'secondRayAngle')));
  const along = Math.cos(Math.min(num(sizes, 'rayAngle'), num(sizes, 'secondRayAngle')));
  return Math.min((leastDepth(site!) - EDGE_MARGIN) / across, (room - EDGE_MARGIN) / along);
}

const SIZES: readonly FreeSize[] = [
  {
    name: 'rayAngle',
    label: 'Glue line from the fold',
    kind: 'angle',
    default: toRadians(45),
    help: 'The angle on the leaf between its fold and the line where a wing is glued.',
    range: rayRange,
  },
  {
    name: 'wingAngle',
    label: 'Crest from the glue line',
    kind: 'angle',
    default: ({ sizes }) => num(sizes, 'rayAngle') + toRadians(15),
    help: 'The angle on the figure between its glue line and its crest. Larger leans the figure further.',
    range: (context) => wingRange(context, 1),
  },
  {
    name: 'secondRayAngle',
    label: 'Other glue line from the fold',
    kind: 'angle',
    default: ({ sizes }) => num(sizes, 'rayAngle'),
    help: 'On the other leaf. The same as the first unless you want a lopsided figure.',
    range: rayRange,
  },
  {
    name: 'secondWingAngle',
    label: 'Crest from the other glue line',
    kind: 'angle',
    default: ({ sizes }) => num(sizes, 'wingAngle'),
    help: 'On the other wing. Both angles together must be the same on both sides to close flat.',
    range: (context) => wingRange(context, 2),
  },
  {
    name: 'direction',
    label: 'Point of the V',
    kind: 'choice',
    default: 'toward',
    help: 'Seen from the lower end of the fold: the point comes toward you, or goes away from you.',
    options: [
      { value: 'toward', label: 'toward you' },
      { value: 'away', label: 'away from you' },
    ],
  },
  {
    name: 'apex',
    label: 'Point of the V along the fold',
    kind: 'length',
    default: ({ sizes, site }) => Math.round(site!.length * (sizes['direction'] === 'away' ? 0.6 : 0.4)),
    help: 'From the lower end of the fold to the point of the V.',
    range: ({ sizes, site }) => {
      const along = Math.cos(Math.min(num(sizes, 'rayAngle'), num(sizes, 'secondRayAngle')));
      const room = LEAST_RAY * along + EDGE_MARGIN;
      const because = 'the point of the V lies on the fold, and its wings need a glue line of 15 mm ahead of it';
      return sizes['direction'] === 'away' ? { min: room, max: site!.length, because } : { min: 0, max: site!.length - room, because };
    },
  },
  {
    name: 'wingLength',
    label: 'Glue line',
    kind: 'length',
    default: (context) => Math.min(Math.max(Math.round(leastDepth(context.site!) * 0.5), LEAST_FIRM_RAY), longestRay(context)),
    help: 'How long the line is along which a wing is glued.',
    range: (context) => ({
      min: LEAST_RAY,
      max: longestRay(context),
      because: 'a shorter glue line tears out, and its far end must stay 3 mm inside the leaf',
    }),
  },
  {
    name: 'crestLength',
    label: 'Crest',
    kind: 'length',
    default: ({ site }) => Math.round(leastDepth(site!) * 0.6),
    help: 'Height of the figure along its middle crease.',
    range: ({ site }) => ({ min: 10, max: leastDepth(site!) * 2, because: 'a much taller figure has no card to lie in' }),
  },
  {
    name: 'tabWidth',
    label: 'Tab width',
    kind: 'length',
    default: ({ sizes }) => Math.min(10, Math.max(3, num(sizes, 'wingLength') / 3)),
    help: 'Width of the two glued tabs.',
    range: ({ sizes }) => ({
      min: 3,
      max: Math.max(3, num(sizes, 'wingLength') / 3),
      because: 'a narrower tab cannot be glued, and one wider than a third of its length leaves no straight part',
    }),
  },
  {
    name: 'tabSide',
    label: 'Tabs',
    kind: 'choice',
    default: 'inside',
    help: 'Inside the V the tabs lie flat with the wings; outside they are folded under and add a layer. Through slits they are glued on the other side of the leaves and do not show.',
    options: [
      { value: 'inside', label: 'inside the V' },
      { value: 'outside', label: 'outside the V' },
      { value: 'slot', label: 'through slits in the leaves, inside the V' },
    ],
  },
  {
    name: 'outline',
    label: 'Outline',
    kind: 'outline',
    default: 'cap',
    help: 'The figure’s outer edge: a top that follows from the glue lines, or any shape with its middle on the crest.',
    options: FIGURE_OUTLINES,
  },
];

/** Two wings joined at a crest, each glued by a tab along a ray on one leaf. */
export const vFold: Movement = {
  ...introduced('v-fold'),
  difficulty: 'easy',
  gives: ['something rises', 'carried by a fold'],
  needs: ['light card', 'strong glue or tape'],
  mayGoWrong: ['unequal angles: it binds or stands out when closed', 'too tall: it shows past the closed card', 'glue over the fold'],
  stands: 'fold',
  usualId: 'figure',
  placeSize: 'apex',
  alongSize: 'wingLength',
  cannotStand: (site) =>
    site.closedAt > CLOSED_ENOUGH
      ? `closed, its leaves lie at ${printAngle(site.closedAt)} to each other, and a V lies flat only between leaves that meet`
      : leastDepth(site) < LEAST_DEPTH
        ? `a leaf only ${spoken(leastDepth(site))} deep has no room for a tab`
        : undefined,
  sizes: SIZES,
  build({ sizes, id, outline }, site) {
    const sides = sidesOf({ sizes });
    const dir = sizes['direction'] === 'away' ? -1 : 1;
    const inside = sizes['tabSide'] !== 'outside';
    const ridge = isRidge({ site });
    const flipped = (dir === 1) === inside;
    const length = num(sizes, 'wingLength');
    const crest = num(sizes, 'crestLength');
    const tab = num(sizes, 'tabWidth');
    const apex: Point = [0, num(sizes, 'apex')];

    const tabs = [0, 1].map((i) => rayTab(sides[i]!, i === 0 ? 1 : -1, { length, width: tab, inside }));
    const [tab1, tab2] = [tabs[0]!, tabs[1]!];
    const own = { sides, tabs: [tab1, tab2], length, crest } as const;
    const figure = String(sizes['outline']);
    const { loop, top } = isOwnTop(figure) ? toppedFigure(own, figure) : shapedFigure(own, outline(figure));
    const through = sizes['tabSide'] === 'slot';
    const tabFold: Fold = flipped ? 'mountain' : 'valley';
    // In a valley the closed wing goes on beyond its ray, so an inside tab lies flat with it; over a ridge it is the other way.
    const tabClosed = inside !== ridge ? 0 : flipped ? -Math.PI : Math.PI;
    const crestFold: Fold = dir === 1 ? 'mountain' : 'valley';
    const crease = (own: Pick<Crease, 'id' | 'name' | 'from' | 'to' | 'fold' | 'closed'>): Crease => ({ ...own, ease: 0 });
    const piece = blankPiece({
      id,
      name: 'Figure',
      stock: 'mechanism',
      faceUp: 'front up',
      because: 'crest, both wings and their tabs, cut as one',
      outline: loop,
      creases: [
        crease({ id: 'crest', name: 'crest', from: [0, 0], to: [0, top], fold: crestFold, closed: dir === 1 ? -Math.PI : Math.PI }),
        crease({ id: 'first-ray', name: 'first tab crease', from: tab1.near, to: tab1.far, fold: tabFold, closed: tabClosed }),
        crease({ id: 'second-ray', name: 'second tab crease', from: tab2.near, to: tab2.far, fold: tabFold, closed: tabClosed }),
      ],
      zones: [tab1, tab2].map((t, i) => ({
        id: `${i === 0 ? 'first' : 'second'}-tab-glue`,
        kind: 'glue' as const,
        face: flipped !== through ? ('up' as const) : ('down' as const),
        outline: t.glue,
        says: through
          ? 'glue to the other side of the leaf, pushed through its slit'
          : i === 0
            ? 'glue first, on the line drawn on the leaf'
            : 'glue second, on its own line',
      })),
      anchors: [
        { panel: 'first-wing', name: 'first wing', at: polar([0, 0], Math.min(length, crest) / 3, Math.PI / 2 - sides[0].wing / 2) },
        { panel: 'second-wing', name: 'second wing', at: polar([0, 0], Math.min(length, crest) / 3, Math.PI / 2 + sides[1].wing / 2) },
        { panel: 'first-tab', name: 'first tab', at: tab1.middle },
        { panel: 'second-tab', name: 'second tab', at: tab2.middle },
      ],
    });
    const bond = (i: 0 | 1): Bond => {
      const leaf = site.leaves[i === 0 ? 1 : 0];
      const hand = i === 0 ? 1 : -1;
      return {
        id: `${id}/${i === 0 ? 'first' : 'second'}-tab-bond`,
        name: `${i === 0 ? 'first' : 'second'} tab on the ${leaf.name}`,
        panel: `${id}/${i === 0 ? 'first' : 'second'}-tab`,
        face: flipped !== through ? 'up' : 'down',
        partner: leaf.panel,
        partnerFace: through ? otherFace(leaf.face) : leaf.face,
        ...(through && {
          atOnce: 'both tabs of the figure, through their slits',
          flat: true as const,
          says: [
            'Push the tab through its slit from the inside, put the glue on it there, and fold it down on the other side of the leaf.',
          ],
        }),
        zone: `${i === 0 ? 'first' : 'second'}-tab-glue`,
        placement: composed(leaf.frame, rayPlacement(sides[i]!, { leafHand: hand, pieceHand: hand, dir, flipped, apex })),
      };
    };
    return {
      pieces: [piece],
      bonds: [bond(0), bond(1)],
      edits: ([0, 1] as const).map((i) => ({
        leaf: i === 0 ? 1 : 0,
        ...(through && { cuts: [slitOn(`${id}-slit-${i + 1}`, sides[i], i, tabs[i]!, dir, apex)] }),
        marks: [
          {
            id: `${id}-ray-${i + 1}`,
            from: apex,
            to: polar(apex, length, rayOnLeaf(sides[i], i === 0 ? 1 : -1, dir)),
            says: `${i === 0 ? 'first' : 'second'} tab crease lies here`,
          },
        ],
      })),
      measures: vFoldMeasures(sides, top, site),
      tracked: [
        trackedAngle(
          { id: `${id}-crest-lean`, label: 'Crest from the fold' },
          [`${id}/first-wing`, [0, 1]],
          [site.leaves[1].panel, alongOn(site, dir)],
        ),
        trackedHeight({ id: `${id}-crest-top`, label: 'Height of the crest' }, [`${id}/first-wing`, [0, top]]),
      ],
    };
  },
};

const otherFace = (face: Face): Face => (face === 'up' ? 'down' : 'up');

/** A slit on the ray, as long as the tab’s crease and a little more, so that the tab goes through without buckling. */
function slitOn(id: string, side: Side, i: 0 | 1, { near, far }: RayTab, dir: 1 | -1, apex: Point): Cut {
  const way = rayOnLeaf(side, i === 0 ? 1 : -1, dir);
  const at = (distance: Mm): Point => polar(apex, distance, way);
  return { id, from: at(Math.hypot(...near) - SLIT_EASE), to: at(Math.hypot(...far) + SLIT_EASE) };
}

/** The way of the V's point as a direction of the second leaf's piece. */
function alongOn({ leaves }: FoldSite, dir: 1 | -1): Point {
  const { frame } = leaves[1];
  const [from, to] = [place([0, 0], frame), place([0, dir], frame)];
  return [to[0] - from[0], to[1] - from[1]];
}

function vFoldMeasures([a, b]: readonly [Side, Side], crest: Mm, site: FoldSite): Measure[] {
  const even = a.ray === b.ray && a.wing === b.wing;
  const flat = even
    ? [
        angle(
          'crestLean',
          'Crest from the fold, card flat open',
          Math.acos(Math.cos(a.wing) / Math.cos(a.ray)),
          'cos(lean) = cos(crest from the glue line) ÷ cos(glue line from the fold)',
        ),
      ]
    : [];
  if (site.shape === 'ridge') {
    return [
      ...flat,
      angle(
        'differenceFirst',
        'Crest from the glue line, less the glue line from the fold, first side',
        a.wing - a.ray,
        'over a ridge the closed crest lies at this angle from the fold; it must be the same on both sides',
      ),
      angle('differenceSecond', 'The same, second side', b.wing - b.ray, 'must equal the first side, or the figure does not lie flat'),
      mm(
        'closedReach',
        'Crest from the fold when closed',
        crest * Math.sin(a.wing - a.ray),
        'crest × sin(wing − ray): it stands that far out past the ridge',
      ),
    ];
  }
  return [
    ...flat,
    angle(
      'sumFirst',
      'Both angles together, first side',
      a.ray + a.wing,
      'when closed the crest lies at this angle from the fold; it must be the same on both sides',
    ),
    angle('sumSecond', 'Both angles together, second side', b.ray + b.wing, 'must equal the first side, or the figure does not lie flat'),
    mm(
      'closedReach',
      'Crest from the fold when closed',
      crest * Math.sin(a.ray + a.wing),
      `crest × sin(both angles together); it must stay inside the leaf, ${spoken(leastDepth(site))} deep`,
    ),
  ];
}
