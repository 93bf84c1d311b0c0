import { spoken } from '../../measure/sentence.js';
import { toRadians, type Mm } from '../../measure/units.js';
import { neverPast } from '../../claim/claims.js';
import type { Loop } from '../../plane/outline.js';
import { place } from '../../plane/placement.js';
import type { Point } from '../../plane/point.js';
import { EDGE_MARGIN } from '../../supplies/limits.js';
import type { Measure, Movement } from '../contract.js';
import type { Hand } from '../crested/ray-tab.js';
import { introduced } from '../introductions.js';
import { angle, mm } from '../measures.js';
import { armPiece } from '../paired/arm-piece.js';
import { bracePiece } from '../paired/brace-piece.js';
import { figurePiece } from '../paired/figure-piece.js';
import { apexFromMiddle, closedLean, closedReachOf, figureOutline, leanAt, liftArm, type LiftArm } from '../paired/lift-arm.js';
import { LEAST_PAIR_DEPTH, LEAST_PAIR_LENGTH, PAIR_SIZES } from '../paired/meeting-pair-sizes.js';
import { LOOSE_PANEL_SIZES, loosePanel, smallTabHost } from '../paired/loose-panel.js';
import { agreements } from '../paired/pair-agreements.js';
import { crossesOf, largeTab, onTheTable, smallTab } from '../paired/pair-joins.js';
import { heightOf, panelOf, type Placed, numberOf } from '../paired/placed-arm.js';
import { leastDepth, type FoldSite } from '../sites.js';
import { num } from '../sizes.js';
import { trackedAngle } from '../tracked.js';

/**
 * Two arms, mirror images along one fold: each a crest over the fold, with a figure that is held parallel to one wing by a brace
 * parallel to the other. Slanting, they swing toward each other as the card opens, and the figures meet at the full opening.
 */
export const meetingPair: Movement = {
  ...introduced('meeting-pair'),
  difficulty: 'hard',
  gives: ['two figures meet', 'something rises', 'carried by a fold'],
  needs: ['card for a picture', 'light card', 'strong glue or tape', 'a clip'],
  mayGoWrong: [
    'hinges of a figure or brace not parallel to the slanting crease: it misses by millimetres',
    'brace and hinge of different widths: it binds when the card is nearly flat',
    'arms not mirror images: the figures pass each other',
  ],
  stands: 'fold',
  usualId: 'pair',
  placeSize: 'middle',
  alongSize: 'figureHigh',
  cannotStand: (site) => {
    if (site.closedAt > toRadians(1)) return 'its leaves do not meet when the card is closed';
    if (site.shape === 'ridge') return 'over a ridge its arms would fold away from each other';
    if (site.length < LEAST_PAIR_LENGTH)
      return `the fold is only ${spoken(site.length)} long, and two arms need ${spoken(LEAST_PAIR_LENGTH)}`;
    return leastDepth(site) < LEAST_PAIR_DEPTH
      ? `a leaf is only ${spoken(leastDepth(site))} deep, and arms need ${spoken(LEAST_PAIR_DEPTH)}`
      : undefined;
  },
  sizes: [...PAIR_SIZES, ...LOOSE_PANEL_SIZES],
  build({ sizes, id, outline }, site) {
    const arm = liftArm(sizes);
    const figure = figureOutline(arm, sizes, outline(String(sizes['figureOutline'])));
    const from = apexFromMiddle(arm, figure, site.opensTo, num(sizes, 'gapAtOpen'));
    const middle = num(sizes, 'middle');
    const placed = ([1, -1] as const).map((hand): Placed => ({
      arm,
      hand,
      end: hand === 1 ? 'lower' : 'upper',
      apex: [0, middle - hand * from],
      figure,
      braceWide: num(sizes, 'braceWide'),
      braceTurn: num(sizes, 'braceTurn'),
    }));
    const host = smallTabHost(id, sizes, site);
    const smallCrosses = placed.flatMap((one) => crossesOf(id, one, 'small'));
    const loose = loosePanel(
      id,
      sizes,
      site,
      smallCrosses.map((mark) => ({ ...mark, from: place(mark.from, host.frame), to: place(mark.to, host.frame) })),
    );
    return {
      pieces: [...placed.flatMap((one) => [armPiece(id, one), figurePiece(id, one), bracePiece(id, one)]), ...(loose ? [loose.piece] : [])],
      edits: [
        { leaf: 1, marks: placed.flatMap((one) => crossesOf(id, one, 'large')) },
        ...(loose ? [] : [{ leaf: 0 as const, marks: smallCrosses }]),
      ],
      bonds: [
        ...placed.flatMap((one) => onTheTable(id, one)),
        ...placed.map((one) => smallTab(id, one, host)),
        ...(loose ? [loose.bond] : []),
        ...placed.map((one) => largeTab(id, one, site)),
      ],
      claims: [
        ...agreements(id, placed[0]!, sizes),
        ...placed.map(({ end, hand }) =>
          neverPast({
            id: `${id}-${end}`,
            name: `the figure of arm ${numberOf(end)}`,
            panel: panelOf(id, end, 'figure'),
            of: {
              panel: site.leaves[1].panel,
              at: place([0, middle], site.leaves[1].frame),
              along: directionOn(site, hand),
            },
            where: 'the middle between both arms',
            mend: { size: 'gapAtOpen', label: 'gap between the figures, open', value: num(sizes, 'gapAtOpen'), perMm: 2 },
          }),
        ),
      ],
      measures: measuresOf(arm, figure, from, site),
      tracked: placed.map(({ end, hand }) =>
        trackedAngle(
          { id: `${id}-${end}-lean`, label: `Slanting crease of arm ${numberOf(end)} from the fold` },
          [panelOf(id, end, 'first-wing'), [0, 1]],
          [site.leaves[1].panel, directionOn(site, hand)],
        ),
      ),
      words: {
        fitting: [
          `Open the card fully: both figures come to the middle${num(sizes, 'gapAtOpen') > 0 ? `, ${spoken(num(sizes, 'gapAtOpen'))} apart` : ' and just touch'}. Where one is past it, shift its arm along the ${site.name} before gluing.`,
        ],
      },
    };
  },
};

/** Up the fold, or down it, as a direction of the second leaf's piece. */
function directionOn({ leaves }: FoldSite, hand: Hand): Point {
  const { frame } = leaves[1];
  const [from, to] = [place([0, 0], frame), place([0, hand], frame)];
  return [to[0] - from[0], to[1] - from[1]];
}

function measuresOf(arm: LiftArm, figure: Loop, from: Mm, site: FoldSite): Measure[] {
  const lean = leanAt(arm.sides, site.opensTo);
  const [a, b] = arm.sides;
  const across = (Math.cos(b.ray) - Math.cos(b.wing) * Math.cos(lean)) / Math.sin(b.wing);
  return [
    mm(
      'apexFromMiddle',
      'Apex of each arm from the middle',
      from,
      'so far that the figures just reach the middle, less half the gap, at the full opening',
    ),
    mm(
      'closedReach',
      'Figures’ farthest point from the fold, closed',
      Math.max(...figure.map((point) => closedReachOf(arm, point))),
      `along the slanting crease × sin(both angles together), less across it × their cosine; it must stay inside the leaf, ${spoken(leastDepth(site) - EDGE_MARGIN)}`,
    ),
    angle(
      'crestOpen',
      'Slanting crease from the fold, open',
      lean,
      'where it makes its wing angles with both glue lines; the arm swings down to it',
    ),
    angle(
      'sumFirst',
      'Both angles together, first side',
      closedLean(arm.sides),
      'closed, the slanting crease lies at this angle from the fold; it must be the same on both sides',
    ),
    angle('sumSecond', 'Both angles together, second side', b.ray + b.wing, 'must equal the first side, or the arm does not lie flat'),
    angle(
      'meetingEdge',
      'Edge that meets the other figure’s, across its hinge',
      // Along the edge both figures stay at the middle: dr · across + ds · cos(lean) = 0.
      Math.atan2(across, Math.cos(lean)),
      'a straight edge at this angle to the line square to the hinge meets the other along its length; any other outline meets in a point',
    ),
    mm('hingeLength', 'Hinges along the slanting crease', heightOf(arm), 'as far as both wings have paper beside it'),
    angle('firstSwing', 'Arms swing through', closedLean([a, b]) - lean, 'from the closed card to the full opening'),
  ];
}
