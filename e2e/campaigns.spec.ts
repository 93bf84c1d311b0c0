import { builds } from './campaigns/builds';
import { cycles } from './campaigns/cycles';
import { dice } from './campaigns/dice';
import { filesInPage } from './campaigns/files-in-page';
import { soak } from './campaigns/soak';
import { expect, test } from '@playwright/test';

test('a small share of the campaign of mishaps: nothing that was drawn is lost', async () => {
  expect(await cycles(dice(11), 6)).toEqual([]);
});

test('a small share of the campaign of mishaps in the logbook: no word and no photo that was shown is lost', async () => {
  expect(await builds(dice(5), 3)).toEqual([]);
});

test('a small share of the campaign of broken files: each is refused in a line, or read as the core reads it', async () => {
  // How long it takes is measured by the campaign, on a machine that does nothing else.
  expect((await filesInPage(dice(11), 9)).filter((says) => !/: took \d+ ms/.test(says))).toEqual([]);
});

test('a small share of a long evening: cards opened and edited one after the other leave nothing behind', async () => {
  // More than a hundred edits: on a machine that has other work too they take longer than a journey may.
  test.setTimeout(480_000);
  expect(await soak(dice(4), 12)).toEqual([]);
});
