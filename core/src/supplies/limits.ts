import type { Mm } from '../measure/units.js';

/** Clearances and least sizes of handmade work. Each is a habit with a reason, not a law. */

/** A glued tab ends this far from a fold, so that glue never bridges it. */
export const TAB_CLEARANCE: Mm = 2;
/** A narrower glued tab peels off. */
export const LEAST_TAB: Mm = 6;
/** A moving part keeps this far inside the closed card's edge. */
export const EDGE_MARGIN: Mm = 3;
/** A film of glue between two layers. */
export const GLUE_FILM: Mm = 0.03;
/** What slides in a slot needs this much more than its own thickness. */
export const SLOT_CLEARANCE: Mm = 0.3;
/** What a steady hand is off by on each side of a cut. */
export const HAND_CUT_ERROR: Mm = 0.25;
/** What a hand is off by and creases, glue and paper give when a card is pressed flat: within it joints meet, edges are level. */
export const CLOSING_PLAY: Mm = 0.3;
/** Free edges that gape more than this look open. */
export const GAPE_SEEN: Mm = 3;
/** Free edges that gape more than this do not lie in an envelope. */
export const GAPE_TOO_MUCH: Mm = 10;
/** A card thicker than this somewhere travels badly in a plain envelope. */
export const BULK_NOTICED: Mm = 4;
/** Halves of a card that differ more than this on average make it rock in its envelope. */
export const UNEVEN_NOTICED: Mm = 0.8;
/** A stop is this many thicknesses of the foot it holds. */
export const STOP_CALIPERS = 3;
/** This near a fold, a crease gives: the hand at the free edge has a long lever on it. */
export const CREASE_ZONE: Mm = 20;
/** What the give of a crease takes up, in calipers of the folded stock: one for each leaf. */
export const CREASE_GIVE_CALIPERS = 2;

/** Ease of a card in its envelope, over and above its thickness. */
export const ENVELOPE_EASE: Mm = 3;
