import { SIDE_NAMES } from '../card/dressing.js';
import { inSentence } from '../card/part-titles.js';
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
import { joinsOfTopper } from './joins-said.js';
import { flat, FOAM, plainStep, type BenchStep } from './step.js';

const SAME: Mm = 0.02;

/** Cutting the toppers out, each like any other piece. */
export const topperCuts = (evaluation: Evaluation, workshop: Workshop): BenchStep[] =>
  evaluation.dressed.toppers.flatMap((placed) => [
    ...letters(placed, evaluation),
    ...flatSteps(placed.sheet, evaluation, workshop),
    ...together(placed, evaluation),
  ]);

/** More of the same on it, edge on edge, before it is glued on. */
function together({ topper, number, sheet, stock, times }: PlacedTopper, { design }: Evaluation): BenchStep[] {
  if (times < 2) return [];
  const thick = sayLength(times * stock.caliper + (times - 1) * GLUE_FILM, design.card.notation);
  const top = topper.greeting ? ' The lettered one comes uppermost.' : '';
  return [
    plainStep({
      id: `together-${topper.id}`,
      kind: 'dress',
      title: `Glue them together: ${number}`,
      says: [
        `Cut ${times} alike in all. Glue them on one another, good sides up and edges flush: together ${thick} thick.${top}`,
        'Spread the glue thin and up to the edges, and let them dry under a weight, so that they stay flat.',
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

function placed({ number, topper, outlineName, panelName, face, pads, tag }: PlacedTopper, { design }: Evaluation): string {
  const { notation } = design.card;
  const say = (mm: Mm): string => sayLength(mm, notation);
  const { minX, maxX, minY, maxY } = boxOf(design.panels[design.linkage.bodyOf.get(topper.panel)!]!.area.outer);
  const across = Math.abs(topper.across - (maxX - minX) / 2) < SAME ? undefined : `${say(topper.across)} from the left edge`;
  const along = Math.abs(topper.along - (maxY - minY) / 2) < SAME ? undefined : `${say(topper.along)} from the lower edge`;
  const where =
    !across && !along ? 'in the middle' : `its middle ${across ?? 'in the middle across'} and ${along ?? 'in the middle of the height'}`;
  const turned = topper.turn ? `turned ${printAngle(Math.abs(topper.turn))} to the ${topper.turn > 0 ? 'left' : 'right'}` : 'upright';
  const mount = pads.length > 0 ? `on ${pads.length} foam ${pads.length === 1 ? 'pad' : 'pads'} ${say(topper.foam!)} high` : 'glued flat';
  const { glued } = topper;
  const part = !glued
    ? ''
    : glued.as === 'strip'
      ? `, only along its ${SIDE_NAMES[glued.side]} side, ${say(glued.deep)} wide`
      : `, only along its edges, ${say(glued.deep)} wide, its ${SIDE_NAMES[glued.side]} side left open${tag ? `: a pocket for a tag ${say(tag.width)} wide that goes in ${say(tag.deep)}` : ''}`;
  const loose = topper.removable ? ', with glue that lets go again' : '';
  return `${number}, ${topper.name ?? outlineName}, on the ${inSentence(panelName)}${face === 'down' ? ', its back' : ''}: ${where}, ${turned}; ${mount}${part}${loose}.`;
}
