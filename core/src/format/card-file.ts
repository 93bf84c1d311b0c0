import * as v from 'valibot';
import { cardSchema, ROOT, type CardDocument } from '../card/document.js';
import { outlineTrouble } from '../card/own-outlines.js';
import { migrate, MigrationProblem } from '../card/migrate.js';
import { introduction } from '../mechanism/introductions.js';
import { STOCK_ROLES } from '../supplies/stocks.js';
import { complaints, inALine, jsonOf, type FileProblem } from './file-problem.js';

/** A card file is a page of numbers and a few small pictures; anything much larger is something else. */
export const LARGEST_CARD_FILE = 2048 * 1024;

export type CardReading = { ok: true; card: CardDocument } | { ok: false; problems: FileProblem[] };

/** A card as the text of its file: JSON, two spaces, stable order, points on a line each; without spaces where that would be too large to read. */
export function writeCardFile(card: CardDocument): string {
  const own = inOrder(card);
  const text = `${JSON.stringify(own, null, 2).replace(PAIR, '[$1, $2]')}\n`;
  return text.length <= LARGEST_CARD_FILE ? text : `${JSON.stringify(own)}\n`;
}

/** Two numbers of a list, each on a line of its own. */
const PAIR = /\[\n\s+(-?[\d.e+-]+),\n\s+(-?[\d.e+-]+)\n\s+\]/g;

const ORDER = Object.keys(cardSchema.entries);
/** Keys that say what an entry is come before what it has. */
const FIRST = ['id', 'name', 'mechanism', 'part', 'site', 'on'];

/** A card with its keys in one order, however it came about: those of the schema first to last, in entries what names them first. */
export function inOrder(card: CardDocument): CardDocument {
  const rank = (key: string): number => (FIRST.includes(key) ? FIRST.indexOf(key) : FIRST.length);
  const within = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(within);
    if (typeof value !== 'object' || value === null) return value;
    const keys = Object.keys(value).sort((a, b) => rank(a) - rank(b) || (a < b ? -1 : 1));
    return Object.fromEntries(keys.map((key) => [key, within((value as Record<string, unknown>)[key])]));
  };
  const keys = Object.keys(card).sort((a, b) => ORDER.indexOf(a) - ORDER.indexOf(b));
  return Object.fromEntries(keys.map((key) => [key, within(card[key as keyof CardDocument])])) as unknown as CardDocument;
}

/** Reads a card file. Either the whole card is taken or none of it; problems name the field and what is allowed. */
export function readCardFile(text: string): CardReading {
  if (text.length > LARGEST_CARD_FILE) {
    return refuse('file', `is ${Math.ceil(text.length / 1024)} kB long; allowed: at most ${LARGEST_CARD_FILE / 1024} kB`);
  }
  let raw: unknown;
  try {
    raw = jsonOf(text);
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
    if (error instanceof MigrationProblem) return { ok: false, problems: inALine([error]) };
    throw error;
  }
  const parsed = v.safeParse(cardSchema, current);
  if (!parsed.success) return { ok: false, problems: complaints(parsed.issues, 'a card file') };
  const card = parsed.output;
  const problems = inALine([...wrongParts(card), ...missingSupplies(card), ...wrongOutlines(card), ...wornTwice(card)]);
  return problems.length > 0 ? { ok: false, problems } : { ok: true, card };
}

/** The tree must be one: the base first, every other part on one that is there, no two of one name, no circles. */
function wrongParts({ parts }: CardDocument): FileProblem[] {
  const problems: FileProblem[] = [];
  const say = (path: string, says: string): number => problems.push({ path, says });
  const ids = parts.map((part) => part.id);
  parts.forEach((part, i) => {
    const path = `parts.${i}`;
    const isRoot = i === 0;
    if (isRoot && part.id !== ROOT) say(`${path}.id`, `is “${part.id}”; allowed: ${ROOT} for the first part`);
    if (!isRoot && part.id === ROOT) say(`${path}.id`, `is “${ROOT}”, which is kept for the base; allowed: any other`);
    if (ids.indexOf(part.id) !== i && part.id !== ROOT) say(`${path}.id`, `is “${part.id}”, as another part is; allowed: one of its own`);
    if (isRoot && part.on) say(`${path}.on`, 'does not belong to the base, which stands on nothing');
    if (!isRoot && !part.on) say(`${path}.on`, 'is missing');
    if (part.on && !ids.includes(part.on.part)) say(`${path}.on.part`, `is “${part.on.part}”, which is no part of this card`);
    try {
      const { kind } = introduction(part.mechanism);
      if ((kind === 'base') !== isRoot) say(`${path}.mechanism`, `“${part.mechanism}” is not a ${isRoot ? 'base' : 'movement'}`);
    } catch (error) {
      say(`${path}.mechanism`, (error as Error).message.replace(/^mechanism: /, ''));
    }
  });
  if (problems.length > 0) return problems;
  parts.forEach((part, i) => {
    const seen = new Set<string>();
    for (let at = part; at.on; at = parts.find(({ id }) => id === at.on!.part)!) {
      if (seen.has(at.id)) {
        say(`parts.${i}.on.part`, `is “${part.on!.part}”: these parts stand on each other in a circle`);
        return;
      }
      seen.add(at.id);
    }
  });
  return problems;
}

/** Toppers and closures are each called by an id of their own. */
function wornTwice({ dressing }: CardDocument): FileProblem[] {
  return (['toppers', 'closures'] as const).flatMap((list) => {
    const ids = (dressing?.[list] ?? []).map(({ id }) => id);
    return ids.flatMap((id, i) =>
      ids.indexOf(id) === i
        ? []
        : [{ path: `dressing.${list}.${i}.id`, says: `is “${id}”, as another of them is; allowed: one of its own` }],
    );
  });
}

function wrongOutlines({ outlines = [], images = [] }: CardDocument): FileProblem[] {
  const ids = outlines.map(({ id }) => id);
  const named = images.map(({ id }) => id);
  const twice = named.flatMap((id, i) =>
    named.indexOf(id) === i ? [] : [{ path: `images.${i}.id`, says: `is “${id}”, as another picture is; allowed: one of its own` }],
  );
  const wrong = outlines.flatMap(({ id, points }, i): FileProblem[] => {
    if (ids.indexOf(id) !== i) return [{ path: `outlines.${i}.id`, says: `is “${id}”, as another outline is; allowed: one of its own` }];
    const { image } = outlines[i]!;
    if (image && !images.some((each) => each.id === image.of))
      return [{ path: `outlines.${i}.image.of`, says: `is “${image.of}”, which is none of the pictures that it carries` }];
    const says = outlineTrouble(points);
    return says === undefined ? [] : [{ path: `outlines.${i}.points`, says }];
  });
  return [...twice, ...wrong];
}

/** Every supply that is named must be carried along. */
function missingSupplies(card: CardDocument): FileProblem[] {
  const { supplies } = card;
  const has = (list: readonly { id: string }[], id: string): boolean => list.some((entry) => entry.id === id);
  const missing = (path: string, id: string, list: readonly { id: string; name: string }[], what: string): FileProblem[] =>
    has(list, id)
      ? []
      : [
          {
            path,
            says: `is “${id}”, which is none of the ${what} that it carries${list.length > 0 ? `: ${list.map((entry) => entry.id).join(', ')}` : ''}`,
          },
        ];
  return [
    ...STOCK_ROLES.flatMap((role) => missing(`stocks.${role}`, card.stocks[role], supplies.stocks, 'stocks')),
    ...Object.entries(card.pieceStocks ?? {}).flatMap(([piece, id]) => missing(`pieceStocks.${piece}`, id, supplies.stocks, 'stocks')),
    ...(card.dressing?.layers === undefined ? [] : missing('dressing.layers.stock', card.dressing.layers.stock, supplies.stocks, 'stocks')),
    ...(card.dressing?.layers?.own ?? []).flatMap(({ joint }, i) =>
      joint
        ? [
            ...missing(`dressing.layers.own.${i}.joint.stock`, joint.stock, supplies.stocks, 'stocks'),
            ...(joint.cover ? missing(`dressing.layers.own.${i}.joint.cover.stock`, joint.cover.stock, supplies.stocks, 'stocks') : []),
          ]
        : [],
    ),
    ...(card.dressing?.toppers ?? []).flatMap(({ stock }, i) => missing(`dressing.toppers.${i}.stock`, stock, supplies.stocks, 'stocks')),
    ...(card.dressing?.toppers ?? []).flatMap(({ backings = [], film }, i) => [
      ...backings.flatMap(({ stock }, nth) => missing(`dressing.toppers.${i}.backings.${nth}.stock`, stock, supplies.stocks, 'stocks')),
      ...(film ? missing(`dressing.toppers.${i}.film.stock`, film.stock, supplies.stocks, 'stocks') : []),
    ]),
    ...(card.dressing?.closures ?? []).flatMap((closure, i) =>
      'stock' in closure ? missing(`dressing.closures.${i}.stock`, closure.stock, supplies.stocks, 'stocks') : [],
    ),
    ...(['stock', 'liner'] as const).flatMap((what) => {
      const id = card.dressing?.envelope?.[what];
      return id === undefined ? [] : missing(`dressing.envelope.${what}`, id, supplies.stocks, 'stocks');
    }),
    ...missing('board', card.board, supplies.boards, 'boards'),
    ...(card.envelope === undefined ? [] : missing('envelope', card.envelope, supplies.envelopes, 'envelopes')),
  ];
}

function refuse(path: string, says: string): CardReading {
  return { ok: false, problems: [{ path, says }] };
}
