import { readFileSync } from 'node:fs';
import { expect, expectAccessible, openDemo, test } from './page';

/** A picture that is no photo, as large as a camera makes them. */
const photo = (page: import('@playwright/test').Page): Promise<number[]> =>
  page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [2400, 1800];
    const paint = canvas.getContext('2d')!;
    paint.fillStyle = '#6b7a4a';
    paint.fillRect(0, 0, 2400, 1800);
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
    return [...new Uint8Array(await blob!.arrayBuffer())];
  });

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 } });

  test('ten cards are made at once: what was done is there after the page was closed, and goes into the logbook', async ({ page }) => {
    await openDemo(page, 'Logs at the doors');
    await page.getByRole('link', { name: 'Make it' }).click();
    await page.getByLabel('Cards at once').fill('10');
    await page.getByLabel('Cards at once').press('Tab');
    await page.getByRole('button', { name: 'All 10 done, next' }).click();
    await expect(page.getByRole('heading', { name: 'Trim: Card' })).toBeVisible();
    for (let done = 0; done < 4; done++) await page.getByRole('button', { name: `One more: ${done} of 10` }).click();
    await expect(page.getByText('for 10 cards: 4 done')).toBeVisible();
    await page.getByRole('button', { name: 'Something went wrong here' }).click();
    await page.getByLabel('What went wrong?').fill('One blank cut a hair short');
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.getByText('It is in the logbook.')).toBeVisible();
    await expectAccessible(page);

    await page.reload();
    await expect(page.getByText('Step 2 of')).toContainText('for 10 cards: 4 done');
    for (let step = 0; step < 60; step++) {
      const next = page.locator('button.next');
      const last = (await next.textContent())!.includes('all are made');
      await next.click();
      if (last) break;
    }
    await expect(page.getByRole('status').filter({ hasText: 'Made!' })).toBeVisible();
    await page.getByRole('status').getByRole('link', { name: 'logbook' }).click();
    await page.getByRole('button', { name: /^Logs at the doors/ }).click();
    await expect(page.getByText('One blank cut a hair short')).toBeVisible();
    await expect(page.getByRole('row', { name: /^Trim: Card 10 of 10/ })).toBeVisible();

    await page.getByLabel('For whom').fill('the autumn foray');
    await page.getByLabel('For whom').press('Tab');
    const buffer = Buffer.from(await photo(page));
    await page.getByLabel('Photos', { exact: true }).setInputFiles({ name: 'made.png', mimeType: 'image/png', buffer });
    await expect(page.getByRole('img', { name: 'Photo 1 of Logs at the doors' })).toBeVisible();
    await page
      .getByLabel('Photos', { exact: true })
      .setInputFiles({ name: 'no.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
    await expect(page.getByRole('alert')).toContainText('is not a picture');
    await expectAccessible(page);

    await page.reload();
    await page.getByRole('searchbox', { name: 'Find a build' }).fill('autumn');
    await page.getByRole('button', { name: /^Logs at the doors.*for the autumn foray/ }).click();
    const kept = page.getByRole('img', { name: 'Photo 1 of Logs at the doors' });
    await expect(kept).toBeVisible();
    expect(await kept.evaluate((img: HTMLImageElement) => [img.naturalWidth, img.naturalHeight])).toEqual([1600, 1200]);
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save it to a file' }).click();
    const file = (await (await saved).path())!;
    await page.getByLabel('Logbook file').setInputFiles({ name: 'logbook.zip', mimeType: 'application/zip', buffer: readFileSync(file) });
    await expect(page.getByText('0 builds were taken from the file; 1 was here already.')).toBeVisible();
    await page.getByRole('button', { name: 'Take this build out of the logbook' }).click();
    await page.getByRole('button', { name: 'Put it back' }).click();
    await expect(kept).toBeVisible();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(wide).toBeLessThanOrEqual(0);
  });
});

test('a board that scores half a millimetre too far is found, minded in the steps, and taken back', async ({ page }) => {
  await openDemo(page, 'Logs at the doors');
  await page.getByRole('link', { name: 'Make it' }).click();
  await page.getByRole('button', { name: 'Done, next' }).click();
  await page.getByRole('heading', { name: 'Trim: Card' }).waitFor();
  await page.goto('/logbook');
  await page.getByRole('button', { name: /^Logs at the doors/ }).click();
  const lines = page.getByLabel('What', { exact: true });
  await expect(lines).toBeVisible();
  const scores = (await lines.locator('option').allTextContents()).flatMap((text, index) => {
    const planned = /from the .* edge: ([\d.]+) mm$/.exec(text);
    return planned ? [{ index, planned: Number(planned[1]) }] : [];
  });
  // Half a millimetre, give or take a tenth: six of them leave no doubt.
  const NOISE = [0, 0.1, -0.1, 0.05, -0.05, 0.1, -0.1, 0];
  for (const [i, { index, planned }] of scores.slice(0, 8).entries()) {
    await lines.selectOption(String(index));
    await page.getByLabel('Measured', { exact: true }).fill(`${(planned + 0.5 + NOISE[i]!).toFixed(2)} mm`);
    await page.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByLabel('Measured', { exact: true })).toHaveValue('');
  }
  await page.getByLabel('Measured', { exact: true }).fill('1 mm');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('alert')).toContainText('is it another line?');
  await page.getByRole('button', { name: 'How exact all of it came out' }).click();
  await expect(page.getByText('Scores land 0.5 mm too far from the zero.')).toBeVisible();
  await expectAccessible(page);
  await page.emulateMedia({ colorScheme: 'dark' });
  await expectAccessible(page);
  await page
    .getByRole('button', { name: /^Mind it: / })
    .first()
    .click();
  await expect(page.getByText('In force.')).toBeVisible();

  await openDemo(page, 'Logs at the doors');
  await page.getByRole('link', { name: 'Make it' }).click();
  await page.getByRole('button', { name: 'Score: Card' }).first().click();
  await expect(page.getByText('This board scores 0.5 mm too far from its zero')).toBeVisible();
  await page.goto('/logbook');
  await page.getByRole('button', { name: /^Take it back: / }).click();
  await expect(page.getByText('In force.')).toHaveCount(0);
});
