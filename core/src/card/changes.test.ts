import { describe, expect, it } from 'vitest';
import { toRadians } from '../measure/units.js';
import { cardOn, having } from '../testing/evaluated.js';
import { changesBetween } from './changes.js';
import { addItem, setSize } from './set-size.js';

describe('what changed between two states of a card', () => {
  it('is nothing when nothing did', () => {
    expect(changesBetween(cardOn('easel-strip'), cardOn('easel-strip'))).toEqual([]);
  });

  it('names a length in the notation of the card', () => {
    const before = cardOn('folded-card', { depth: 101.6 }, { notation: 'inch/8' });
    expect(changesBetween(before, setSize(before, 'base', 'depth', 127))).toEqual(['depth from 4 in to 5 in']);
  });

  it('names a lean by the size that it stands for, once', () => {
    const before = cardOn('easel-folded-front', { depth: 150 });
    const changes = changesBetween(before, setSize(before, 'base', 'lean', toRadians(45)));
    // stop = depth × cos(lean), from the usual 60°.
    expect(changes).toEqual(['stop from the fold from 75 mm to 106.1 mm']);
  });

  it('gives weights in grams', () => {
    const before = cardOn('film-stand', { tipWeight: 2 });
    expect(changesBetween(before, setSize(before, 'base', 'tipWeight', 12.5))).toEqual([expect.stringMatching(/from 2 g to 12\.5 g$/)]);
  });

  it('gives choices as they are named', () => {
    const before = cardOn('easel-strip', { form: 'wrapped' });
    expect(changesBetween(before, setSize(before, 'base', 'form', 'zigzag'))).toEqual([
      expect.stringMatching(/from “wrapped” to “zigzag”$/),
    ]);
  });

  it('tells which entry of a list changed', () => {
    const two = addItem(addItem(cardOn('layered-stage', { layers: [] }), 'base', 'layers'), 'base', 'layers');
    const changes = changesBetween(two, setSize(two, 'base', 'layers[2].depth', 17));
    expect(changes).toHaveLength(1);
    expect(changes[0]).toMatch(/^layer 2, behind the front from .* to 17 mm$/);
  });

  it('counts stocks, board and envelope as changes too', () => {
    const before = cardOn('folded-card');
    const after = having(before, { stocks: { ...before.stocks, base: 'heavy-card-300' }, board: 'five-mm-300', envelope: 'c6' });
    expect(changesBetween(before, after)).toEqual(['the base stock', 'the board', 'the envelope']);
  });
});
