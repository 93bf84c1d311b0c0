import { describe, expect, it } from 'vitest';
import { ROOT, type CardDocument } from '../card/document.js';
import { cardToTry } from '../card/try-out.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { erringSizes, fails, jump, off, saidAgainst } from '../testing/verdict-laws.js';

const ERRORS = [0.001, 0.05, 0.2, 0.35, 1, 3, 8];
/** What no hand holds, and creases and paper give. */
const HAND = 0.05;

describe.each(CATALOGUE.map((mechanism) => [mechanism.id, mechanism] as const))('verdicts on %s', (_id, mechanism) => {
  const card = cardToTry(mechanism);
  const right = saidAgainst(card)!;

  it('do not jump at an error, whatever size is off, and say nothing new of one that no hand can hold', () => {
    for (const size of erringSizes(mechanism.kind === 'base' ? ROOT : mechanism.usualId, mechanism.sizes)) {
      for (const sign of [1, -1]) {
        let [before, last] = [right, 0];
        for (const error of ERRORS) {
          const said = saidAgainst(off(card, size, sign * error));
          if (!said) break;
          const where = `${size.of ?? ''}${size.name} ${sign * error}`;
          if (error <= HAND) expect(fails(said), where).toEqual(fails(right));
          expect(jump(before, said, error - last), where).toBeUndefined();
          [before, last] = [said, error];
        }
      }
    }
  });
});

describe('an error of cutting', () => {
  const rootOf = (card: CardDocument) => evaluated(card).findings.find(({ severity, followsFrom }) => severity === 'fail' && !followsFrom)!;

  it.each([1, 3, -1, -3])('of %f mm is told with its amount, at its root', (by) => {
    const amount = Math.abs(by);
    const stage = cardOn('layered-stage', { layers: [{ width: 110 + by, depth: 15, tab: 10 }] });
    expect(rootOf(stage)).toMatchObject({ check: 'equal-widths', value: expect.closeTo(amount, 9) });
    const box = cardOn('box-card', { wall: 60, secondWall: 60, thirdWall: 60 + by });
    expect(rootOf(box).value).toBeCloseTo(amount, 6);
    expect(rootOf(box).shortfall).toBeCloseTo(amount - 0.3, 6);
    const bellows = cardOn('bellows-box', { bellows: 18, rightBellows: 18 + by });
    expect(rootOf(bellows)).toMatchObject({ check: 'equal-widths', value: expect.closeTo(amount, 9) });
  });
});
