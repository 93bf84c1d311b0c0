import type { Panel } from '../sheet/panels.js';
import type { BondJoint, Linkage } from './structure.js';
import { inverse, rigidIdentity, type Rigid } from './rigid.js';

/** One step down the tree: where `child` is, given `parent`. */
export interface Branch {
  parent: number;
  child: number;
  /** index of the hinge, or -1 for glue */
  hinge: number;
  /** +1 when the child turns with the fold angle about the hinge's own direction, -1 against it */
  sign: number;
  /** for glue: child = parent ∘ fixed */
  fixed: Rigid;
}

export interface SpanningTree {
  /** parents before children */
  branches: Branch[];
  /** by hinge: the step down that it makes, where it makes one */
  branchOf: readonly (Branch | undefined)[];
  /** joints left over: each closes a loop */
  openBonds: BondJoint[];
  openHinges: number[];
  /** ancestry[body × hinges + hinge] is 1 when that tree hinge moves that body */
  moves: Uint8Array;
}

/** A panel that no fold and no glue joins to the ground, if there is one: its piece falls apart. */
export function unjoinedPanel({ panels, hinges, bonds, ground }: Linkage): Panel | undefined {
  const joints = [
    ...hinges.filter(({ loose }) => !loose).map(({ left, right }) => [left, right] as const),
    ...bonds.map(({ a, b }) => [a, b] as const),
  ];
  const reached = new Set([ground]);
  for (let before = 0; before < reached.size;) {
    before = reached.size;
    for (const [a, b] of joints) if (reached.has(a) || reached.has(b)) reached.add(a).add(b);
  }
  return panels.find((_, i) => !reached.has(i));
}

/**
 * A tree of joints from the ground to every panel. Hinges come first and bonds in the order given, so
 * that loops are closed at glue, where misfit is felt.
 * @throws RangeError when a panel is joined to nothing
 */
export function spanningTree(linkage: Linkage): SpanningTree {
  const { panels, hinges, bonds } = linkage;
  const groups = panels.map((_, i) => i);
  const find = (i: number): number => (groups[i] === i ? i : (groups[i] = find(groups[i]!)));
  const join = (a: number, b: number): boolean => {
    const [ra, rb] = [find(a), find(b)];
    if (ra === rb) return false;
    groups[ra] = rb;
    return true;
  };
  const treeHinges = hinges.map((hinge) => !hinge.loose && join(hinge.left, hinge.right));
  const treeBonds = bonds.map((bond) => join(bond.a, bond.b));

  const branches: Branch[] = [];
  const reached = new Set([linkage.ground]);
  const queue = [linkage.ground];
  const step = (parent: number, child: number, hinge: number, sign: number, fixed: Rigid): void => {
    if (reached.has(child)) return;
    reached.add(child);
    queue.push(child);
    branches.push({ parent, child, hinge, sign, fixed });
  };
  for (let parent = queue.shift(); parent !== undefined; parent = queue.shift()) {
    hinges.forEach((hinge, i) => {
      if (!treeHinges[i]) return;
      if (hinge.left === parent) step(parent, hinge.right, i, -1, rigidIdentity());
      if (hinge.right === parent) step(parent, hinge.left, i, 1, rigidIdentity());
    });
    bonds.forEach((bond, i) => {
      if (!treeBonds[i]) return;
      if (bond.b === parent) step(parent, bond.a, -1, 1, bond.fixed);
      if (bond.a === parent) {
        const back = rigidIdentity();
        inverse(back, bond.fixed);
        step(parent, bond.b, -1, 1, back);
      }
    });
  }
  if (reached.size < panels.length) {
    const lost = unjoinedPanel(linkage)!;
    throw new RangeError(`${lost.name} (${lost.id}) is joined to nothing`);
  }

  const moves = new Uint8Array(panels.length * hinges.length);
  for (const { parent, child, hinge } of branches) {
    for (let h = 0; h < hinges.length; h++) moves[child * hinges.length + h] = moves[parent * hinges.length + h]!;
    if (hinge >= 0) moves[child * hinges.length + hinge] = 1;
  }
  return {
    branches,
    branchOf: hinges.map((_, h) => branches.find((branch) => branch.hinge === h)),
    moves,
    openBonds: bonds.filter((_, i) => !treeBonds[i]),
    openHinges: hinges.flatMap((_, i) => (treeHinges[i] ? [] : [i])),
  };
}
