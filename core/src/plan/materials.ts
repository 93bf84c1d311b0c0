import type { Evaluation } from '../evaluate.js';
import { closestEnvelope } from '../supplies/envelopes.js';
import { bestSheet } from '../supplies/sheets.js';
import type { Workshop } from '../supplies/workshop.js';
import { stockOf } from '../card/card-stocks.js';
import { capitalised, printGrams, sayLength } from '../measure/print.js';
import { told } from '../measure/sentence.js';
import { cutOnce } from '../dress/layer.js';
import { postedCard } from '../dress/posted-card.js';
import { foldAnEnvelope } from '../dress/fold-an-envelope.js';
import { adhesiveFor } from './adhesive.js';

/** One thing to have on the table before the first cut. */
export interface Material {
  what: string;
  detail: string;
}

/** Everything a card takes: every piece with stock and size, glue, stop, tools, envelope. */
export function materialsOf(evaluation: Evaluation, workshop: Workshop): Material[] {
  const { design, sheets, closed } = evaluation;
  const { notation, board, supplies } = design.card;
  const say = (mm: number): string => sayLength(mm, notation);
  const glued = design.linkage.bonds.length;
  const isFree = supplies.boards.find(({ id }) => id === board)?.free === true;
  const pieces = sheets.map(({ piece, width, height }): Material => {
    const stock = stockOf(design, piece);
    if (piece.thickness !== undefined) {
      return { what: `${piece.name}, ${say(piece.thickness)} high`, detail: `${stock.name}, ${say(width)} across × ${say(height)} along` };
    }
    const best = bestSheet(workshop.sheets, width, height);
    const from = best
      ? `; ${best.count === 1 ? 'one' : best.count} out of a sheet of ${best.sheet.name}`
      : '; larger than any of my sheets';
    return { what: piece.name, detail: `${stock.name}, ${say(width)} across × ${say(height)} along${from}` };
  });
  const layers = cutOnce(evaluation.dressed.layers);
  const layerStocks = [...new Set(layers.map(({ stock }) => stock))];
  const worn = layerStocks.map((stock): Material => {
    const own = layers.filter((layer) => layer.stock === stock);
    const all = own.map(({ number, sheet }) => `${number} ${say(sheet.width)} × ${say(sheet.height)}`);
    return { what: own.length === 1 ? 'One layer' : `${own.length} layers`, detail: `${stock.name}, across × up: ${all.join('; ')}` };
  });
  const { toppers } = evaluation.dressed;
  const under = toppers
    .flatMap((topper) => topper.under)
    .map(({ name, stock, sheet }): Material => ({
      what: name,
      detail: `${stock.name}, ${say(sheet.width)} across × ${say(sheet.height)} up`,
    }));
  const mounted = toppers.map(({ number, topper, outlineName, sheet, stock, pads, times }): Material => ({
    what: `${number}, ${topper.name ?? outlineName}`,
    detail: `${stock.name}, ${say(sheet.width)} across × ${say(sheet.height)} up${times > 1 ? `, cut ${times} times` : ''}${pads.length > 0 ? `; ${pads.length} foam ${pads.length === 1 ? 'pad' : 'pads'}, ${say(topper.foam!)} high` : ''}`,
  }));
  const bands = evaluation.dressed.bands.flatMap(({ name, stock, sheet, closure }): Material[] => [
    { what: name, detail: `${stock.name}, ${say(sheet.width)} across × ${say(sheet.height)} along` },
    ...(closure.fastener === undefined
      ? []
      : [{ what: `Fastener for ${name}`, detail: `hooked or sticky, ${say(closure.fastener)} thick` }]),
    ...(closure.gift
      ? [{ what: `Gift on ${name}`, detail: `${say(closure.gift.thick)} high, ${printGrams(closure.gift.grams)}; removable dots` }]
      : []),
  ]);
  const magnets = evaluation.dressed.magnets.map(({ number, closure, stock, sheets: own }): Material => ({
    what: `${number}, two magnets`,
    detail: `discs ${say(closure.disc)} across, ${say(closure.thick)} thick; ${own.length} blank layers and covers, ${stock.name}`,
  }));
  const ribbons = evaluation.dressed.ribbons.map(({ number, closure, ribbon }): Material => ({
    what: `${number}, ribbon`,
    detail: `${say(closure.wide)} wide, ${say(ribbon.length)} long`,
  }));
  const uses = design.linkage.bonds.map((bond) => adhesiveFor(evaluation, bond, workshop).name);
  const adhesives = [...new Set(uses)].map((name): [string, number] => [capitalised(name), uses.filter((other) => other === name).length]);
  const posted = postedCard(closed, evaluation.dressed);
  const envelope =
    supplies.envelopes.find((e) => e.id === design.card.envelope) ??
    closestEnvelope(posted.width, posted.height, posted.thickness, workshop);
  const { envelope: dressedEnvelope } = evaluation.dressed;
  const folded: Material = {
    what: 'Envelope, folded from a square',
    detail: dressedEnvelope
      ? `${dressedEnvelope.stock.name}, a square of ${say(dressedEnvelope.made.square)}${dressedEnvelope.liner ? `; a liner from ${dressedEnvelope.liner.stock.name}, ${say(dressedEnvelope.liner.sheet.width)} × ${say(dressedEnvelope.liner.sheet.height)}` : ''}`
      : '',
  };
  return [
    ...pieces,
    ...worn,
    ...under,
    ...mounted,
    ...magnets,
    ...bands,
    ...ribbons,
    { what: 'Scrap of the same card', detail: glued > 0 ? 'to try one fold and one glued tab first' : 'to try one fold first' },
    ...(layers.length > 0 ? [{ what: 'Thin glue or double-sided sheet', detail: 'for the layers, up to their edges' }] : []),
    ...adhesives.map(([what, count]) => ({ what, detail: count === 1 ? 'one place' : `${count} places` })),
    {
      what: isFree ? 'Pencil, steel rule, bone folder' : 'Scoring board, pencil, bone folder',
      detail: 'and a trimmer, or a knife on a cutting mat',
    },
    dressedEnvelope
      ? folded
      : { what: 'Envelope', detail: envelope ? envelope.name : told(`${foldAnEnvelope(posted)}; none of mine takes this card`, notation) },
  ];
}
