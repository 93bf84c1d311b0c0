import { describe, expect, it } from 'vitest';
import { leftWords } from './left-words.js';

const left = (width: number, height: number, ...goodFor: string[]) => ({ x: 0, y: 0, width, height, goodFor });

describe('what is left of a sheet', () => {
  it('is told down to a mark, so that it is there', () => {
    expect(leftWords([left(96.99, 41.2)], 'mm')).toEqual(['96 mm × 41 mm']);
    // 2 1/2 in and a hair less than 1 in: eight marks of an eighth are not there.
    expect(leftWords([left(63.5, 25.3)], 'inch/8')).toEqual(['2 1/2 in × 7/8 in']);
  });

  it('that lies on a mark but for the last digits of arithmetic lies on it', () => {
    expect(leftWords([left(97 - 1e-9, 3 * 25.4)], 'mm')).toEqual(['97 mm × 76 mm']);
  });

  it('is told once for each size, and how often; what is good for something else is another', () => {
    const words = leftWords([left(50.2, 30), left(50.4, 30.9), left(50, 30, 'the band')], 'mm');
    expect(words).toEqual(['2 of 50 mm × 30 mm', '50 mm × 30 mm, good for the band']);
  });
});
