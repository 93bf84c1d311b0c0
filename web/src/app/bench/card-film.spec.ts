import { filmOf, opened, pictureOf } from './card-film';

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

  it('and its picture say so where the card is not drawn, or the browser records none', async () => {
    const nowhere = { at: 0, pose: () => undefined, shown: () => undefined };
    await expect(pictureOf(nowhere)).rejects.toThrow('not drawn in the round');
    await expect(filmOf(nowhere, 1)).rejects.toThrow(/records no films|not drawn in the round/);
  });
});
