/** The styles of letters in which greetings are set. Whose letters they are, and under what licence, stands in docs/licences.md. */
export const STYLES = {
  serif: { name: 'with serifs' },
  plain: { name: 'plain' },
  handwritten: { name: 'as if by hand' },
} as const;

export type StyleId = keyof typeof STYLES;
export const STYLE_IDS = Object.keys(STYLES) as [StyleId, ...StyleId[]];
