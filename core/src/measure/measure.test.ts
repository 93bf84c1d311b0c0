import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseAngle, parseCount, parseGrams, parseLength } from './parse.js';
import { printLength, sayLength } from './print.js';
import { spoken, told } from './sentence.js';
import { grooveWords, nearestGroove, rulerWords } from './ruler.js';
import { markedLike, metricUnit, MM_PER_INCH, type Notation } from './units.js';

const NOTATIONS: Notation[] = ['mm', 'cm', 'mm/comma', 'cm/comma', 'inch/8', 'inch/16', 'inch/32'];

describe('reading a length', () => {
  it.each(['3 5/8', '3⅝"', '3.625in', '92.075 mm', '9,2075cm', '3⁵⁄₈ in', '3-5/8 inches', ' 3 5/8″ '])(
    'reads %s as three and five eighths',
    (typed) => {
      for (const notation of NOTATIONS) {
        const reading = parseLength(typed, notation, 'Depth');
        expect(reading.ok && Math.abs(reading.value - 92.075) < 1e-9).toBe(true);
      }
    },
  );

  it('takes a bare number in the maker’s own notation', () => {
    expect(parseLength('5', 'cm', 'Depth')).toEqual({ ok: true, value: 50 });
    expect(parseLength('5', 'inch/8', 'Depth')).toEqual({ ok: true, value: 127 });
    expect(parseLength('5', 'mm', 'Depth')).toEqual({ ok: true, value: 5 });
  });

  it.each(['', 'abc', '3 5/0', '1/2/3', '5 furlongs', '--3', '1e9', 'NaN', '3 5/8 7'])(
    'names the field when %j makes no sense',
    (typed) => {
      const reading = parseLength(typed, 'mm', 'Depth');
      expect(reading.ok).toBe(false);
      expect(!reading.ok && reading.problem).toContain('Depth');
    },
  );

  it('reads angles in degrees', () => {
    expect(parseAngle('180deg', 'a')).toEqual({ ok: true, value: Math.PI });
    expect(parseAngle('90°', 'a')).toEqual({ ok: true, value: Math.PI / 2 });
    expect(parseAngle('steep', 'Wing').ok).toBe(false);
  });
});

describe('printing a length', () => {
  it('reduces fractions and sets them apart', () => {
    expect(printLength(92.075, 'inch/16')).toMatchObject({ text: '3 5/8 in', numerator: 5, denominator: 8, off: 0 });
    expect(printLength(12.7, 'inch/8').text).toBe('1/2 in');
    expect(printLength(50.8, 'inch/8').text).toBe('2 in');
  });

  it('never prints a length off the ruler as if it were on it', () => {
    expect(sayLength(93, 'inch/8')).toBe('3.661 in');
    expect(sayLength(91, 'inch/8')).toBe('3.583 in');
    expect(sayLength(92.075, 'inch/8')).toBe('3 5/8 in');
  });

  it('loses nothing: reading plus what it is off by is the length, in every notation', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 500, noNaN: true }), fc.constantFrom(...NOTATIONS), (length, notation) => {
        const { text, off } = printLength(length, notation);
        const back = parseLength(text, notation, 'x');
        expect(back.ok && Math.abs(back.value + off - length)).toBeLessThan(0.006);
      }),
    );
  });

  it('says a length in the maker’s own unit alone, to half a tenth of a mm', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 500, noNaN: true }), fc.constantFrom(...NOTATIONS), (length, notation) => {
        const says = sayLength(length, notation);
        const read = parseLength(says, notation, 'x');
        expect(read.ok && Math.abs(read.value - length)).toBeLessThanOrEqual(0.0501);
        // One unit, the maker's own, and only once.
        expect(says.match(/mm|cm|in/g)).toEqual([notation.startsWith('inch') ? 'in' : metricUnit(notation)]);
      }),
    );
    // Hundredths of a millimetre are nobody's to set; off the marks an inch is told in thousandths.
    expect(sayLength(106.07, 'mm')).toBe('106.1 mm');
    expect(sayLength(10.71, 'cm')).toBe('1.07 cm');
    expect(sayLength(25.43, 'inch/8')).toBe('1 in');
    expect(sayLength(25.5, 'inch/8')).toBe('1.004 in');
    // Half-way between two eighths is a sixteenth.
    expect(sayLength((5 / 16) * 25.4, 'inch/8')).toBe('5/16 in');
  });
});

describe('reading weights and counts', () => {
  it.each([
    ['12', 12],
    ['12.5 g', 12.5],
    ['12,5g', 12.5],
    ['.5', 0.5],
    ['-3', -3],
  ])('takes “%s” as grams', (typed, grams) => {
    expect(parseGrams(typed, 'Weight')).toEqual({ ok: true, value: grams });
  });

  it.each(['', 'g', 'heavy', '3 oz', '1e3', '1..2', 'Infinity'])('does not take “%s” as grams', (typed) => {
    const reading = parseGrams(typed, 'Weight');
    expect(reading).toEqual({ ok: false, problem: expect.stringMatching(/^Weight: “.*” is not a weight/) });
  });

  it('takes whole numbers only as counts', () => {
    expect(parseCount(' 4 ', 'Layers')).toEqual({ ok: true, value: 4 });
    for (const typed of ['', '4.5', 'four', '4,0', '12345678901'])
      expect(parseCount(typed, 'Layers')).toEqual({ ok: false, problem: `Layers: “${typed}” is not a whole number.` });
  });
});

describe('finding a position on a ruler', () => {
  it('says it between labelled marks', () => {
    expect(rulerWords(7.625 * MM_PER_INCH, 'inch/32')).toBe('between 7½ and 7¾, the fourth thirty-second after 7½');
    expect(rulerWords(7.75 * MM_PER_INCH, 'inch/8')).toBe('at 7¾');
    expect(rulerWords(54, 'mm')).toBe('between 5 cm and 6 cm, the fourth millimetre line after 5 cm');
    expect(rulerWords(54.4, 'mm')).toContain('0.4 mm beyond the line');
  });

  it('is said by the grooves that a board has', () => {
    const everyFive = { pitch: 5, length: 300 };
    expect(grooveWords(60, everyFive, 'cm')).toBe('at 6 cm');
    expect(grooveWords(65, everyFive, 'cm')).toBe('between 6 cm and 7 cm, the groove half-way');
    expect(grooveWords(66.2, everyFive, 'cm')).toBe('between 6 cm and 7 cm, the groove half-way, 1.2 mm beyond the groove');
    const sixteenths = { pitch: MM_PER_INCH / 16, length: 304.8 };
    expect(grooveWords((3 + 3 / 16) * MM_PER_INCH, sixteenths, 'inch/16')).toBe('between 3 and 3¼, the third groove after 3');
    // Grooves that fall on no marks are said by their place.
    expect(grooveWords(8, { pitch: 4, length: 200 }, 'mm')).toBe('at 8 mm');
  });

  it('finds the nearest groove and how far off it is', () => {
    expect(nearestGroove(75, { pitch: 3.175, length: 304.8 }).groove).toBe(24);
    expect(nearestGroove(75, { pitch: 3.175, length: 304.8 }).off).toBeCloseTo(-1.2, 9);
    expect(() => nearestGroove(1, { pitch: 0, length: 10 })).toThrow('groove pitch');
  });
});

describe('telling a sentence in another notation', () => {
  const sentence = `It sticks out ${spoken(22.2)} past the fold; the gap is ${spoken(0.4)}, the envelope C5, 229 × 162 mm.`;

  it('gives mm to those who read mm', () => {
    expect(told(sentence, 'mm')).toBe('It sticks out 22.2 mm past the fold; the gap is 0.4 mm, the envelope C5, 229 × 162 mm.');
  });

  it('gives inches alone, small gaps too, and names as they are', () => {
    expect(told(sentence, 'inch/8')).toBe('It sticks out 7/8 in past the fold; the gap is 0.016 in, the envelope C5, 229 × 162 mm.');
  });

  it('gives centimetres', () => {
    expect(told(sentence, 'cm')).toContain('2.22 cm past the fold; the gap is 0.4 mm, the envelope C5, 229 × 162 mm');
  });

  it('tells lengths, angles and weights with a comma to who reads commas, and leaves names alone', () => {
    const words = `At 66.4° it is off by ${spoken(0.25)} of ${spoken(22.25)}; 12.5 g of Clear film, 0.19 mm.`;
    expect(told(words, 'mm/comma')).toBe('At 66,4° it is off by 0,25 mm of 22,3 mm; 12,5 g of Clear film, 0.19 mm.');
    expect(told(words, 'cm/comma')).toBe('At 66,4° it is off by 0,25 mm of 2,23 cm; 12,5 g of Clear film, 0.19 mm.');
    expect(told(words, 'mm')).toContain('At 66.4°');
  });

  it('never tells something thin as nothing', () => {
    expect(told(spoken(0.02), 'inch/8')).toBe('0.001 in');
    expect(told(spoken(0.02), 'mm')).toBe('0.02 mm');
    expect(told(spoken(0), 'inch/8')).toBe('0 in');
  });

  it('tells two lengths of one size alike', () => {
    expect(told(`${spoken(127)} × ${spoken(177.8)}.`, 'inch/8')).toBe('5 in × 7 in.');
  });

  it('never changes a sentence without lengths', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom('mm', 'cm', 'inch/8', 'inch/32'), (words, notation) => {
        fc.pre(!/[\uE000\uE001]/.test(words));
        expect(told(words, notation as Notation)).toBe(words);
      }),
    );
  });
});

describe('a decimal comma', () => {
  it('is printed and read back, in every metric notation', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), fc.constantFrom('mm/comma' as const, 'cm/comma' as const), (tenths, notation) => {
        const { text } = printLength(tenths / 10, notation);
        expect(text).not.toContain('.');
        const reading = parseLength(text, notation, 'Depth');
        expect(reading).toEqual({ ok: true, value: expect.closeTo(tenths / 10, 9) });
        const [bare] = text.split(' ');
        expect(parseLength(bare!, notation, 'Depth')).toEqual({ ok: true, value: expect.closeTo(tenths / 10, 9) });
        // Apart from its mark it says what the point says.
        expect(text.replace(',', '.')).toBe(printLength(tenths / 10, metricUnit(notation)).text);
      }),
    );
  });

  it('is that of the reader on a metric board, and none on an inch board', () => {
    expect(markedLike('cm', 'mm/comma')).toBe('cm/comma');
    expect(markedLike('cm/comma', 'mm')).toBe('cm');
    expect(markedLike('inch/16', 'mm/comma')).toBe('inch/16');
  });
});
