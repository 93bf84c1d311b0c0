import type { Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { flat, GLUE, KNIFE, plainStep, type BenchStep } from './step.js';

/** Making the envelope of the card: a square, four marks, four notches, four folds. */
export function envelopeSteps({ dressed, design }: Evaluation): BenchStep[] {
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
      picture: flat(sheet, { cuts: true }),
      cautions: [KNIFE],
    }),
    plainStep({
      id: 'envelope-fold',
      kind: 'score',
      title: 'Score and fold the envelope',
      says: [
        'Score from point to point, all four lines, and fold every flap toward you once.',
        ...(liner
          ? [
              `Cut the liner from ${liner.stock.name} by its template, score its line, and glue it onto one flap B, its score on the fold of that flap: the flap's own edges stay free for gum.`,
            ]
          : []),
      ],
      picture: flat(sheet, { scores: sheet.scores.map(({ id }) => id) }),
    }),
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
