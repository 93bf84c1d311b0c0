import { readFileSync } from 'node:fs';
import { expect, expectAccessible, openDemo, setSize, test } from './page';

/** How a browser may come without storage, as a script of the page. */
const WAYS: Record<string, string> = {
  'is missing': `Object.defineProperty(window, 'indexedDB', { value: undefined })`,
  'throws when it is opened': `IDBFactory.prototype.open = () => { throw new DOMException('denied', 'SecurityError'); }`,
  'never answers': `IDBFactory.prototype.open = () => Object.create(IDBOpenDBRequest.prototype, { addEventListener: { value: () => {} }, removeEventListener: { value: () => {} } })`,
  'is of a newer version': `{ const open = IDBFactory.prototype.open; IDBFactory.prototype.open = function (name) {
    return name === 'diptychon' ? open.call(this, name, 1.5e9 - 1) && open.call(this, name, 1) : open.call(this, name); }; }`,
};

for (const [way, script] of Object.entries(WAYS)) {
  test(`a browser whose storage ${way}: the program works in memory, says so, and saves to a file`, async ({ page }) => {
    await page.addInitScript(script);
    await openDemo(page, 'Thank-you easel');
    const banner = page.getByText('lasts only until this page is closed: save it to a file');
    await expect(banner).toBeVisible();
    await setSize(page, 'Depth', '152 mm');
    await expect(page.getByText('In this page only')).toBeVisible();
    await expect(page.getByText(/Ready to make/).first()).toBeVisible();
    if (way === 'is missing') await expectAccessible(page);
    await page.getByRole('link', { name: 'Back to the shelf' }).click();
    await expect(banner).toBeVisible();
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save all to a file' }).click()]);
    expect(readFileSync((await file.path())!, 'utf8')).toContain('"depth":152');
  });
}
