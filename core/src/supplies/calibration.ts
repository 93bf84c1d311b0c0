import type { Mm } from '../measure/units.js';

/** What can be found from measurements: what a board or trimmer adds, what a fold of a stock takes, what a hand is off by. */
export const CALIBRATED = ['board', 'trimmer', 'fold', 'hand-score', 'hand-cut'] as const;

/** Something about a tool, a stock or a hand that was found from measurements and accepted. */
export interface Calibration {
  kind: (typeof CALIBRATED)[number];
  /** of the board, trimmer or stock; `hand` for a hand */
  id: string;
  /** measured less planned; of a hand a standard deviation */
  value: Mm;
  /** half of its interval of 95 per cent */
  uncertainty: Mm;
  /** from so many measurements */
  count: number;
  /** of a hand: what stood there before, to be taken back */
  before?: Mm;
}
