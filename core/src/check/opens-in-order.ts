import { inSentence } from '../card/part-titles.js';
import type { FlapOrder } from '../dress/opening-order.js';
import { spoken, type Sentence } from '../measure/sentence.js';
import { ofBoth, type Check, type CheckInput, type Verdict } from './finding.js';

/** Can flaps whose toppers reach over one another be opened, and in which order? */
export const opensInOrder: Check = ({ design, dressed }) =>
  dressed.order.map((order): Verdict => ({
    id: `opens/${ofBoth(...order.panels)}`,
    check: 'opens',
    severity: order.order === 'locked' ? 'fail' : 'pass',
    panels: [...order.panels],
    at: 0,
    ...(order.order === 'locked' && { value: order.over, limit: 0, unit: 'mm' as const }),
    says: orderSaid(order, design),
  }));

/** The order in one sentence, for verdicts and steps. */
export function orderSaid(
  { panels, order, first, ratio, over }: FlapOrder,
  { panels: all }: Pick<CheckInput['design'], 'panels'>,
): Sentence {
  const name = (id: string): string => inSentence(all.find((panel) => panel.id === id)!.name);
  const [a, b] = [name(panels[0]), name(panels[1])];
  if (order === 'locked')
    return `The ${a} and the ${b} lock one another: what each carries lies over the other, so that neither can be lifted, nor both at once. The narrower of both overlaps is ${spoken(over)}: move a topper back by that much.`;
  if (order === 'together') {
    const [least, most] = ratio!;
    if (least <= 1 + 1e-6 && most >= 1 - 1e-6) return `Open the ${a} and the ${b} together: what each carries lies over the other.`;
    return `Open the ${a} and the ${b} together, the ${least > 1 ? a : b} faster: what each carries lies over the other.`;
  }
  const other = first === panels[0] ? b : a;
  return `Open the ${name(first!)} first${order === 'first or together' ? ', or both at once' : ''}: it lies over the ${other}, or over what that carries.`;
}
