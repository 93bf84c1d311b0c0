import type { CardDocument } from '../card/document.js';
import { inOrder, LARGEST_CARD_FILE, readCard, readCardFile } from './card-file.js';
import { jsonOf, shownValue, type FileProblem } from './file-problem.js';

/** Many cards in one file. */
export const LARGEST_SHELF_FILE = 4 * LARGEST_CARD_FILE;
const MOST_CARDS = 2000;
/** Room for what stands round the cards. */
const HEAD_BYTES = 256;

export type ShelfReading = { ok: true; cards: CardDocument[] } | { ok: false; problems: FileProblem[] };

/**
 * Cards as the texts of shelf files, one card a line: one file, or several where one could not be read back for its size or
 * for its count.
 */
export function writeShelfFiles(cards: readonly CardDocument[]): string[] {
  const files: string[][] = [[]];
  let length = 0;
  for (const card of cards) {
    const line = JSON.stringify(inOrder(card));
    const bytes = new TextEncoder().encode(line).length + 2;
    if (length > 0 && (length + bytes > LARGEST_SHELF_FILE - HEAD_BYTES || files.at(-1)!.length >= MOST_CARDS)) {
      files.push([]);
      length = 0;
    }
    files.at(-1)!.push(line);
    length += bytes;
  }
  return files.map((lines) => `{"format":"diptychon-shelf","version":1,"cards":[\n${lines.join(',\n')}\n]}\n`);
}

/** Reads a file of one card or of a whole shelf. All cards are taken or none: the first bad one is named. */
export function readShelfFile(text: string): ShelfReading {
  if (text.length > LARGEST_SHELF_FILE) {
    return { ok: false, problems: [{ path: 'file', says: `is larger than ${LARGEST_SHELF_FILE / 1024} kB, which no shelf file is` }] };
  }
  const raw = parsed(text);
  if (raw?.format !== 'diptychon-shelf') {
    const reading = readCardFile(text);
    return reading.ok ? { ok: true, cards: [reading.card] } : reading;
  }
  if (raw.version !== 1) return { ok: false, problems: [{ path: 'version', says: `is ${shownValue(raw.version)}; allowed: 1` }] };
  if (!Array.isArray(raw.cards) || raw.cards.length > MOST_CARDS) {
    return { ok: false, problems: [{ path: 'cards', says: `is not a list of cards; allowed: a list of at most ${MOST_CARDS}` }] };
  }
  const cards: CardDocument[] = [];
  for (const [i, entry] of raw.cards.entries()) {
    const reading = readCard(entry);
    if (!reading.ok) return { ok: false, problems: reading.problems.map(({ path, says }) => ({ path: `cards.${i}.${path}`, says })) };
    cards.push(reading.card);
  }
  return { ok: true, cards };
}

function parsed(text: string): { format?: unknown; version?: unknown; cards?: unknown } | undefined {
  try {
    const value = jsonOf(text);
    return typeof value === 'object' && value !== null ? value : undefined;
  } catch {
    return undefined;
  }
}
