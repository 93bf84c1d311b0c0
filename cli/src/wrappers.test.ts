import { describe, expect, it } from 'vitest';
import { diptychon } from './testing/diptychon.js';

describe('what a card is wrapped in, at the command line', () => {
  it('works out the square of an envelope, in the maker’s unit or as a record in mm', async () => {
    const asked = ['envelope', '--width', '148', '--height', '105', '--thickness', '2'];
    const record = JSON.parse((await diptychon(...asked, '--json')).out);
    // (110 + 153) ÷ √2 + 12, and 110 ÷ √2 + 6.
    expect(record.square).toBeCloseTo(197.9691, 4);
    expect(record.firstFold).toBeCloseTo(83.7817, 4);
    expect((await diptychon(...asked)).out).toMatch(/A square of 198 mm\..*\n.*83\.8 mm from its corner A, which is 114\.2 mm from/);
    // (110.95 + 142.7) ÷ √2 + 12 = 191.358 mm.
    expect((await diptychon('envelope', '--width', '5 1/2', '--height', '4 1/4', '--notation', 'inch/16')).out).toMatch(
      /A square of 7\.534 in/,
    );
  });

  it('works out a band', async () => {
    const { out } = await diptychon('band', '--width', '150', '--height', '105', '--thickness', '3', '--around', 'height', '--json');
    expect(JSON.parse(out)).toMatchObject({ around: 'height', length: 230, slidesAlong: 'width' });
  });

  it.each([
    [['envelope', '--width', '148'], /--height: say it; allowed is 20 mm to 1000 mm/],
    [['envelope', '--width', '148', '--height', '5'], /--height: 5 does not work; allowed is 20 mm/],
    [['band', '--width', '148', '--height', '105', '--thickness', 'two'], /--thickness: “two” is not a length/],
    [['band', '--width', '148', '--height', '105', '--thickness', '2', '--around', 'both'], /--around: “both”.*width, height/],
    [['compute', '--mechanism', 'v-fold', '--thickness', '2'], /--thickness: not an option of compute/],
    [['envelope', '--width', '148', '--height', '105', '--around', 'width'], /--around: not an option of envelope; allowed: --width/],
    [['band', '--width', '148', '--height', '105', '--thickness', '2', '--set', 'depth=3'], /--set: not an option of band/],
    [['constructor'], /constructor: no such command/],
  ])('%j is refused in a line', async (argv, says) => {
    const { code, out, err } = await diptychon(...argv);
    expect([code, out]).toEqual([2, '']);
    expect(err).toMatch(says);
    expect(err.trim().split('\n')).toHaveLength(1);
  });
});
