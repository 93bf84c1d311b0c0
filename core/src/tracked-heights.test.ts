import { describe, expect, it } from 'vitest';
import { newCard } from './card/document.js';
import { toRadians } from './measure/units.js';
import { evaluated, measure, tracked } from './testing/evaluated.js';

/** A step on a fold of a base: its paper reaches `depth` up the first leaf and `height` up the second. */
const withStep = (mechanism: string, sizes: Record<string, number>, site: string) =>
  evaluated(
    newCard({
      id: 'card',
      name: 'card',
      base: { mechanism, sizes },
      movements: [
        {
          id: 'step',
          mechanism: 'step',
          on: { part: 'base', site },
          sizes: { depth: 12, height: 20, width: 20, offset: 20, cutFrom: 'strip' },
        },
      ],
    }),
  );

describe('a height that is read off a card', () => {
  it.each([35, 50])('is over the doors that lie on the table, their inner panels at %d°', (degrees) => {
    const card = withStep('rising-strip-doors', { displaySlope: toRadians(degrees) }, 'left-door');
    // From the door fold the front edge lies 12 back over the door and 20 up the slope: only those rise.
    expect(tracked(card, 'step-front', card.resting)).toBeCloseTo(20 * Math.sin(toRadians(degrees)), 6);
  });

  it('is over the base of a card that is drawn with its outside up', () => {
    const card = withStep('step-easel', {}, 'main-fold');
    // Seen from the inside the base is the first leaf: 12 forward over it, 20 up the back slope.
    expect(tracked(card, 'step-front', card.resting)).toBeCloseTo(20 * Math.sin(measure(card, 'slopeRise')), 5);
  });
});
