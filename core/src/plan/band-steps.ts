import type { PlacedBand } from '../dress/bands.js';
import type { Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import type { Workshop } from '../supplies/workshop.js';
import { flatSteps } from './flat-steps.js';
import { joinOfBand } from './joins-said.js';
import { plainStep, type BenchStep } from './step.js';

/** Cutting and scoring the bands, each like any other piece. */
export const bandCuts = (evaluation: Evaluation, workshop: Workshop): BenchStep[] =>
  evaluation.dressed.bands.flatMap(({ sheet }) => flatSteps(sheet, evaluation, workshop));

/** Wrapping them round the card that was tried: the real card has the last word on where they fold. */
export const bandRoundCard = (evaluation: Evaluation): BenchStep[] => evaluation.dressed.bands.map((placed) => wrap(placed, evaluation));

function wrap(placed: PlacedBand, { design }: Evaluation): BenchStep {
  const { closure, number, band, ways, sheet } = placed;
  const say = (mm: Mm): string => sayLength(mm, design.card.notation);
  const off = ways.filter(({ free }) => free).map(({ toward }) => toward);
  const from = closure.around === 'across' ? 'the lower end' : 'the fold';
  return plainStep({
    id: `wrap-${closure.id}`,
    kind: 'dress',
    title: `Wrap the band round: ${number}`,
    says: [
      `Close the card. Lay the band under it, inside up, its middle ${say(closure.at)} from ${from}, and fold it round ${closure.around === 'across' ? 'the fold and the free edge' : 'both ends'}.`,
      closure.fastener === undefined
        ? `Its end laps ${say(band.overlap)} over its beginning: glue it to itself in two places, never to the card.`
        : `Its end laps ${say(band.overlap)} over its beginning: fix the fastener, ${say(closure.fastener)} thick, between them, in the middle, never to the card.`,
      `It has ${say(band.slip)} to slip. If it binds, fold it again to the real card before you glue.`,
      off.length > 0
        ? `It slides off toward ${off.join(' and toward ')}.`
        : 'Something is in its way on both sides: see the verdicts before you glue it.',
      ...(closure.gift
        ? [
            `Dot the gift on it last, ${say(closure.gift.thick)} high, on the front, with removable dots: it comes off and the band stays whole. Small parts: keep them away from small children.`,
          ]
        : []),
    ],
    joins: closure.fastener === undefined ? [joinOfBand(placed)] : [],
    picture: {
      kind: 'flat',
      piece: sheet.piece.id,
      face: 'up',
      turned: false,
      scores: sheet.scores.map(({ id }) => id),
      zones: [],
      marks: false,
      cuts: false,
    },
  });
}
