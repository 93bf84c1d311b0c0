import { describe, expect, it } from 'vitest';
import { at, cardOn, evaluated, failing, measure, refused } from '../../testing/evaluated.js';
import { toRadians } from '../../measure/units.js';
import type { Sizes } from '../sizes.js';
import { LEAST_LIP, leastRimHeight, lipRoom } from './raised-rim.js';

const NESTED: Sizes = {
  depth: 150,
  width: 120,
  form: 'nested',
  outline: 'circle',
  easels: [
    { back: 10, displayHeight: 80 },
    { back: 60, displayHeight: 64, flap: 32, strut: 32, stopDistance: 32 },
  ],
};

describe('the lip of a raised rim', () => {
  it.each([
    // 45°: as far back as the front face is below it. 60° and 0.6 mm: (3 − 0.3) ÷ √3.
    [45, 0, 2, 2],
    [60, 0.6, 3, 1.5588],
    [30, 1, 4, (4 - 0.86603) * 1.73205],
  ])('at %d° over a foot %d mm thick, %d mm up, has %d mm of room', (lean, thickness, height, room) => {
    expect(lipRoom({ lean: toRadians(lean), thickness }, height)).toBeCloseTo(room, 4);
  });

  it('just touches the display’s front face at that room: worked out from the corners of the sheet', () => {
    for (const degrees of [25, 45, 60, 80]) {
      const [lean, thickness, height] = [toRadians(degrees), 0.8, 7];
      // The lower edge of the sheet: lowest corner on the board, front corner against the foam at x = 0.
      const along = [-Math.cos(lean), Math.sin(lean)] as const;
      const front = [0, thickness * Math.cos(lean)] as const;
      const lip = [-lipRoom({ lean, thickness }, height), height] as const;
      const off = (lip[0] - front[0]) * along[1] - (lip[1] - front[1]) * along[0];
      expect(off).toBeCloseTo(0, 9);
    }
  });

  it('has room for the least lip from the least height on', () => {
    for (const degrees of [20, 50, 85]) {
      const foot = { lean: toRadians(degrees), thickness: 0.5 };
      expect(lipRoom(foot, leastRimHeight(foot))).toBeCloseTo(LEAST_LIP, 9);
      expect(lipRoom(foot, leastRimHeight(foot) - 0.1)).toBeLessThan(LEAST_LIP);
    }
  });
});

describe('nested easels under raised rims', () => {
  it('have a rim on the stop, its lip behind the foam', () => {
    const card = evaluated(cardOn('easel-row', { ...NESTED, stopForm: 'rim', stopHeight: 3, rimLip: 1 }));
    expect(failing(card)).toEqual([]);
    const rim = card.sheets.find((sheet) => sheet.piece.id === 'rim-2')!;
    expect(rim.width).toBeCloseTo(6 + 1, 9);
    // The foot of the last easel stands 32 mm from its back edge at 60 mm; the lip begins a millimetre before.
    const lip = at(card, 'rim-2/rim', [0, 0], card.resting);
    const foam = at(card, 'stop-2/stop', [0, 0], card.resting);
    expect(foam[0]).toBeCloseTo(measure(card, 'stopAt2'), 6);
    expect(lip[0]).toBeCloseTo(92 - 1, 6);
    expect(lip[1]).toBeCloseTo(foam[1], 6);
    expect(card.design.words.settingUp!.at(-1)).toContain('push its foot in under rim 2');
  });

  it('have plain strips unless rims are wished', () => {
    const ids = evaluated(cardOn('easel-row', NESTED)).sheets.map((sheet) => sheet.piece.id);
    expect(ids.some((id) => id.startsWith('rim'))).toBe(false);
  });

  it('are refused a lip that the leaning display meets, and foam too low to let the foot in', () => {
    const rims = { ...NESTED, stopForm: 'rim' };
    // Three equal sides lean at 60°: 3 mm of foam leave at most 3 ÷ √3 = 1.73 mm, less the foot’s thickness.
    expect(refused(cardOn('easel-row', { ...rims, stopHeight: 3, rimLip: 1.8 }))).toMatch(/Lip of the rim: 1\.8 mm .*foot meets the foam/);
    // Half a millimetre of lip at 60° needs 0.5 × √3 = 0.87 mm and half the foot’s thickness.
    expect(refused(cardOn('easel-row', { ...rims, stopHeight: 0.8 }))).toMatch(/Stop height: 0\.8 mm .*in under the rim/);
  });
});
