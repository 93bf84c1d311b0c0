import { orderSaid } from '../check/opens-in-order.js';
import { postedCard } from '../dress/posted-card.js';
import { foldAnEnvelope } from '../dress/fold-an-envelope.js';
import { sayInWords, told } from '../measure/sentence.js';
import { toDegrees } from '../measure/units.js';
import { sayLength } from '../measure/print.js';
import type { Evaluation } from '../evaluate.js';
import { readTracked } from '../evaluate.js';
import { closestEnvelope } from '../supplies/envelopes.js';
import { starterFor } from '../supplies/starter-workshops.js';
import type { Workshop } from '../supplies/workshop.js';
import { flatSteps, fold } from './flat-steps.js';
import { glueSteps } from './glue-steps.js';
import { materialsOf } from './materials.js';
import { plainStep, type BenchStep } from './step.js';
import { layerCuts, layerGlue } from './layer-steps.js';
import { magnetCuts, magnetGlue } from './magnet-steps.js';
import { bandCuts, bandRoundCard } from './band-steps.js';
import { envelopeSteps } from './envelope-steps.js';
import { ribbonsTied } from './ribbon-steps.js';
import { topperCuts, topperGlue } from './topper-steps.js';
import { wayUpSteps } from './way-up.js';

/** The steps of making a card by hand with the maker's own board, tools and school, in the order of the work. */
export function benchSteps(evaluation: Evaluation, workshop: Workshop = starterFor(evaluation.design.card.notation)): BenchStep[] {
  const { sheets } = evaluation;
  return toldApart([
    ready(evaluation, workshop),
    ...sheets.flatMap((sheet) => flatSteps(sheet, evaluation, workshop)),
    ...layerCuts(evaluation, workshop),
    ...topperCuts(evaluation, workshop),
    ...magnetCuts(evaluation, workshop),
    ...bandCuts(evaluation, workshop),
    ...sheets.filter((sheet) => sheet.scores.length > 0).map((sheet) => fold(sheet, evaluation, workshop)),
    dryFit(evaluation),
    plainStep({
      id: 'burnish',
      kind: 'burnish',
      title: 'Crease hard',
      says: ['Everything lines up? Now run the bone folder along every fold.', 'Work folds that move both ways a few times.'],
      picture: { kind: 'standing', at: 0.3 },
    }),
    ...magnetGlue(evaluation),
    ...layerGlue(evaluation),
    ...wayUpSteps(evaluation),
    ...glueSteps(evaluation, workshop),
    ...topperGlue(evaluation),
    test(evaluation),
    ...bandRoundCard(evaluation),
    ...ribbonsTied(evaluation),
    ...envelopeSteps(evaluation, workshop),
    post(evaluation, workshop),
  ]);
}

/** No two steps have one title: pieces of one name are numbered. */
function toldApart(steps: readonly BenchStep[]): BenchStep[] {
  const count = new Map<string, number>();
  for (const { title } of steps) count.set(title, (count.get(title) ?? 0) + 1);
  const used = new Map<string, number>();
  return steps.map((step) => {
    if (count.get(step.title) === 1) return step;
    const nth = (used.get(step.title) ?? 0) + 1;
    used.set(step.title, nth);
    return { ...step, title: `${step.title}, ${nth} of ${count.get(step.title)}` };
  });
}

function ready(evaluation: Evaluation, workshop: Workshop): BenchStep {
  return plainStep({
    id: 'ready',
    kind: 'ready',
    title: 'Put everything on the table',
    says: [
      'Check it off before the first cut.',
      evaluation.design.linkage.bonds.length > 0
        ? 'Try one fold and one glued tab on scrap: does this card crack, does this glue hold?'
        : 'Try one fold on scrap: does this card crack?',
    ],
    materials: materialsOf(evaluation, workshop),
  });
}

function dryFit({ design }: Evaluation): BenchStep {
  const joins = design.linkage.bonds.map((bond) => bond.source.name);
  return plainStep({
    id: 'dry-fit',
    kind: 'dry-fit',
    title: joins.length > 0 ? 'Try it without glue' : 'Try it before you crease hard',
    says: [
      ...(joins.length > 0 ? [`Hold the parts where they belong: ${joins.join('; ')}.`] : []),
      'Close and open it gently. Trim now what shows past an edge.',
      ...design.words.fitting,
    ],
    picture: { kind: 'standing', at: 0.5 },
  });
}

function test(evaluation: Evaluation): BenchStep {
  const { design, resting, dressed } = evaluation;
  const readings = design.tracked.map((tracked) => {
    const value = readTracked(evaluation, tracked, resting);
    return `${tracked.label}: ${tracked.kind === 'angle' ? `${toDegrees(value).toFixed(0)}°` : sayLength(value, design.card.notation)}`;
  });
  return plainStep({
    id: 'test',
    kind: 'test',
    title: 'Open and close it, slowly',
    says: [
      ...dressed.order.map((order) => told(orderSaid(order, design), design.card.notation)),
      'Look from the side: does anything catch, gape, lean the wrong way or stick out?',
      ...design.words.settingUp,
      readings.length > 0
        ? `Put down ${design.base.rest.says}, it should read: ${readings.join('; ')}.`
        : `Put it down: ${design.base.rest.says}.`,
      'A fold that springs back needs creasing again.',
      ...(design.base.rest.stop ? ['A wrong lean needs its stop moved.'] : []),
    ],
    picture: { kind: 'standing', at: design.base.rest.at },
  });
}

function post({ design, closed, dressed }: Evaluation, workshop: Workshop): BenchStep {
  const { notation } = design.card;
  const { minX, maxX, minY, maxY } = closed.box;
  const chosen = design.card.supplies.envelopes.find((e) => e.id === design.card.envelope);
  const posted = postedCard(closed, dressed);
  const closest = closestEnvelope(posted.width, posted.height, posted.thickness, workshop);
  const fitting = closest
    ? `Of my envelopes this one fits best: ${closest.name}.`
    : told(`None of my envelopes takes it: ${foldAnEnvelope(posted)}.`, notation);
  const { rest } = design.base;
  return plainStep({
    id: 'post',
    kind: 'post',
    title: 'Into the envelope',
    says: [
      `Closed it is ${sayLength(maxX - minX, notation)} across the fold, ${sayLength(maxY - minY, notation)} along it and ${sayInWords(closed.thickest.thickness, notation)} thick.`,
      dressed.envelope ? 'Envelope: the one that you folded for it.' : chosen ? `Envelope: ${chosen.name}.` : fitting,
      design.words.posting ?? 'Post it folded the way it closes, never bent back: a panel folded backward for a week leans backward.',
      ...(rest.stop || rest.heldBy?.by === 'creases'
        ? ['If it leans back after the post, press it forward at its folds for a moment.']
        : []),
      'Ask your post for its limits of size, thickness and weight.',
    ],
    picture: { kind: 'standing', at: 0 },
  });
}
