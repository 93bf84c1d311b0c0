import { expect, expectAccessible, openDemo, test } from './page';

test('starting comes first by the keyboard, and the focus goes where the eye goes', async ({ page }) => {
  await page.goto('/');
  await expect(page.locator('.cards .card').first()).toBeVisible();
  const says = (): Promise<string> =>
    page.evaluate(() => (document.activeElement as HTMLElement).innerText || document.activeElement!.getAttribute('aria-label') || '');
  await page.keyboard.press('Tab');
  expect(await says()).toBe('Skip to the main part');
  await page.keyboard.press('Enter');
  await expect(page.locator('main')).toBeFocused();
  let presses = 2;
  while (!(await says()).startsWith('Folded card') && presses < 40) {
    await page.keyboard.press('Tab');
    presses++;
  }
  expect(presses).toBeLessThanOrEqual(12);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByRole('button', { name: /^Folded card/ })).toBeFocused();
  await page.getByRole('link', { name: 'Workshop' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'My workshop' })).toBeFocused();
});

test('samples stand apart in a fixed order until they are changed, and can be put away', async ({ page }) => {
  await page.goto('/');
  const samples = page.getByRole('region', { name: 'Samples' });
  const own = page.getByRole('region', { name: 'Your cards' });
  const names = (of: typeof samples): Promise<string[]> => of.locator('.card .title').allTextContents();
  await expect(samples.locator('.card').first()).toBeVisible();
  const before = await names(samples);
  expect(await names(own)).toEqual([]);

  await openDemo(page, 'Chanterelle');
  await page.getByRole('textbox', { name: 'Notes' }).fill('For Wendlebrook');
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  await page.getByRole('link', { name: 'Back to the shelf' }).click();
  await expect(own.locator('.card')).toHaveCount(1);
  expect(await names(own)).toEqual(['Chanterelle birthday card']);
  expect(await names(samples)).toEqual(before.filter((name) => !name.startsWith('Chanterelle')));

  await page.getByRole('button', { name: 'Put the samples away' }).click();
  await expect(samples.locator('.card')).toHaveCount(0);
  await expectAccessible(page);
  await page.reload();
  await expect(own.locator('.card')).toHaveCount(1);
  await expect(samples.locator('.card')).toHaveCount(0);
  await page.getByRole('button', { name: 'Show the samples' }).click();
  await expect(samples.locator('.card')).toHaveCount(before.length - 1);
});

test('the last step done makes a card a made one, and says so', async ({ page }) => {
  await openDemo(page, 'Lantern box');
  await page.getByRole('link', { name: 'Make it' }).click();
  await page.locator('nav.steps li button').last().click();
  await page.getByRole('button', { name: 'Done: it is made' }).click();
  await expect(page.locator('.made')).toContainText('Made! “Lantern box');
  await page.getByRole('link', { name: 'shelf', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Your cards' }).locator('.card .state')).toHaveText('made');
});

/** What the first shelf may take over the wire, with its pictures and letters (bytes). */
const FIRST_SHELF = 300_000;

test('a first shelf is small, and has its pictures without any calculation', async ({ page }) => {
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  const names = new Map<string, string>();
  const sizes = new Map<string, number>();
  session.on('Network.responseReceived', ({ requestId, response }) => void names.set(requestId, response.url));
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => void sizes.set(requestId, encodedDataLength));
  await page.goto('/');
  await expect(page.locator('.cards .card').first()).toBeVisible();
  const cards = await page.locator('.cards .card').count();
  await expect(page.locator('.cards .card dip-thumbnail svg path:first-child')).toHaveCount(cards);
  await page.evaluate(() => document.fonts.ready);
  await page.waitForLoadState('networkidle');
  const taken = [...sizes].map(([id, bytes]) => `${new URL(names.get(id)!).pathname}: ${bytes}`);
  const sum = [...sizes.values()].reduce((all, bytes) => all + bytes, 0);
  expect(sum, taken.join('\n')).toBeLessThan(FIRST_SHELF);
  expect(sum, 'the page itself was counted').toBeGreaterThan(50_000);
  expect(page.workers()).toEqual([]);
});
