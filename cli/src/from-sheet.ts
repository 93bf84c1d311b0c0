import {
  cardOfClosedSize,
  cardToTry,
  comesOutOfSheets,
  evaluate,
  LOOKS,
  proportionsOf,
  sayLength,
  sizeForSheet,
  starterFor,
  stockOf,
  verdictLine,
  type CardDocument,
  type Look,
  type Workshop,
} from '@diptychon/core';
import { UsageError, type Arguments } from './arguments.js';
import { known, workshopFrom } from './card-from-arguments.js';
import { countOf, notationOf, pairOf } from './lengths.js';
import { inLines, type Told } from './told.js';

/** The best card of a kind from one sheet, and of one stock where that is said. @throws UsageError */
export function fitSheetFor(given: Arguments): Told {
  const notation = notationOf(given);
  const id = given.options.get('mechanism');
  if (!id) throw new UsageError('--mechanism: say which base (see diptychon list)');
  const base = known(id);
  if (base.kind !== 'base') throw new UsageError(`--mechanism: “${id}” is a movement; a card from a sheet begins with a base`);
  const [typed, another] = given.repeated.sheet;
  if (!typed) throw new UsageError('--sheet: say its size, as in --sheet 210x297');
  if (another !== undefined) throw new UsageError('--sheet: fit-sheet takes one sheet');
  const [across, stock] = typed.split(/:(.*)/s) as [string, string | undefined];
  const size = pairOf(across, notation, '--sheet');
  const sheet = { id: 'own', name: typed, ...size };
  const workshop = workshopFrom(given.options.get('workshop')) ?? starterFor(notation);
  const stocks = { ...workshop.usual.stocks, ...(stock !== undefined && cutFrom(stock, workshop)) };
  const copies = countOf(given, 'copies', 1, 1, 20);
  const look = given.options.get('look') ?? 'any';
  if (!isLook(look)) throw new UsageError(`--look: “${look}” is none; allowed: ${LOOKS.join(', ')}`);
  const found = sizeForSheet(base, sheet, copies, proportionsOf(look, cardToTry(base, { notation }).foldEdge), (closed) =>
    cardOfClosedSize(base, closed, { stocks }, workshop),
  );
  if (!found)
    throw new UsageError(`--sheet: not even a small card of this kind${look === 'any' ? '' : ` that is ${look}`} comes out of ${typed}`);
  const card = cardOfClosedSize(base, found, { notation, stocks }, workshop);
  const outcome = evaluate(card, workshop);
  if (!outcome.ok) throw new UsageError(outcome.problems[0]!.says);
  const { sheets, findings } = outcome.evaluation;
  const verdict = verdictLine({ findings });
  const out = sheets.filter(({ piece }) => comesOutOfSheets(stockOf(outcome.evaluation.design, piece)));
  const used = (copies * out.reduce((sum, { width, height }) => sum + width * height, 0)) / (size.width * size.height);
  return {
    record: {
      mechanism: id,
      sheet: size,
      ...(stock !== undefined && { stock }),
      copies,
      look,
      closed: { width: found.depth, height: found.length },
      sizes: card.parts[0]!.sizes,
      pieces: sheets.map(({ piece, width, height }) => ({ id: piece.id, width, height })),
      used: Math.min(1, used),
      works: verdict.works,
      verdict: verdict.says,
    },
    lines: inLines([
      `${copies === 1 ? 'The largest card' : `The largest ${copies} cards`} of this kind from this sheet: closed ${sayLength(found.depth, notation)} × ${sayLength(found.length, notation)}.`,
      ...sheets.map(({ piece, width, height }) => `    ${piece.name}: ${sayLength(width, notation)} × ${sayLength(height, notation)}`),
      verdict.says,
    ]),
  };
}

const isLook = (typed: string): typed is Look => (LOOKS as readonly string[]).includes(typed);

/** All of a card that is cut from card or paper, cut from one stock. */
function cutFrom(id: string, workshop: Workshop): Partial<CardDocument['stocks']> {
  const stocks = workshop.stocks.filter(comesOutOfSheets);
  if (!stocks.some((stock) => stock.id === id))
    throw new UsageError(`--sheet: “${id}” is no card or paper of mine; allowed: ${stocks.map((stock) => stock.id).join(', ')}`);
  return { base: id, mechanism: id, display: id };
}
