import { describe, expect, it } from 'vitest';
import { cardOn } from '../testing/evaluated.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { withTopper } from './dress-card.js';
import { LARGEST_IMAGE, MOST_IMAGES, type CardDocument } from './document.js';
import { withImage } from './own-images.js';

const points: [number, number][] = [
  [0, 0],
  [10, 0],
  [0, 10],
];
const image = (name: string, data = '/9j/AAAA') => ({ id: `image-${name}`, name, type: 'image/jpeg' as const, data });
const outline = (name: string) => ({ id: `own-${name}`, name, points, image: { of: `image-${name}`, x: 0, y: 0, width: 10, height: 10 } });
const bring = (card: CardDocument, name: string): CardDocument => withImage(card, image(name), outline(name));
const use = (card: CardDocument, name: string): CardDocument =>
  withTopper(
    card,
    { panel: 'base/front-leaf', face: 'up', across: 10, along: 10, outline: `own-${name}`, height: 10, stock: 'card-250' },
    METRIC_WORKSHOP,
  );
const names = (card: CardDocument) => [card.images!.map(({ name }) => name), card.outlines!.map(({ name }) => name)];

describe('pictures of a card', () => {
  const plain = cardOn('folded-card');

  it('are kept with the outlines that they are printed on, each name once', () => {
    const twice = withImage(bring(bring(plain, 'a'), 'b'), image('a', '/9j/BBBB'), outline('a'));
    expect(names(twice)).toEqual([
      ['b', 'a'],
      ['b', 'a'],
    ]);
    expect(twice.images![1]!.data).toBe('/9j/BBBB');
  });

  it('give way once there are too many, those first that nothing is cut from', () => {
    const full = ['a', 'b', 'c', 'd'].reduce((card, name) => bring(card, name), plain);
    expect(full.images).toHaveLength(MOST_IMAGES);
    expect(names(bring(use(full, 'b'), 'e'))).toEqual([
      ['b', 'e'],
      ['b', 'e'],
    ]);
    const allUsed = ['a', 'b', 'c', 'd'].reduce((card, name) => use(card, name), full);
    expect(() => bring(allUsed, 'e')).toThrow(/at most 4 pictures/);
    // One of the same name is only changed.
    expect(names(bring(allUsed, 'b'))[0]).toHaveLength(MOST_IMAGES);
    expect(() => withImage(plain, image('z', '/'.repeat(LARGEST_IMAGE + 1)), outline('z'))).toThrow(/too large/);
  });
});
