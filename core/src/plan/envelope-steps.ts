import type { Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { outer } from '../sheet/cut-lines.js';
import type { Workshop } from '../supplies/workshop.js';
import { cutRun } from './cut-runs.js';
import { flatSteps } from './flat-steps.js';
import { readingFrom } from './reading.js';
import { blankOf, flat, GLUE, KNIFE, plainStep, type BenchStep } from './step.js';

/** Making the envelope of the card: a square, four marks, four notches, four folds. */
export function envelopeSteps(evaluation: Evaluation, workshop: Workshop): BenchStep[] {
  const { dressed, design } = evaluation;
  const { envelope } = dressed;
  if (!envelope) return [];
  const say = (mm: Mm): string => sayLength(mm, design.card.notation);
  const { made, sheet, stock, liner } = envelope;
  const { square, firstFold, notch, pocket, tips, seam } = made;
  return [
    plainStep({
      id: 'envelope-cut',
      kind: 'cut',
      title: 'Cut the envelope',
      says: [
        `Cut a square of ${say(square)} from ${stock.name}, its inside toward you. Call its lower left and upper right corners A, the other two B.`,
        `On every edge make marks ${say(firstFold - notch)}, ${say(firstFold)} and ${say(firstFold + notch)} from its corner A.`,
        `The point of a notch lies ${say(notch)} inside the edge at the middle mark: cut from both outer marks to that point, and take the notch out. All four points are the corners of the pocket.`,
        ...tips.flatMap((tip, i) =>
          tip > 0
            ? [
                `Cut the tips of both corners ${i === 0 ? 'A' : 'B'} off, from ${say(tip)} along the one edge to ${say(tip)} along the other: else they would reach the fold opposite.`,
              ]
            : [],
        ),
      ],
      blanks: [blankOf(sheet)],
      readings: cutRun(sheet, outer(sheet), design.card.notation, workshop.schools.cutting).readings,
      picture: flat(sheet, { cuts: true }),
      cautions: [KNIFE],
    }),
    plainStep({
      id: 'envelope-fold',
      kind: 'score',
      title: 'Score and fold the envelope',
      says: ['Score from point to point, all four lines, and fold every flap toward you once.'],
      readings: sheet.scores.map(({ id, fold, from, to }) => readingFrom('left edge', sheet, { id, kind: 'score', fold, from, to })),
      picture: flat(sheet, { scores: sheet.scores.map(({ id }) => id) }),
    }),
    ...(liner
      ? [
          ...flatSteps(liner.sheet, evaluation, workshop),
          plainStep({
            id: 'envelope-line',
            kind: 'dress',
            title: 'Line the envelope',
            says: [
              `Fold the liner of ${liner.stock.name} toward you along its score. Glue it onto one flap B and the inside beside it, its score on the fold of that flap: the flap's own edges stay free for gum.`,
            ],
            picture: flat(liner.sheet, { scores: liner.sheet.scores.map(({ id }) => id) }),
            cautions: [GLUE],
          }),
        ]
      : []),
    plainStep({
      id: 'envelope-glue',
      kind: 'dress',
      title: 'Glue the envelope',
      says: [
        `Fold both flaps A in, then the flap B ${liner ? 'without the liner' : 'below'}. Glue it to the flaps A only along their edges: no glue may reach the pocket.`,
        `The pocket is ${say(pocket[0])} × ${say(pocket[1])} inside. Try the closed card in it before the glue has dried.`,
        `The last flap B laps ${say(seam)} over the other: close it with gum or a sticker once the card is inside.`,
      ],
      picture: flat(sheet, { scores: sheet.scores.map(({ id }) => id) }),
      cautions: [GLUE],
    }),
  ];
}
