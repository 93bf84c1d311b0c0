import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { expect, expectAccessible, openDemo, test } from './page';

// Long ways through every list, on two busy cores.
test.describe.configure({ timeout: 300_000 });

test('a card is dressed in one action, one layer is changed by keyboard, and all of it goes into the making and the files', async ({
  page,
}) => {
  await openDemo(page, 'Doors to the autumn walk');
  const wears = page.locator('dip-dressing-panel');
  await wears.getByText('What it wears').click();
  await wears.getByRole('button', { name: 'Take all layers off' }).click();
  await wears.getByRole('button', { name: 'Dress the whole card' }).click();
  // Both faces of two doors, two slopes, and the strip.
  await expect(wears.getByText('7 layers')).toBeVisible();
  await expect(page.locator('dip-flat-view path.worn')).toHaveCount(7);
  await expectAccessible(page);

  await wears.getByRole('button', { name: /^L6 Right door$/ }).focus();
  await expect(page.locator('dip-flat-view path.lit')).toHaveCount(1);
  await page.keyboard.press('Enter');
  await expect(wears.locator('.pair').first()).toHaveText(/layer.*47.*× 144/);
  await expect(wears.locator('.pair').nth(1)).toHaveText(/panel.*50.*× 150/);
  // A pattern is no place for the message: it is told, and a plain paper for that layer mends it.
  // A list that is open while an answer comes may close: it is opened once more.
  const paper = (name: string): Promise<void> =>
    expect(async () => {
      const option = page.getByRole('option', { name });
      if (!(await option.isVisible())) await wears.getByRole('combobox', { name: 'Paper of L6' }).click({ timeout: 5_000 });
      await option.click({ timeout: 5_000 });
    }).toPass();
  await paper('as all layers');
  await expect(page.getByText(/wears patterned paper: cut layer L6/)).toBeVisible();
  await paper('Text paper, 100 g');
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

test('what is wrong with magnets and a greeting is told while they are set, and the envelope is folded for it', async ({ page }) => {
  await openDemo(page, 'The foray map');
  const wears = page.locator('dip-dressing-panel');
  await wears.getByText('What it wears').click();

  // A disc too near the edge is told at once, and forgotten with one step back.
  await wears.getByRole('button', { name: /^M1 Magnets 1$/ }).click();
  await expect(wears.getByText(/The other: back leaf\./)).toBeVisible();
  await expect(wears.getByText(/can kill/)).toBeVisible();
  await wears.getByRole('textbox', { name: 'Middle from the left' }).fill('5 mm');
  await page.keyboard.press('Tab');
  // Told of both discs: the other lies as near to the edge of the other leaf.
  await expect(page.getByText(/A disc of M1 lies only 1 mm from an edge or a fold/)).toHaveCount(2);
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Undo: Magnets 1/ }).click();
  await expect(page.getByText(/A disc of M1 lies only/)).toHaveCount(0);

  // The pocket says what it takes; its greeting grows too large, and the capitals that fit are named.
  await wears.getByRole('button', { name: /^T1 / }).click();
  await expect(wears.getByText(/Takes a tag .* wide that goes in/)).toBeVisible();
  await wears.getByRole('textbox', { name: 'Greeting' }).fill('Our finds of the day');
  await wears.getByRole('textbox', { name: 'Capitals, height' }).fill('12 mm');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/The greeting of T1 .* too near its edge or past it: capitals .* high keep inside/)).toBeVisible();
  await expectAccessible(page);

  // Its own envelope lies among the flat pieces.
  await wears.getByRole('button', { name: 'Fold an envelope for it' }).click();
  await page
    .getByRole('radio', { name: 'Envelope', exact: true })
    .or(page.getByRole('button', { name: 'Envelope', exact: true }))
    .click();
  await expect(page.getByRole('group', { name: 'Envelope lying flat, inside up' })).toBeVisible();
  await page.reload();
  await expect(wears.getByText(/1 topper, 1 closure, an envelope/)).toBeVisible();
});

test('a sheet of where the toppers go, a picture and a film of the card are kept as files', async ({ page }) => {
  await openDemo(page, 'Logs at the doors');
  await page.getByRole('button', { name: 'Print and files' }).click();
  const kept = async (name: string): Promise<Buffer> => {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name }).click();
    return readFileSync(await (await download).path());
  };
  expect((await kept('Where the toppers go')).subarray(0, 5).toString()).toBe('%PDF-');
  const picture = await kept('Picture (PNG)');
  // A picture of some size, with more in it than its ground.
  expect(picture.subarray(1, 4).toString()).toBe('PNG');
  expect(picture.readUInt32BE(16)).toBeGreaterThan(200);
  expect(picture.length).toBeGreaterThan(4000);
  const film = await kept('Film of it opening (WebM)');
  // EBML, and several pictures in it.
  expect(film.readUInt32BE(0)).toBe(0x1a45dfa3);
  expect(film.length).toBeGreaterThan(20_000);
  await expectAccessible(page);
});

test('a topper follows the hand over its panel on the standing card, and is cut thrice and glued together', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  const canvas = page.locator('canvas.paper-scene');
  const stage = (await canvas.boundingBox())!;
  const cursor = (): Promise<string> => canvas.evaluate((drawn: HTMLElement) => drawn.style.cursor);
  const undo = page.getByRole('button', { name: /^Undo/ });
  // The hand feels its way down the middle of the card to what can be taken hold of.
  const x = stage.x + stage.width / 2 + 14;
  let y = stage.y + 40;
  await expect(async () => {
    y = y + 8 < stage.y + stage.height ? y + 8 : stage.y + 40;
    await page.mouse.move(x, y);
    expect(await cursor()).toBe('grab');
  }).toPass({ intervals: [60] });
  await page.mouse.move(x, y + 6);
  await page.mouse.down();
  await page.mouse.move(x + 24, y - 6, { steps: 8 });
  await expect(page.locator('dip-standing-view .pose')).toHaveText(/^T\d: .* across/);
  await page.mouse.up();
  await expect(page.locator('dip-standing-view .pose')).toHaveText(/^Open/);
  await expect(undo).toHaveText(/Place of T\d/);
  // All of a drag is one step, and the hand beside every topper turns the view and moves none.
  await undo.click();
  await expect(undo).not.toHaveText(/Place of T\d/);
  await page.mouse.move(stage.x + 30, stage.y + stage.height - 30);
  expect(await cursor()).toBe('');
  await page.mouse.down();
  await page.mouse.move(stage.x + 60, stage.y + stage.height - 40, { steps: 4 });
  await page.mouse.up();
  await expect(undo).not.toHaveText(/Place of T\d/);

  const wears = page.locator('dip-dressing-panel');
  await wears.getByText('What it wears').click();
  await wears.getByRole('button', { name: /^T1 / }).click();
  await wears.getByRole('combobox', { name: 'Cut it' }).click();
  await page.getByRole('option', { name: '3 times, glued together' }).click();
  await expect(undo).toHaveText(/Topper/);
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Make it' }).click();
  await expect(page.getByText(/cut 3 times/)).toBeVisible();
});

/** A red disc of 200 dots on clear ground, in a picture of 300 × 240. */
const picture = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const canvas = document.createElement('canvas');
    Object.assign(canvas, { width: 300, height: 240 });
    const pen = canvas.getContext('2d')!;
    pen.fillStyle = '#c8452f';
    pen.beginPath();
    pen.arc(140, 120, 100, 0, 7);
    pen.fill();
    return canvas.toDataURL('image/png').split(',')[1]!;
  });

test('a picture is printed on a topper at its true size, cut round what it shows, put on film with a twin, and kept', async ({ page }) => {
  await openDemo(page, 'Doors to the autumn walk');
  const wears = page.locator('dip-dressing-panel');
  await wears.getByText('What it wears').click();
  await wears.getByRole('button', { name: 'Add a topper' }).click();
  const bring = async (name: string, buffer: Buffer): Promise<void> =>
    wears.getByLabel(/^Picture for/).setInputFiles({ name, mimeType: 'image/png', buffer });

  await bring('note.png', Buffer.from('no picture at all'));
  await expect(wears.getByText('note.png is no picture that can be taken; allowed are PNG and JPEG.')).toBeVisible();
  await bring('broken.png', Buffer.from('iVBORw0KGgoAAAANSUhEUg==', 'base64'));
  await expect(wears.getByText('broken.png cannot be read: its file is broken.')).toBeVisible();
  await bring('disc.png', Buffer.from(await picture(page), 'base64'));
  // 200 dots of 300 to the inch are 16.93 mm; a picture of a screen says no more.
  const height = wears.getByRole('textbox', { name: 'Height', exact: true });
  await expect(height).toHaveValue('16.9 mm');
  await expect(page.locator('dip-flat-view image')).toHaveCount(1);
  await wears.getByRole('textbox', { name: 'Cut outside it by' }).fill('2 mm');
  await page.keyboard.press('Tab');
  // Round it all: 16.9 and 2 mm on either side.
  await expect(wears.locator('.size').last()).toHaveText(/2[01]\.?\d*.*×.*20\.9/);
  await wears.getByRole('combobox', { name: 'Cut along' }).click();
  await page.getByRole('option', { name: 'the edge of the picture' }).click();
  // The picture stays as large as it is: 240 dots high.
  await expect(height).toHaveValue('20.3 mm');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(height).toHaveValue('16.9 mm');

  // Each label belongs to one field.
  const ids = await wears.locator('[id]').evaluateAll((all) => all.map(({ id }) => id));
  expect(ids.filter((id, i) => ids.indexOf(id) !== i)).toEqual([]);
  await wears.getByRole('combobox', { name: 'Mounted' }).click();
  await page.getByRole('option', { name: 'on film' }).click();
  await expect(wears.getByRole('textbox', { name: 'Film, width' })).toHaveValue('10 mm');
  await wears.getByRole('combobox', { name: 'Its back' }).click();
  await page.getByRole('option', { name: 'covered by a twin' }).click();
  await expect(page.getByText(/gets no twin: nothing of its back is free/)).toBeVisible();
  await wears.getByRole('combobox', { name: 'Papers behind it' }).click();
  await page.getByRole('option', { name: 'two', exact: true }).click();
  await expect(wears.getByRole('textbox', { name: 'The next shows, all round' })).toHaveValue('3 mm');
  await expectAccessible(page);

  await page.reload();
  await expect(page.locator('dip-flat-view image')).toHaveCount(1);
  await page.getByRole('button', { name: 'Print and files' }).click();
  const files = page.getByRole('dialog');
  const [download] = await Promise.all([page.waitForEvent('download'), files.getByRole('button', { name: /emplates/ }).click()]);
  expect(readFileSync((await download.path())!).includes('/Subtype /Image')).toBe(true);
});

test('a layer in two papers with a strip over their line goes by keyboard into the making, and a topper may be the stop', async ({
  page,
}) => {
  await openDemo(page, 'Thank-you easel for the foray guide');
  const wears = page.locator('dip-dressing-panel');
  await wears.getByText('What it wears').click();
  await wears.getByRole('button', { name: /^L\d Display$/ }).focus();
  await page.keyboard.press('Enter');
  const choose = async (list: string | RegExp, option: string | RegExp): Promise<void> => {
    await expect(async () => {
      const offered = page.getByRole('option', { name: option });
      if (!(await offered.first().isVisible())) await page.getByRole('combobox', { name: list }).first().click({ timeout: 5_000 });
      await offered.first().click({ timeout: 5_000 });
    }).toPass();
  };
  await choose('How it is cut, Display', 'two papers, one above the other');
  await wears.getByRole('textbox', { name: 'Line from the lower edge' }).fill('40 mm');
  await page.keyboard.press('Tab');
  await choose('Over the line', /strip of text paper/);
  await wears.getByRole('textbox', { name: 'Width of the strip' }).fill('8 mm');
  await page.keyboard.press('Tab');
  await expectAccessible(page);

  // A plain bar in front of the foot instead of the strip: too low, then cut as often as is said.
  await choose(/^Stop/, 'a topper');
  await expect(page.getByText(/No topper lies in front of the foot/)).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Stop height' })).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('textbox', { name: 'Stop height' })).toBeVisible();

  await page
    .getByRole('link', { name: 'Make it' })
    .or(page.getByRole('button', { name: 'Make it' }))
    .click();
  await page
    .getByRole('button', { name: /Glue the layers on: Display/ })
    .first()
    .click();
  await expect(page.getByText(/Draw a line 40 mm on the display, from its lower edge: L\d and L\d meet there, edge to edge/)).toHaveCount(
    1,
  );
});
