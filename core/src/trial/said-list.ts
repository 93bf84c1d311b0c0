import { parseLength } from '../measure/parse.js';
import { capitalised } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';

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

/** What an entry is called in a sentence: `score 2`, `the blank’s width`, `the closed width`, `the height of the layer of base/display`. */
export function wordsOfEntry(entry: string): string {
  const said = saidOf(entry);
  if (said?.of === 'score') return `score ${said.nth}${said.piece === undefined ? '' : ` of ${said.piece}`}`;
  if (said?.of === 'blank') return said.piece === undefined ? `the blank’s ${said.way}` : `the ${said.way} of the blank of ${said.piece}`;
  if (said?.of === 'closed') return `the closed ${said.way}`;
  if (said?.of === 'layer') return `the ${said.way} of the layer of ${said.panel}`;
  return entry;
}

/** A sentence about an entry that a card has no place for. A layer may be worn by another card of the kind, a score is not. */
export function wordsOfStrange(entry: string): string {
  const named = capitalised(wordsOfEntry(entry));
  return saidOf(entry)?.of === 'layer'
    ? `${named}: no card that was found wears a layer there.`
    : `${named}: this mechanism has no such place.`;
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

/** What stands on one line of a list: `scores: 75, 150`, `blank = 300 x 105`, `closed 150 × 105`. */
const LINE = /^([a-z][\w./-]*)\s*[:=]?\s+?(.+)$/i;

/**
 * Reads a list as it is typed or pasted, one thing a line. Lengths are read as the maker writes them.
 * @returns the numbers, or a sentence about the first line that cannot be read
 */
export function readSaidList(text: string, notation: Notation): { ok: true; said: SaidNumber[] } | { ok: false; says: string } {
  const said: SaidNumber[] = [];
  for (const line of text
    .split(/\r?\n/)
    .map((one) => one.trim())
    .filter((one) => one !== '')) {
    const match = LINE.exec(line.replace(/[:=]/, ' '));
    const name = match?.[1];
    const isScores = name !== undefined && /^scores/i.test(name);
    const parts = match ? (isScores ? match[2]!.split(/[,;]\s+|;|,(?=\d{2,})/) : match[2]!.split(/\s*[x×]\s*/i)) : [];
    const lengths: Mm[] = [];
    for (const part of parts.filter((one) => one.trim() !== '')) {
      const reading = parseLength(part.trim(), notation, name ?? 'list');
      if (!reading.ok) return { ok: false, says: reading.problem };
      lengths.push(reading.value);
    }
    const entries =
      name === 'closed'
        ? lengths.length === 2
          ? [
              { entry: 'closedWidth', value: lengths[0]! },
              { entry: 'closedHeight', value: lengths[1]! },
            ]
          : undefined
        : name && entriesOf(name, lengths);
    if (!entries || entries.length === 0)
      return {
        ok: false,
        says: `“${line.slice(0, 60)}” is no line of a list; allowed: scores 75, 150; blank 300 x 105; closed 150 x 105; layer.front-leaf 69 x 99.`,
      };
    const twice = entries.find(({ entry }) => said.some((other) => other.entry === entry));
    if (twice) return { ok: false, says: `${twice.entry} is said twice.` };
    said.push(...entries);
  }
  if (said.length > MOST_SAID) return { ok: false, says: `A list has at most ${MOST_SAID} numbers; this one has ${said.length}.` };
  return said.length > 0
    ? { ok: true, said }
    : { ok: false, says: 'The list is empty: write one thing on each line, as in “scores 75, 150”.' };
}

/** A longer list is none of a card. */
const MOST_SAID = 80;
