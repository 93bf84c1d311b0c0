import { agreement } from '../../claim/claims.js';
import { toRadians, type Mm, type Radians } from '../../measure/units.js';
import { num, type Sizes } from '../sizes.js';
import { panelOf, type Placed } from './placed-arm.js';

/** Angles nearer than this are the same by a protractor. */
const SAME_ANGLE: Radians = toRadians(0.5);

/** What of an arm must be alike, or it closes neither flat nor fully. */
export function agreements(id: string, { arm, braceWide, braceTurn }: Placed, sizes: Sizes) {
  const [sum, second] = arm.sides.map(({ ray, wing }) => ray + wing) as [Radians, Radians];
  const panels = [panelOf(id, 'lower', 'first-wing'), panelOf(id, 'lower', 'second-wing')];
  const braces = [panelOf(id, 'lower', 'brace'), panelOf(id, 'upper', 'brace')];
  return [
    agreement({
      id: `${id}-sums`,
      name: 'Both angles of the second side together',
      with: 'both of the first side',
      value: second,
      wanted: sum,
      unit: 'rad',
      play: SAME_ANGLE,
      or: 'the arms do not close flat',
      panels,
      mend: {
        size: 'secondWingAngle',
        label: 'slanting crease from the other glue line',
        value: sum - num(sizes, 'secondRayAngle'),
        unit: 'rad',
      },
    }),
    agreement({
      id: `${id}-brace`,
      name: 'The brace between its folds',
      with: 'the figure’s hinge from the slanting crease',
      value: braceWide,
      wanted: Math.abs(arm.hinge),
      unit: 'mm',
      play: SAME_LENGTH,
      or: 'opposite sides of the parallelogram differ, and it binds when the card is nearly flat',
      panels: braces,
      mend: { size: 'braceWide', label: 'brace between its folds', value: Math.abs(arm.hinge) },
    }),
    agreement({
      id: `${id}-parallel`,
      name: 'The brace’s fold on the arm',
      with: 'the slanting crease, to which it is parallel at 0°',
      value: braceTurn,
      wanted: 0,
      unit: 'rad',
      play: SAME_ANGLE,
      or: 'the figure is pulled askew as the card opens',
      panels: braces,
      mend: { size: 'braceTurn', label: 'brace’s fold, out of parallel', value: 0, unit: 'rad' },
    }),
  ];
}

/** A hand is off by as much on both sides of a strip. */
const SAME_LENGTH: Mm = 0.5;
