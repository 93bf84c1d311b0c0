import type { Mm } from '../measure/units.js';

/** One number of a list from elsewhere, mm, and what of a card it is said to be. */
export interface SaidNumber {
  /** as it is called: `scores[2]` the second from the left, `blank.width`, `closedWidth`, `layer.front-leaf.height` */
  entry: string;
  value: Mm;
}

/** What of a card a number is about. */
export type Said =
  | { of: 'score'; piece?: string; nth: number }
  | { of: 'blank'; piece?: string; way: 'width' | 'height' }
  | { of: 'closed'; way: 'width' | 'height' }
  | { of: 'layer'; panel: string; way: 'width' | 'height' };

const WAYS = ['width', 'height'] as const;

/** Takes the name of an entry apart; nothing where there is no such entry. */
export function saidOf(entry: string): Said | undefined {
  const score = /^scores(?:\.([a-z0-9-]+))?\[([1-9]\d{0,2})\]$/i.exec(entry);
  if (score) return { of: 'score', ...(score[1] && { piece: score[1] }), nth: Number(score[2]) };
  const blank = /^blank(?:\.([a-z0-9-]+))?\.(width|height)$/i.exec(entry);
  if (blank) return { of: 'blank', ...(blank[1] && { piece: blank[1] }), way: blank[2] as 'width' | 'height' };
  const closed = /^closed(Width|Height)$/.exec(entry);
  if (closed) return { of: 'closed', way: closed[1] === 'Width' ? 'width' : 'height' };
  const layer = /^layer\.(.+)\.(width|height)$/.exec(entry);
  if (layer) return { of: 'layer', panel: layer[1]!, way: layer[2] as 'width' | 'height' };
  return undefined;
}

/** The entries of what is said under one name: `scores` takes a list from the left, a blank or a layer its width and height. */
export function entriesOf(name: string, values: readonly Mm[]): SaidNumber[] | undefined {
  if (/^scores(\.[a-z0-9-]+)?$/i.test(name)) return values.map((value, i) => ({ entry: `${name}[${i + 1}]`, value }));
  if (/^closed(Width|Height)$/.test(name)) return values.length === 1 ? [{ entry: name, value: values[0]! }] : undefined;
  if (/^blank(\.[a-z0-9-]+)?$/i.test(name) || /^layer\..+$/.test(name)) {
    if (values.length < 1 || values.length > 2) return undefined;
    return values.map((value, i) => ({ entry: `${name}.${WAYS[i]!}`, value }));
  }
  return undefined;
}
