import { describe, expect, it } from 'vitest';
import { refusal } from '../card/allowed.js';
import { ROOT } from '../card/document.js';
import { filledSizes, setSize } from '../card/set-size.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { cardToTry } from '../card/try-out.js';
import { evaluated } from '../testing/evaluated.js';

describe('scores that stand for a size', () => {
  it.each(CATALOGUE.map((mechanism) => [mechanism.id, mechanism] as const))(
    '%s: a size moves its score as far as it says',
    (_, mechanism) => {
      // Sizes that are left out may follow the one that is moved, a mark at a time: each is given here.
      const card = cardToTry(mechanism);
      for (const part of card.parts) {
        for (const [name, value] of Object.entries(filledSizes(card, part.id))) if (typeof value === 'number') part.sizes[name] ??= value;
      }
      for (const sheet of evaluated(card).sheets) {
        for (const score of sheet.scores) {
          if (!score.standsFor) continue;
          const { size, perMm, part = ROOT } = score.standsFor;
          const now = filledSizes(card, part)[size] as number;
          for (const moved of [-0.5, 0.5]) {
            if (refusal(card, part, size, now + moved * perMm)) continue;
            const next = evaluated(setSize(card, part, size, now + moved * perMm));
            const there = next.sheets.find(({ piece }) => piece.id === sheet.piece.id)!.scores.find(({ id }) => id === score.id)!;
            expect(there.from[0] - score.from[0], `${sheet.piece.name}: ${score.name}, by ${size}`).toBeCloseTo(moved, 6);
          }
        }
      }
    },
  );
});
