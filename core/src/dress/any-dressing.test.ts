import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { undressed, withClosure, withOwnEnvelope, withTopper } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import { SIDES, type Topper } from '../card/dressing.js';
import { evaluate } from '../evaluate.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { STYLE_IDS } from '../letters/styles.js';
import { benchSteps } from '../plan/bench-steps.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { treeOf, treeSeed } from '../testing/any-tree.js';
import { evaluated } from '../testing/evaluated.js';

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
const bases = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');
const workshop = starterFor('mm');

describe('any dressing on any tree', () => {
  it('is worked out and made without a throw or a number that is none, and leaves nothing behind when it is taken off', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...bases),
        treeSeed,
        fc.array(topper, { maxLength: 5 }),
        fc.array(closure, { maxLength: 3 }),
        fc.boolean(),
        (base, seed, toppers, closures, folded) => {
          const card = treeOf(base, seed, 3);
          // A tree that is refused bare is for the tests of trees.
          const outcome = evaluate(card);
          fc.pre(outcome.ok);
          const bare = evaluated(card);
          const { panels } = bare.design;
          const panelOf = (share: number): string => panels[Math.floor(share * panels.length)]!.id;
          const said = <T extends object>(entry: T): T =>
            Object.fromEntries(Object.entries(entry).filter(([, value]) => value !== undefined)) as T;
          let worn: CardDocument = card;
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
          expect(evaluated(undressed(worn)).findings).toEqual(bare.findings);
        },
      ),
      { numRuns: 14, seed: 29 },
    );
  });
});
