/**
 * Speed, measured and printed; nothing here passes or fails. The same closure equations are also given to
 * a general least-squares package and to a derivative-free minimiser, to the same closure error.
 */
import fmin from 'fmin';
import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { bentRows } from '../src/card/bent-rows.js';
import { draw } from '../src/card/draw.js';
import { ROOT, withOwnSupplies, type CardDocument, type CardPart } from '../src/card/document.js';
import { dressedBy, withTopper, withTopperChanged } from '../src/card/dress-card.js';
import { KeptGeometry } from '../src/card/kept-geometry.js';
import { join } from '../src/card/join.js';
import { cardToTry, sizesForClosed } from '../src/card/try-out.js';
import { closeUp, evaluate, judge, move } from '../src/evaluate.js';
import { followMotion } from '../src/linkage/motion.js';
import { drivenHinges } from '../src/linkage/schedule.js';
import { LoopSolver } from '../src/linkage/solver.js';
import { CATALOGUE } from '../src/mechanism/catalogue.js';
import { starterFor } from '../src/supplies/starter-workshops.js';
import { withOffers } from '../src/trial/offers.js';

/** A card that nothing is known of yet: what is kept with a card is kept with the object. */
const anew = (card: CardDocument): CardDocument => ({ ...card });

/** Every entry of the catalogue with its own sizes; a movement stands on a folded card. */
const CARDS: { name: string; card: CardDocument; tier: number }[] = CATALOGUE.map((mechanism) => ({
  name: mechanism.id,
  tier: mechanism.kind === 'base' ? 0 : 1,
  card: cardToTry(mechanism),
}));

/** The two that are also given to general solvers: a planar and a spatial loop. */
const COMPARED = ['easel-folded-front', 'v-fold'];

/** Median of repeated runs, ms. */
function median(repeats: number, work: () => void): number {
  for (let i = 0; i < Math.ceil(repeats / 5); i++) work();
  const times = Array.from({ length: repeats }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  });
  return times.sort((a, b) => a - b)[Math.floor(repeats / 2)]!;
}

const shown = (ms: number): string => (ms < 1 ? ms.toFixed(4) : ms.toFixed(2)).padStart(10);
const row = (what: string, ms: number, note = ''): void => console.log(`${what.padEnd(56)}${shown(ms)} ms  ${note}`);

/** The stages of the pipeline, each begun with what the one before hands on. */
function stages(card: CardDocument): { name: string; work: () => void }[] {
  const workshop = starterFor(card.notation);
  const drawn = draw(card);
  if (!drawn.ok) throw new Error(drawn.problems[0]!.says);
  const joined = join(drawn.drawing);
  if (!joined.ok) throw new Error(joined.problems[0]!.says);
  const moved = move(joined.design);
  const closed = closeUp(moved);
  return [
    { name: 'draw', work: () => draw(anew(card)) },
    { name: 'join', work: () => join({ ...drawn.drawing, pieces: drawn.drawing.pieces.map((piece) => ({ ...piece })) }) },
    { name: 'move', work: () => move(joined.design) },
    // The order of its layers is kept with a motion.
    { name: 'close', work: () => closeUp({ ...moved, motion: { ...moved.motion } }) },
    { name: 'judge', work: () => judge(closed, workshop) },
    { name: 'whole', work: () => evaluate(anew(card)) },
  ];
}

const columns = ['draw', 'join', 'move', 'close', 'judge', 'whole', 'offers'];
console.log('Whole evaluation by stage, median ms (aim 5, never above 20 for a base; 40 with six movements)');
console.log(['', ...columns.map((name) => name.padStart(9))].join('').padStart(24 + 9 * columns.length));

/** Six movements on one base, one of them on the fold of another. */
const LOADED: CardDocument = withOwnSupplies({
  ...cardToTry(CATALOGUE[0]!, { name: 'six movements', sizes: { depth: 140, length: 300 } }),
  parts: [
    { id: ROOT, mechanism: 'folded-card', sizes: { depth: 140, length: 300 } },
    ...[0, 1, 2].map((i): CardPart => ({
      id: `step-${i + 1}`,
      mechanism: 'step',
      on: { part: ROOT, site: 'main-fold' },
      sizes: { depth: 30, height: 35, width: 40, offset: 10 + 50 * i },
    })),
    { id: 'on-edge', mechanism: 'v-fold', on: { part: 'step-1', site: 'front-edge' }, sizes: { crestLength: 25 } },
    ...[190, 250].map((apex, i): CardPart => ({
      id: `figure-${i + 1}`,
      mechanism: 'v-fold',
      on: { part: ROOT, site: 'main-fold' },
      sizes: { apex, wingLength: 45, crestLength: 50 },
    })),
  ],
});

/** The same in its papers: layers on all that is seen, and toppers, twenty in all. */
const DRESSED: CardDocument = Array.from({ length: 6 }).reduce<CardDocument>(
  (card, _, i) =>
    withTopper(
      card,
      {
        panel: 'base/front-leaf',
        face: 'down',
        across: 70,
        along: 25 + 50 * i,
        outline: 'mushroom',
        height: 30,
        stock: 'card-250',
        ...(i % 3 === 0 && { foam: 1 }),
      },
      starterFor('mm'),
    ),
  dressedBy(LOADED, { border: 3 }, starterFor('mm')),
);

/** Six of different kinds side by side, and one that stands on another. */
const MIXED: CardDocument = withOwnSupplies({
  ...cardToTry(CATALOGUE[0]!, { name: 'six kinds', sizes: { depth: 140, length: 320 } }),
  parts: [
    { id: ROOT, mechanism: 'folded-card', sizes: { depth: 140, length: 320 } },
    ...(
      [
        ['twist-carrier', { width: 30, stripLength: 120, carrierLength: 120, middle: 20 }],
        ['push-through', { size: 50, offset: 42 }],
        ['floating-layer', { width: 60, offset: 100, lift: 20, height: 60 }],
        ['step', { width: 40, offset: 168, depth: 30, height: 30 }],
        ['v-fold', { apex: 222, wingLength: 40, crestLength: 50 }],
        ['v-fold', { apex: 268, wingLength: 40, crestLength: 50 }],
      ] as const
    ).map(([mechanism, sizes], i): CardPart => ({
      id: `part-${i}`,
      mechanism,
      on: { part: ROOT, site: 'main-fold' },
      sizes: { ...sizes },
    })),
    { id: 'on-edge', mechanism: 'v-fold', on: { part: 'part-3', site: 'front-edge' }, sizes: { crestLength: 25 } },
  ],
});

for (const { name, card } of [
  ...CARDS,
  { name: 'base with six movements', card: LOADED },
  { name: 'the same, dressed', card: DRESSED },
  { name: 'six kinds and one on it', card: MIXED },
]) {
  const medians = stages(card).map(({ work }) => median(30, work));
  // Odd sizes on a board of 5 mm grooves: the search for sizes that fall into them, and the trial of what it finds.
  const base = CATALOGUE.find(({ id }) => id === card.parts[0]!.mechanism)!;
  const sizes = base.kind === 'base' && card.parts.length === 1 ? sizesForClosed(base, 127.3, 111.7) : undefined;
  const odd = sizes && evaluate(withOwnSupplies({ ...card, board: 'five-mm-300', parts: [{ ...card.parts[0]!, sizes }] }));
  const offers = odd?.ok ? median(10, () => withOffers(odd.evaluation)) : undefined;
  console.log(
    `${name.padEnd(24)}${[...medians, ...(offers === undefined ? [] : [offers])].map((ms) => ms.toFixed(2).padStart(9)).join('')}`,
  );
}

// A topper under the hand: the card folds as it did, and its layers are those of before.
const kept = new KeptGeometry();
const placedAt = (across: number): CardDocument => withTopperChanged(DRESSED, 'topper-1', { across }, starterFor('mm'));
evaluate(DRESSED, starterFor('mm'), kept);
let hand = 60;
row(
  'six movements, dressed: a topper moved',
  median(40, () => evaluate(placedAt((hand += 0.5)), starterFor('mm'), kept)),
);
console.log('');

// Beside the evaluation: the worker takes it on once the card stands still.
const twist = evaluate(cardToTry(CATALOGUE.find(({ id }) => id === 'twist-carrier')!));
if (!twist.ok) throw new Error('default sizes refused');
row(
  'twist-carrier: its middle bent, 61 frames from either end',
  median(1, () => bentRows(twist.evaluation.design, twist.evaluation.motion)),
);
console.log('');

for (const { name, card, tier } of CARDS) {
  const drawn = draw(card);
  if (!drawn.ok) throw new Error('default sizes refused');
  const joined = join(drawn.drawing);
  if (!joined.ok) throw new Error('default sizes do not join');
  const { linkage, schedule } = joined.design;
  const motion = followMotion(linkage, schedule);
  if (!COMPARED.includes(name)) continue;

  // One step of 3° from frame 30 to 31, as the motion takes it.
  const driven = new Set([...drivenHinges(schedule)].map((id) => linkage.hingeIndex.get(id)!));
  const solver = new LoopSolver(linkage, driven);
  const [from, to] = [motion.frames[30]!.folds, motion.frames[31]!.folds];
  const start = from.slice();
  for (const h of driven) start[h] = to[h]!;
  const folds = start.slice();
  let misfit = 0;
  const ours = median(200, () => {
    folds.set(start);
    misfit = solver.solve(folds);
  });
  row(`${name}: one frame, this solver`, ours, `misfit ${misfit.toExponential(1)} mm`);

  const { unknowns, evaluate: residualsAt } = solver.equations(tier, start.slice());
  const first = Array.from(unknowns, (h) => start[h]!);
  const rows = residualsAt(first).length;
  const error = (x: ArrayLike<number>): number => Math.max(...Array.from(residualsAt(x), Math.abs));

  const data = { x: Array.from({ length: Math.max(rows, 2) }, (_, i) => i), y: new Array<number>(Math.max(rows, 2)).fill(0) };
  let general = first;
  const lm = median(20, () => {
    const fitted = levenbergMarquardt(
      data,
      (parameters: number[]) => {
        const r = residualsAt(parameters);
        return (i: number) => r[i] ?? 0;
      },
      { initialValues: first, damping: 1e-3, gradientDifference: 1e-6, maxIterations: 200, errorTolerance: 1e-20 },
    );
    general = fitted.parameterValues;
  });
  row(
    `${name}: one frame, general Levenberg–Marquardt package`,
    lm,
    `error ${error(general).toExponential(1)} mm, ${(lm / ours).toFixed(0)} times as long`,
  );

  let free = first;
  const simplex = median(10, () => {
    const found = fmin.nelderMead((x: number[]) => residualsAt(x).reduce((sum, r) => sum + r * r, 0), first, {
      maxIterations: 20000,
      minErrorDelta: 1e-24,
      minTolerance: 1e-12,
    });
    free = found.x;
  });
  row(
    `${name}: one frame, derivative-free minimiser`,
    simplex,
    `error ${error(free).toExponential(1)} mm, ${(simplex / ours).toFixed(0)} times as long`,
  );
}
