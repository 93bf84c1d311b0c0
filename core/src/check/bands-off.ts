import { closuresOf } from '../card/dressing.js';
import { spoken } from '../measure/sentence.js';
import type { Check, Verdict } from './finding.js';

/** Does every band slide off, at least one way? */
export const bandsOff: Check = ({ card, dressed }) => {
  const missing = closuresOf(card.dressing, 'band').filter(({ id }) => !dressed.bands.some(({ closure }) => closure.id === id));
  return [
    ...missing.map(({ id }): Verdict => ({
      id: `opens/${id}`,
      check: 'opens',
      severity: 'warn',
      says: 'A band lies beside the closed card: it is left out. Move its middle onto the card.',
    })),
    ...dressed.bands.map(({ closure, number, ways, band }): Verdict => {
      const open = ways.filter(({ free }) => free);
      const least = Math.min(...ways.map(({ over }) => over));
      const blocked = ways
        .map(({ toward, over }) => `toward ${toward} it would have to pass what is ${spoken(over)} thicker or wider`)
        .join(', ');
      return {
        id: `opens/${closure.id}`,
        check: 'opens',
        severity: open.length > 0 ? 'pass' : 'fail',
        value: least,
        limit: band.slip,
        unit: 'mm',
        at: 0,
        says:
          open.length > 0
            ? `The band ${number} slides off toward ${open.map(({ toward }) => toward).join(' and toward ')}.`
            : `The band ${number} cannot slide off: ${blocked}, and it has ${spoken(band.slip)} to slip. Move what is raised out of one way, or the band beyond it, or give it more to slip.`,
      };
    }),
  ];
};
