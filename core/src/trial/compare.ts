import { stockOf } from '../card/card-stocks.js';
import type { CardDocument, CardPart } from '../card/document.js';
import { titlesOf } from '../card/part-titles.js';
import { sizeRows, type SizeRow } from '../card/size-rows.js';
import type { Finding } from '../check/finding.js';
import { everySheet } from '../dress/every-sheet.js';
import type { Evaluation } from '../evaluate.js';
import { printAngle, printGrams, sayLength } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';

/** One size as two cards have it, in words; nothing where one of them has no such size. */
export interface SizeBeside {
  /** the part it is of, as the later card calls it where that has it */
  part: string;
  label: string;
  before?: string;
  after?: string;
}

/** What all pieces of one stock take, as blanks. */
export interface StockBeside {
  stock: string;
  /** mm² */
  before: number;
  after: number;
}

/** Two cards beside each other. */
export interface Comparison {
  /** every size that differs, all of a part that only one of them has */
  sizes: SizeBeside[];
  /** what is said against the first and not against the other, and the other way round */
  goes: Finding[];
  comes: Finding[];
  closed: Record<'before' | 'after', { width: Mm; height: Mm; thickness: Mm }>;
  openHeight: Record<'before' | 'after', Mm>;
  pieces: Record<'before' | 'after', number>;
  stocks: StockBeside[];
}

/**
 * Two cards beside each other: two states of one, or two cards of any kind. Parts belong together that are one part in both, else
 * those of one mechanism in their order. All numbers are in the later card's unit.
 */
export function compared(before: Evaluation, after: Evaluation): Comparison {
  const [was, now] = [before.design.card, after.design.card];
  const both = <T>(of: (evaluation: Evaluation) => T): Record<'before' | 'after', T> => ({ before: of(before), after: of(after) });
  return {
    sizes: sizesBeside(was, now),
    goes: against(before).filter((finding) => !isSaidIn(finding, after)),
    comes: against(after).filter((finding) => !isSaidIn(finding, before)),
    closed: both(({ closed: { box, thickest } }) => ({
      width: box.maxX - box.minX,
      height: box.maxY - box.minY,
      thickness: thickest.thickness,
    })),
    openHeight: both(({ openHeight }) => openHeight),
    pieces: both((evaluation) => everySheet(evaluation).length),
    stocks: stocksBeside(before, after),
  };
}

const against = ({ findings }: Evaluation): Finding[] => findings.filter(({ severity }) => severity !== 'pass');

const isSaidIn = ({ id, severity }: Finding, { findings }: Evaluation): boolean =>
  findings.some((other) => other.id === id && other.severity === severity);

/** Parts of two cards that belong together. */
function pairs(was: CardDocument, now: CardDocument): { before?: CardPart; after?: CardPart }[] {
  const left = [...was.parts];
  const take = (isIt: (part: CardPart) => boolean): CardPart | undefined => {
    const at = left.findIndex(isIt);
    return at < 0 ? undefined : left.splice(at, 1)[0];
  };
  const alike = now.parts.map((after) => ({
    after,
    before: take(({ id, mechanism }) => id === after.id && mechanism === after.mechanism),
  }));
  const all = alike.map(({ after, before }) => ({ after, before: before ?? take(({ mechanism }) => mechanism === after.mechanism) }));
  return [...all.map(({ after, before }) => ({ after, ...(before && { before }) })), ...left.map((before) => ({ before }))];
}

function sizesBeside(was: CardDocument, now: CardDocument): SizeBeside[] {
  const { notation } = now;
  const [titlesBefore, titles] = [titlesOf(was), titlesOf(now)];
  return pairs(was, now).flatMap(({ before, after }) => {
    const part = after ? titles.get(after.id)! : titlesBefore.get(before!.id)!;
    const old = before ? rowsOf(was, before.id) : [];
    const own = after ? rowsOf(now, after.id) : [];
    const names = [...new Set([...own, ...old].map(({ name }) => name))];
    return names.flatMap((name): SizeBeside[] => {
      const [a, b] = [old.find((row) => row.name === name), own.find((row) => row.name === name)];
      if (a && b && isSameValue(a.value, b.value)) return [];
      const label = labelOf((b ?? a)!);
      return [{ part, label, ...(a && { before: inWords(a, notation) }), ...(b && { after: inWords(b, notation) }) }];
    });
  });
}

/** A size that another stands for is told once. */
const rowsOf = (card: CardDocument, part: string): SizeRow[] => sizeRows(card, part).filter(({ insteadOf }) => insteadOf === undefined);

const isSameValue = (a: SizeRow['value'], b: SizeRow['value']): boolean =>
  typeof a === 'number' && typeof b === 'number' ? Math.abs(a - b) < 1e-6 : a === b;

/** “tab, 2” for the second of a list */
const labelOf = ({ label, list }: SizeRow): string => (list ? `${label}, ${list.index + 1}` : label);

function inWords({ kind, value, options }: SizeRow, notation: Notation): string {
  if (typeof value === 'string') return options?.find((option) => option.value === value)?.label ?? value;
  if (kind === 'angle') return printAngle(value, notation);
  if (kind === 'weight') return printGrams(value, notation);
  return kind === 'length' ? sayLength(value, notation) : String(value);
}

function stocksBeside(before: Evaluation, after: Evaluation): StockBeside[] {
  const [was, now] = [before, after].map(blanksByStock) as [Map<string, number>, Map<string, number>];
  return [...new Set([...now.keys(), ...was.keys()])].map((stock) => ({
    stock,
    before: was.get(stock) ?? 0,
    after: now.get(stock) ?? 0,
  }));
}

function blanksByStock(evaluation: Evaluation): Map<string, number> {
  const areas = new Map<string, number>();
  for (const { piece, width, height } of everySheet(evaluation)) {
    const { name } = stockOf(evaluation.design, piece);
    areas.set(name, (areas.get(name) ?? 0) + width * height);
  }
  return areas;
}
