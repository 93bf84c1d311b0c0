import { CATALOGUE, evaluate, METRIC_WORKSHOP } from '@diptychon/core';
import { cardFromSheet, cardOfKind, KINDS } from './kinds';

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

  it('cut a movement that uses up a sheet, and its card, from that sheet', () => {
    const sheet = METRIC_WORKSHOP.sheets.find(({ width, height }) => Math.min(width, height) === 210 && Math.max(width, height) === 297)!;
    const kinds = KINDS.filter(({ usesUp }) => usesUp);
    expect(kinds.map(({ id }) => id)).toEqual(['twist-carrier']);
    const outcome = evaluate(cardFromSheet(kinds[0]!, sheet, 40, { id: 'mine', name: 'Mine' }));
    if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
    const { sheets, findings, design } = outcome.evaluation;
    expect(design.stocks.mechanism).toBe(design.stocks.base);
    expect(findings.filter(({ severity }) => severity === 'fail')).toEqual([]);
    // 297 by 210 less two strips of 40: the card, then the strips.
    expect(sheets.map(({ width, height }) => [width, height])).toEqual([
      [297, 130],
      [40, 297],
      [40, 297],
    ]);
  });

  it('hold easels by their top fold and books by their side', () => {
    expect(KINDS.find((kind) => kind.id === 'easel-strip')!.foldEdge).toBe('top');
    expect(KINDS.find((kind) => kind.id === 'folded-card')!.foldEdge).toBe('side');
  });
});
