import * as v from 'valibot';
import { SUPPLY_SCHEMAS, workshopSchema } from '../supplies/supply-schemas.js';
import { STOCK_ROLES } from '../supplies/stocks.js';
import { SUPPLY_LISTS, type Supply, type SupplyList, type Workshop } from '../supplies/workshop.js';
import { complaints, jsonOf, type FileProblem } from './file-problem.js';

/** A workshop is some hundred lines of numbers. */
export const LARGEST_WORKSHOP_FILE = 1024 * 1024;

export type WorkshopReading = { ok: true; workshop: Workshop } | { ok: false; problems: FileProblem[] };

/** A workshop as the text of its file. */
export function writeWorkshopFile(workshop: Workshop): string {
  return `${JSON.stringify(workshop, null, 2)}\n`;
}

/** Reads a workshop file, whole or not at all. */
export function readWorkshopFile(text: string): WorkshopReading {
  if (text.length > LARGEST_WORKSHOP_FILE) {
    return refuse('file', `is ${Math.ceil(text.length / 1024)} kB long; allowed: at most ${LARGEST_WORKSHOP_FILE / 1024} kB`);
  }
  try {
    return readWorkshop(jsonOf(text));
  } catch {
    return refuse('file', 'is not a workshop file: it is not JSON');
  }
}

/** The same for a value that was already parsed, such as one kept by the browser. */
export function readWorkshop(raw: unknown): WorkshopReading {
  const parsed = v.safeParse(workshopSchema, raw);
  if (!parsed.success) return { ok: false, problems: complaints(parsed.issues, 'a workshop file') };
  const workshop = parsed.output;
  const problems = [...doubles(workshop), ...dangling(workshop)];
  return problems.length > 0 ? { ok: false, problems } : { ok: true, workshop };
}

/** Checks one entry of a list as it would be kept. */
export function problemsOfSupply(list: SupplyList, entry: Supply): FileProblem[] {
  const parsed = v.safeParse(SUPPLY_SCHEMAS[list], entry);
  return parsed.success ? [] : complaints(parsed.issues, 'this entry');
}

function doubles(workshop: Workshop): FileProblem[] {
  return SUPPLY_LISTS.flatMap((list) => {
    const ids = workshop[list].map(({ id }) => id);
    return ids.flatMap((id, i) =>
      ids.indexOf(id) === i ? [] : [{ path: `${list}.${i}.id`, says: `is “${id}”, as another is; allowed: one of its own` }],
    );
  });
}

function dangling({ usual, boards, stocks }: Workshop): FileProblem[] {
  const missing = (path: string, id: string, list: readonly { id: string }[]): FileProblem[] =>
    list.some((entry) => entry.id === id) ? [] : [{ path, says: `is “${id}”, which is not in this workshop` }];
  return [
    ...missing('usual.board', usual.board, boards),
    ...STOCK_ROLES.flatMap((role) => missing(`usual.stocks.${role}`, usual.stocks[role], stocks)),
  ];
}

function refuse(path: string, says: string): WorkshopReading {
  return { ok: false, problems: [{ path, says }] };
}
