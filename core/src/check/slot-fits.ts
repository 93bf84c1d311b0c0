import { claimsOf } from '../card/draw.js';
import type { ClaimOf } from '../claim/claims.js';
import { caliperOf } from '../card/card-stocks.js';
import { EXACT, poseOf } from '../linkage/motion.js';
import { carry, carryDirection, carryFlat, dot, minus } from '../linkage/rigid.js';
import { capitalised } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { toRadians } from '../measure/units.js';
import { boxOf } from '../plane/outline.js';
import { leastSlot } from '../sheet/slot.js';
import { SLOT_CLEARANCE } from '../supplies/limits.js';
import type { Check, CheckInput, Verdict } from './finding.js';

/** A slot may be cut narrower by a third of its clearance before it binds. */
const SLOT_PLAY = SLOT_CLEARANCE / 3;

/** Flatter than this between strip and sheet the edges of a slot give: they need not pass. */
const LEAST_ANGLE = toRadians(30);

/** Is every slot wide and long enough for what passes it, strip and what is glued on it, at the angle it has there? */
export const slotFits: Check = (input) =>
  claimsOf(input.design, 'slot').flatMap((slot): Verdict[] => {
    const worst = tightest(input, slot);
    const spare = slot.width - worst.needed;
    const ok = spare >= -SLOT_PLAY;
    const passing = worst.layers.length > 0 ? `film and ${worst.layers.join(' and ')} need` : 'the film needs';
    const long = slot.length - slot.filmWidth - slot.sideClearance;
    const wanted = Math.ceil(worst.needed * 20) / 20;
    return [
      {
        id: `slot-fits/${slot.id}`,
        check: 'slot-fits',
        severity: ok ? 'pass' : 'fail',
        value: slot.width,
        limit: worst.needed - SLOT_PLAY,
        unit: 'mm',
        panels: [slot.panel, slot.film],
        at: worst.s,
        says: ok
          ? `${capitalised(slot.name)} is ${spoken(slot.width)} wide; ${passing} ${spoken(worst.needed)} where it is tightest${spare < -EXACT ? ', which its clearance just gives' : ''}.`
          : `${capitalised(slot.name)} is ${spoken(slot.width)} wide, and ${passing} ${spoken(worst.needed)} at ${spoken(worst.travel)} above the foot: ${spoken(-spare)} too narrow.`,
        ...(!ok && {
          fix: { says: `Cut the slot ${spoken(wanted)} wide.`, changes: [{ owner: slot.owner, size: slot.widthSize, value: wanted }] },
        }),
      },
      {
        id: `slot-fits/${slot.id}/length`,
        check: 'slot-fits',
        severity: long >= -EXACT ? 'pass' : 'fail',
        value: slot.length,
        limit: slot.filmWidth + slot.sideClearance,
        unit: 'mm',
        panels: [slot.panel, slot.film],
        says:
          long >= -EXACT
            ? `${capitalised(slot.name)} is ${spoken(slot.length)} long, the film ${spoken(slot.filmWidth)} wide.`
            : `${capitalised(slot.name)} is ${spoken(slot.length)} long and the film ${spoken(slot.filmWidth)} wide: it binds at its ends by ${spoken(-long)}.`,
      },
    ];
  });

type Slot = ClaimOf<'slot'>;

interface Passing {
  needed: number;
  s: number;
  travel: number;
  layers: string[];
}

/** The place of the motion where the slot must be widest. */
function tightest({ design, motion }: CheckInput, slot: Slot): Passing {
  const { linkage, panels } = design;
  const [sheet, film] = [linkage.bodyOf.get(slot.panel)!, linkage.bodyOf.get(slot.film)!];
  const t = caliperOf(design, panels[sheet]!.piece);
  const own = caliperOf(design, panels[film]!.piece);
  const glued = linkage.bonds
    .filter((bond) => bond.b === film && panels[bond.a]!.piece.id !== panels[sheet]!.piece.id)
    .map((bond) => {
      const { minX, maxX } = boxOf(panels[bond.a]!.area.outer.map((p) => carryFlat(bond.fixed, p)));
      return { name: panels[bond.a]!.name, thickness: caliperOf(design, panels[bond.a]!.piece), from: minX, to: maxX };
    });
  return motion.frames.reduce<Passing>(
    (most, frame) => {
      const pose = poseOf(motion, frame);
      const theta = Math.acos(Math.min(1, Math.abs(dot(carryDirection(pose[sheet]!, 0, 0, 1), carryDirection(pose[film]!, 0, 0, 1)))));
      if (theta < LEAST_ANGLE - 1e-9) return most;
      const way = minus(carry(pose[sheet]!, ...slot.at, 0), carry(pose[film]!, 0, 0, 0));
      const travel = dot(way, carryDirection(pose[film]!, 1, 0, 0));
      const here = glued.filter(({ from, to }) => from <= travel && travel <= to);
      const strip = own + here.reduce((sum, { thickness }) => sum + thickness, 0);
      const needed = leastSlot(strip, t, theta, SLOT_CLEARANCE);
      return needed > most.needed ? { needed, s: frame.s, travel, layers: here.map(({ name }) => name) } : most;
    },
    { needed: 0, s: 1, travel: 0, layers: [] },
  );
}
