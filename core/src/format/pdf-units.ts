import { MM_PER_INCH } from '../measure/units.js';

/** Points for a mm: PDF measures in 1/72 in. */
export const PT = 72 / MM_PER_INCH;
