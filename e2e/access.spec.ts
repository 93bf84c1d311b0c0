import type { Page } from '@playwright/test';
import { expect, expectAccessible, openDemo, startKind, test } from './page';

interface Sight {
  name: string;
  width: number;
  height: number;
  dark?: boolean;
  /** a page enlarged so many times */
  zoom?: number;
  /** what the rules look at is that of another sight, where they are asked */
  sameByRules?: true;
  /** lines, letters and words set apart as far as readers may set them */
  apart?: boolean;
}

const SIGHTS: readonly Sight[] = [
  { name: 'at the table', width: 1280, height: 800 },
  { name: 'on a tablet in the dark', width: 1024, height: 768, dark: true },
  { name: 'on a phone', width: 390, height: 844 },
  { name: 'enlarged to 200 %', width: 640, height: 400, zoom: 2, sameByRules: true },
  { name: 'with its text set apart', width: 1280, height: 800, dark: true, apart: true, sameByRules: true },
];

const APART = `* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important; }
p { margin-bottom: 2em !important; }`;

/** Nothing wrong by the rules, nothing beside the page, and no button that cuts its words off. */
async function expectSound(page: Page, sight: Sight): Promise<void> {
  if (sight.apart) await page.addStyleTag({ content: APART });
  // Enlarged, or with its text set apart, a page is the same to the rules: what is looked for is what is cut off or beside the page.
  if (!sight.sameByRules) await expectAccessible(page);
  const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(wide).toBeLessThanOrEqual(0);
  const cut = await page.evaluate(() =>
    [...document.querySelectorAll('button')]
      .filter((button) => button.checkVisibility() && button.scrollWidth > button.clientWidth + 2 && !button.matches('.p-button-icon-only'))
      .map((button) => button.textContent!.trim()),
  );
  expect(cut).toEqual([]);
}

for (const sight of SIGHTS) {
  test.describe(`every screen and dialog ${sight.name}`, () => {
    test.use({
      viewport: { width: sight.width, height: sight.height },
      deviceScaleFactor: sight.zoom ?? 1,
      colorScheme: sight.dark ? 'dark' : 'light',
      // Style is set from outside only to set text apart.
      bypassCSP: sight.apart ?? false,
    });

    test('is sound', async ({ page }) => {
      test.slow();
      const sound = (): Promise<void> => expectSound(page, sight);
      await page.goto('/');
      await expect(page.locator('.cards .card').first()).toBeVisible();
      await sound();
      await startKind(page, 'Easel, folded front');
      await expect(page.locator('.comes')).toContainText('Judged');
      await sound();
      await page.keyboard.press('Escape');
      await page.keyboard.press('Control+k');
      await expect(page.getByRole('dialog')).toBeVisible();
      await sound();
      await page.keyboard.press('Escape');
      for (const path of ['movements', 'workshop', 'logbook', 'guide', 'guide/easel-row', 'practice']) {
        await page.goto(`/${path}`);
        await expect(page.locator('h1')).toBeVisible();
        await sound();
      }
      await openDemo(page, 'Thank-you easel');
      await expect(page.getByText(/Ready to make/).first()).toBeVisible();
      await page.getByText('Words used here').click();
      await page.locator('dip-words-used button').first().click();
      await sound();
      for (const look of ['Thickness when closed', 'Which side shows']) {
        await page.getByRole('button', { name: look }).click();
        await sound();
      }
      await page.getByRole('button', { name: 'Add a movement' }).click();
      await expect(page.locator('dip-add-movement')).toBeVisible();
      await sound();
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'Print and files' }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
      await sound();
      await page.keyboard.press('Escape');
      await page.getByRole('link', { name: 'Make it' }).click();
      await expect(page.getByText(/^Step 1 of/)).toBeVisible();
      await sound();
      for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Done, next' }).click();
      await sound();
    });
  });
}
