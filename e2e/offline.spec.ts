import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { application } from '../server/dist/application.js';
import { expect, setSize, test } from './page.js';

const port = 4198;
const BUILT = '../web/dist/browser';

test.use({ baseURL: `http://127.0.0.1:${port}`, serviceWorkers: 'allow' });

let server: Server | undefined;
const serve = (folder: string): Promise<void> =>
  new Promise((ready) => (server = application(folder).listen(port, '127.0.0.1', () => ready())));
const stop = (): Promise<void> =>
  new Promise((done) => {
    if (!server) return done();
    server.closeAllConnections();
    server.close(() => done());
    server = undefined;
  });

test.afterEach(stop);

test('with the server gone everything works; a new version is offered, and what was not saved survives it', async ({ page }) => {
  await serve(BUILT);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Your cards' })).toBeVisible();
  const { assetGroups } = JSON.parse(readFileSync(join(BUILT, 'ngsw.json'), 'utf8')) as { assetGroups: { urls: string[] }[] };
  const kept = (): Promise<number> =>
    page.evaluate(async () => {
      const names = (await caches.keys()).filter((name) => name.includes(':all:cache'));
      const entries = await Promise.all(names.map(async (name) => (await (await caches.open(name)).keys()).length));
      return Math.max(0, ...entries);
    });
  await expect.poll(kept, { timeout: 60_000 }).toBe(assetGroups[0]!.urls.length);

  await stop();
  await page.reload();
  await expect(page.locator('.cards .card').first()).toBeVisible();
  await page.getByRole('link', { name: 'Movements' }).click();
  await expect(page.getByRole('heading', { name: /Movements/ }).first()).toBeVisible();
  await page.getByRole('link', { name: 'Workshop' }).click();
  await expect(page.getByRole('heading', { name: 'My workshop' })).toBeVisible();
  await page.getByRole('link', { name: 'Shelf' }).click();
  await page.getByRole('link', { name: /Thank-you easel/ }).click();
  await expect(page.getByText(/Ready to make/).first()).toBeVisible();
  await expect(page.locator('dip-standing-view canvas')).toBeVisible();
  await setSize(page, 'Depth', '152 mm');
  await expect(page.getByText(/Ready to make/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Print and files' }).click();
  const [sheet] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /One page with everything$/ }).click(),
  ]);
  const written = readFileSync((await sheet.path())!);
  expect(written.subarray(0, 5).toString()).toBe('%PDF-');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Make it' }).click();
  await expect(page.getByText(/Step 1 of/)).toBeVisible();
  await page.goBack();

  const newer = mkdtempSync(join(tmpdir(), 'diptychon-newer-'));
  cpSync(BUILT, newer, { recursive: true });
  const manifest = join(newer, 'ngsw.json');
  writeFileSync(manifest, JSON.stringify({ ...(JSON.parse(readFileSync(manifest, 'utf8')) as object), timestamp: 1 }));
  rmSync(`${manifest}.br`);
  await serve(newer);
  await page.reload();
  await expect(page.getByText('A new version of Diptychon is here.')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('textbox', { name: 'Name of the card' }).fill('Typed and not left');
  await page.getByRole('button', { name: 'Take it now' }).click();
  await expect(page.getByText('A new version of Diptychon is here.')).toBeHidden();
  await expect(page.getByRole('textbox', { name: 'Name of the card' })).toHaveValue('Typed and not left');
});
