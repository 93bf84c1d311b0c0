import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Dressed } from './dress.js';
import { cutOnce } from './layer.js';

/** Every sheet that is cut for a card: its pieces, and what they wear. */
export const everySheet = ({ sheets, dressed }: { sheets: readonly CutSheet[]; dressed: Dressed }): CutSheet[] => [
  ...sheets,
  ...cutOnce(dressed.layers).map(({ sheet }) => sheet),
  ...dressed.toppers.flatMap(({ sheet, under }) => [...under.map((each) => each.sheet), sheet]),
  ...dressed.magnets.flatMap(({ sheets: own }) => own),
  ...dressed.bands.map(({ sheet }) => sheet),
  ...envelopeSheets({ dressed }),
];

/** The pieces of an envelope of its own. */
export const envelopeSheets = ({ dressed: { envelope } }: { dressed: Dressed }): CutSheet[] =>
  envelope ? [envelope.sheet, ...(envelope.liner ? [envelope.liner.sheet] : [])] : [];
