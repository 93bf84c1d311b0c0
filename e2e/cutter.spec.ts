import { expect, expectAccessible, openDemo, test } from './page';

test('a drawing goes to the cutter, is held, is taken up by a page that was loaded again, and its outcome is told', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await page.getByRole('link', { name: 'Make it' }).click();
  await page.getByRole('link', { name: 'Send to a cutter' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Send it' }).click();
  await page.getByRole('button', { name: 'Hold it' }).click();
  const held = page.getByText(/^It is held; \d+ s are left\.$/);
  await expect(held).toBeVisible();
  const left = await held.textContent();
  await page.reload();
  await expect(held).toHaveText(left!);
  await expect(page.getByRole('img', { name: /^What has been cut so far/ })).toBeVisible();
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByText(/^It is done: \d+ s\.$/)).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'comes free' })).toContainText('1 piece comes free');
  await expectAccessible(page);

  await page.getByRole('radio', { name: /^Patterned paper/ }).check();
  await page.getByRole('button', { name: 'Send this one' }).click();
  await page.getByRole('button', { name: 'Call it off' }).click();
  await expect(page.getByText(/^It was called off after \d+ s\.$/)).toBeVisible();
});
