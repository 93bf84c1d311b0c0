import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, test as base, type Page } from '@playwright/test';

/**
 * Every journey runs on a page that may not write an error to the console, nor ask anything of another
 * machine.
 */
export const test = base.extend<{ quiet: void }>({
  quiet: [
    async ({ page, baseURL }, use) => {
      const noise: string[] = [];
      page.on('console', (message) => message.type() === 'error' && noise.push(message.text()));
      page.on('pageerror', (error) => noise.push(error.message));
      page.on('request', (request) => {
        const own = request.url().startsWith(baseURL!) || /^(blob|data):/.test(request.url());
        if (!own) noise.push(`a request left the machine: ${request.url()}`);
      });
      await use();
      expect(noise).toEqual([]);
    },
    { auto: true },
  ],
});

export async function expectAccessible(page: Page): Promise<void> {
  // Lists and dialogs fade: they are looked at when they have come or gone.
  await expect(page.locator('.p-select-overlay')).toHaveCount(0);
  await page.waitForTimeout(350);
  // A colour on its way to another is neither.
  await page.evaluate(() =>
    Promise.all(
      document
        .getAnimations()
        .filter((each) => each.playState === 'running' && Number.isFinite(each.effect?.getComputedTiming().endTime))
        .map((each) => each.finished.catch(() => undefined)),
    ),
  );
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    .analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)).toEqual([]);
}

/** Opens a demo card and waits until it is worked out and drawn. */
export async function openDemo(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: new RegExp(name) }).click();
  await expect(page.getByRole('slider', { name: 'Opening' })).toBeVisible();
}

/** How many cards are on the shelf that is open. */
export async function countCards(page: Page): Promise<number> {
  await expect(page.locator('.cards .card').first()).toBeVisible();
  return page.locator('.cards .card').count();
}

/** Begins a card of a kind from the shelf. */
export async function startKind(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${title}`) }).click();
}

/** Types a size and leaves the field. */
export async function setSize(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: true });
  await field.fill(value);
  await field.press('Tab');
}

/** One step up in a size, seen and taken back. */
export async function tryStep(page: Page, label: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: true });
  await expect(field).toBeVisible();
  await expect(page.getByText(/must change before you cut/)).toHaveCount(0);
  const before = await field.inputValue();
  await field.press('ArrowUp');
  await expect(field).not.toHaveValue(before);
  await page.getByRole('button', { name: /Undo: / }).click();
  await expect(field).toHaveValue(before);
}

/** What a button of the files gives. */
export async function savedBy(page: Page, button: string): Promise<Buffer> {
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: button }).click()]);
  return readFileSync((await file.path())!);
}

export { expect };
