import { expect, expectAccessible, openDemo, savedBy, test, tryStep } from './page';

const cards = 'dip-live-card';

test('every movement is a little card that opens when it is focused, found by wishes and by what is at hand', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: 'Movements' }).click();
  await expect(page.getByRole('heading', { name: 'Movements', exact: true })).toBeVisible();
  await expect(page.locator(cards)).toHaveCount(21);
  await expect(page.locator(`${cards} svg`)).toHaveCount(21);
  await expectAccessible(page);

  const doors = page.getByRole('article', { name: 'Doors with a rising strip' });
  const still = await doors.locator('path').first().getAttribute('d');
  await page.getByRole('button', { name: 'Start Doors with a rising strip' }).focus();
  await expect(doors.locator('path').first()).not.toHaveAttribute('d', still!);
  await page.getByRole('button', { name: 'Start Folded card' }).focus();
  await expect(doors.locator('path').first()).toHaveAttribute('d', still!);

  await page.getByLabel('something floats').check();
  await expect(page.locator(cards)).toHaveCount(3);
  await page.getByLabel('knife and steel rule').uncheck();
  await expect(page.getByRole('article', { name: 'Step easel with a floating panel' })).toBeVisible();
  await expect(page.getByRole('article', { name: 'Floating layer' })).toBeVisible();
  await expect(page.locator(cards)).toHaveCount(2);
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByLabel('Find').fill('snow globe');
  await expect(page.getByText(/No movement has all of that/)).toBeVisible();
});

test('whoever wants no motion sees each card half open instead', async ({ page }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.goto('/movements');
  const swing = page.getByRole('article', { name: 'Swing card' });
  await expect(swing.locator('path').first()).toBeVisible();
  await page.getByRole('button', { name: 'Start Swing card' }).focus();
  const first = await swing.locator('path').first().getAttribute('d');
  await page.waitForTimeout(500);
  expect(await swing.locator('path').first().getAttribute('d')).toBe(first);
});

test('the movements are as usable on a tablet in the dark', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.goto('/movements');
  await expect(page.locator(`${cards} svg`)).toHaveCount(21);
  await expectAccessible(page);
});

/** What is asked of a movement’s drawing: pieces by name, and the size that is tried. */
const MADE = [
  ['Floating layer', 'Lift', ['Layer', 'Lower support', 'Upper support']],
  ['Push-through shape', 'Bridges from the fold', ['Card']],
  ['Meeting pair', 'Gap between the figures, open', ['Arm 1', 'Figure of arm 1', 'Brace of arm 2']],
  ['Twist carrier', 'Width of strip and carrier', ['Strip', 'Carrier']],
] as const;

for (const [name, size, pieces] of MADE) {
  test(`${name}: from Movements to its template and its first step`, async ({ page }) => {
    await page.goto('/movements');
    await page.getByRole('button', { name: `Start ${name}`, exact: true }).click();
    await page.getByRole('button', { name: 'Take it to the bench' }).click();
    await tryStep(page, size);
    for (const piece of pieces) await expect(page.locator('dip-flat-view').getByText(piece, { exact: true }).first()).toBeAttached();
    await page.getByRole('button', { name: 'Print and files' }).click();
    expect((await savedBy(page, 'True-size templates')).subarray(0, 5).toString()).toBe('%PDF-');
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Make it' }).click();
    await expect(page.getByRole('heading', { name: 'Put everything on the table' })).toBeVisible();
  });
}

test('how a carrier bends is worked out beside the bench, told and drawn, and stays known', async ({ page }) => {
  test.slow();
  await openDemo(page, 'The foray map');
  const looks = page.getByRole('group', { name: 'What to look at' });
  await looks.getByText('How it bends').click();
  const told = page.getByRole('region', { name: 'How it bends' });
  await expect(told.getByRole('progressbar').or(told.getByRole('table').first())).toBeVisible();
  await expect(told).toContainText(/radius of [\d.]+ mm, by up to 1\d\d°/, { timeout: 100_000 });
  await expect(told).toContainText(/Closed from flat it does not find the way back by itself/);
  await expect(told.getByRole('row', { name: /^90°/ })).toContainText('creased');
  await expectAccessible(page);
  await looks.getByText('Opening').click();
  // The places where it creases and jumps are marked, and one press goes there.
  await page.getByRole('button', { name: /^Go to: .*jumps over/ }).click();
  await expect(page.locator('output[for=opening]')).toHaveText(/open 1[0-2]\d°/);
  // Another name asks for nothing new.
  await page.getByLabel('Name of the card').fill('The map');
  await looks.getByText('How it bends').click();
  await expect(told).toContainText(/jumps over somewhere between/, { timeout: 2000 });
});
