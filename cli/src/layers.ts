import {
  dressedBy,
  MOST_BORDER,
  MOST_STEPS,
  parseLength,
  sayLength,
  type CardDocument,
  type LayerRule,
  type Workshop,
} from '@diptychon/core';
import { UsageError, type Arguments } from './arguments.js';

/** A card dressed by the rule of `--layers`; as it is where that was not given. @throws UsageError */
export function withLayers(card: CardDocument, { options }: Pick<Arguments, 'options'>, workshop: Workshop): CardDocument {
  const stray = ['layer-steps', 'layer-step', 'layer-stock'].find((name) => options.has(name));
  if (!options.has('layers')) {
    if (stray !== undefined) throw new UsageError(`--${stray}: says how the layers are of --layers BORDER; give that too`);
    return card;
  }
  const rule: Partial<LayerRule> = {
    border: lengthOf('layers', options.get('layers')!, card),
    ...(options.has('layer-step') && { step: lengthOf('layer-step', options.get('layer-step')!, card) }),
    ...(options.has('layer-steps') && { steps: stepsOf(options.get('layer-steps')!) }),
    ...(options.has('layer-stock') && { stock: stockOf(options.get('layer-stock')!, card, workshop) }),
  };
  return dressedBy(card, rule, workshop);
}

function lengthOf(name: string, typed: string, { notation }: Pick<CardDocument, 'notation'>): number {
  const read = parseLength(typed, notation, `--${name}`);
  if (!read.ok) throw new UsageError(read.problem);
  if (read.value >= 0 && read.value <= MOST_BORDER) return read.value;
  throw new UsageError(
    `--${name}: ${typed.trim()} does not work; allowed is ${sayLength(0, notation)} to ${sayLength(MOST_BORDER, notation)}`,
  );
}

function stepsOf(typed: string): 1 | 2 | 3 {
  const steps = Number(typed);
  if (steps === 1 || steps === 2 || steps === 3) return steps;
  throw new UsageError(`--layer-steps: “${typed}” does not work; allowed is 1 to ${MOST_STEPS}`);
}

function stockOf(id: string, card: CardDocument, workshop: Workshop): string {
  const ids = [...new Set([...workshop.stocks, ...card.supplies.stocks].map((stock) => stock.id))];
  if (ids.includes(id)) return id;
  throw new UsageError(`--layer-stock: “${id}” is none of my stocks; allowed: ${ids.join(', ')}`);
}
