import { describe, expect, it } from 'vitest';
import { toRadians } from '../measure/units.js';
import { cardOn } from '../testing/evaluated.js';
import { allowedWords, refusal } from './allowed.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import type { SizeValue } from '../mechanism/sizes.js';
import { evaluate } from '../evaluate.js';
import { rootOf } from './document.js';
import { cardToTry } from './try-out.js';
import { partsOf } from './draw.js';
import { filledSizes, setSize } from './set-size.js';
import { sizeRows } from './size-rows.js';

describe('refusing an alternative', () => {
  const easel = cardOn('easel-folded-front', { depth: 150 });

  it('is done in its own terms: the lean that was typed, and the leans that may be', () => {
    const says = refusal(easel, 'base', 'lean', toRadians(88.5))!;
    expect(says).toMatch(/^Lean from the table: 88\.5° does not work; allowed is 20° to 85°, because /);
    expect(refusal(easel, 'base', 'lean', toRadians(10))).toContain('10° does not work');
  });

  it('takes everything between the ends that it names', () => {
    for (let degrees = 20; degrees <= 85; degrees += 2.5) expect(refusal(easel, 'base', 'lean', toRadians(degrees))).toBeUndefined();
    for (const degrees of [19.5, 85.5]) expect(refusal(easel, 'base', 'lean', toRadians(degrees))).toBeDefined();
  });

  it('agrees with what is refused of the size it stands for', () => {
    for (const degrees of [15, 30, 60, 84, 87]) {
      const stop = filledSizes(setSize(easel, 'base', 'lean', toRadians(degrees)), 'base')['stopDistance'] as number;
      expect(refusal(easel, 'base', 'stopDistance', stop) === undefined).toBe(
        refusal(easel, 'base', 'lean', toRadians(degrees)) === undefined,
      );
    }
  });
});

describe('refusing a size', () => {
  it('names the limits that the other sizes leave', () => {
    const doors = cardOn('rising-strip-doors', { closedWidth: 100 });
    // Inner panels of 15 mm at least on either side: 100 − 30.
    expect(refusal(doors, 'base', 'strip', 71)).toContain('allowed is 8 mm to 70 mm');
    expect(refusal(setSize(doors, 'base', 'closedWidth', 101), 'base', 'strip', 71)).toBeUndefined();
  });

  it('is told in inches to whoever reads inches, nothing lost', () => {
    const card = cardOn('folded-card', {}, { notation: 'inch/8' });
    expect(refusal(card, 'base', 'depth', 12.7)).toContain('1/2 in does not work; allowed is 1.575 in');
  });

  it('wants whole numbers where things are counted, and lists as lists', () => {
    expect(refusal(cardOn('layered-stage'), 'base', 'layers', 'three')).toBe('Layers between front and back: “three” is not a list.');
    const seven = Array.from({ length: 7 }, () => ({}));
    expect(refusal(cardOn('layered-stage'), 'base', 'layers', seven)).toMatch(
      /^Layers between front and back: 7 do not work; allowed are 0 to 6\./,
    );
  });
});

describe('what is allowed', () => {
  it('is said for a field that holds nonsense, in the unit it is read in', () => {
    const easel = cardOn('easel-folded-front');
    expect(allowedWords(easel, 'base', 'lean')).toBe('Allowed is 20° to 85°.');
    expect(allowedWords(cardOn('film-stand'), 'base', 'tipWeight')).toBe('Allowed is 0 g to 200 g.');
    expect(allowedWords(cardOn('easel-strip'), 'base', 'form')).toBe('Allowed: wrapped, zigzag.');
  });

  it('is nothing for a size that is not there or cannot be chosen now', () => {
    expect(allowedWords(cardOn('folded-card'), 'base', 'wings')).toBe('');
    expect(allowedWords(cardOn('folded-card', { innerThickness: 0 }), 'base', 'innerFrom')).toBe('');
  });
});

describe('a card file with the wrong kind of value', () => {
  const KINDS: unknown[] = ['abc', '', 3, [], [{}], [{ depth: 'deep' }], [{ nonsense: 1 }], -0, 1e5];

  it('is never an exception: it is refused in a sentence about that field, or it is a card', () => {
    for (const base of CATALOGUE.filter((m) => m.kind === 'base')) {
      for (const size of base.sizes) {
        for (const value of KINDS) {
          const card = cardOn(base.id, { [size.name]: value as SizeValue });
          const outcome = evaluate(card);
          if (outcome.ok) continue;
          expect(outcome.problems.some((p) => p.size.startsWith(size.name) || p.says.includes('because'))).toBe(true);
          // The screen shows the fields all the same, so that the value can be put right.
          expect(sizeRows(card, 'base').length).toBeGreaterThan(0);
        }
      }
    }
  });

  it('keeps what the maker wrote, and says what is wrong with it', () => {
    const card = cardOn('folded-card', { depth: 'abc' });
    expect(partsOf(card).problems).toMatchObject([{ size: 'depth', says: 'Depth: “abc” is not a number.' }]);
    expect(rootOf(card).sizes['depth']).toBe('abc');
    expect(partsOf(cardOn('layered-stage', { layers: [{ depth: 'deep' }] })).problems[0]).toMatchObject({
      size: 'layers[1].depth',
      says: expect.stringMatching(/^Layer 1, .*“deep” is not a number\.$/),
    });
  });
});

describe.each(CATALOGUE.map((mechanism) => [mechanism.id, mechanism] as const))('%s with a size that is none', (_id, mechanism) => {
  it('is refused in a sentence, or is a card; its fields are shown all the same', () => {
    const card = cardToTry(mechanism);
    const rows = card.parts.flatMap(({ id }) => sizeRows(card, id)).filter(({ kind }) => kind === 'length' || kind === 'angle');
    for (const { owner, name, label } of rows) {
      for (const value of [0, -3, 1e-9, -1e6, 1e6]) {
        const odd = setSize(card, owner, name, value);
        const outcome = evaluate(odd);
        if (!outcome.ok) expect([label, value, outcome.problems[0]!.says]).toEqual([label, value, expect.stringMatching(/\w.*\.$/)]);
        expect(odd.parts.flatMap(({ id }) => sizeRows(odd, id)).length).toBeGreaterThan(0);
      }
    }
  });
});
