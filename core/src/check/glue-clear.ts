import type { Mm } from '../measure/units.js';
import { spoken } from '../measure/sentence.js';
import { carryFlat } from '../linkage/rigid.js';
import { subtract, totalArea } from '../plane/boolean.js';
import { distance, distanceToSegment, type Point } from '../plane/point.js';
import { clippedTo, isSimple } from '../plane/convex.js';
import { signedArea, type Area, type Loop } from '../plane/outline.js';
import { CLOSING_PLAY, LEAST_TAB, TAB_CLEARANCE } from '../supplies/limits.js';
import type { Check, Verdict } from './finding.js';

/** Is every glued area on one panel on each side, clear of folds that move, and wide enough to hold? */
export const glueClear: Check = ({ design }) => {
  const found: Verdict[] = [];
  for (const bond of design.linkage.bonds) {
    const { corners } = bond;
    const { id, name } = bond.source;
    const panels = [bond.source.panel, bond.source.partner];
    const onPartner = corners.map((p) => carryFlat(bond.fixed, p));
    const past = Math.max(outside(corners, design.panels[bond.a]!.area), outside(onPartner, design.panels[bond.b]!.area));
    if (past > CLOSING_PLAY) {
      found.push({
        id: `glue-clear/${id}/past`,
        check: 'glue-clear',
        severity: 'fail',
        value: past,
        limit: CLOSING_PLAY,
        unit: 'mm',
        panels,
        says: `Glue of ${name} reaches past its panel by about ${spoken(past)}: it would stick to what should move.`,
      });
    }
    const width = Math.abs(signedArea(corners)) / longestSide(corners);
    if (width < LEAST_TAB - 1.01) {
      found.push({
        id: `glue-clear/${id}/narrow`,
        check: 'glue-clear',
        severity: 'warn',
        value: width,
        limit: LEAST_TAB - 1,
        unit: 'mm',
        panels,
        says: `The glued area of ${name} is about ${spoken(width)} wide; below ${spoken(LEAST_TAB - 1)} it peels.`,
      });
    }
    const near = nearestFold(onPartner, bond.b, design.linkage.hinges);
    if (near && near.gap < TAB_CLEARANCE / 2) {
      found.push({
        id: `glue-clear/${id}/fold`,
        check: 'glue-clear',
        severity: 'warn',
        value: near.gap,
        limit: TAB_CLEARANCE / 2,
        unit: 'mm',
        panels,
        creases: [near.hinge],
        says: `Glue of ${name} comes within ${spoken(near.gap)} of a fold that moves; keep ${spoken(TAB_CLEARANCE)}.`,
      });
    }
  }
  design.faults.forEach((fault, i) => {
    const before = design.faults.slice(0, i).filter(({ kind }) => kind === fault.kind).length;
    const id = `glue-clear/${fault.kind}${before > 0 ? `-${before + 1}` : ''}`;
    found.push({ id, check: 'glue-clear', severity: 'fail', says: fault.says });
  });
  if (found.length === 0)
    found.push({
      id: 'glue-clear',
      check: 'glue-clear',
      severity: 'pass',
      says: 'Every glued area lies on one panel, clear of moving folds.',
    });
  return found;
};

/** How far glue reaches past an area, mm: what lies outside, spread over the glue's longest side. */
function outside(corners: Loop, area: Area): Mm {
  return areaOutside(corners, area) / longestSide(corners);
}

function areaOutside(corners: Loop, area: Area): number {
  if (isSimple(area) && isSimple({ outer: corners, holes: [] })) {
    const inside = clippedTo(corners, area.outer, signedArea(area.outer) > 0);
    return Math.abs(signedArea(corners)) - (inside.length < 3 ? 0 : Math.abs(signedArea(inside)));
  }
  return totalArea(subtract([{ outer: corners, holes: [] }], [area]));
}

function longestSide(loop: Loop): number {
  return Math.max(...loop.map((p, i) => distance(p, loop[(i + 1) % loop.length]!)));
}

interface FoldLine {
  id: string;
  left: number;
  right: number;
  source: { from: Point; to: Point };
}

/** The fold of a panel that a glued area comes closest to; both are in the panel's piece coordinates. */
function nearestFold(zone: Loop, body: number, hinges: readonly FoldLine[]): { hinge: string; gap: number } | undefined {
  return hinges
    .filter((hinge) => hinge.left === body || hinge.right === body)
    .map((hinge) => ({ hinge: hinge.id, gap: Math.min(...zone.map((p) => distanceToSegment(p, hinge.source.from, hinge.source.to))) }))
    .sort((a, b) => a.gap - b.gap)[0];
}
