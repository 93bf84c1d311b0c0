import type { Mm, Radians } from '../measure/units.js';
import { place, type Placement } from '../plane/placement.js';
import type { Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Face } from '../sheet/piece.js';
import type { Panel, PanelHinge } from '../sheet/panels.js';
import { rigidIdentity, type Rigid } from './rigid.js';

/**
 * Who is solved first. Tier 0 is the base; every part that stands on it has a tier of its own, after those of all
 * parts that carry it, with the lower tiers held exactly: a movement's misfit never smears into what it is glued to,
 * and a part moves the same alone and beside others.
 */
export type Tier = number;

/** Glue between two panels. Ids name panels (`piece/panel`). */
export interface Bond {
  id: string;
  name: string;
  /** the panel with the glue on it, and on which of its faces */
  panel: string;
  face: Face;
  partner: string;
  partnerFace: Face;
  /** the zone of the panel's piece that the glue covers */
  zone: string;
  /** how the panel's piece lies on the partner's piece; for `closing`, read off the closed card instead */
  placement: Placement;
  placedBy?: 'closing';
  /** joints of one piece that are made in one go have this in common: what the step is called */
  atOnce?: string;
  /** made with the card lying flat and open */
  flat?: true;
  /** where the mechanism knows better than the loops of its joints: before its part closes a loop, as what closes it, or together with that */
  made?: 'on the table' | 'with the next' | 'by closing';
  /** what is held, and how, while it is made: further sentences of its step */
  says?: readonly string[];
  /** the parts find their place as the card is moved with the glue still wet */
  slides?: true;
}

/** A point of one panel that rests on the plane of another. */
export interface Touch {
  id: string;
  panel: string;
  at: Point;
  on: string;
}

/** Σ factor·fold = constant over some hinges. */
export interface Coupling {
  id: string;
  terms: readonly { hinge: string; factor: number }[];
  constant: Radians;
}

/** What is held after gluing, before anything has moved. */
export interface LinkageInput {
  panels: readonly Panel[];
  hinges: readonly PanelHinge[];
  bonds: readonly Bond[];
  touches: readonly Touch[];
  couplings: readonly Coupling[];
  /** the panel that stays still */
  ground: string;
  tierOf: (panel: Panel) => Tier;
}

/** A hinge as the solver sees it: two bodies and a line in their common flat coordinates. */
export interface HingeJoint {
  id: string;
  source: PanelHinge;
  left: number;
  right: number;
  px: Mm;
  py: Mm;
  ux: number;
  uy: number;
  tier: Tier;
  /** nothing holds its two sides together but panels that bend: it closes no loop */
  loose: boolean;
}

/** A bond as the solver sees it: `fixed` carries flat coordinates of body a to those of body b. */
export interface BondJoint {
  id: string;
  source: Bond;
  /** the glued area, in the coordinates of the panel's piece */
  corners: Loop;
  a: number;
  b: number;
  fixed: Rigid;
  tier: Tier;
}

export interface TouchJoint {
  id: string;
  body: number;
  at: Point;
  on: number;
  tier: Tier;
}

export interface Linkage {
  panels: readonly Panel[];
  bodyOf: ReadonlyMap<string, number>;
  hinges: HingeJoint[];
  hingeIndex: ReadonlyMap<string, number>;
  bonds: BondJoint[];
  touches: TouchJoint[];
  couplings: readonly (Coupling & { tier: Tier })[];
  ground: number;
  tiers: Tier;
}

/** Panels that bend on the way from closed to open: their places are known at both ends only. */
export function bendingBodies({ hinges }: Pick<Linkage, 'hinges'>): ReadonlySet<number> {
  return new Set(hinges.filter(({ loose }) => loose).flatMap(({ left, right }) => [left, right]));
}

/** A joint that refers to what is not there, and whose it is. */
export interface BrokenReference {
  owner?: string;
  says: string;
}

/** Joints of a design that name a panel, a fold or a zone that does not exist, each in a sentence. */
export function brokenReferences(
  { panels, hinges, bonds, touches, couplings, ground }: LinkageInput,
  driven: readonly string[] = [],
): BrokenReference[] {
  const panelOf = new Map(panels.map((panel) => [panel.id, panel]));
  const folds = new Set(hinges.map(({ id }) => id));
  const missing = (owner: { owner?: string }, name: string, ids: readonly string[]): BrokenReference[] =>
    ids.filter((id) => !panelOf.has(id)).map((id) => ({ ...owner, says: `${name} needs the panel ${id}, which is not there.` }));
  const ownerOf = (joint: object): { owner?: string } => ('owner' in joint ? { owner: String(joint.owner) } : {});
  return [
    ...missing({}, 'The card', [ground]),
    ...bonds.flatMap((bond) => {
      const found = missing(ownerOf(bond), bond.name, [bond.panel, bond.partner]);
      const zones = panelOf.get(bond.panel)?.piece.zones.filter(({ id }) => id === bond.zone).length;
      return zones === 1 || zones === undefined
        ? found
        : [
            ...found,
            { ...ownerOf(bond), says: `${bond.name} needs one glue zone ${bond.zone}; there ${zones === 0 ? 'is none' : `are ${zones}`}.` },
          ];
    }),
    ...touches.flatMap((touch) => missing(ownerOf(touch), touch.id, [touch.panel, touch.on])),
    ...driven
      .filter((hinge) => !folds.has(hinge))
      .map((hinge) => ({ says: `The card is opened by the fold ${hinge}, which is not there: something cuts it away.` })),
    ...couplings.flatMap((coupling) =>
      coupling.terms
        .filter(({ hinge }) => !folds.has(hinge))
        .map(({ hinge }) => ({ ...ownerOf(coupling), says: `${coupling.id} needs the fold ${hinge}, which is not there.` })),
    ),
  ];
}

/**
 * Numbers the panels of a design and turns its creases, glue and contacts into joints.
 * @throws RangeError naming the joint when it refers to a panel or hinge that does not exist, or when
 *   two like faces are glued without turning one over
 */
export function assemble(input: LinkageInput): Linkage {
  const bodyOf = new Map(input.panels.map((panel, i) => [panel.id, i]));
  const body = (id: string, joint: string): number => {
    const index = bodyOf.get(id);
    if (index === undefined) throw new RangeError(`${joint} refers to the panel ${id}, which does not exist`);
    return index;
  };
  const tierOf = (i: number): Tier => input.tierOf(input.panels[i]!);
  const hinges = input.hinges.map((source): HingeJoint => {
    const length = Math.hypot(source.to[0] - source.from[0], source.to[1] - source.from[1]);
    const left = body(source.left, source.id);
    const right = body(source.right, source.id);
    return {
      id: source.id,
      source,
      left,
      right,
      px: source.from[0],
      py: source.from[1],
      ux: (source.to[0] - source.from[0]) / length,
      uy: (source.to[1] - source.from[1]) / length,
      tier: Math.max(tierOf(left), tierOf(right)),
      loose: source.crease.bends ?? false,
    };
  });
  const bonds = input.bonds.map((source): BondJoint => {
    if (source.placement.flipped !== (source.face === source.partnerFace)) {
      throw new RangeError(`${source.id}: gluing ${source.face} to ${source.partnerFace} does not match its placement`);
    }
    const a = body(source.panel, source.id);
    const b = body(source.partner, source.id);
    const corners = input.panels[a]!.piece.zones.find((zone) => zone.id === source.zone)?.outline;
    if (!corners) throw new RangeError(`${source.id} refers to the zone ${source.zone}, which ${input.panels[a]!.piece.id} does not have`);
    return { id: source.id, source, a, b, corners, fixed: lifted(source.placement), tier: Math.max(tierOf(a), tierOf(b)) };
  });
  const touches = input.touches.map(({ id, panel, at, on }): TouchJoint => {
    const touching = body(panel, id);
    const touched = body(on, id);
    return { id, body: touching, at, on: touched, tier: Math.max(tierOf(touching), tierOf(touched)) };
  });
  const hingeIndex = new Map(hinges.map((hinge, i) => [hinge.id, i]));
  const couplings = input.couplings.map((coupling) => {
    const tiers = coupling.terms.map(({ hinge }) => {
      const index = hingeIndex.get(hinge);
      if (index === undefined) throw new RangeError(`${coupling.id} refers to the fold ${hinge}, which does not exist`);
      return hinges[index]!.tier;
    });
    return { ...coupling, tier: Math.max(...tiers) };
  });
  const tiers = 1 + Math.max(0, ...input.panels.map((_, i) => tierOf(i)));
  return { panels: input.panels, bodyOf, hinges, hingeIndex, bonds, touches, couplings, ground: body(input.ground, 'the ground'), tiers };
}

/** A flat placement as a motion of space: turning face over is half a turn about the y axis. */
export function lifted(placement: Placement): Rigid {
  const m = rigidIdentity();
  const origin = place([0, 0], placement);
  const ex = place([1, 0], placement);
  const ey = place([0, 1], placement);
  m[0] = ex[0] - origin[0];
  m[4] = ex[1] - origin[1];
  m[1] = ey[0] - origin[0];
  m[5] = ey[1] - origin[1];
  m[10] = placement.flipped ? -1 : 1;
  m[3] = origin[0];
  m[7] = origin[1];
  return m;
}
