import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dressedBy, dressedOtherwise, linedOver, undressed, withClosure, withOwnEnvelope, withTopper } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import { SIDES, type OwnDress, type Topper } from '../card/dressing.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { STYLE_IDS } from '../letters/styles.js';
import { benchSteps } from '../plan/bench-steps.js';
import { cuttingPlan } from '../plan/cutting-plan.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { treeOf, treeSeed } from '../testing/any-tree.js';
import { evaluated } from '../testing/evaluated.js';
import { everySheet } from './every-sheet.js';

const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const perhaps = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined });
const side = fc.constantFrom(...SIDES);
const which = mm(0, 0.999);
const face = fc.constantFrom('up' as const, 'down' as const);

const topper = fc.record({
  ...{ which, face, across: mm(-50, 200), along: mm(-50, 200), height: mm(4, 120), turn: mm(-Math.PI, Math.PI) },
  outline: fc.constantFrom('mushroom', 'fern', 'star', 'heart', 'rectangle'),
  foam: perhaps(mm(0.5, 6)),
  film: perhaps(fc.record({ wide: mm(3, 60), long: mm(10, 200), stock: fc.constantFrom('film-125', 'film-250') })),
  backings: perhaps(
    fc.array(fc.record({ border: mm(0.5, 20), stock: fc.constantFrom('text-100', 'card-250') }), { minLength: 1, maxLength: 3 }),
  ),
  twin: perhaps(fc.constant(true as const)),
  width: perhaps(mm(4, 150)),
  glued: perhaps(
    fc.oneof(
      fc.record({ as: fc.constant('strip' as const), side, deep: mm(2, 80) }),
      fc.record({ as: fc.constant('pocket' as const), side, deep: mm(2, 40) }),
    ),
  ),
  greeting: perhaps(
    fc.record({
      words: fc.constantFrom('Hello', 'Thank you / all', 'Ω', ' / '),
      letters: fc.constantFrom(...STYLE_IDS),
      capital: mm(1.5, 60),
    }),
  ),
});
const around = fc.constantFrom('across' as const, 'along' as const);
const closure = fc.oneof(
  fc.record({
    kind: fc.constant('magnet' as const),
    which,
    face,
    across: mm(-20, 200),
    along: mm(-20, 200),
    disc: mm(3, 25),
    thick: mm(0.5, 5),
    whole: perhaps(fc.constant(true as const)),
  }),
  fc.record({ kind: fc.constant('band' as const), around, wide: mm(6, 150), at: mm(0, 300) }),
  fc.record({
    kind: fc.constant('ribbon' as const),
    around,
    way: fc.constantFrom('round' as const, 'slits' as const),
    wide: mm(3, 60),
    at: mm(0, 300),
    loop: mm(0, 200),
    end: mm(30, 500),
  }),
);
const ownLayer = fc.record({
  ...{ which, face },
  left: perhaps(mm(-40, 30)),
  top: perhaps(mm(-40, 30)),
  steps: perhaps(fc.constantFrom(1 as const, 2 as const, 3 as const)),
  joint: perhaps(
    fc.record({
      runs: around,
      at: mm(5, 120),
      stock: fc.constantFrom('text-100', 'moss-100'),
      cover: perhaps(fc.record({ wide: mm(3, 60), stock: fc.constant('chanterelle-100') })),
    }),
  ),
});
const layers = fc.record({
  border: mm(0, 12),
  steps: fc.constantFrom(1 as const, 2 as const, 3 as const),
  runsOn: perhaps(fc.constant(true as const)),
  own: fc.array(ownLayer, { maxLength: 4 }),
  // which of the folds between two panels, and on which face, layers run over in one piece
  over: fc.array(fc.record({ which, face }), { maxLength: 4 }),
});
const bases = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');
const workshop = starterFor('mm');

type Papers = typeof layers extends fc.Arbitrary<infer T> ? T : never;

/** A card whose seen panels wear layers, some otherwise than others. */
function layered(card: CardDocument, { border, steps, runsOn, own, over }: Papers, bare: Evaluation, panelOf: (share: number) => string) {
  const folds = bare.design.linkage.hinges.map(({ left, right }) => [bare.design.panels[left]!.id, bare.design.panels[right]!.id] as const);
  let worn = dressedBy(card, { border, steps, ...(runsOn && { runsOn }) }, workshop);
  for (const { which: share, face: on, ...rest } of own)
    worn = dressedOtherwise(worn, { panel: panelOf(share), face: on }, rest as Omit<OwnDress, 'panel' | 'face'>, workshop);
  for (const { which: share, face: on } of folds.length > 0 ? over : [])
    worn = linedOver(worn, { face: on, panels: [...folds[Math.floor(share * folds.length)]!] }, true);
  return worn;
}

describe('any dressing on any tree', () => {
  it('is worked out and made without a throw or a number that is none, and leaves nothing behind when it is taken off', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...bases),
        treeSeed,
        fc.array(topper, { maxLength: 5 }),
        fc.array(closure, { maxLength: 3 }),
        fc.option(layers, { nil: undefined }),
        fc.boolean(),
        (base, seed, toppers, closures, papers, folded) => {
          const card = treeOf(base, seed, 3);
          // A tree that is refused bare is for the tests of trees.
          const outcome = evaluate(card);
          fc.pre(outcome.ok);
          const bare = evaluated(card);
          const { panels } = bare.design;
          const panelOf = (share: number): string => panels[Math.floor(share * panels.length)]!.id;
          const said = <T extends object>(entry: T): T =>
            Object.fromEntries(Object.entries(entry).filter(([, value]) => value !== undefined)) as T;
          let worn: CardDocument = papers ? layered(card, papers, bare, panelOf) : card;
          for (const { which: share, film, ...own } of toppers)
            worn = withTopper(
              worn,
              said({ ...own, ...(film && { film, foam: undefined, glued: undefined }), panel: panelOf(share), stock: 'card-250' }) as Omit<
                Topper,
                'id'
              >,
              workshop,
            );
          for (const each of closures) {
            if (each.kind === 'magnet') {
              const { which: share, ...own } = each;
              worn = withClosure(worn, said({ ...own, panel: panelOf(share), stock: 'card-250' }) as never, workshop);
            } else worn = withClosure(worn, (each.kind === 'band' ? { ...each, stock: 'card-250' } : each) as never, workshop);
          }
          if (folded) worn = withOwnEnvelope(worn, { liner: 'text-100' }, workshop);
          const evaluation = evaluated(worn);
          const { closed, findings, dressed } = evaluation;
          expect(dressed.toppers).toHaveLength(toppers.length);
          expect(Number.isFinite(closed.thickest.thickness + closed.box.maxX + closed.box.minY)).toBe(true);
          const read = [...findings.map(({ says }) => says), ...benchSteps(evaluation, workshop).flatMap(({ says }) => says)];
          expect(read.filter((says) => /NaN|undefined|Infinity/.test(says))).toEqual([]);
          // Every piece of every card is laid on a sheet or said to be left out.
          const { sheets, leftOut } = cuttingPlan(evaluation, { copies: 1, tool: 'trimmer', sheets: [] }, workshop);
          const planned = sheets.flatMap(({ pieces }) => pieces.map(({ piece }) => piece));
          const sheetIds = everySheet(evaluation).map(({ piece }) => piece.id);
          expect(new Set(sheetIds).size).toBe(sheetIds.length);
          expect(new Set(planned).size + leftOut.length).toBeGreaterThanOrEqual(sheetIds.length);
          expect(evaluated(undressed(worn)).findings).toEqual(bare.findings);
        },
      ),
      { numRuns: 14, seed: 29 },
    );
  });
});
