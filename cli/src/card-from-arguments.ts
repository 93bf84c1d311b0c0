import { readFileSync, statSync } from 'node:fs';
import { basename } from 'node:path';
import {
  allowedWords,
  filledSizes,
  itemSizeName,
  itemSizeOf,
  items,
  LARGEST_CARD_FILE,
  LARGEST_SVG,
  mechanismById,
  mechanismOf,
  newCard,
  parseAngle,
  parseCount,
  parseGrams,
  parseLength,
  readCardFile,
  readOutlineSvg,
  refusal,
  setSize,
  type AlternativeSize,
  type CardDocument,
  type FreeSize,
  type Mechanism,
  type Notation,
  type Reading,
} from '@diptychon/core';
import { UsageError, type Arguments } from './arguments.js';

const HOST_OF_MOVEMENTS = { mechanism: 'folded-card', fold: 'main-fold' };

/** The card a command is about: a file, or a mechanism with its sizes. @throws UsageError */
export function cardFrom({ words, options, sets }: Arguments): CardDocument {
  const file = words[1];
  const id = options.get('mechanism');
  if (file && id) throw new UsageError('--mechanism: give a card file or a mechanism, not both');
  if (!file && !id) throw new UsageError('card: give a card file, or --mechanism ID (see diptychon list)');
  const card = file ? readFile(file) : cardOf(known(id!));
  const outline = options.get('outline');
  return withSizes(outline ? withOutline(card, outline) : card, sets);
}

function readFile(file: string): CardDocument {
  const reading = readCardFile(textOf(file, LARGEST_CARD_FILE, 'card file'));
  if (reading.ok) return reading.card;
  const first = reading.problems[0]!;
  throw new UsageError(`${file}: ${first.path} ${first.says}`);
}

function known(id: string): Mechanism {
  try {
    return mechanismById(id);
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}

function cardOf(mechanism: Mechanism): CardDocument {
  const base = mechanism.kind === 'base' ? mechanism.id : HOST_OF_MOVEMENTS.mechanism;
  const movements = mechanism.kind === 'base' ? [] : [{ id: 'figure', mechanism: mechanism.id, host: HOST_OF_MOVEMENTS.fold, sizes: {} }];
  return newCard({ id: 'command-line', name: mechanism.name, base: { mechanism: base, sizes: {} }, movements });
}

/**
 * Applies `NAME=VALUE` pairs; a name may belong to any part of the card. Those that stand for another size (a lean
 * for a stop) come last: what they stand for depends on the other sizes.
 */
function withSizes(card: CardDocument, sets: readonly string[]): CardDocument {
  const named = sets.map((pair) => {
    const cut = pair.indexOf('=');
    if (cut < 1) throw new UsageError(`--set: “${pair}” is not NAME=VALUE`);
    return { name: pair.slice(0, cut).trim(), typed: pair.slice(cut + 1) };
  });
  const isAlternative = ({ name }: { name: string }): boolean =>
    ownersOf(card).some((owner) => mechanismOf(card, owner).alternatives.some((a) => a.name === name));
  const plain = named.filter((set) => !isAlternative(set)).reduce(setNamed, card);
  return named.filter(isAlternative).reduce(setNamed, plain);
}

const ownersOf = (card: CardDocument): string[] => [...card.movements.map((m) => m.id), 'base'];

function setNamed(card: CardDocument, { name, typed }: { name: string; typed: string }): CardDocument {
  for (const owner of ownersOf(card)) {
    const found = sizeNamed(card, owner, name);
    if (!found) continue;
    if (found.kind === 'list') return setCount(card, owner, found, typed);
    if (found.kind === 'choice' || found.kind === 'outline') return setSize(card, owner, name, typed.trim());
    const reading = readNumber(found.kind, typed, card.notation, name);
    if (!reading.ok) throw new UsageError(`${reading.problem} ${allowedWords(card, owner, name)}`.trim());
    const refused = 'insteadOf' in found ? refusal(card, owner, name, reading.value) : undefined;
    if (refused) throw new UsageError(refused);
    return setSize(card, owner, name, reading.value);
  }
  throw new UsageError(`${name}: there is no such size; allowed: ${namesIn(card).join(', ')}`);
}

function readNumber(kind: 'length' | 'angle' | 'count' | 'weight', typed: string, notation: Notation, name: string): Reading<number> {
  if (kind === 'angle') return parseAngle(typed, name);
  if (kind === 'count') return parseCount(typed, name);
  return kind === 'weight' ? parseGrams(typed, name) : parseLength(typed, notation, name);
}

function namesIn(card: CardDocument): string[] {
  return ownersOf(card).flatMap((owner) => {
    const { sizes, alternatives } = mechanismOf(card, owner);
    return [
      ...sizes.flatMap((size) =>
        size.kind === 'list' ? [size.name, ...size.item.map((own) => itemSizeName(size.name, 0, own.name))] : [size.name],
      ),
      ...alternatives.map((a) => a.name),
    ];
  });
}

/** A size of a mechanism, or of an entry of one of its lists (`layers[1].depth`), by its full name. */
function sizeNamed(card: CardDocument, owner: string, name: string): FreeSize | AlternativeSize | undefined {
  const { sizes, alternatives } = mechanismOf(card, owner);
  const item = itemSizeOf(name);
  if (!item) return [...sizes, ...alternatives].find((candidate) => candidate.name === name);
  const list = sizes.find((candidate) => candidate.name === item.list);
  if (list?.kind !== 'list') return undefined;
  const count = items(filledSizes(card, owner), list.name).length;
  if (item.index < 0 || item.index >= count) {
    throw new UsageError(
      `${name}: there ${count === 1 ? 'is one' : `are ${count}`} ${list.itemLabel}${count === 1 ? '' : 's'}; allowed: ${list.name}[1] to ${list.name}[${count}] (${list.name}=${count + 1} makes one more)`,
    );
  }
  return list.item.find((candidate) => candidate.name === item.name);
}

/** `layers=3`: as many entries, the first ones kept. */
function setCount(card: CardDocument, owner: string, list: Extract<FreeSize, { kind: 'list' }>, typed: string): CardDocument {
  const wanted = Number(typed.trim());
  if (!/^\d+$/.test(typed.trim()) || wanted < list.least || wanted > list.most) {
    throw new UsageError(
      `${list.name}: how many ${list.itemLabel}s? “${typed}” does not work; allowed is ${list.least} to ${list.most}, then each by ${list.name}[1].${list.item[0]!.name}`,
    );
  }
  const now = items(filledSizes(card, owner), list.name);
  return setSize(
    card,
    owner,
    list.name,
    Array.from({ length: wanted }, (_, i) => now[i] ?? {}),
  );
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
