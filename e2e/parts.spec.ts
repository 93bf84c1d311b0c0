import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import { expect, expectAccessible, setSize, startKind, test } from './page';

/** A shelf with nothing on it. */
async function emptyShelf(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Keep these' }).click();
  await expect(page.locator('.cards .card').first()).toBeVisible();
  await page.evaluate(
    () =>
      new Promise<void>((done) => {
        const opening = indexedDB.open('diptychon');
        opening.onsuccess = () => {
          const clearing = opening.result.transaction('cards', 'readwrite');
          clearing.objectStore('cards').clear();
          clearing.oncomplete = () => (opening.result.close(), done());
        };
      }),
  );
  await page.reload();
  await expect(page.locator('.cards .card')).toHaveCount(0);
}

const parts = (page: Page): Locator => page.locator('dip-parts-tree .part .name');
const part = (page: Page, name: string): Locator =>
  parts(page).filter({ has: page.locator('.title', { hasText: new RegExp(`^${name}$`) }) });

/** Opens the list of what can be done with a part. */
async function choosePart(page: Page, name: string): Promise<void> {
  if ((await part(page, name).getAttribute('aria-expanded')) === 'false') await part(page, name).click();
}

const ready = (page: Page): Locator => page.getByText(/Ready to make/).first();

test('a step that carries a V-fold is built from an empty shelf, moved, turned, taken away, undone and kept', async ({ page }) => {
  await emptyShelf(page);
  await startKind(page, 'Folded card');
  await page.getByRole('button', { name: 'Take it to the bench' }).click();
  await expect(ready(page)).toBeVisible();
  await expect(parts(page)).toHaveCount(1);

  await page.getByRole('button', { name: 'Add a movement' }).click();
  await expect(page.getByRole('heading', { name: 'Add a movement' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^main fold/ }).hover();
  await expect(page.locator('dip-flat-view path.lit')).toHaveCount(2);
  await page.getByRole('button', { name: /^Step/ }).click();
  await expect(page.getByRole('button', { name: 'Add a movement' })).toBeFocused();
  await expect(part(page, 'Step')).toContainText('on the main fold');
  await expect(ready(page)).toBeVisible();

  await page.getByRole('button', { name: 'Add a movement' }).click();
  await page.getByRole('button', { name: /^front edge/ }).click();
  await page.getByRole('button', { name: /^V-fold figure/ }).click();
  await expect(part(page, 'V-fold figure')).toContainText('on the front edge of the step');
  await expect(ready(page)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'V-fold figure' })).toBeVisible();
  await expectAccessible(page);

  // Another host for the figure, by the list of its folds.
  await choosePart(page, 'V-fold figure');
  await page.locator('#place-figure').locator('..').click();
  await page.getByRole('option', { name: 'back fold of the step of step' }).click();
  await expect(part(page, 'V-fold figure')).toContainText('on the back fold of the step');
  await choosePart(page, 'V-fold figure');
  await page.getByRole('button', { name: 'Turn round' }).click();
  await expect(page.getByRole('button', { name: 'Undo: Turn V-fold figure round' })).toBeVisible();

  // What carries another says so, and one undo brings both back.
  await choosePart(page, 'Step');
  await page.getByRole('button', { name: 'Take away, with V-fold figure' }).click();
  await expect(parts(page)).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo: Take away Step, with V-fold figure' }).click();
  await expect(parts(page)).toHaveCount(3);

  const undo = page.getByRole('button', { name: /Undo/ });
  for (let steps = 0; steps < 4; steps++) await undo.click();
  await expect(undo).toBeDisabled();
  await expect(parts(page)).toHaveCount(1);
  for (let steps = 0; steps < 4; steps++) await page.getByRole('button', { name: /^Redo: / }).click();
  await expect(parts(page)).toHaveCount(3);
  await expect(page.getByText('Saved', { exact: false }).first()).toBeVisible();
  await page.reload();
  await expect(parts(page)).toHaveCount(3);
  await expect(ready(page)).toBeVisible();
});

/** Goes on by Tab until what has the focus answers to a name. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let presses = 0; presses < 160; presses++) {
    const says = await page.evaluate(() => {
      const at = document.activeElement as HTMLElement | null;
      return at?.getAttribute('aria-label') ?? (at?.innerText || at?.id || '');
    });
    if (name.test(says.trim())) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`nothing called ${String(name)} takes the focus`);
}

/** Opens “Add a movement”, and waits for its places: on a busy machine a key may come before the list does. */
async function addByKeyboard(page: Page): Promise<void> {
  await expect(async () => {
    await tabTo(page, /^Add a movement/);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('list', { name: 'Folds' })).toBeVisible({ timeout: 5000 });
  }).toPass({ timeout: 40_000 });
}

test('the same is built by the keyboard alone', async ({ page }) => {
  await emptyShelf(page);
  await tabTo(page, /^Folded card/);
  await page.keyboard.press('Enter');
  await tabTo(page, /^Take it to the bench/);
  await page.keyboard.press('Enter');
  await expect(ready(page)).toBeVisible();

  await addByKeyboard(page);
  await tabTo(page, /^main fold/);
  await page.keyboard.press('Space');
  await tabTo(page, /^Step/);
  await page.keyboard.press('Enter');
  await expect(part(page, 'Step')).toBeVisible();
  await expect(ready(page)).toBeVisible();

  await addByKeyboard(page);
  await tabTo(page, /^front edge/);
  await page.keyboard.press('Space');
  await tabTo(page, /^V-fold figure/);
  await page.keyboard.press('Enter');
  await expect(part(page, 'V-fold figure')).toContainText('on the front edge');

  await tabTo(page, /^V-fold figure/);
  await page.keyboard.press('Enter');
  await tabTo(page, /^Stands on/);
  await page.keyboard.press('Space');
  await page.keyboard.press('Home');
  await page.keyboard.press('Enter');
  await expect(part(page, 'V-fold figure')).toContainText('on the main fold');

  for (let steps = 0; steps < 3; steps++) await page.keyboard.press('Control+z');
  await expect(parts(page)).toHaveCount(1);
  await page.reload();
  await expect(parts(page)).toHaveCount(1);
});

test('own stock and own board go with a card into another browser and back', async ({ page, browser, baseURL }) => {
  // Two browsers draw at once: on a busy machine that takes its time.
  test.slow();
  await page.goto('/workshop');
  await expect(page.getByRole('heading', { name: 'My workshop' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Stocks/ }).click();
  await page.getByRole('button', { name: 'A new stock' }).click();
  await expect(page.getByRole('heading', { name: 'My stock' })).toBeVisible();
  await setSize(page, 'Name', 'Felted card');
  await setSize(page, 'Thickness of one sheet', 'thick');
  await expect(page.getByText(/“thick” is not a length/)).toBeVisible();
  await setSize(page, 'Thickness of one sheet', '0.45 mm');
  await page.getByRole('button', { name: 'Scoring boards' }).click();
  await page.getByRole('button', { name: 'A new board' }).click();
  await expect(page.getByRole('heading', { name: 'My board' })).toBeVisible();
  await setSize(page, 'Name', 'Pear-wood plank');
  await setSize(page, 'From groove to groove', '4 mm');
  await expectAccessible(page);
  await expect(page.getByRole('button', { name: /Undo: / })).toBeVisible();

  await page.goto('/');
  await page.getByRole('link', { name: /Thank-you easel/ }).click();
  await expect(ready(page)).toBeVisible();
  await page.locator('#stock-base').locator('..').click();
  await page.getByRole('option', { name: /^Felted card/ }).click();
  await expect(page.getByRole('option')).toHaveCount(0);
  // The list may close again when the verdict comes in just then: it is opened until it stays.
  await expect(async () => {
    await page.locator('#board').locator('..').click();
    await page.getByRole('option', { name: 'Pear-wood plank' }).click({ timeout: 5000 });
  }).toPass({ timeout: 40_000 });
  // The base is 150 mm deep with its front score at 75: off the grooves of a board with 4 mm between them.
  await expect(page.getByText(/(beyond|short of) the groove|between the grooves/).first()).toBeVisible();

  const save = async (from: Page): Promise<string> => {
    await from.getByRole('button', { name: 'Print and files' }).click();
    const [file] = await Promise.all([from.waitForEvent('download'), from.getByRole('button', { name: /Card file$/ }).click()]);
    return (await file.path())!;
  };
  const sent = await save(page);
  const elsewhere = await (await browser.newContext({ baseURL: baseURL!, viewport: { width: 1280, height: 800 } })).newPage();
  await elsewhere.goto('/');
  await elsewhere.getByLabel('Card file').setInputFiles(sent);
  await expect(elsewhere.getByRole('list', { name: 'Not as in my workshop' })).toContainText('Felted card');
  await expect(elsewhere.getByRole('list', { name: 'Not as in my workshop' })).toContainText('Pear-wood plank');
  const returned = await save(elsewhere);
  const [there, back] = [sent, returned].map((file) => JSON.parse(readFileSync(file, 'utf8')));
  expect(there.stocks.base).toBe('my-stock');
  expect(back).toEqual({ ...there, id: back.id });
  await page.goto('/');
  await page.getByLabel('Card file').setInputFiles(returned);
  await expect(page.getByRole('slider', { name: 'Opening' })).toBeVisible();
  await expect(page.getByRole('list', { name: 'Not as in my workshop' })).toHaveCount(0);
  await elsewhere.context().close();
});
