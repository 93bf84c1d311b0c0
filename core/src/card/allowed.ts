import { printAngle, printGrams } from '../measure/print.js';
import { spoken, told } from '../measure/sentence.js';
import { checkSizes, type SizeValue } from '../mechanism/sizes.js';
import type { CardDocument } from './document.js';
import { sizesGiven } from './draw.js';
import { alternativesOf, contextFor, filledSizes, mechanismOf, setSize } from './set-size.js';
import { sizeRows, type SizeRow } from './size-rows.js';

const PRINT = { count: String, weight: printGrams, angle: printAngle, length: spoken };

/** What a size may be in this card, as a sentence for a field that holds nonsense; empty when nothing is to be said. */
export function allowedWords(card: CardDocument, owner: string, name: string): string {
  const row = sizeRows(card, owner).find((candidate) => candidate.name === name);
  if (row?.options) return `Allowed: ${row.options.map((option) => option.value).join(', ')}.`;
  const range = row && rangeWords(row);
  return range ? told(`Allowed is ${range}.`, card.notation) : '';
}

/**
 * Why a size cannot be set to a value in this card, as one sentence; nothing when it can. An alternative (a lean)
 * is refused in its own terms, not in those of the size it stands for.
 */
export function refusal(card: CardDocument, owner: string, name: string, value: SizeValue): string | undefined {
  const mechanism = mechanismOf(card, owner);
  const alternatives = alternativesOf(mechanism);
  const target = alternatives.find((a) => a.name === name)?.insteadOf ?? name;
  const changed = setSize(card, owner, name, value);
  const context = { ...contextFor(card, owner), sizes: filledSizes(changed, owner) };
  const problem = checkSizes(mechanism.sizes, sizesGiven(changed, owner), context).find((candidate) => candidate.size === target);
  if (!problem) return undefined;
  const own = target === name ? undefined : outside(card, owner, name, value);
  return told(own ?? problem.says, card.notation);
}

function outside(card: CardDocument, owner: string, name: string, value: SizeValue): string | undefined {
  const row = sizeRows(card, owner).find((candidate) => candidate.name === name);
  const range = row && rangeWords(row);
  if (!range || typeof value !== 'number') return undefined;
  return `${row.label}: ${printed(row, value)} does not work; allowed is ${range}, because ${row.range!.because}.`;
}

const printed = (row: SizeRow, value: number): string => PRINT[row.kind as keyof typeof PRINT](value);

function rangeWords(row: SizeRow): string | undefined {
  if (!row.range || row.range.max < row.range.min) return undefined;
  return `${printed(row, row.range.min)} to ${printed(row, row.range.max)}`;
}
