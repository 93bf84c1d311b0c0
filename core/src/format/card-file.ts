import * as v from 'valibot';
import { cardSchema, type CardDocument } from '../card/document.js';
import { migrate } from '../card/migrate.js';
import { mechanismById } from '../mechanism/catalogue.js';

/** A card file is a page of numbers; anything much larger is something else. */
export const LARGEST_CARD_FILE = 512 * 1024;

/** What is wrong with a file, where, and what would be right. */
export interface FileProblem {
  path: string;
  says: string;
}

export type CardReading = { ok: true; card: CardDocument } | { ok: false; problems: FileProblem[] };

/** A card as the text of its file: JSON, two spaces, stable order. */
export function writeCardFile(card: CardDocument): string {
  return `${JSON.stringify(card, null, 2)}\n`;
}

/** Reads a card file. Either the whole card is taken or none of it; problems name the field and what is allowed. */
export function readCardFile(text: string): CardReading {
  if (text.length > LARGEST_CARD_FILE) {
    return refuse('file', `is ${Math.ceil(text.length / 1024)} kB long; allowed: at most ${LARGEST_CARD_FILE / 1024} kB`);
  }
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return refuse('file', 'is not a card file: it is not JSON');
  }
  return readCard(raw);
}

/** The same for a value that was already parsed, such as one kept by the browser. */
export function readCard(raw: unknown): CardReading {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) return refuse('file', 'is not a card file: it holds no card');
  let current: unknown;
  try {
    current = migrate(raw as Record<string, unknown>);
  } catch (error) {
    return refuse('version', (error as Error).message.replace(/^version: /, ''));
  }
  const parsed = v.safeParse(cardSchema, current);
  if (!parsed.success) {
    return {
      ok: false,
      problems: parsed.issues.slice(0, 10).map((issue) => ({ path: v.getDotPath(issue) ?? 'file', says: complaint(issue) })),
    };
  }
  const card = parsed.output;
  return mechanismsExist(card) ?? { ok: true, card };
}

function mechanismsExist(card: CardDocument): CardReading | undefined {
  const named = [
    { path: 'base.mechanism', id: card.base.mechanism, kind: 'base' },
    ...card.movements.map((m, i) => ({ path: `movements.${i}.mechanism`, id: m.mechanism, kind: 'movement' })),
  ];
  for (const { path, id, kind } of named) {
    try {
      if (mechanismById(id).kind !== kind) return refuse(path, `“${id}” is not a ${kind}`);
    } catch (error) {
      return refuse(path, (error as Error).message.replace(/^mechanism: /, ''));
    }
  }
  return undefined;
}

function refuse(path: string, says: string): CardReading {
  return { ok: false, problems: [{ path, says }] };
}

function complaint(issue: v.BaseIssue<unknown>): string {
  if (issue.type === 'strict_object') {
    return issue.expected === 'never' ? 'does not belong in a card file' : 'is missing';
  }
  const shown = issue.received === 'undefined' ? 'is missing' : `is ${issue.received}`;
  return `${shown}; ${issue.message.startsWith('allowed') ? issue.message : `allowed: ${issue.expected ?? 'another kind of value'}`}`;
}
