import { readFileSync } from 'node:fs';
import { countCards, expect, expectAccessible, openDemo, setSize, startKind, test } from './page';

const cards = '.cards .card';

test('two questions on the first visit, and never again', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: /Two questions/ })).toBeVisible();
  await expectAccessible(page);
  await page.locator('#first-unit').locator('..').click();
  await page.getByRole('option', { name: 'Inches, eighths' }).click();
  await page.getByRole('button', { name: 'Keep these' }).click();
  await expect(page.getByRole('heading', { name: /Two questions/ })).toHaveCount(0);
  await page.reload();
  await expect(page.locator(cards).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: /Two questions/ })).toHaveCount(0);
});

test('a card for an envelope fits that envelope', async ({ page }) => {
  await page.goto('/');
  await startKind(page, 'V-fold figure');
  await page.locator('#new-from').locator('..').click();
  await page.getByRole('option', { name: 'an envelope I have' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Take it to the bench' }).click();
  await expect(page.getByText('Fits the envelope C6, 162 × 114 mm')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('108 mm');
});

test('a card from a sheet uses the sheet', async ({ page }) => {
  await page.goto('/');
  await startKind(page, 'Easel, folded front');
  await page.locator('#new-from').locator('..').click();
  await page.getByRole('option', { name: 'a sheet I have' }).click();
  // Card and display, each twice and once the depth by the length: 2 × 99 by 198 and 198 by 99 lie on 210 × 297.
  const depth = page.locator('.found dip-number').first();
  await expect(depth).toContainText('99 mm');
  await page.locator('#new-count').locator('..').click();
  await page.getByRole('option', { name: 'two cards from one sheet' }).click();
  await expect(page.locator('.why').first()).toContainText('one sheet, twice');
  await expect(depth).toContainText('99 mm');
  await page.getByRole('button', { name: 'Take it to the bench' }).click();
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('99 mm');
});

test('a closed size that cannot be is refused before anything is made', async ({ page }) => {
  await page.goto('/');
  await startKind(page, 'Easel, folded front');
  await page.getByLabel('Across the fold').fill('9 mm');
  await expect(page.getByText(/9 mm does not work; allowed is 40 mm to 320 mm/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take it to the bench' })).toBeDisabled();
});

test('duplicate, rename, find, delete and put back', async ({ page }) => {
  await page.goto('/');
  const before = await countCards(page);
  await expect(page.locator('dip-thumbnail svg path').first()).toBeVisible();
  await page.getByRole('button', { name: 'Duplicate Chanterelle birthday card' }).click();
  await expect(page.locator(cards)).toHaveCount(before + 1);
  await page.getByRole('button', { name: 'Rename Chanterelle birthday card, again' }).click();
  await page.getByLabel('New name').fill('Lantern walk');
  await page.getByLabel('New name').press('Enter');
  await page.getByLabel('Find a card').fill('lantern walk');
  await expect(page.locator(cards)).toHaveCount(1);
  await page.getByRole('button', { name: 'Delete Lantern walk' }).click();
  await page.getByLabel('Find a card').fill('');
  await expect(page.locator(cards)).toHaveCount(before);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.locator(cards)).toHaveCount(before + 1);
  await page.reload();
  await expect(page.getByText('Lantern walk')).toBeVisible();
});

test('the whole shelf goes into one file and comes back', async ({ page }) => {
  await page.goto('/');
  const before = await countCards(page);
  const [all] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save all to a file' }).click()]);
  expect(JSON.parse(readFileSync((await all.path())!, 'utf8')).cards).toHaveLength(before);
  await page.getByLabel('Card file').setInputFiles((await all.path())!);
  await expect(page.locator(cards)).toHaveCount(2 * before);
});

test('a card open in two tabs is never written over silently', async ({ page, context }) => {
  await openDemo(page, 'Thank-you easel');
  const other = await context.newPage();
  await openDemo(other, 'Thank-you easel');
  await setSize(other, 'Depth', '140');
  // What the header says from here on is of this change, not of the card as it was opened.
  await expect(other.getByRole('button', { name: /Undo: Depth/ })).toBeVisible();
  await expect(other.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  await expect(page.getByText(/also open in another tab/)).toBeVisible();
  await setSize(page, 'Depth', '130');
  const depth = (of: typeof page) => of.getByRole('textbox', { name: 'Depth', exact: true });
  const changed = (of: typeof page) => of.getByText('This card was changed in another tab. What you have here is kept beside it');
  await expect(changed(page)).toBeVisible();
  await page.getByRole('button', { name: 'Take the other one' }).click();
  await expect(depth(page)).toHaveValue('140 mm');
  // Neither version is gone: undo brings back what this tab had, and saves it.
  await page.getByRole('button', { name: /Undo: / }).click();
  await expect(depth(page)).toHaveValue('130 mm');
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();

  // A page in conflict that is loaded again: the other version is on the shelf as a card of its own.
  await setSize(other, 'Depth', '145');
  await expect(changed(other)).toBeVisible();
  await other.reload();
  await expect(depth(other)).toHaveValue('130 mm');
  await other.getByRole('link', { name: 'Back to the shelf' }).click();
  await other.getByRole('link', { name: /Thank-you easel.*\(other version\)/ }).click();
  await expect(depth(other)).toHaveValue('145 mm');

  // Deleted here while it is open there: told, and it can be put back.
  await other.getByRole('link', { name: 'Back to the shelf' }).click();
  await other.getByRole('button', { name: /^Delete [^(]*Thank-you easel[^(]*$/ }).click();
  await setSize(page, 'Depth', '150');
  await page.getByRole('button', { name: 'Put it back on the shelf' }).click();
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  await other.close();
});

test('anything that can be done is found by its words, and the keys are listed', async ({ page }) => {
  await openDemo(page, 'Chanterelle');
  await page.keyboard.press('Control+k');
  const search = page.getByRole('combobox', { name: 'What to do' });
  await search.fill('dark');
  await expectAccessible(page);
  await search.press('Enter');
  await expect(page.locator('html')).toHaveClass(/dark/);
  await page.keyboard.press('Control+k');
  await search.fill('measure in cent');
  await search.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('12.7 cm');
  await expect(search).toBeHidden();
  await page.getByRole('slider', { name: 'Opening' }).press('?');
  await expect(page.getByText('find something to do')).toBeVisible();
});

test('a verdict that turned bad says what changed, and goes back in one step', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await setSize(page, 'Display height', '180');
  await expect(page.getByText('Since it last worked you changed display height from 150 mm to 180 mm.')).toBeVisible();
  await page.getByRole('button', { name: 'Back to that' }).click();
  await expect(page.getByText('Ready to make: every check passes.').first()).toBeVisible();
});

test('sizes are rounded to the board in one step', async ({ page }) => {
  await openDemo(page, 'Chanterelle');
  await setSize(page, 'Depth', '128 mm');
  await page.getByRole('button', { name: /Round to the board: depth 5 in/ }).click();
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('5 in');
});

test('a full or broken store is said, and the card can be saved to a file', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('no room', 'QuotaExceededError');
    };
  });
  await setSize(page, 'Depth', '140');
  await expect(page.getByText(/This browser did not keep the card/)).toBeVisible();
  const [saved] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save it to a file' }).click()]);
  expect(JSON.parse(readFileSync((await saved.path())!, 'utf8')).parts[0].sizes.depth).toBe(140);
});

test('state and notes are kept with the card', async ({ page }) => {
  await openDemo(page, 'Chanterelle');
  await page.getByLabel('Notes').fill('Fern paper on the back leaf.');
  await page.getByLabel('Notes').press('Tab');
  await page.locator('#state').locator('..').click();
  await page.getByRole('option', { name: 'made' }).click();
  await page.goto('/');
  const card = page.locator(cards).filter({ hasText: 'Chanterelle' });
  await expect(card).toContainText('Fern paper on the back leaf.');
  await expect(card).toContainText('made');
});
