import { toRadians } from '../../measure/units.js';
import type { Schedule } from '../../linkage/schedule.js';
import { slopeRise, staysLevel, type StepProfile } from './step-profile.js';

const START_AT = 0.6;
/** How far the front is opened while its steps are unfolded in the hand. */
const OPENED_WIDE = toRadians(115);

/**
 * From folded the working way to standing. With a long slope the tread stays level and the foot on the table
 * all the way: one fold leads. Under a shorter one the risers cannot pass upright, so it is handled as by
 * hand: the front is opened wide, the steps are unfolded, and it is set down on its foot.
 * @param treadCut whether the window takes the whole tread
 */
export function stepDrive(profile: StepProfile, lean: number, treadCut: boolean): Schedule {
  return staysLevel(profile) ? levelDrive(profile, lean, treadCut) : liftedDrive(slopeRise(profile, lean), lean, treadCut);
}

/**
 * How the steps' folds begin beyond the window: a fold that it cuts in two turns alike on both sides of it.
 * @param treadCut whether it cuts all three, else only those at both sides of the upper riser
 */
const beyondWindow = (folds: Record<'top' | 'tread-back' | 'tread-front', number>, treadCut: boolean): Record<string, number> => ({
  'base/top+base/far-rail': folds.top,
  ...(treadCut
    ? { 'base/tread-back+base/far-tread': folds['tread-back'], 'base/tread-front+base/riser': folds['tread-front'] }
    : { 'base/tread-back+base/tread': folds['tread-back'] }),
});

function levelDrive(profile: StepProfile, lean: number, treadCut: boolean): Schedule {
  const foldAt = Math.PI + (lean - Math.PI) * START_AT;
  const rise = slopeRise(profile, foldAt);
  return {
    phases: [
      { name: 'raise the front; the steps unfold', from: 0, to: 1, targets: [{ hinge: 'base/tread-back', start: Math.PI, end: lean }] },
    ],
    startAt: START_AT,
    begin: {
      'base/main-fold': rise - Math.PI,
      'base/top': -(foldAt + rise),
      'base/tread-front': -foldAt,
      ...beyondWindow({ top: -(foldAt + rise), 'tread-back': foldAt, 'tread-front': -foldAt }, treadCut),
    },
    opening: { hinge: 'base/tread-back', atZero: Math.PI, perFold: -1 },
  };
}

function liftedDrive(rise: number, lean: number, treadCut: boolean): Schedule {
  const wide = Math.max(OPENED_WIDE, rise);
  const lead = (hinge: string, start: number, end: number) => ({ hinge: `base/${hinge}`, start, end });
  const folds = { top: -(lean + rise), 'tread-back': lean, 'tread-front': -lean };
  const folded = { top: -Math.PI, 'tread-back': Math.PI, 'tread-front': -Math.PI };
  const names = ['top', 'tread-back', 'tread-front'] as const;
  return {
    phases: [
      {
        name: 'open the front wide',
        from: 0,
        to: 0.35,
        targets: [lead('main-fold', -Math.PI, wide - Math.PI), ...names.map((name) => lead(name, folded[name], folded[name]))],
      },
      { name: 'unfold the steps', from: 0.35, to: 0.8, targets: names.map((name) => lead(name, folded[name], folds[name])) },
      { name: 'set it down on its foot', from: 0.8, to: 1, targets: [lead('main-fold', wide - Math.PI, rise - Math.PI)] },
    ],
    startAt: 0.8,
    begin: beyondWindow(folds, treadCut),
    opening: { hinge: 'base/main-fold', atZero: Math.PI, perFold: -1 },
  };
}
