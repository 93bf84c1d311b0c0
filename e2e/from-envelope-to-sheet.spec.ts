import { readFileSync } from 'node:fs';
import { expect, openDemo, setSize, test } from './page';

/** What a maker does to get there: a press of a button of the mouse, or of the key that stands for it. */
const MOST_CLICKS = 15;

/** A list is opened, and one of its entries taken: two clicks. */
test('an easel for an envelope for 5 by 7 on an inch board comes to a printed sheet in a few clicks', async ({ page }) => {
  let clicks = 0;
  page.on('console', (message) => message.text() === 'click' && clicks++);
  await page.addInitScript(() => addEventListener('click', (event) => event.isTrusted && event.detail > 0 && console.info('click'), true));
  await page.goto('/');
  await page.getByRole('combobox', { name: 'You measure in' }).click();
  await page.getByRole('option', { name: 'Inches, sixteenths' }).click();
  await page.getByRole('button', { name: 'Keep these' }).click();
  await page.getByRole('button', { name: /^Easel, folded front/ }).click();
  await page.getByRole('combobox', { name: 'From' }).click();
  await page.getByRole('option', { name: 'an envelope I have' }).click();
  await page.getByRole('combobox', { name: 'Envelope' }).click();
  await page.getByRole('option', { name: /^A7/ }).click();
  await expect(page.locator('.comes')).toContainText('Judged and found to work');
  await page.getByRole('button', { name: 'Take it to the bench' }).click();
  await expect(page.getByText(/Fits the envelope A7/)).toBeAttached();
  // 7 1/4 × 5 1/4 in less 6 mm both ways, down to a mark: 7 × 5 in. Folded at the top, its scores lie at 3 1/2 and 7 in.
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('7 in');
  await expect(page.getByRole('textbox', { name: 'Length of fold', exact: true })).toHaveValue('5 in');
  await expect(page.getByText('Every score across a blank falls into a groove of the board.')).toBeAttached();
  await page.getByRole('button', { name: 'Print and files' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'One page with everything' }).click();
  const file = readFileSync(await (await download).path());
  expect(file.subarray(0, 5).toString()).toBe('%PDF-');
  // Each of the steps above is one at least: the counting itself works.
  expect(clicks).toBeGreaterThanOrEqual(11);
  expect(clicks).toBeLessThanOrEqual(MOST_CLICKS);
});

test('and so it does by the keyboard', async ({ page }) => {
  let presses = 0;
  const press = async (key: string): Promise<void> => {
    if (key === 'Enter' || key === ' ') presses++;
    await page.keyboard.press(key);
  };
  const focused = (): Promise<string> =>
    page.evaluate(() => document.activeElement!.getAttribute('aria-label') ?? (document.activeElement as HTMLElement).innerText);
  const tabTo = async (name: RegExp): Promise<void> => {
    for (let i = 0; i < 60 && !name.test(await focused()); i++) await press('Tab');
    expect(await focused()).toMatch(name);
  };
  /** Opens the list that has the focus, goes to an entry by its first letters, and takes it. */
  const take = async (entry: RegExp): Promise<void> => {
    await press('Enter');
    await expect(page.locator('.p-select-overlay')).toBeVisible();
    const chosen = page.locator('.p-select-option.p-focus');
    for (let i = 0; i < 12 && !entry.test((await chosen.count()) ? await chosen.innerText() : ''); i++) {
      await press('ArrowDown');
      await page.waitForTimeout(50);
    }
    await press('Enter');
    await expect(page.locator('.p-select-overlay')).toHaveCount(0);
  };
  await page.goto('/');
  await expect(page.locator('.cards .card').first()).toBeVisible();
  await tabTo(/^You measure in/);
  await take(/Inches, sixteenths/);
  await tabTo(/^Keep these/);
  await press('Enter');
  await expect(page.getByRole('button', { name: 'Keep these' })).toHaveCount(0);
  await tabTo(/^Easel, folded front/);
  await press('Enter');
  await expect(page.locator('[role=dialog] :focus')).toBeVisible();
  await tabTo(/^From$/);
  await take(/an envelope I have/);
  await tabTo(/^Envelope$/);
  await take(/^A7/);
  await tabTo(/^Take it to the bench/);
  await press('Enter');
  await expect(page.getByText(/Fits the envelope A7/)).toBeAttached();
  await tabTo(/^Print and files/);
  await press('Enter');
  await expect(page.locator('[role=dialog] :focus')).toBeVisible();
  await tabTo(/^One page with everything/);
  const download = page.waitForEvent('download');
  await press('Enter');
  await download;
  expect(presses).toBeLessThanOrEqual(MOST_CLICKS);
});

test('the first fix is six tabs away', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await page.getByRole('combobox', { name: 'Scoring board' }).click();
  await page.getByRole('option', { name: /Grooves every 5 mm, 30 cm/ }).click();
  await setSize(page, 'Depth', '151 mm');
  await expect(page.getByRole('button', { name: /^Round to the board/ })).toBeVisible();
  await page.getByRole('heading', { level: 1 }).focus();
  let tabs = 0;
  const fixes = page.locator('button.fix').first();
  while (tabs < 20 && !(await page.getByRole('button', { name: 'Go to the verdicts' }).evaluate((e) => e === document.activeElement))) {
    await page.keyboard.press('Tab');
    tabs++;
  }
  await page.keyboard.press('Enter');
  while (tabs < 20 && !(await fixes.evaluate((e) => e === document.activeElement))) {
    await page.keyboard.press('Tab');
    tabs++;
  }
  expect(tabs).toBeLessThanOrEqual(6);
});
