import { cycles } from './campaigns/cycles';
import { dice } from './campaigns/dice';
import { expect, test } from '@playwright/test';

test('a small share of the campaign of mishaps: nothing that was drawn is lost', async () => {
  expect(await cycles(dice(11), 6)).toEqual([]);
});
