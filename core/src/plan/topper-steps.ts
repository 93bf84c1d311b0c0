import { SIDE_NAMES } from '../card/dressing.js';
import { inSentence } from '../card/part-titles.js';
import { filmFoot } from '../dress/film-foot.js';
import { FILM_UNDER_TOP } from '../dress/topper-sheets.js';
import type { PlacedTopper } from '../dress/toppers.js';
import type { Evaluation } from '../evaluate.js';
import { STYLES } from '../letters/styles.js';
import { LINE_BREAK } from '../letters/lettering.js';
import { printAngle, sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { boxOf } from '../plane/outline.js';
import { GLUE_FILM } from '../supplies/limits.js';
import type { Workshop } from '../supplies/workshop.js';
import { flatSteps } from './flat-steps.js';
import { joinsOfTopper, joinsTogether } from './joins-said.js';
import { flat, FOAM, plainStep, type BenchStep } from './step.js';

const SAME: Mm = 0.02;

/** Cutting the toppers out, each like any other piece. */
export const topperCuts = (evaluation: Evaluation, workshop: Workshop): BenchStep[] =>
  evaluation.dressed.toppers.flatMap((placed) => [
    ...placed.under.flatMap(({ sheet }) => flatSteps(sheet, evaluation, workshop)),
    ...printing(placed, evaluation),
    ...letters(placed, evaluation),
    ...flatSteps(placed.sheet, evaluation, workshop),
    ...together(placed, evaluation),
  ]);

/** More of the same on it, papers and film behind it, and its twin, before it is glued on. */
function together(placed: PlacedTopper, evaluation: Evaluation): BenchStep[] {
  const { topper, number, sheet, under } = placed;
  const alike = severalAlike(placed, evaluation);
  const behind = under.filter(({ as, face }) => as !== 'twin' || face === topper.face);
  if (alike.length === 0 && behind.length === 0) return [];
  const joins = joinsTogether(placed);
  return [
    plainStep({
      id: `together-${topper.id}`,
      kind: 'dress',
      title: `Glue them together: ${number}`,
      says: [
        ...alike,
        ...sheetsBehind(placed, evaluation),
        'Spread the glue thin and up to the edges, and let them dry under a weight, so that they stay flat.',
      ],
      picture: flat(sheet),
      ...(joins.length > 0 && { joins }),
    }),
  ];
}

function severalAlike({ topper, stock, times }: PlacedTopper, { design }: Evaluation): string[] {
  if (times < 2) return [];
  const thick = sayLength(times * stock.caliper + (times - 1) * GLUE_FILM, design.card.notation);
  const top = topper.greeting ? ' The lettered one comes uppermost.' : '';
  return [`Cut ${times} alike in all. Glue them on one another, good sides up and edges flush: together ${thick} thick.${top}`];
}

function sheetsBehind({ topper, number, under }: PlacedTopper, { design }: Evaluation): string[] {
  const say = (mm: Mm): string => sayLength(mm, design.card.notation);
  const papers = under.filter(({ as }) => as === 'backing').reverse();
  const twin = under.find(({ as, face }) => as === 'twin' && face === topper.face);
  const film = under.find(({ as }) => as === 'film');
  return [
    ...papers.map(
      ({ number: own }, i) =>
        `Glue ${i === 0 ? number : papers[i - 1]!.number} on ${own}, its paper showing ${say(topper.backings![i]!.border)} all round.`,
    ),
    ...(film && topper.film
      ? [
          `Fix it on its film, ${say(topper.film.wide)} wide and ${say(topper.film.long)} long: in the middle across, the upper end of the film ${say(FILM_UNDER_TOP)} under the upper edge of ${number}. Strong tape holds on film; wet glue does not.`,
        ]
      : []),
    ...(twin
      ? [
          `Glue ${twin.number} behind it, its good side away, edge on edge with what it covers. It is the mirror image: lay it there before you spread the glue.`,
        ]
      : []),
  ];
}

/** Its picture goes onto the paper before that is cut. */
function printing({ topper, number, sheet, stock, times, under }: PlacedTopper, { design }: Evaluation): BenchStep[] {
  const { image } = sheet.piece;
  if (!image) return [];
  const twin = under.find(({ sheet: own }) => own.piece.image);
  const { name } = design.card.images!.find(({ id }) => id === image.of)!;
  const say = (mm: Mm): string => sayLength(mm, design.card.notation);
  return [
    plainStep({
      id: `print-${topper.id}`,
      kind: 'mark',
      title: `Print it: ${number}`,
      says: [
        `“${name}”, ${say(image.width)} wide and ${say(image.height)} high, on the good side of its paper (${stock.name})${times > 1 ? `, ${times} times` : ''}: its template holds it at true size, as far as its cut line.`,
        ...(twin
          ? [
              `On ${twin.number} as well, seen in a mirror, as its own template holds it: so it shows from behind what ${number} shows in front.`,
            ]
          : []),
        'Print at 100 %, not fitted to the page, and measure the bar at the foot before you cut. Let the ink dry.',
      ],
      picture: flat(sheet),
    }),
  ];
}

/** Its greeting goes on before it is cut out, while there is paper to hold on to. */
function letters({ topper, number, sheet }: PlacedTopper, { design }: Evaluation): BenchStep[] {
  const { greeting } = topper;
  if (!greeting) return [];
  const lines = greeting.words.split(LINE_BREAK).map((line) => line.trim());
  return [
    plainStep({
      id: `letters-${topper.id}`,
      kind: 'mark',
      title: `Letter it: ${number}`,
      says: [
        `“${lines.join(' ')}”${lines.length > 1 ? `, in ${lines.length} lines` : ''}: letters ${STYLES[greeting.letters].name}, capitals ${sayLength(greeting.capital, design.card.notation)} high.`,
        'Trace them from its template, or let the cutter draw them: its drawing has them as lines to draw. Do it before you cut it out.',
      ],
      picture: flat(sheet),
    }),
  ];
}

/** Gluing them on, in their order, onto the layers: last, when the card is together and can be looked at. */
export function topperGlue(evaluation: Evaluation): BenchStep[] {
  const { toppers } = evaluation.dressed;
  if (toppers.length === 0) return [];
  const raised = toppers.some(({ pads }) => pads.length > 0);
  const { at } = evaluation.design.base.rest;
  return [
    plainStep({
      id: 'toppers',
      kind: 'dress',
      title: toppers.length === 1 ? 'Glue the topper on' : 'Glue the toppers on',
      says: [
        'Lay each where it belongs before you glue it, and look at all of them together. Sides are those of the piece as it is drawn.',
        ...toppers.map((topper) => placed(topper, evaluation)),
        ...(raised ? ['Pads stay inside the outline: what sticks out catches, or glues the card shut.'] : []),
        'Then open and close the card slowly: nothing may catch.',
      ],
      picture: { kind: 'standing', at },
      joins: toppers.flatMap((topper) => joinsOfTopper(evaluation, topper)),
      cautions: raised ? [FOAM] : [],
    }),
  ];
}

function placed(topperPlaced: PlacedTopper, { design }: Evaluation): string {
  const { number, topper, outlineName, panelName, face, pads, tag, under } = topperPlaced;
  const { notation } = design.card;
  const say = (mm: Mm): string => sayLength(mm, notation);
  const { minX, maxX, minY, maxY } = boxOf(design.panels[design.linkage.bodyOf.get(topper.panel)!]!.area.outer);
  const across = Math.abs(topper.across - (maxX - minX) / 2) < SAME ? undefined : `${say(topper.across)} from the left edge`;
  const along = Math.abs(topper.along - (maxY - minY) / 2) < SAME ? undefined : `${say(topper.along)} from the lower edge`;
  const where =
    !across && !along ? 'in the middle' : `its middle ${across ?? 'in the middle across'} and ${along ?? 'in the middle of the height'}`;
  const turned = topper.turn ? `turned ${printAngle(Math.abs(topper.turn))} to the ${topper.turn > 0 ? 'left' : 'right'}` : 'upright';
  const mount = topper.film
    ? `its film taped down, ${say(filmFoot(topperPlaced).on)} of its length`
    : pads.length > 0
      ? `on ${pads.length} foam ${pads.length === 1 ? 'pad' : 'pads'} ${say(topper.foam!)} high`
      : 'glued flat';
  const { glued } = topper;
  const part = !glued
    ? ''
    : glued.as === 'strip'
      ? `, only along its ${SIDE_NAMES[glued.side]} side, ${say(glued.deep)} wide`
      : `, only along its edges, ${say(glued.deep)} wide, its ${SIDE_NAMES[glued.side]} side left open${tag ? `: a pocket for a tag ${say(tag.width)} wide that goes in ${say(tag.deep)}` : ''}`;
  const loose = topper.removable ? ', with glue that lets go again' : '';
  const twin = under.find(({ as, face: own }) => as === 'twin' && own !== face);
  const behind = twin ? ` ${twin.number} goes behind it on the other side of the film, its good side away.` : '';
  return `${number}, ${topper.name ?? outlineName}, on the ${inSentence(panelName)}${face === 'down' ? ', its back' : ''}: ${where}, ${turned}; ${mount}${part}${loose}.${behind}`;
}
