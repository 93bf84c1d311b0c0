import { brokenCard } from '../src/testing/broken-card.js';
import { dice } from '../src/testing/any-tree.js';
import { repair } from '../src/trial/repair.js';
import { costOf } from '../src/trial/size-search.js';
import { tried } from '../src/trial/trouble.js';
import { starterFor } from '../src/supplies/starter-workshops.js';

/**
 * Cards that work, broken in one to three sizes: each is offered a repair after which nothing fails and which changes no more
 * than the break did.
 */
export function repairs(seed: number, count: number): string[] {
  const next = dice(seed);
  const times: number[] = [];
  const told = Array.from({ length: count }).flatMap((_, i): string[] => {
    const broken = brokenCard(i, next);
    if (!broken) return [];
    const { whole, card, changes } = broken;
    const workshop = starterFor(card.notation);
    const began = performance.now();
    const { offers, conflict, tries } = repair(card, workshop);
    const took = performance.now() - began;
    times.push(took);
    if (process.env['SLOW'] && took > 1500)
      console.log(i, whole.parts.map(({ mechanism }) => mechanism).join('+'), Math.round(took), tries, JSON.stringify(changes));
    const where = `${i} ${whole.parts.map(({ mechanism }) => mechanism).join('+')} ${JSON.stringify(changes)}`;
    const [first] = offers;
    if (!first)
      return [
        `${where}: nothing is offered after ${tries} tries${conflict.length > 0 ? `: ${conflict.map(({ says }) => says).join(', ')}` : ''}`,
      ];
    const worst = offers.find((offer) => tried(offer.card, workshop, 'fail').trouble > 0);
    if (worst) return [`${where}: fails after “${worst.says}”`];
    const broke = costOf(card, changes);
    return offers.every(({ cost }) => cost > broke + 1e-6)
      ? [`${where}: ${first.says} is ${first.cost.toFixed(2)}, the break ${broke.toFixed(2)}`]
      : [];
  });
  times.sort((a, b) => a - b);
  const at = (share: number): string => `${Math.round(times[Math.min(times.length - 1, Math.floor(share * times.length))] ?? 0)} ms`;
  console.log(`${times.length} broken cards: median ${at(0.5)}, 95th percentile ${at(0.95)}, longest ${at(1)}`);
  return told;
}
