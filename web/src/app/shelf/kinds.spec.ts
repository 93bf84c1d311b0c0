import { CATALOGUE, evaluate } from '@diptychon/core';
import { cardOfKind, KINDS } from './kinds';

describe('kinds of cards to start', () => {
  it('are all there are in the catalogue, in its order', () => {
    expect(KINDS.map((kind) => kind.id)).toEqual(CATALOGUE.map((mechanism) => mechanism.id));
  });

  it.each(KINDS.map((kind) => [kind.id, kind] as const))('%s starts as a card that works', (_, kind) => {
    const outcome = evaluate(cardOfKind(kind, undefined));
    expect(outcome.ok && outcome.evaluation.findings.filter((finding) => finding.severity === 'fail')).toEqual([]);
  });

  it('put a movement on a plain card, with its own place on the fold', () => {
    const figure = KINDS.find((kind) => kind.movement)!;
    const card = cardOfKind(figure, { depth: 105, length: 148 }, { id: 'mine', name: 'Mine' });
    expect(card).toMatchObject({
      id: 'mine',
      name: 'Mine',
      parts: [
        { id: 'base', mechanism: 'folded-card' },
        { mechanism: figure.movement, on: { part: 'base', site: 'main-fold' } },
      ],
    });
  });

  it('hold easels by their top fold and books by their side', () => {
    expect(KINDS.find((kind) => kind.id === 'easel-strip')!.foldEdge).toBe('top');
    expect(KINDS.find((kind) => kind.id === 'folded-card')!.foldEdge).toBe('side');
  });
});
