/** The letters of a font as outlines, in thousandths of the size of its type; written by `npm run letters --workspace core`. */
export interface FontTable {
  /** height of a capital H */
  capital: number;
  /** from the base line of one line to that of the next */
  line: number;
  /**
   * by letter: how far it carries on, and its outlines, y up: steps in pairs from the
   * origin and then from point to point, outlines apart by `;`; holes run clockwise
   */
  letters: Readonly<Record<string, readonly [advance: number, outlines: string]>>;
  /** what is added between two letters */
  kerns: Readonly<Record<string, number>>;
}
