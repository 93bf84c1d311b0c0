/**
 * Speed, measured and printed; nothing here passes or fails. The same closure equations are also given to
 * a general least-squares package and to a derivative-free minimiser, to the same closure error.
 */
import fmin from 'fmin';
import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { compose } from '../src/card/compose.js';
import { newCard, type CardDocument } from '../src/card/document.js';
import { evaluate } from '../src/evaluate.js';
import { followMotion } from '../src/linkage/motion.js';
import { drivenHinges } from '../src/linkage/schedule.js';
import { LoopSolver } from '../src/linkage/solver.js';
import { baseById, CATALOGUE } from '../src/mechanism/catalogue.js';

const base = (mechanism: string): CardDocument => newCard({ id: mechanism, name: mechanism, base: { mechanism, sizes: {} } });

/** Every entry of the catalogue with its own sizes; a movement stands on a folded card. */
const CARDS: { name: string; card: CardDocument; tier: number }[] = CATALOGUE.map(({ id, kind }) => ({
  name: id,
  tier: kind === 'base' ? 0 : 1,
  card: kind === 'base' ? base(id) : { ...base('folded-card'), movements: [{ id: 'figure', mechanism: id, host: 'main-fold', sizes: {} }] },
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

for (const { name, card, tier } of CARDS) {
  const composed = compose(card);
  if (!composed.ok) throw new Error('default sizes refused');
  const { linkage, schedule } = composed.design;
  const motion = followMotion(linkage, schedule);
  const perFrame = motion.frames.length;

  row(
    `${name}: whole evaluation`,
    median(30, () => evaluate(card)),
    'aim 20, never above 60',
  );
  if (tier === 0) {
    // Odd sizes on a board of 5 mm grooves: the search for sizes that fall into them, and the trial of what it finds.
    const odd = baseById(card.base.mechanism).forClosedSize(127.3, 111.7) as CardDocument['base']['sizes'];
    const offGroove: CardDocument = { ...card, board: 'five-mm-300', base: { ...card.base, sizes: odd } };
    row(
      `${name}: whole evaluation, off the grooves`,
      median(30, () => evaluate(offGroove)),
      'never above 60',
    );
  }
  row(
    `${name}: motion, ${perFrame} frames, a frame`,
    median(40, () => followMotion(linkage, schedule)) / perFrame,
    'aim 0.1 planar, 0.5 spatial',
  );

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
