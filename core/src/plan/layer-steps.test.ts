import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { dressedBy } from '../card/dress-card.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { benchSteps } from './bench-steps.js';
import { materialsOf } from './materials.js';

/** Doors of a card 120 × 150 mm closed, a strip of 30: doors of 60, two layers each way. */
const doors = evaluated(
  dressedBy(cardOn('rising-strip-doors', { closedWidth: 120, length: 150, strip: 30, gap: 0 }), { border: 3, steps: 2 }, starterFor('mm')),
);

describe('the steps of a dressed card', () => {
  const steps = benchSteps(doors, starterFor('mm'));

  it('trim all layers of one size together', () => {
    const { says } = steps.find(({ id }) => id.startsWith('layers-'))!;
    // Four door faces: 60 − 3 by 150 − 6; on them 3 mm smaller but for the seam. Two slopes 45 − 6, their tops where they rise to, the strip 30 − 6, then 6 less.
    expect(says).toContain('L1, L3, L11, L13: 4 of 57 mm × 144 mm.');
    expect(says).toContain('L2, L4, L12, L14: 4 of 54 mm × 138 mm.');
    expect(says).toContain('L5, L9: 2 of 144 mm × 39 mm.');
    expect(says).toContain('L7: 24 mm × 144 mm, for the strip.');
    expect(says).toContain('L8: 18 mm × 138 mm, for the strip.');
  });

  it('glue each where its borders are, its top where what is up on the open card is', () => {
    const { says } = steps.find(({ kind, id }) => kind === 'dress' && id.startsWith('wear-'))!;
    expect(says).toContain(
      'L3 on the left door, its back: flush with the left edge, 3 mm from the right, lower and upper edges; its top toward the upper edge.',
    );
    expect(says).toContain('L8 on L7: 3 mm from every edge; its top toward the upper edge.');
  });

  it('come while everything is flat: after it was folded, before anything is glued together', () => {
    const at = (kind: string): number => steps.findIndex((step) => step.kind === kind);
    expect(at('dress')).toBeGreaterThan(at('fold'));
    expect(steps.findLastIndex(({ kind }) => kind === 'dress')).toBeLessThan(at('glue') === -1 ? steps.length : at('glue'));
  });

  it('have their paper on the table before the first cut, every layer with its size', () => {
    const { detail } = materialsOf(doors, starterFor('mm')).find(({ what }) => what === '14 layers')!;
    expect(detail).toContain('L1 57 mm × 144 mm');
    expect(detail).toContain('L14 54 mm × 138 mm');
  });

  it('name every layer of every demo card once where it is cut and once where it is glued', () => {
    for (const card of DEMO_CARDS) {
      const evaluation = evaluated(dressedBy(card, {}, starterFor(card.notation)));
      const all = benchSteps(evaluation, starterFor(card.notation));
      const glued = all.filter(({ id }) => id.startsWith('wear-')).flatMap(({ says }) => says);
      const trimmed = all.filter(({ kind }) => kind === 'trim').flatMap(({ title, says }) => [title, ...says]);
      for (const { number } of evaluation.dressed.layers) {
        const told = new RegExp(`\\b${number}\\b`);
        expect(
          glued.filter((line) => line.startsWith(`${number} on `)),
          `${card.name} ${number}`,
        ).toHaveLength(1);
        expect(
          trimmed.filter((line) => told.test(line)),
          `${card.name} ${number}`,
        ).toHaveLength(1);
      }
    }
  });
});
