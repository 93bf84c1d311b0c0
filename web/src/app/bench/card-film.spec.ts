import { filmOf, nextMoment, opened, pictureOf } from './card-film';

describe('the film of a card', () => {
  it('rests closed, opens ever on, and rests open', () => {
    expect(opened(0)).toBe(0);
    expect(opened(0.6)).toBe(0);
    const way = Array.from({ length: 33 }, (_, i) => opened(0.6 + i / 10));
    expect(way).toEqual([...way].sort((a, b) => a - b));
    // Half the time is half the way, and after 3.2 s all of it.
    expect(opened(0.6 + 1.6)).toBeCloseTo(0.5, 9);
    expect(opened(3.8)).toBe(1);
    expect(opened(9)).toBe(1);
  });

  it('lasts as long where drawing is slow, with fewer pictures, but never shows too few', () => {
    // What each picture takes: a film of 4.4 s at 25 in a second; four pictures in a second; and where one takes 2 s.
    const pictures = (takes: number): number => {
      let count = 1;
      for (let t = 0; t < 4.4; count++) {
        const next = nextMoment(t, count * takes);
        expect(next).toBeGreaterThan(t);
        t = next;
      }
      return count;
    };
    expect(pictures(0.04)).toBe(111);
    expect(pictures(0.25)).toBe(19);
    expect(pictures(2)).toBe(14);
  });

  it('and its picture say so where the card is not drawn, or the browser records none', async () => {
    const nowhere = { at: 0, pose: () => undefined, shown: () => undefined };
    await expect(pictureOf(nowhere)).rejects.toThrow('not drawn in the round');
    await expect(filmOf(nowhere, 1)).rejects.toThrow(/records no films|not drawn in the round/);
  });
});
