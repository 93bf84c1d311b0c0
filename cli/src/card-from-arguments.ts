import { readFileSync, statSync } from 'node:fs';
import {
  allowedWords,
  LARGEST_CARD_FILE,
  mechanismById,
  mechanismOf,
  newCard,
  parseAngle,
  parseLength,
  readCardFile,
  setSize,
  type CardDocument,
  type Mechanism,
} from '@diptychon/core';
import { UsageError, type Arguments } from './arguments.js';

const HOST_OF_MOVEMENTS = { mechanism: 'folded-card', fold: 'main-fold' };

/** The card a command is about: a file, or a mechanism with its sizes. @throws UsageError */
export function cardFrom({ words, options, sets }: Arguments): CardDocument {
  const file = words[1];
  const id = options.get('mechanism');
  if (file && id) throw new UsageError('--mechanism: give a card file or a mechanism, not both');
  if (file) return withSizes(readFile(file), sets);
  if (!id) throw new UsageError('card: give a card file, or --mechanism ID (see diptychon list)');
  return withSizes(cardOf(known(id)), sets);
}

function readFile(file: string): CardDocument {
  let text: string;
  try {
    if (statSync(file).size > LARGEST_CARD_FILE)
      throw new UsageError(`${file}: larger than ${LARGEST_CARD_FILE / 1024} kB, which no card file is`);
    text = readFileSync(file, 'utf8');
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${file}: cannot be read`);
  }
  const reading = readCardFile(text);
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

/** Applies `NAME=VALUE` pairs in order; a name may belong to any part of the card. */
function withSizes(card: CardDocument, sets: readonly string[]): CardDocument {
  return sets.reduce((changed, pair) => {
    const cut = pair.indexOf('=');
    if (cut < 1) throw new UsageError(`--set: “${pair}” is not NAME=VALUE`);
    return setNamed(changed, pair.slice(0, cut).trim(), pair.slice(cut + 1));
  }, card);
}

function setNamed(card: CardDocument, name: string, typed: string): CardDocument {
  const owners = [...card.movements.map((m) => m.id), 'base'];
  for (const owner of owners) {
    const { sizes, alternatives } = mechanismOf(card, owner);
    const size = [...sizes, ...alternatives].find((candidate) => candidate.name === name);
    if (!size) continue;
    if (size.kind === 'choice') return setSize(card, owner, name, typed.trim());
    const reading = size.kind === 'angle' ? parseAngle(typed, name) : parseLength(typed, card.notation, name);
    if (!reading.ok) throw new UsageError(`${reading.problem} ${allowedWords(card, owner, name)}`.trim());
    return setSize(card, owner, name, reading.value);
  }
  const names = owners.flatMap((owner) => {
    const { sizes, alternatives } = mechanismOf(card, owner);
    return [...sizes, ...alternatives].map((size) => size.name);
  });
  throw new UsageError(`${name}: there is no such size; allowed: ${names.join(', ')}`);
}
