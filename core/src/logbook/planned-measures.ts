import { stockOf } from '../card/card-stocks.js';
import { everySheet } from '../dress/every-sheet.js';
import type { Evaluation } from '../evaluate.js';
import { ROOT } from '../card/document.js';
import type { Mm } from '../measure/units.js';
import { benchSteps } from '../plan/bench-steps.js';
import { partOf, readsOffRuler } from '../sheet/cut-sheet.js';
import type { Workshop } from '../supplies/workshop.js';
import type { Measure } from './build.js';

/** Narrower panels are not measured outside with a ruler. */
const LEAST_PANEL: Mm = 15;

/** A length of a card that can be measured once it is made: a measure that waits for its second number. */
export type PlannedMeasure = Omit<Measure, 'measured'>;

/**
 * What can be measured of a card, in the order of its pieces: both sides of each blank, each score from the edge that its step
 * reads it from, and each panel between two scores, folded.
 */
export function plannedMeasures(evaluation: Evaluation, workshop: Workshop): PlannedMeasure[] {
  const { design } = evaluation;
  const readings = benchSteps(evaluation, workshop).flatMap((step) => step.readings);
  const cutter = workshop.schools.cutting === 'trimmer' ? workshop.trimmers[0]?.id : workshop.knives[0]?.id;
  return everySheet(evaluation).flatMap((sheet): PlannedMeasure[] => {
    const { piece, width, height, scores } = sheet;
    const of = {
      stock: stockOf(design, piece).id,
      mechanism: design.card.parts.find(({ id }) => id === (piece.part ?? ROOT))?.mechanism ?? '',
    };
    const upright = scores.filter((score) => readsOffRuler(score) && !score.secondOfSpine);
    // A panel lies between folds that run right across; what a part scores inside it is none of its sides.
    const across = upright.filter((score) => partOf(score, sheet) === undefined);
    const places = [...new Set(across.map(({ from }) => from[0]))].sort((a, b) => a - b);
    // Stretches of one line are one line.
    const lines = upright.filter(
      ({ name, from }, i) => upright.findIndex((other) => other.name === name && other.from[0] === from[0]) === i,
    );
    return [
      { what: 'trim', says: `${piece.name}, across`, planned: width, tool: cutter ?? '', ...of },
      { what: 'trim', says: `${piece.name}, along`, planned: height, tool: cutter ?? '', ...of },
      ...lines.flatMap(({ id, name }): PlannedMeasure[] => {
        const reading = readings.find(({ piece: own, line, kind }) => own === piece.id && line === id && kind === 'score');
        if (!reading) return [];
        const says = `${piece.name}: ${name}, from the ${reading.edge}`;
        return [{ what: 'score', says, planned: reading.at, tool: design.card.board, ...of }];
      }),
      ...places.flatMap((from, i): PlannedMeasure[] => {
        const to = places[i + 1];
        if (to === undefined || to - from < LEAST_PANEL) return [];
        const says = `${piece.name}: panel ${i + 2} from the left, folded, outside`;
        return [{ what: 'panel', says, planned: to - from, folds: 2, tool: '', ...of }];
      }),
    ];
  });
}
