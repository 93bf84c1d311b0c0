import type { SmallDrawing } from './small-drawing';

/** One word of the trade as this program uses it. */
export interface Word {
  id: string;
  word: string;
  /** how it is found in a sentence: whole words, any of these */
  forms: readonly string[];
  says: string;
  drawing: SmallDrawing;
}
