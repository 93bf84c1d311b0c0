import {
  besideWords,
  cuttingPlan,
  evaluate,
  leftWords,
  sayLength,
  type CuttingTool,
  type PlannedSheet,
  type SheetAtHand,
} from '@diptychon/core';
import { UsageError, type Arguments } from './arguments.js';
import { cardFrom } from './card-from-arguments.js';
import { countOf, pairOf } from './lengths.js';
import { inLines, type Told } from './told.js';
import { ANY_CARD } from './trials.js';

const TOOLS: readonly CuttingTool[] = ['trimmer', 'free'];

/** How all pieces of so many cards are cut from the sheets at hand. */
function planFor(given: Arguments): Told {
  const { card, workshop } = cardFrom(given);
  const { notation } = card;
  const copies = countOf(given, 'copies', 1, 1, 100);
  const typed = given.options.get('tool') ?? 'trimmer';
  const tool = TOOLS.find((one) => one === typed);
  if (!tool) throw new UsageError(`--tool: “${typed}” is not allowed; allowed: ${TOOLS.join(', ')}`);
  const stocks = card.supplies.stocks.map(({ id }) => id);
  const sheets = given.repeated.sheet.map((one): SheetAtHand => {
    const [size, stock] = one.split(/:(.*)/s) as [string, string | undefined];
    if (stock !== undefined && !stocks.includes(stock))
      throw new UsageError(`--sheet: “${stock}” is no stock of this card; it is cut from ${stocks.join(', ')}`);
    return { ...pairOf(size, notation, '--sheet'), ...(stock !== undefined && { stock }) };
  });
  const outcome = evaluate(card, workshop);
  if (!outcome.ok) throw new UsageError(outcome.problems[0]!.says);
  const plan = cuttingPlan(
    outcome.evaluation,
    { copies, tool, sheets, spares: given.flags.has('spares'), seed: countOf(given, 'seed', 1, 0, 2 ** 31 - 1) },
    workshop,
  );
  const say = (mm: number): string => sayLength(Math.round(mm * 100) / 100, notation);
  const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
  const lines = plan.sheets.flatMap((sheet, i) => {
    const { stock, width, height, pieces, cuts, leftovers } = sheet;
    return [
      `Sheet ${i + 1}: ${stock.name}, ${say(width)} × ${say(height)}`,
      ...pieces.map(
        (piece) =>
          `    ${piece.name}${copies > 1 && !piece.spare ? `, ${piece.copy}` : ''}: ${say(piece.width)} × ${say(piece.height)}, ${say(piece.x)} from the left, ${say(piece.y)} from below${piece.turned ? ', a quarter turned' : ''}${piece.endForEnd ? ', end for end' : ''}${piece.acrossGrain ? '; its folds run across the grain' : ''}`,
      ),
      ...besideWords(sheet, notation).map((says) => `    ${says}`),
      ...cuts.map(
        ({ order, fence, edge, part, thin }) =>
          `  ${order}. the part of ${say(part.width)} × ${say(part.height)}: its ${edge} edge against the fence, cut at ${say(fence)}${thin ? ' (a thin strip: hold the wide side)' : ''}`,
      ),
      ...leftWords(leftovers, notation).map((words) => `    left: ${words}`),
    ];
  });
  return {
    record: {
      copies,
      tool,
      sheets: plan.sheets.map(sheetRecord),
      leftOut: plan.leftOut,
      waste: plan.waste,
      bound: plan.bound,
      leastSheets: plan.leastSheets,
    },
    lines: inLines([
      ...lines,
      ...plan.leftOut.map(({ says }) => says),
      `${plan.sheets.length === 1 ? 'One sheet' : `${plan.sheets.length} sheets`}, ${percent(plan.waste)} left over; no layout needs fewer than ${plan.leastSheets}, or leaves less than ${percent(plan.bound)}.`,
    ]),
  };
}

function sheetRecord({ stock, width, height, pieces, cuts, leftovers, waste }: PlannedSheet) {
  return {
    stock: stock.id,
    width,
    height,
    pieces: pieces.map(({ id, piece, copy, x, y, width: wide, height: high, turned, endForEnd, beside, acrossGrain, spare }) => ({
      id,
      piece,
      copy,
      x,
      y,
      width: wide,
      height: high,
      turned,
      ...(endForEnd && { endForEnd }),
      ...(beside && { beside }),
      ...(acrossGrain && { acrossGrain }),
      ...(spare && { spare }),
    })),
    cuts: cuts.map(({ order, fence, edge, part, from, to, thin }) => ({ order, fence, edge, part, from, to, ...(thin && { thin }) })),
    leftovers: leftovers.map(({ x, y, width: wide, height: high, goodFor }) => ({ x, y, width: wide, height: high, goodFor })),
    waste,
  };
}

/** The commands that plan the work: what each may be given besides a notation, and its work. */
export const PLANS: ReadonlyMap<string, { options: readonly string[]; work: (given: Arguments) => Told }> = new Map([
  ['plan', { options: [...ANY_CARD, 'copies', 'sheet', 'tool', 'seed', 'spares'], work: planFor }],
]);
