import type { FaceId } from './faces.js';
import type { FontTable } from './font-table.js';
import { HANDWRITTEN } from './handwritten.js';
import { PLAIN } from './plain.js';
import { SERIF } from './serif.js';

/** The letters of every face. Apart from the names of faces, which are wanted where no letter is set. */
export const TABLES: Readonly<Record<FaceId, FontTable>> = { serif: SERIF, plain: PLAIN, handwritten: HANDWRITTEN };
