import { readFileSync, statSync } from 'node:fs';
import { basename } from 'node:path';
import {
  addPart,
  allowedWords,
  alternativesOf,
  cardToTry,
  filledSizes,
  firstPlaceFor,
  INCH_WORKSHOP,
  itemSizeName,
  itemSizeOf,
  items,
  LARGEST_CARD_FILE,
  LARGEST_SVG,
  LARGEST_WORKSHOP_FILE,
  mechanismById,
  mechanismOf,
  METRIC_WORKSHOP,
  NOTATIONS,
  parseAngle,
  parseCount,
  parseGrams,
  parseLength,
  PartProblem,
  placesOf,
  readCardFile,
  readOutlineSvg,
  readWorkshopFile,
  refusal,
  ROOT,
  setCount,
  setSize,
  starterFor,
  STOCK_ROLES,
  withOwnSupplies,
  type AlternativeSize,
  type CardDocument,
  type FreeSize,
  type Mechanism,
  type Notation,
  type Reading,
  type Workshop,
} from '@diptychon/core';
import { UsageError, type Arguments } from './arguments.js';
import { withLayers } from './layers.js';

/** The card a command is about, and the workshop it is worked out with. @throws UsageError */
export function cardFrom(given: Arguments): { card: CardDocument; workshop: Workshop } {
  const { words, options, repeated } = given;
  const file = words[1];
  const id = options.get('mechanism');
  if (file && id) throw new UsageError('--mechanism: give a card file or a mechanism, not both');
  if (!file && !id) throw new UsageError('card: give a card file, or --mechanism ID (see diptychon list)');
  const notation = notationFrom(options.get('notation'));
  const own = workshopFrom(options.get('workshop'));
  const read = file ? readFile(file) : cardToTry(known(id!), {}, own ?? starterFor(notation ?? 'mm'));
  const card = notation ? { ...read, notation } : file || own ? read : { ...read, notation: 'mm' as const };
  const workshop = own ?? starterFor(card.notation);
  const outline = options.get('outline');
  const equipped = withSupplies(outline ? withOutline(card, outline) : card, options, repeated.stock, workshop);
  // Sizes of what is there already come first: they decide which folds there are to stand on.
  const started = { card: equipped, sets: repeated.set };
  const { card: built, sets } = repeated.part.reduce((whole, part) => {
    const { ready, waiting } = sortedSets(whole);
    return { card: withPart(withSizes(whole.card, ready), part, workshop), sets: waiting };
  }, started);
  return { card: withLayers(withSizes(built, sets), given, workshop), workshop };
}

/** Sizes of parts that are there, and of parts still to come. */
function sortedSets({ card, sets }: { card: CardDocument; sets: readonly string[] }): { ready: string[]; waiting: string[] } {
  const isOfLater = (pair: string): boolean => {
    const [, part] = /^([a-z0-9-]+)\.[^=]*=/i.exec(pair) ?? [];
    return part !== undefined && !card.parts.some(({ id }) => id === part);
  };
  return { ready: sets.filter((pair) => !isOfLater(pair)), waiting: sets.filter(isOfLater) };
}

function notationFrom(given: string | undefined): Notation | undefined {
  if (given === undefined) return undefined;
  const found = NOTATIONS.find(({ id }) => id === given);
  if (!found) throw new UsageError(`--notation: “${given}” is not one; allowed: ${NOTATIONS.map(({ id }) => id).join(', ')}`);
  return found.id;
}

/** The workshop of a file; nothing where none was given. @throws UsageError */
export function workshopFrom(file: string | undefined): Workshop | undefined {
  if (file === undefined) return undefined;
  const reading = readWorkshopFile(textOf(file, LARGEST_WORKSHOP_FILE, 'workshop file'));
  if (reading.ok) return reading.workshop;
  const first = reading.problems[0]!;
  throw new UsageError(`${file}: ${first.path} ${first.says}`);
}

/** Board, envelope and stocks that were asked for, copied into the card from the workshop or from what the card carries. */
function withSupplies(card: CardDocument, options: Arguments['options'], stocks: readonly string[], workshop: Workshop): CardDocument {
  const sources = [workshop, card.supplies, ...[METRIC_WORKSHOP, INCH_WORKSHOP]];
  const of = (list: 'boards' | 'envelopes' | 'stocks', id: string | undefined, option: string): void => {
    if (id === undefined || sources.some((source) => source[list].some((entry) => entry.id === id))) return;
    const ids = [...new Set(sources.flatMap((source) => source[list].map((entry) => entry.id)))];
    throw new UsageError(`${option}: “${id}” is none of my ${list}; allowed: ${ids.join(', ')}`);
  };
  const [board, envelope] = [options.get('board'), options.get('envelope')];
  of('boards', board, '--board');
  of('envelopes', envelope, '--envelope');
  const roles = stocks.map((pair): [string, string] => {
    const [role, id] = pair.split(/=(.*)/s) as [string, string | undefined];
    if (!STOCK_ROLES.some((known) => known === role)) {
      throw new UsageError(`--stock: “${pair}” is not ROLE=ID; allowed roles: ${STOCK_ROLES.join(', ')}`);
    }
    of('stocks', id ?? '', '--stock');
    return [role, id!];
  });
  const within = options.get('within');
  if (within !== undefined && within !== 'outline' && within !== 'envelope') {
    throw new UsageError(`--within: “${within}” is not one; allowed: outline, envelope`);
  }
  const chosen = {
    ...(within === 'envelope' && { within: 'envelope' as const }),
    ...(board && { board }),
    ...(envelope && { envelope }),
    stocks: { ...card.stocks, ...Object.fromEntries(roles) },
  };
  // The workshop's own come first: who names a supply means the one that is there now.
  const kept = { ...card, ...chosen, supplies: { stocks: [], boards: [], envelopes: [] } };
  return stocks.length > 0 || board || envelope || within ? withOwnSupplies(kept, workshop, { ...workshop, ...card.supplies }) : card;
}

/** `NAME=MECHANISM@PART/SITE`; without a place, the base's first free fold. */
function withPart(card: CardDocument, given: string, workshop: Workshop): CardDocument {
  const match = /^([^=@/]+)=([^=@/]+)(?:@([^=@/]+)\/([^=@/]+))?$/.exec(given);
  if (!match) throw new UsageError(`--part: “${given}” is not NAME=MECHANISM@PART/SITE`);
  const [, id, mechanism, part, site] = match as unknown as [string, string, string, string | undefined, string | undefined];
  if (!/^[a-z0-9][a-z0-9-]{0,63}$/i.test(id)) throw new UsageError(`--part: “${id}” is not a name; allowed: letters, digits and hyphens`);
  if (id === ROOT || card.parts.some((other) => other.id === id))
    throw new UsageError(`--part: there is a part “${id}” already; allowed: any other name`);
  if (known(mechanism).kind !== 'movement') throw new UsageError(`--part: “${mechanism}” is a base, which stands on nothing`);
  if (part !== undefined && !card.parts.some((other) => other.id === part)) {
    throw new UsageError(`--part: there is no part “${part}”; allowed: ${card.parts.map((other) => other.id).join(', ')}`);
  }
  const on = part === undefined ? firstPlaceFor(card, mechanism) : { part, site: site! };
  if (!on) throw new UsageError(`--part: the base has no fold that takes ${mechanism}; see diptychon list --json`);
  const sites = placesOf(card).filter((place) => place.part === on.part);
  if (!sites.some((place) => place.site.id === on.site)) {
    throw new UsageError(
      `--part: “${on.part}” has no fold “${on.site}”; allowed: ${sites.map((place) => place.site.id).join(', ') || 'none'}`,
    );
  }
  const cannot = sites.find((place) => place.site.id === on.site)!.takes.find((taker) => taker.id === mechanism)?.cannot;
  if (cannot) throw new UsageError(`--part: ${cannot}`);
  try {
    return addPart(card, mechanism, on, workshop, id).card;
  } catch (error) {
    if (error instanceof PartProblem) throw new UsageError(`--part: ${error.message}`);
    throw error;
  }
}

function readFile(file: string): CardDocument {
  const reading = readCardFile(textOf(file, LARGEST_CARD_FILE, 'card file'));
  if (reading.ok) return reading.card;
  const first = reading.problems[0]!;
  throw new UsageError(`${file}: ${first.path} ${first.says}`);
}

export function known(id: string): Mechanism {
  try {
    return mechanismById(id);
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}

/**
 * Applies `NAME.SIZE=VALUE` pairs; a bare name is the base's, or that of the one other part that has it. Those that stand
 * for another size (a lean for a stop) come last: what they stand for depends on the other sizes.
 */
function withSizes(card: CardDocument, sets: readonly string[]): CardDocument {
  const named = sets.map((pair) => {
    const cut = pair.indexOf('=');
    if (cut < 1) throw new UsageError(`--set: “${pair}” is not NAME=VALUE`);
    return { ...ownerOf(card, pair.slice(0, cut).trim()), typed: pair.slice(cut + 1) };
  });
  const isAlternative = ({ owner, name }: Named): boolean => alternativesOf(mechanismOf(card, owner)).some((a) => a.name === name);
  const plain = named.filter((set) => !isAlternative(set)).reduce(setNamed, card);
  return named.filter(isAlternative).reduce(setNamed, plain);
}

interface Named {
  owner: string;
  name: string;
  /** as it was written */
  written: string;
}

/** Which part's size a name is: `cap.apex` that of the part `cap`; `layers[1].depth` is a size of the base with a dot in it. */
function ownerOf(card: CardDocument, written: string): Named {
  const dot = written.indexOf('.');
  const part = card.parts.find(({ id }) => dot > 0 && id === written.slice(0, dot));
  if (part) return { owner: part.id, name: written.slice(dot + 1), written };
  if (dot > 0 && !written.slice(0, dot).includes('[')) {
    throw new UsageError(`${written}: there is no part “${written.slice(0, dot)}”; there are ${card.parts.map(({ id }) => id).join(', ')}`);
  }
  const having = card.parts.filter(({ id }) => sizeOf(card, id, written) !== undefined).map(({ id }) => id);
  const owner = having.includes(ROOT) || having.length === 0 ? ROOT : having[0]!;
  if (owner !== ROOT && having.length > 1) {
    throw new UsageError(`${written}: several parts have this size; allowed: ${having.map((id) => `${id}.${written}`).join(', ')}`);
  }
  return { owner, name: written, written };
}

function setNamed(card: CardDocument, { owner, name, written, typed }: Named & { typed: string }): CardDocument {
  const found = sizeOf(card, owner, name);
  if (!found) throw new UsageError(`${written}: there is no such size; allowed: ${namesIn(card).join(', ')}`);
  const item = itemSizeOf(name);
  if (item) checkEntry(card, owner, written, item);
  if (found.kind === 'list') return withCount(card, owner, found, typed);
  if (found.kind === 'choice' || found.kind === 'outline') return setSize(card, owner, name, typed.trim());
  const reading = readNumber(found.kind, typed, card.notation, written);
  if (!reading.ok) throw new UsageError(`${reading.problem} ${allowedWords(card, owner, name)}`.trim());
  const refused = 'insteadOf' in found ? refusal(card, owner, name, reading.value) : undefined;
  if (refused) throw new UsageError(refused);
  return setSize(card, owner, name, reading.value);
}

function readNumber(kind: 'length' | 'angle' | 'count' | 'weight', typed: string, notation: Notation, name: string): Reading<number> {
  if (kind === 'angle') return parseAngle(typed, name);
  if (kind === 'count') return parseCount(typed, name);
  return kind === 'weight' ? parseGrams(typed, name) : parseLength(typed, notation, name);
}

function namesIn(card: CardDocument): string[] {
  return card.parts.flatMap(({ id }) => {
    const mechanism = mechanismOf(card, id);
    const names = [
      ...mechanism.sizes.flatMap((size) =>
        size.kind === 'list' ? [size.name, ...size.item.map((own) => itemSizeName(size.name, 0, own.name))] : [size.name],
      ),
      ...alternativesOf(mechanism).map((a) => a.name),
    ];
    return id === ROOT ? names : names.map((name) => `${id}.${name}`);
  });
}

/** A size of a part, or of an entry of one of its lists (`layers[1].depth`), by its full name. */
function sizeOf(card: CardDocument, owner: string, name: string): FreeSize | AlternativeSize | undefined {
  const mechanism = mechanismOf(card, owner);
  const item = itemSizeOf(name);
  if (!item) return [...mechanism.sizes, ...alternativesOf(mechanism)].find((candidate) => candidate.name === name);
  const list = mechanism.sizes.find((candidate) => candidate.name === item.list);
  return list?.kind === 'list' ? list.item.find((candidate) => candidate.name === item.name) : undefined;
}

function checkEntry(card: CardDocument, owner: string, written: string, item: { list: string; index: number }): void {
  const list = mechanismOf(card, owner).sizes.find((candidate) => candidate.name === item.list);
  if (list?.kind !== 'list') return;
  const count = items(filledSizes(card, owner), list.name).length;
  if (item.index >= 0 && item.index < count) return;
  throw new UsageError(
    `${written}: there ${count === 1 ? 'is one' : `are ${count}`} ${list.itemLabel}${count === 1 ? '' : 's'}; allowed: ${list.name}[1] to ${list.name}[${count}] (${list.name}=${count + 1} makes one more)`,
  );
}

/** `layers=3`: as many entries, the first ones kept. */
function withCount(card: CardDocument, owner: string, list: Extract<FreeSize, { kind: 'list' }>, typed: string): CardDocument {
  const wanted = Number(typed.trim());
  if (!/^\d+$/.test(typed.trim()) || wanted < list.least || wanted > list.most) {
    throw new UsageError(
      `${list.name}: how many ${list.itemLabel}s? “${typed}” does not work; allowed is ${list.least} to ${list.most}, then each by ${list.name}[1].${list.item[0]!.name}`,
    );
  }
  return setCount(card, owner, list.name, wanted);
}

/** Adds the outline of an SVG file to a card, under an id made from the file's name. */
function withOutline(card: CardDocument, file: string): CardDocument {
  const reading = readOutlineSvg(textOf(file, LARGEST_SVG, 'outline drawing'), basename(file));
  if (!reading.ok) throw new UsageError(`--outline: ${reading.says}`);
  return { ...card, outlines: [...(card.outlines ?? []), reading.outline] };
}

function textOf(file: string, largest: number, what: string): string {
  try {
    if (statSync(file).size > largest) throw new UsageError(`${file}: larger than ${largest / 1024} kB, which no ${what} is`);
    return readFileSync(file, 'utf8');
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${file}: cannot be read`);
  }
}
