import type { Mm, Radians } from '../measure/units.js';
import type { Measure } from './contract.js';

/** A length that follows. @param because why it is what it is, in a clause */
export const mm = (name: string, label: string, value: Mm, because: string): Measure => ({ name, label, value, unit: 'mm', because });

/** An angle that follows. */
export const angle = (name: string, label: string, value: Radians, because: string): Measure => ({
  name,
  label,
  value,
  unit: 'rad',
  because,
});
