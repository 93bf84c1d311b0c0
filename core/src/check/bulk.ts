import { plainMm } from '../measure/print.js';
import { BULK_NOTICED } from '../supplies/limits.js';
import type { Check } from './finding.js';

/** How thick is the closed card, and where? */
export const bulk: Check = ({ design, closed }) => {
  const { thickness, at, bodies } = closed.thickest;
  const { minX, minY } = closed.box;
  return [
    {
      id: 'bulk',
      check: 'bulk',
      severity: thickness > BULK_NOTICED ? 'warn' : 'pass',
      value: thickness,
      limit: BULK_NOTICED,
      unit: 'mm',
      at: 0,
      panels: bodies.map((body) => design.panels[body]!.id),
      says:
        `Closed it is ${plainMm(thickness)} thick at the thickest place, ${plainMm(at[0] - minX)} from the fold and ${plainMm(at[1] - minY)} from the lower end` +
        (thickness > BULK_NOTICED ? '; ask what your post allows.' : '.'),
    },
  ];
};
