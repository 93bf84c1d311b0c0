import { expect, expectAccessible, openDemo, test } from './page';

test('three cards are laid on sheets: every cut with its number, what is left, alike on a phone and in the dark', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'What to do' }).fill('cut it from');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/of the paper is left over/)).toBeVisible();
  await page.getByRole('combobox', { name: 'How many cards' }).press('ArrowDown');
  await page.getByRole('option', { name: '3', exact: true }).click();
  await expect(page.getByText(/^\d+ sheets; \d+ % of the paper is left over/)).toBeVisible();
  const first = page.getByRole('article').first();
  await expect(first.getByRole('group', { name: /^Sheet 1, .*cuts?$/ })).toBeVisible();
  await expect(first.getByRole('listitem').first()).toContainText(/edge of the part of .* against the fence/);
  await expectAccessible(page);
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.setViewportSize({ width: 390, height: 844 });
  await expectAccessible(page);
  const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(wide).toBeLessThanOrEqual(0);

  // One more of each topper, once, though there are three cards.
  await page.getByRole('checkbox', { name: 'and one spare of each topper and its papers, as a sample' }).check();
  await expect(page.getByRole('button', { name: /, spare, .* from the left edge/ }).first()).toBeAttached();
  await page.getByRole('checkbox', { name: 'and one spare of each topper and its papers, as a sample' }).uncheck();

  await page.getByRole('combobox', { name: 'Cut', exact: true }).press('ArrowDown');
  await page.getByRole('option', { name: 'each along its outline' }).click();
  await expect(page.getByText('Cut each piece out along its own outline').first()).toBeVisible();

  // A piece is dragged off its sheet, which is told, and brought back by the keyboard; then all lie as they were laid out.
  await page.setViewportSize({ width: 1280, height: 800 });
  const piece = first.getByRole('button').first();
  const before = (await piece.getAttribute('aria-label'))!;
  const box = (await piece.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 60, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect(first.getByText(/past the left edge of the sheet/)).toBeVisible();
  await expect(first.getByText('Cut each piece out along its own outline')).toHaveCount(0);
  await expectAccessible(page);
  for (let i = 0; i < 10 && (await first.getByText(/past the left edge/).count()) > 0; i++) await piece.press('Shift+ArrowRight');
  await expect(first.getByText(/past the left edge of the sheet/)).toHaveCount(0);
  await page.getByRole('button', { name: 'As they were laid out' }).click();
  await expect(piece).toHaveAttribute('aria-label', before);
});
