import { printAngle } from '../measure/print.js';
import type { Mm, Radians } from '../measure/units.js';
import { composed, type Placement } from '../plane/placement.js';
import type { Loop } from '../plane/outline.js';
import type { Anchor, Crease, Cut, Face, Mark, Window, Zone } from '../sheet/piece.js';

/**
 * One side of a fold, as a movement on that fold sees it. A site has axes of its own: x across the fold, negative on
 * the first leaf and positive on the second, y along the fold from its lower end; seen from the face it stands on.
 */
export interface SiteLeaf {
  panel: string;
  /** what a maker calls it: “back leaf” */
  name: string;
  /** the face of the leaf's piece that the movement stands on */
  face: Face;
  /** how the site's plane lies on the leaf's piece */
  frame: Placement;
  /** the largest distance from the fold, over its whole length, that is still on this leaf */
  depth: Mm;
  /** thickness of its stock */
  caliper: Mm;
}

/** A fold that a movement may stand on. */
export interface FoldSite {
  kind: 'fold';
  id: string;
  /** what a maker calls it: “main fold” */
  name: string;
  /** the part that offers it */
  part: string;
  /** creases that make the fold, by hinge id; empty where glue makes it (a strip’s foot on its leaf) */
  hinge: string;
  leaves: readonly [SiteLeaf, SiteLeaf];
  length: Mm;
  /** a valley has its leaves in front of it, a ridge behind it, as seen from where the movement stands */
  shape: 'valley' | 'ridge';
  /** angle between the leaves, on the side where it is less than half a turn: in the closed card, and as far as it opens */
  closedAt: Radians;
  opensTo: Radians;
  /** whether both leaves are one sheet: what is cut across the fold stays joined */
  oneSheet: boolean;
}

/** All kinds of places that a movement may stand on. */
export type Site = FoldSite;

/**
 * What a part draws on the leaves of its site, in the site's own axes. `draw` carries it to the pieces.
 * Creases and cuts that run across the fold go on both leaves by themselves where the leaves are one sheet.
 */
export interface Edit {
  /** which leaf it is drawn on; lines across the fold of one sheet are given once, on either */
  leaf: 0 | 1;
  creases?: readonly Crease[];
  cuts?: readonly Cut[];
  windows?: readonly Window[];
  zones?: readonly Zone[];
  marks?: readonly Mark[];
  anchors?: readonly Anchor[];
  /** the paper it takes for itself: the fold ends there, and nothing else may be cut or glued there */
  region?: Loop;
}

/** The same fold seen from its other end: the leaves change places, and y runs the other way. */
export function turnedSite(site: FoldSite): FoldSite {
  const half: Placement = { to: [0, site.length], turn: Math.PI, flipped: false };
  const [first, second] = site.leaves.map((leaf): SiteLeaf => ({ ...leaf, frame: composed(leaf.frame, half) }));
  return { ...site, leaves: [second!, first!] };
}

/** The shallower of the two leaves. */
export const leastDepth = ({ leaves }: FoldSite): Mm => Math.min(leaves[0].depth, leaves[1].depth);

/** Why what closes flat only between leaves that meet or lie flat cannot close on a fold, as a clause; nothing where it can. */
export function neitherMeetNorLieFlat({ closedAt }: FoldSite): string | undefined {
  return closedAt > 1e-6 && closedAt < Math.PI - 1e-6 ? `closed, its leaves lie at ${printAngle(closedAt)} to each other` : undefined;
}
