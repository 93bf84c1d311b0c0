import type { Mm } from '../measure/units.js';
import type { Loop } from './outline.js';
import { distanceToSegment } from './point.js';

/** A line without the points that its neighbours' straight edge runs through anyway. */
export function straightened(loop: Loop, within: Mm = 1e-5): Loop {
  const kept = [...loop];
  for (let i = 0; i < kept.length && kept.length > 3;) {
    const [before, after] = [kept[(i + kept.length - 1) % kept.length]!, kept[(i + 1) % kept.length]!];
    if (distanceToSegment(kept[i]!, before, after) < within) kept.splice(i, 1);
    else i++;
  }
  return kept;
}
