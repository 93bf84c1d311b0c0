import type { Mm, Radians } from '../../measure/units.js';

/** The cross-section of a step easel: lengths from the main fold to the foot. */
export interface StepProfile {
  /** from the main fold up to the top */
  slope: Mm;
  upperRiser: Mm;
  tread: Mm;
  riser: Mm;
}

/** Both risers together: with a level tread they rise as high as the slope does. */
export const risers = ({ upperRiser, riser }: StepProfile): Mm => upperRiser + riser;

/**
 * The steepest that both risers can lean with a level tread, from the table: the slope must reach as high as
 * they do, sin(lean) ≤ slope ÷ risers. A right angle when the slope is at least as long as both.
 */
export function greatestLean(profile: StepProfile): Radians {
  return Math.asin(Math.min(1, profile.slope / risers(profile)));
}

/** Angle of the slope from the table for a lean, tread level: slope × sin(rise) = risers × sin(lean). */
export function slopeRise(profile: StepProfile, lean: Radians): Radians {
  return Math.asin(Math.min(1, (risers(profile) * Math.sin(lean)) / profile.slope));
}

/** From the main fold to the foot, standing with a level tread. */
export function footDistance(profile: StepProfile, lean: Radians): Mm {
  return profile.slope * Math.cos(slopeRise(profile, lean)) + risers(profile) * Math.cos(lean) + profile.tread;
}

/** From the main fold to the foot when it is folded the working way: every part back over the one before. */
export function workingSlack(profile: StepProfile): Mm {
  return profile.slope - profile.upperRiser + profile.tread - profile.riser;
}

/** Whether the slope is long enough for the risers to pass through upright with the tread level all the way. */
export const staysLevel = (profile: StepProfile): boolean => profile.slope >= risers(profile);
