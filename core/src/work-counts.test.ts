import { expect, it, vi } from 'vitest';
import { newCard } from './card/document.js';
import { evaluate } from './evaluate.js';
import { foldedCard } from './mechanism/bases/folded-card.js';
import { step } from './mechanism/movements/step.js';
import { vFold } from './mechanism/movements/v-fold.js';
import * as panels from './sheet/panels.js';
import * as kinematics from './linkage/kinematics.js';

vi.mock('./sheet/panels.js', { spy: true });
vi.mock('./linkage/kinematics.js', { spy: true });

const CARD = newCard({
  id: 'card',
  name: 'card',
  base: { mechanism: 'folded-card', sizes: {} },
  movements: [
    { id: 'step', mechanism: 'step', on: { part: 'base', site: 'main-fold' }, sizes: { depth: 40, height: 40, width: 70, offset: 30 } },
    { id: 'figure', mechanism: 'v-fold', on: { part: 'step', site: 'front-edge' }, sizes: {} },
  ],
});

it('an evaluation builds every part once and splits every piece once, however many parts and checks ask', () => {
  const builds = [foldedCard, step, vFold].map((mechanism) => vi.spyOn(mechanism, 'build'));
  const outcome = evaluate(CARD);
  if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
  expect(builds.map(({ mock }) => mock.calls.length)).toEqual([1, 1, 1]);
  // The base's sheet is split twice: as it is before anything stands on it, to find its folds, and as it is cut.
  expect(vi.mocked(panels.splitPiece)).toHaveBeenCalledTimes(outcome.evaluation.design.pieces.length + 1);
  // 61 frames, each solved in a few iterations and looked at by the checks: ten poses a frame at the most.
  expect(vi.mocked(kinematics.poseAt).mock.calls.length).toBeLessThan(10 * outcome.evaluation.motion.frames.length);
  evaluate(CARD);
  expect(builds.map(({ mock }) => mock.calls.length)).toEqual([1, 1, 1]);
});
