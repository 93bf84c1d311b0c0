import { expect, it } from 'vitest';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { differencesFrom } from '../supplies/supplies-in-use.js';
import { cardOn } from '../testing/evaluated.js';
import { offeredSupplies, withMine, withStock } from './choose-supplies.js';

const renamed = {
  ...METRIC_WORKSHOP,
  stocks: METRIC_WORKSHOP.stocks.map((stock) => (stock.id === 'text-100' ? { ...stock, name: 'Felted card', caliper: 0.45 } : stock)),
};
const elsewhere = METRIC_WORKSHOP;
const card = withStock(cardOn('folded-card'), 'base', 'text-100', renamed);
const nameOf = (id: string, of = card) => offeredSupplies('stocks', of, elsewhere).find((entry) => entry.id === id)!.name;

it('a stock that a card carries is called as in the card, whatever it is called in the workshop', () => {
  expect(nameOf('text-100')).toBe('Felted card');
  expect(nameOf('board-400')).toBe(METRIC_WORKSHOP.stocks.find(({ id }) => id === 'board-400')!.name);
});

it('differs from the workshop in name and caliper, until the maker takes the workshop’s', () => {
  expect(differencesFrom(card.supplies, elsewhere)[0]!.says).toMatch(/name Felted card here.*caliper 0\.45 here/);
  const mine = withMine(card, 'stocks', 'text-100', elsewhere);
  expect(differencesFrom(mine.supplies, elsewhere)).toEqual([]);
  expect(nameOf('text-100', mine)).not.toBe('Felted card');
});
