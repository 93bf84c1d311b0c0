import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { evaluate } from '../evaluate.js';
import { ROOT, type CardDocument, type CardPart } from './document.js';
import { contextFor, filledSizes } from './set-size.js';
import { INCH_WORKSHOP, METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardToTry } from './try-out.js';

const withSize = (card: CardDocument, owner: string, name: string, value: unknown): CardDocument => ({
  ...card,
  parts: card.parts.map((part) => (part.id === owner ? { ...part, sizes: { ...part.sizes, [name]: value } as CardPart['sizes'] } : part)),
});

const CASES = [METRIC_WORKSHOP, INCH_WORKSHOP].flatMap((workshop) =>
  CATALOGUE.map((mechanism) => [mechanism.id, workshop.region, mechanism, workshop] as const),
);

describe.each(CASES)('limits shown of %s, %s', (_id, _region, mechanism, workshop) => {
  const card = cardToTry(mechanism, {}, workshop);
  const owner = mechanism.kind === 'base' ? ROOT : mechanism.usualId;
  const sizes = filledSizes(card, owner);
  const context = { ...contextFor(card, owner), sizes };

  it('may be used, both ends of each: what was not touched follows', () => {
    for (const size of mechanism.sizes) {
      if (size.kind === 'choice' || size.kind === 'outline' || size.kind === 'list') continue;
      const { min, max } = size.range(context);
      for (const value of [min, max]) {
        const outcome = evaluate(withSize(card, owner, size.name, size.kind === 'count' ? Math.round(value) : value));
        const says = outcome.ok ? [] : outcome.problems.map((problem) => problem.says);
        expect(says, `${size.name} = ${value}`).toEqual([]);
      }
    }
  });

  it('may be used in lists too', () => {
    for (const list of mechanism.sizes) {
      if (list.kind !== 'list') continue;
      const entries = sizes[list.name] as readonly Record<string, number | string>[];
      entries.forEach((item, index) => {
        for (const size of list.item) {
          if (size.kind === 'choice' || size.kind === 'outline') continue;
          const { min, max } = size.range({ ...context, item, index });
          for (const value of [min, max]) {
            const changed = entries.map((_, i) => (i === index ? { [size.name]: value } : {}));
            const outcome = evaluate(withSize(card, owner, list.name, changed));
            const says = outcome.ok ? [] : outcome.problems.map((problem) => problem.says);
            expect(says, `${list.name}[${index + 1}].${size.name} = ${value}`).toEqual([]);
          }
        }
      });
    }
  });
});
