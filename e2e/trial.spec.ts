import { expect, expectAccessible, openDemo, setSize, test } from './page';

test('a card that fails is mended by the least change, tried by hand and in another size, and gone on with after a wrong score', async ({
  page,
}) => {
  test.slow();
  await openDemo(page, 'Thank-you easel');
  const trial = page.locator('dip-trial-panel');
  // The picture is 150 mm wide: beside a fold of 100 mm it stands out of the closed card.
  await setSize(page, 'Length of fold', '100');
  await expect(page.locator('dip-verdict-list').getByText(/must change before you cut/)).toBeVisible();
  await trial.getByText('The least change that mends it').click();
  await trial.getByRole('button', { name: 'Look for the least change' }).click();
  await expect(trial.getByText(/^Change length of fold from 100 mm to/)).toBeVisible();
  await trial.getByRole('button', { name: 'Before and after' }).first().click();
  await expect(trial.locator('figure svg')).toHaveCount(2);
  await expectAccessible(page);
  await trial.getByRole('button', { name: 'Change it so' }).first().click();
  await expect(page.locator('dip-verdict-list').getByText(/must change before you cut/)).toHaveCount(0);
  await expect(page.getByText(/Ready to make/).first()).toBeVisible();
  // One step to undo.
  await page.getByRole('button', { name: /^Undo: Change/ }).click();
  await expect(page.getByRole('textbox', { name: 'Length of fold', exact: true })).toHaveValue('100 mm');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('textbox', { name: 'Length of fold', exact: true })).toHaveValue('150 mm');

  await trial.getByText('How exact must my hand be?').click();
  await trial.getByRole('button', { name: 'Make them' }).click();
  await expect(trial.getByText('Of 10000 cards')).toBeVisible({ timeout: 60_000 });
  await expect(trial.getByRole('img', { name: /take less than all of it/ })).toBeVisible();
  await trial.getByText('The same as numbers').click();
  await expect(trial.getByRole('row', { name: /up to 20 %/ })).toBeVisible();
  await expectAccessible(page);

  await trial.getByText('Something was made wrong').click();
  await trial.getByRole('combobox', { name: 'Line' }).press('ArrowDown');
  await page.getByRole('option', { name: 'Card: main fold' }).click();
  const at = trial.getByRole('textbox', { name: 'It lies at' });
  await expect(at).toHaveValue('150 mm');
  await at.fill('153');
  await at.press('Tab');
  await trial.getByRole('button', { name: 'What now?' }).click();
  await expect(trial.getByText(/^It lies 3 mm off, and the card does not work so/)).toBeVisible();
  await expect(trial.getByRole('listitem').first()).toContainText(
    /Change depth from 150 mm to 147 mm and display height .*, and trim the card by 6 mm at its left end/,
  );
  // A piece that is glued beside its place: 5 mm up it stands out by 5 mm.
  await trial.getByRole('combobox', { name: 'What came out otherwise' }).press('ArrowDown');
  await page.getByRole('option', { name: 'where something is glued' }).click();
  await trial.getByRole('combobox', { name: 'Toward' }).press('ArrowDown');
  await page.getByRole('option', { name: 'up', exact: true }).click();
  await trial.getByRole('button', { name: 'What now?' }).click();
  await expect(trial.getByRole('listitem').first()).toContainText(/Trim the display by 2 mm .*the card works so/);
  await expectAccessible(page);

  await trial.getByText('The same card, another size').click();
  for (const [label, value] of [
    ['Closed, across the fold', '120'],
    ['Closed, along the fold', '130'],
  ] as const) {
    const field = trial.getByRole('textbox', { name: label });
    await field.fill(value);
    await field.press('Tab');
  }
  await trial.getByRole('button', { name: 'Try that size' }).click();
  await expect(trial.getByText(/^Closed it measures 120 mm × 130 mm/)).toBeVisible();
  await trial.getByRole('button', { name: 'Change the card so' }).click();
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('120 mm');
  await expect(page.getByRole('textbox', { name: 'Stop from the fold', exact: true })).toHaveValue('60 mm');

  // The card as it was opened stands beside it.
  await trial.getByText('Beside what it was, or another card').click();
  await trial.getByRole('combobox', { name: 'Beside' }).press('ArrowDown');
  await page.getByRole('option', { name: 'When you opened it' }).click();
  await expect(trial.getByRole('row', { name: 'Depth 150 mm 120 mm' })).toBeVisible();
  await expect(trial.locator('figure svg')).toHaveCount(2);
  await expectAccessible(page);

  await trial.getByText('One card in three sizes').click();
  await trial.getByRole('button', { name: 'Try these sizes' }).click();
  await expect(trial.getByText(/^Three quarters as large: closed 90 mm × 97 mm/)).toBeVisible();
  await expectAccessible(page);
  await trial.getByRole('button', { name: 'Put these 3 on the shelf' }).click();
  await expect(trial.getByText('They are on the shelf.')).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Thank-you easel for the foray guide, 90 mm × 97 mm/ })).toBeVisible();
});

test('a list from elsewhere is held against a mechanism, its slip is named, and the card is made of it', async ({ page }) => {
  await page.goto('/movements');
  const reader = page.locator('dip-list-reader');
  await reader.getByText('I have a list of numbers from elsewhere').click();
  const list = reader.getByRole('textbox', { name: 'The list' });
  await list.fill('scores 70, banana');
  await reader.getByRole('button', { name: 'Do these numbers agree?' }).click();
  await expect(reader.getByRole('alert')).toContainText('banana');
  await list.fill('scores 70, 141\nblank 280 x 100\nclosed 140 x 100');
  await reader.getByRole('combobox', { name: 'It is of' }).click();
  await page.getByRole('option', { name: 'Easel, folded front' }).click();
  await reader.getByRole('button', { name: 'Do these numbers agree?' }).click();
  await expect(reader.getByText(/140 mm instead of 141 mm/)).toBeVisible();
  await expectAccessible(page);
  await list.fill('scores 70, 140\nblank 280 x 100\nclosed 140 x 100');
  await reader.getByRole('button', { name: 'Do these numbers agree?' }).click();
  await expect(reader.getByText('Easel, folded front: all numbers agree.')).toBeVisible();
  await reader.getByRole('button', { name: 'Make the card of it' }).click();
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('140 mm');
  await expect(page.getByRole('textbox', { name: 'Stop from the fold', exact: true })).toHaveValue('70 mm');
});
