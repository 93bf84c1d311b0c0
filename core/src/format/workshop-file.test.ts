import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { INCH_WORKSHOP, METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { SUPPLY_LISTS, type Supply } from '../supplies/workshop.js';
import { dice } from '../testing/any-tree.js';
import { mutated } from '../testing/old-files.js';
import { LARGEST_WORKSHOP_FILE, problemsOfSupply, readWorkshopFile, writeWorkshopFile } from './workshop-file.js';

const WORKSHOPS = [METRIC_WORKSHOP, INCH_WORKSHOP];

describe('a workshop file', () => {
  it.each(WORKSHOPS.map((workshop) => ({ notation: workshop.notation, workshop })))(
    'of a maker in $notation comes back exactly',
    ({ workshop }) => {
      expect(readWorkshopFile(writeWorkshopFile(workshop))).toEqual({ ok: true, workshop });
    },
  );

  it('with one place of it changed is read as what it says, or refused with the path of it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e9 }), (seed) => {
        const changed = mutated(JSON.parse(writeWorkshopFile(METRIC_WORKSHOP)) as Parameters<typeof mutated>[0], dice(seed));
        const reading = readWorkshopFile(JSON.stringify(changed));
        if (reading.ok) expect(JSON.parse(writeWorkshopFile(reading.workshop))).toEqual(changed);
        else for (const { path, says } of reading.problems) expect(path.length * says.length).toBeGreaterThan(0);
      }),
      { numRuns: 300, seed: 9 },
    );
  });

  it.each([
    ['nothing', '', 'file'],
    ['no workshop', '[]', 'format'],
    ['too much', `"${'x'.repeat(LARGEST_WORKSHOP_FILE)}"`, 'file'],
    [
      'a board of no length',
      JSON.stringify({ ...METRIC_WORKSHOP, boards: [{ ...METRIC_WORKSHOP.boards[0], length: 0 }] }),
      'boards.0.length',
    ],
  ])('with %s is refused', (_, text, path) => {
    const reading = readWorkshopFile(text);
    expect(reading.ok ? [] : reading.problems.map((problem) => problem.path)).toContain(path);
  });
});

describe('a supply', () => {
  it.each(SUPPLY_LISTS)('of the starters’ %s has nothing wrong with it', (list) => {
    for (const workshop of WORKSHOPS)
      for (const entry of workshop[list] as readonly Supply[]) expect(problemsOfSupply(list, entry)).toEqual([]);
  });

  it('with a caliper that is none is refused at that field', () => {
    const [stock] = METRIC_WORKSHOP.stocks;
    expect(problemsOfSupply('stocks', { ...stock!, caliper: -1 }).map(({ path }) => path)).toContain('caliper');
  });
});
