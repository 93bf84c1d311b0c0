import type { Mm } from '../../measure/units.js';
import type { Point } from '../../plane/point.js';
import { blankPiece, type Crease, type Cut, type Mark, type Piece } from '../../sheet/piece.js';
import { inFront, TONGUE_RIM, type LiftArm } from './lift-arm.js';
import { fold, numberOf, pieceId, type Placed, tabsOf } from './placed-arm.js';

/** An arm, its outer face up, the slanting crease upright from the apex: the first wing right of it on the lower arm. */
export function armPiece(id: string, one: Placed): Piece {
  const { arm, hand, end } = one;
  const [large, small] = tabsOf(one);
  const mirror = ([x, y]: Point): Point => [hand * x, y];
  const corner = (i: 0 | 1): Point[] => {
    const [across, along] = [arm.rays[i] * Math.sin(arm.sides[i].wing), arm.rays[i] * Math.cos(arm.sides[i].wing)];
    return arm.crest > along + 1e-6 ? [mirror([i === 0 ? across : -across, arm.crest])] : [];
  };
  const start = (i: 0 | 1): Point =>
    mirror([(i === 0 ? 1 : -1) * arm.trim * Math.sin(arm.sides[i].wing), arm.trim * Math.cos(arm.sides[i].wing)]);
  const begun = arm.trim > 0;
  const loop: Point[] = [
    [0, arm.trim],
    ...(begun ? [start(0)] : []),
    ...large.loop,
    ...corner(0),
    [0, arm.crest],
    ...corner(1),
    ...[...small.loop].reverse(),
    ...(begun ? [start(1)] : []),
  ];
  const [low, high] = tongueOf(arm);
  const crest = (suffix: string, from: Mm, to: Mm): Crease => ({
    ...fold(`crest${suffix}`, 'slanting crease', [0, from], [0, to], 'mountain'),
    closed: -Math.PI,
  });
  return blankPiece({
    id: pieceId(id, end, 'arm'),
    name: `Arm ${numberOf(end)}`,
    stock: 'mechanism',
    faceUp: 'outer face up',
    because: 'both wings, their tabs, and the slanting crease between them',
    outline: hand === 1 ? loop : [...loop].reverse(),
    creases: [
      ...(inFront(arm.hinge) ? [crest('', arm.trim, low), crest('-beyond', high, arm.crest)] : [crest('', arm.trim, arm.crest)]),
      fold('large-tab', 'large tab’s crease', large.near, large.far, 'mountain'),
      fold('small-tab', 'small tab’s crease', small.near, small.far, 'mountain'),
    ],
    cuts: inFront(arm.hinge) ? tongueCuts(one) : [],
    zones: [
      { id: 'large-glue', kind: 'glue', face: 'up', outline: large.glue, says: 'glue to its leaf, both corners on their crosses' },
      { id: 'small-glue', kind: 'glue', face: 'up', outline: small.glue, says: 'glue to its leaf, both corners on their crosses' },
    ],
    marks: hingeMarks(one),
    anchors: [
      { panel: 'first-wing', name: `first wing of arm ${numberOf(end)}`, at: besideRay(one, 0) },
      { panel: 'second-wing', name: `second wing of arm ${numberOf(end)}`, at: besideRay(one, 1) },
      { panel: 'large-tab', name: `large tab of arm ${numberOf(end)}`, at: large.middle },
      { panel: 'small-tab', name: `small tab of arm ${numberOf(end)}`, at: small.middle },
    ],
  });
}

/** A point of a wing next to its tab's crease: there is always paper, whatever is cut out of it. */
function besideRay({ arm, hand }: Placed, i: 0 | 1): Point {
  const { wing } = arm.sides[i];
  const [at, beside] = [(arm.trim + arm.rays[i]) / 2, 0.4];
  const across = at * Math.sin(wing) - beside * Math.cos(wing);
  return [hand * (i === 0 ? across : -across), at * Math.cos(wing) + beside * Math.sin(wing)];
}

const tongueOf = ({ mount: [low, high] }: LiftArm): [Mm, Mm] => [low - TONGUE_RIM, high + TONGUE_RIM];

/** Cut on three sides out of the second wing, it stays with the first: past the slanting crease. */
function tongueCuts({ arm, hand }: Placed): Cut[] {
  const [low, high] = tongueOf(arm);
  const x = -hand * (arm.tab + TONGUE_RIM - arm.hinge);
  const corners: Point[] = [
    [0, low],
    [x, low],
    [x, high],
    [0, high],
  ];
  return corners.slice(1).map((to, i) => ({ id: `tongue-${i + 1}`, line: 'tongue', from: corners[i]!, to }));
}

/** Where figure and brace are hinged on the wings: before the arm the brace on its outer face, all else on the inner one. */
function hingeMarks({ arm, hand }: Placed): Mark[] {
  const [low, high] = arm.mount;
  const mark = (id: string, across: Mm, face: 'up' | 'down', says: string): Mark => ({
    ...{ id, from: [across, low], to: [across, high], says },
    ...(face === 'down' && { face }),
  });
  return [
    mark(
      'figure-line',
      hand * arm.hinge,
      'down',
      inFront(arm.hinge)
        ? 'the fold of the figure’s tab lies here, its tab toward the end of the tongue'
        : 'the fold of the figure’s tab lies here, its tab toward the slanting crease',
    ),
    mark(
      'brace-line',
      -hand * arm.brace,
      inFront(arm.hinge) ? 'up' : 'down',
      `the fold of the brace lies here, its tab ${inFront(arm.hinge) ? 'away from' : 'toward'} the slanting crease`,
    ),
  ];
}
