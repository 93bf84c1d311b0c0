import { carry, carryDirection, dot, minus, type Vec3 } from '../linkage/rigid.js';
import { poseOf } from '../linkage/motion.js';
import { spoken } from '../measure/sentence.js';
import { toDegrees } from '../measure/units.js';
import { STOP_CALIPERS } from '../supplies/limits.js';
import type { Check, CheckInput, Verdict } from './finding.js';

/** The weight must fall at least this far inside what touches the table. */
const SAFE_MARGIN = 5;
/** A foot this far from its stop is not held by it. */
const AT_STOP = 0.5;

/** Does the open card stand by itself, what holds it there, and does its stop hold the foot? */
export const stands: Check = (input) => [balance(input), ...dips(input), ...held(input), ...stopHolds(input), ...footAtStop(input)];

function balance({ design, resting, standing }: CheckInput): Verdict {
  const { margin, tipAngle, toward } = standing;
  const says = design.base.rest.says;
  const slips = margin > 0 && margin < SAFE_MARGIN;
  return {
    id: 'stands',
    check: 'stands',
    severity: margin <= 0 ? 'fail' : slips ? 'warn' : 'pass',
    value: margin,
    limit: SAFE_MARGIN,
    unit: 'mm',
    at: resting.s,
    panels: [design.base.ground],
    says:
      margin <= 0
        ? `It tips over ${toward} (${says}): ${outside(standing)}.`
        : `It stands (${says}): its weight falls ${spoken(margin)} inside what touches the table, and it tips ${toward} only when leaned ${toDegrees(tipAngle).toFixed(0)}°. An estimate.`,
  };
}

function outside({ margin, polygon }: CheckInput['standing']): string {
  const what = polygon.length < 3 ? 'it touches the table along a line only' : 'its weight falls';
  if (-margin < SEEN) return polygon.length < 3 ? what : `${what} on the very edge of what touches the table`;
  return polygon.length < 3
    ? `${what}, and its weight falls ${spoken(-margin)} off it`
    : `${what} ${spoken(-margin)} outside what touches the table`;
}

/** Less than this is not told in mm. */
const SEEN = 0.05;
/** A ground that leans by more than this (as a cosine) does not lie on the table. */
const LIES = 0.999;

/** A card of which a panel lies on the table may have nothing below it. */
function dips({ design, motion, resting }: CheckInput): Verdict[] {
  const { up, onTable = design.base.ground } = design.base.rest;
  const pose = poseOf(motion, resting);
  const ground = pose[design.linkage.bodyOf.get(onTable)!]!;
  if (Math.abs(dot(carryDirection(ground, 0, 0, 1), up)) < LIES) return [];
  const table = dot(carry(ground, 0, 0, 0), up);
  const below = design.panels
    .map((panel, body) => ({ panel, by: table - Math.min(...panel.area.outer.map(([x, y]) => dot(carry(pose[body]!, x, y, 0), up))) }))
    .reduce((lowest, found) => (found.by > lowest.by ? found : lowest));
  if (below.by <= TABLE_PLAY) return [];
  return [
    {
      id: 'stands/table',
      check: 'stands',
      severity: 'fail',
      value: below.by,
      limit: TABLE_PLAY,
      unit: 'mm',
      panels: [below.panel.id],
      at: resting.s,
      says: `Put down (${design.base.rest.says}), ${below.panel.name} would reach ${spoken(below.by)} below the table.`,
    },
  ];
}

/** Paper gives so much where it touches the table. */
const TABLE_PLAY = 0.5;

/** Poses that only creases or friction hold are said: they sag with time and weight. */
function held({ design, resting }: CheckInput): Verdict[] {
  const { heldBy } = design.base.rest;
  return heldBy ? [{ id: `stands/held-by-${heldBy.by}`, check: 'stands', severity: 'warn', at: resting.s, says: heldBy.says }] : [];
}

/** Whether the foot really stands against its stop in the resting pose. */
function footAtStop({ design, motion, resting }: CheckInput): Verdict[] {
  const stop = design.base.rest.stop;
  const strip = design.linkage.bonds.find(({ source }) => source.id === 'stop-on-base');
  if (!stop || !strip) return [];
  const pose = poseOf(motion, resting);
  const foot = carry(pose[design.linkage.bodyOf.get(stop.foot)!]!, ...stop.footEdge[0], 0);
  const across = carryToStop(pose[strip.a]!, design.panels[strip.a]!.area.outer, foot);
  const value = Math.abs(across);
  const ok = value <= AT_STOP;
  return [
    {
      id: 'stands/foot',
      check: 'stands',
      severity: ok ? 'pass' : 'fail',
      value,
      limit: AT_STOP,
      unit: 'mm',
      panels: [stop.foot, design.panels[strip.a]!.id],
      at: resting.s,
      says: ok ? 'The foot stands against its stop.' : `The foot stands ${spoken(value)} from its stop: nothing holds it there.`,
    },
  ];
}

/** From the near side of a stop to a foot, across the stop; the near side is the one nearer the foot. */
function carryToStop(pose: Parameters<typeof carry>[0], outline: readonly (readonly [number, number])[], foot: Vec3): number {
  const xs = outline.map(([x]) => x);
  const distances = [Math.min(...xs), Math.max(...xs)].map((x) => {
    const on = carry(pose, x, 0, 0);
    const along = minus(carry(pose, x + 1, 0, 0), on);
    return dot(minus(foot, on), along);
  });
  return distances.reduce((least, d) => (Math.abs(d) < Math.abs(least) ? d : least));
}

function stopHolds({ design }: CheckInput): Verdict[] {
  const stop = design.base.rest.stop;
  if (!stop) return [];
  const least = STOP_CALIPERS * stop.footThickness;
  const ok = stop.height >= least - 1e-9;
  return [
    {
      id: 'stands/stop',
      check: 'stands',
      severity: stop.height <= stop.footThickness ? 'fail' : ok ? 'pass' : 'warn',
      value: stop.height,
      limit: least,
      unit: 'mm',
      panels: [stop.foot],
      at: 1,
      says: ok
        ? `The stop is ${spoken(stop.height)} high and holds the foot, which is ${spoken(stop.footThickness)} thick.`
        : `The stop is ${spoken(stop.height)} high; the foot is ${spoken(stop.footThickness)} thick and slips over a stop lower than ${spoken(least)}.`,
      ...(!ok && {
        fix: {
          says: `Raise the stop to ${spoken(Math.ceil(least * 2) / 2)}.`,
          changes: [{ owner: 'base', size: 'stopHeight', value: Math.ceil(least * 2) / 2 }],
        },
      }),
    },
  ];
}
