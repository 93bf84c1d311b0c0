import { describe, expect, it } from 'vitest';
import { mentions, secondsOf, withStep, type Build } from '../logbook/build.js';
import { cardOn } from '../testing/evaluated.js';
import { MOST_COPIES, readBuild } from './build-record.js';

const build: Build = {
  ...{
    id: 'b1',
    card: 'c1',
    name: 'Foray invitation',
    as: cardOn('folded-card'),
    copies: 10,
    begunAt: 1,
    steps: [],
    measures: [],
    faults: [],
  },
  ...{ photos: [], forWhom: 'Moss walkers', wouldChange: 'thinner stock' },
};

describe('a build', () => {
  it('is read back as it was kept', () => {
    const whole: Build = {
      ...withStep(build, { id: 'trim-base', title: 'Trim' }, 3, 42),
      endedAt: 5,
      measures: [{ what: 'score', says: 'fold', planned: 60, measured: 60.4, tool: 'board', stock: 's', mechanism: 'swing' }],
      faults: [{ step: 'Trim', says: 'cut too short' }],
      photos: ['p1'],
    };
    expect(readBuild(JSON.parse(JSON.stringify(whole)))).toEqual({ ok: true, build: whole });
  });

  it.each([
    [{ copies: MOST_COPIES + 1 }, 'copies', '1 to 99'],
    [
      { measures: [{ ...{ what: 'guess', says: '', planned: 1, measured: 1 }, ...{ tool: '', stock: '', mechanism: '' } }] },
      'measures.0.what',
      'score',
    ],
    [{ as: { format: 'no card' } }, 'as.', ''],
    [{ extra: 1 }, 'extra', 'does not belong'],
    [{ wouldChange: 'x'.repeat(4001) }, 'wouldChange', 'at most 4000'],
  ])('that is damaged is refused with the place: %j', (damage, path, says) => {
    const reading = readBuild({ ...build, ...damage });
    expect(reading.ok).toBe(false);
    if (reading.ok) return;
    expect(reading.problems[0]!.path).toContain(path);
    expect(reading.problems[0]!.says).toContain(says);
  });

  it('counts copies and time of each step, never more than there are copies', () => {
    const step = { id: 's', title: 'Score' };
    const once = withStep(build, step, 4, 30);
    const twice = withStep(withStep(once, step, 9, 15), { id: 't', title: 'Trim' }, 1, 5);
    expect(twice.steps.map(({ id, done, seconds }) => [id, done, seconds])).toEqual([
      ['s', 10, 45],
      ['t', 1, 5],
    ]);
    expect(secondsOf(twice)).toBe(50);
    expect(withStep(once, step, -9, 0).steps[0]!.done).toBe(0);
  });

  it('is found by all words of a search, wherever they stand', () => {
    expect(mentions(build, 'moss invitation')).toBe(true);
    expect(mentions(build, 'THINNER')).toBe(true);
    expect(mentions(build, 'moss lantern')).toBe(false);
  });
});
