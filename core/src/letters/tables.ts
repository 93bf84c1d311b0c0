import type { StyleId } from './styles.js';
import type { FontTable } from './font-table.js';
import { HANDWRITTEN } from './handwritten.js';
import { PLAIN } from './plain.js';
import { SERIF } from './serif.js';

/** The letters of every style. Apart from the names of styles, which are wanted where no letter is set. */
export const TABLES: Readonly<Record<StyleId, FontTable>> = { serif: SERIF, plain: PLAIN, handwritten: HANDWRITTEN };
