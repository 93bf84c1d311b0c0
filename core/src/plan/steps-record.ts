import type { BenchStep } from './step.js';

/**
 * The steps as others read them: lengths in mm on a blank that lies with its upper face up, from its lower left corner. Who trims
 * every blank, makes every reading and joins every join in this order has made the card.
 */
export function stepsRecord(steps: readonly BenchStep[]) {
  return {
    steps: steps.map(({ id, kind, title, says, readings, blanks = [], joins = [], glues = [], picture, cautions, dryMinutes }) => ({
      ...{ id, kind, title, says, blanks, readings, joins, glues },
      hatched: picture?.kind === 'flat' ? picture.zones : [],
      cautions,
      ...(dryMinutes !== undefined && { dryMinutes }),
    })),
  };
}
