import { expect, expectAccessible, openDemo, test } from './page';

test('a card is dressed in one action, one layer is changed by keyboard, and all of it goes into the making and the files', async ({
  page,
}) => {
  await openDemo(page, 'Doors to the autumn walk');
  const wears = page.locator('dip-dressing-panel');
  await wears.getByText('What it wears').click();
  await wears.getByRole('button', { name: 'Dress the whole card' }).click();
  // Both faces of two doors, two slopes, and the strip.
  await expect(wears.getByText('7 layers')).toBeVisible();
  await expect(page.locator('dip-flat-view path.worn')).toHaveCount(7);
  await expectAccessible(page);

  // A pattern is no place for the message: it is told, and a plain paper for that layer mends it.
  await expect(page.getByText(/wears patterned paper: cut layer L6/)).toBeVisible();
  await wears.getByRole('button', { name: /^L6 Right door$/ }).focus();
  await expect(page.locator('dip-flat-view path.lit')).toHaveCount(1);
  await page.keyboard.press('Enter');
  await expect(wears.locator('.pair').first()).toHaveText(/layer.*47.*× 144/);
  await expect(wears.locator('.pair').nth(1)).toHaveText(/panel.*50.*× 150/);
  await wears.getByRole('combobox', { name: 'Paper of L6' }).click();
  await page.getByRole('option', { name: 'Text paper, 100 g' }).click();
  await expect(page.getByText('Ready to make: every check passes.', { exact: true })).toBeVisible();
  await wears.getByRole('textbox', { name: 'Lower' }).fill('20 mm');
  await page.keyboard.press('Tab');
  await expect(wears.locator('.pair').first()).toHaveText(/47.*× 127/);
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(wears.locator('.pair').first()).toHaveText(/47.*× 144/);

  // A cap on foam, moved by the keyboard and by the mouse, and over the fold on purpose.
  await wears.getByRole('button', { name: 'Add a topper' }).click();
  await expect(wears.getByText('7 layers, 1 topper')).toBeVisible();
  await wears.getByRole('combobox', { name: 'Mounted' }).click();
  await page.getByRole('option', { name: 'on foam' }).click();
  await expect(wears.getByText(/^\d+ pads$/)).toBeVisible();
  const grip = page.getByRole('button', { name: /^T1, mushroom cap, on the left door: arrow keys/ });
  const middle = wears.getByRole('textbox', { name: 'Middle from the left' });
  await expect(middle).toHaveValue('25 mm');
  await grip.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(middle).toHaveValue('24 mm');
  const at = (await grip.boundingBox())!;
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(at.x + at.width / 2 + 30, at.y + at.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByText(/T1 \(mushroom cap\) reaches .* over the fold onto the/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Undo: Place of T1/ }).click();
  await expect(middle).toHaveValue('24 mm');

  // A band round it, that slides off.
  await wears.getByRole('button', { name: 'Add a band' }).click();
  await expect(wears.getByText('7 layers, 1 topper, 1 closure')).toBeVisible();
  await page.getByText(/\d+ checks pass/).click();
  await expect(page.getByText(/The band B1 slides off toward/)).toBeVisible();
  await expect(wears.getByRole('button', { name: 'B1 Band 1' })).toHaveAttribute('aria-expanded', 'true');
  await expectAccessible(page);

  await page.reload();
  await expect(wears.getByText('7 layers, 1 topper, 1 closure')).toBeVisible();
  await page.getByRole('link', { name: 'Make it' }).click();
  await expect(page.getByText(/L1 47 mm × 144 mm/)).toBeVisible();
});
