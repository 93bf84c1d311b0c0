/** Panels and creases that are lit up in the standing card and on the flat pieces. */
export interface Highlight {
  panels: readonly string[];
  creases: readonly string[];
}
