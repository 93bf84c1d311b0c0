import { unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { DOMParser } from '@xmldom/xmldom';
import { countCards, expect, expectAccessible, openDemo, setSize, startKind, test } from './page';

test('the demo cards are on the shelf and open on the bench', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Chanterelle birthday card/ })).toBeVisible();
  await expectAccessible(page);
  await openDemo(page, 'Thank-you easel');
  await expect(page.getByText('Ready to make: every check passes.').first()).toBeVisible();
  await expect(page.locator('dip-standing-view canvas')).toBeVisible();
  // Each column scrolls by itself: what is only read aloud makes the page no longer than its window.
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBe(800);
  await expectAccessible(page);
});

test('sizes are typed the way makers write them, and reasons follow', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await setSize(page, 'Depth', '5 1/2');
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('139.7 mm');
  await setSize(page, 'Depth', '14 cm');
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('140 mm');
  await setSize(page, 'Lean from the table', '60');
  await expect(page.getByRole('textbox', { name: 'Stop from the fold' })).toHaveValue('70 mm');
  await expect(page.locator('.measure', { hasText: 'Front score at' })).toContainText('70');
  await expect(page.locator('.measure', { hasText: 'Front score at' })).toContainText('half the depth');
});

test('units switch without changing the card', async ({ page }) => {
  await openDemo(page, 'Chanterelle');
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('5 in');
  await page.locator('p-select').filter({ hasText: 'Inches, sixteenths' }).click();
  await page.getByRole('option', { name: 'Centimetres', exact: true }).click();
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('12.7 cm');
});

test('nonsense and impossible sizes are refused in a sentence and change nothing', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await setSize(page, 'Stop from the fold', '160');
  await expect(page.getByText(/Stop from the fold: 160 mm does not work; allowed is/)).toBeVisible();
  await setSize(page, 'Depth', 'about so');
  await expect(page.getByText(/Depth: “about so” is not a length.*Allowed is 40 mm to 320 mm/)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('150 mm');
});

test('a display too tall is told by how much and on which side; undo takes it back', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await setSize(page, 'Display height', '172');
  const verdict = page.getByRole('listitem').filter({ hasText: 'display sticks out 22 mm past the fold' });
  await expect(verdict).toBeVisible();
  await verdict.getByRole('button', { name: /Show where/ }).click();
  await expect(page.getByRole('slider', { name: 'Opening' })).toHaveValue('0');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Ready to make: every check passes.').first()).toBeVisible();
});

test('a lopsided figure binds near twelve degrees, marked on the opening', async ({ page }) => {
  await openDemo(page, 'Chanterelle');
  await setSize(page, 'Other glue line from the fold', '50');
  await setSize(page, 'Crest from the other glue line', '70');
  await expect(page.getByText(/binds on closing at an opening of 11\.\d°/).first()).toBeVisible();
  await page.getByRole('button', { name: /^Go to: 11\.\d°/ }).click();
  await expect(page.getByRole('slider', { name: 'Opening' })).toHaveAttribute('aria-valuetext', 'open 12°');
});

test('a wing angle too small is refused with the opening at which it pulls taut', async ({ page }) => {
  await openDemo(page, 'Chanterelle');
  await setSize(page, 'Crest from the glue line', '30');
  await expect(page.getByText(/pull taut at 90°/)).toBeVisible();
});

test('a thick stack inside gapes until the offered spine is applied', async ({ page }) => {
  await openDemo(page, 'Chanterelle');
  await setSize(page, 'Layers inside, thickness', '3 mm');
  await expect(page.getByText(/The free edge gapes about/).first()).toBeVisible();
  await page.getByRole('button', { name: /^Give the main fold a spine/ }).click();
  await expect(page.getByText(/The free edge gapes about/)).toHaveCount(0);
  await expect(page.locator('.measure', { hasText: 'Spine' })).toContainText(/0\.13\d in/);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^Give the main fold a spine/ })).toBeVisible();
});

test('the card opens and closes with the keyboard', async ({ page }) => {
  await openDemo(page, 'Chanterelle');
  const opening = page.getByRole('slider', { name: 'Opening' });
  await opening.focus();
  await opening.press('Home');
  await expect(opening).toHaveAttribute('aria-valuetext', 'open 0°');
  await expect(page.locator('dip-standing-view .pose')).toContainText('crest from the fold 105°');
  await opening.press('End');
  await expect(page.locator('dip-standing-view .pose')).toContainText('crest from the fold 45°');
});

test('a score dragged on the flat piece changes the size behind it', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  const score = page.getByRole('slider', { name: /front score/ });
  await score.focus();
  await score.press('ArrowRight');
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('151 mm');
  const box = (await score.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  // Out and back: the line stays under the pointer all the way, and what it changes is said.
  const follows = async (dx: number): Promise<void> => {
    await page.mouse.move(box.x + box.width / 2 + dx, box.y + box.height / 2, { steps: 5 });
    await expect
      .poll(async () => {
        const now = (await page.locator('.score .handle[aria-label*="front score"]').boundingBox())!;
        return Math.abs(now.x + now.width / 2 - (box.x + box.width / 2 + dx));
      })
      .toBeLessThan(2);
  };
  await follows(30);
  await expect(page.getByText(/^Depth \d+ mm$/)).toBeVisible();
  await follows(-20);
  await follows(12);
  await page.mouse.up();
  await expect(page.getByLabel('Depth', { exact: true })).not.toHaveValue('151 mm');
  await page.getByRole('button', { name: 'Undo: Depth' }).click();
  await expect(page.getByLabel('Depth', { exact: true })).toHaveValue('151 mm');
});

test('a size dragged 300 times leaves no queue, and no thread or drawing context behind', async ({ page }) => {
  await page.addInitScript(() => {
    const counted = window as unknown as { asked: number; contexts: number };
    [counted.asked, counted.contexts] = [0, 0];
    const { postMessage } = Worker.prototype;
    Worker.prototype.postMessage = function (...given: unknown[]) {
      counted.asked++;
      return (postMessage as (...all: unknown[]) => void).apply(this, given);
    };
    const { getContext } = HTMLCanvasElement.prototype;
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, ...given: unknown[]) {
      if (String(given[0]).startsWith('webgl')) counted.contexts++;
      return (getContext as (...all: unknown[]) => unknown).apply(this, given);
    } as typeof getContext;
  });
  const counts = (): Promise<{ asked: number; contexts: number }> =>
    page.evaluate(() => {
      const { asked, contexts } = window as unknown as { asked: number; contexts: number };
      return { asked, contexts };
    });
  await openDemo(page, 'Thank-you easel');
  await expect(page.getByText('Ready to make: every check passes.').first()).toBeVisible();
  const handle = page.getByRole('slider', { name: /main fold/ }).first();
  const box = (await handle.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  // The threads are all made by the first few changes.
  for (let i = 0; i < 20; i++) await page.mouse.move(x + (i % 2) * 6, y);
  const before = { ...(await counts()), threads: page.workers().length };
  // As fast as a hand's moves come in, whether or not a frame was drawn between them.
  await handle.evaluate(
    async (line, from) => {
      for (let i = 0; i < 300; i++) {
        const clientX = from.x + 20 * Math.sin(i / 12);
        line.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, clientX, clientY: from.y }));
        await new Promise((next) => setTimeout(next, 8));
      }
    },
    { x, y },
  );
  await page.mouse.move(x + 10, y);
  const dragged = await counts();
  await page.mouse.up();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  const depth = Number.parseFloat(await page.getByLabel('Depth', { exact: true }).inputValue());
  await expect(page.locator('.measure', { hasText: 'Front score at' })).toContainText(`${depth / 2} mm`);
  await page.waitForTimeout(600);
  const after = await counts();
  // What was still to be asked for when the hand let go: the last card and what is shown beside it, not 300 of them.
  expect(after.asked - dragged.asked).toBeLessThan(12);
  await page.waitForTimeout(400);
  expect((await counts()).asked).toBe(after.asked);
  // There may be one more by now: what is under the hand does not wait for what is not.
  expect(page.workers().length).toBeLessThanOrEqual(before.threads + 1);
  expect(after.contexts).toBe(before.contexts);
});

test('the SVG is true to size with its groups, and a card file comes back', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await page.getByRole('button', { name: 'Print and files' }).click();
  const [svgFile] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /SVG$/ }).click()]);
  expect(svgFile.suggestedFilename()).toBe('thank-you-easel-for-the-foray-guide.svg.zip');
  // One drawing for the card, one for the foam of its stop.
  const drawings = Object.values(unzipSync(readFileSync((await svgFile.path())!))).map((bytes) => new TextDecoder().decode(bytes));
  expect(drawings.map((text) => text.includes('id="stop"'))).toEqual(expect.arrayContaining([true, false]));
  const svg = new DOMParser().parseFromString(
    drawings.find((text) => text.includes('id="base"'))!,
    'image/svg+xml',
  );
  const ids = [...svg.getElementsByTagName('g')].map((group) => group.getAttribute('id'));
  expect(ids).toEqual(expect.arrayContaining(['base', 'base-cut', 'base-score-valley', 'base-draw']));
  const main = [...svg.getElementsByTagName('path')].filter((path) => path.getAttribute('data-id')?.startsWith('main-fold'));
  const xs = main.map((path) => Number(/M ([\d.]+)/.exec(path.getAttribute('d')!)![1]));
  expect(xs[1]! - xs[0]!).toBeCloseTo(2, 2);

  const [cardFile] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /Card file$/ }).click()]);
  await page.goto('/');
  await page.getByLabel('Card file').setInputFiles((await cardFile.path())!);
  await expect(page.getByLabel('Name of the card')).toHaveValue('Thank-you easel for the foray guide');
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Thank-you easel/ })).toHaveCount(2);
});

test('a broken file is refused with the field, and the shelf stays as it was', async ({ page }) => {
  await page.goto('/');
  const before = await countCards(page);
  await page
    .getByLabel('Card file')
    .setInputFiles({ name: 'odd.json', mimeType: 'application/json', buffer: Buffer.from('{"format":"diptychon-card","version":7}') });
  await expect(page.getByText(/odd\.json was not opened\. version 7 was made by a newer Diptychon/)).toBeVisible();
  await expect(page.locator('.cards .card')).toHaveCount(before);
});

test('a file with a word where a length belongs opens with the sentence and its fields, and can be put right', async ({ page }) => {
  await page.goto('/');
  const card = {
    format: 'diptychon-card',
    version: 2,
    id: 'odd-depth',
    name: 'Odd depth',
    foldEdge: 'side',
    notation: 'mm',
    board: 'rule',
    stocks: { base: 'card-250', mechanism: 'light-card-160', display: 'card-250' },
    base: { mechanism: 'folded-card', sizes: { depth: 'wide', length: 148 } },
    movements: [],
  };
  const buffer = Buffer.from(JSON.stringify(card));
  await page.getByLabel('Card file').setInputFiles({ name: 'odd.json', mimeType: 'application/json', buffer });
  await expect(page.getByText('Depth: “wide” is not a number.').first()).toBeVisible();
  await setSize(page, 'Depth', '105');
  await expect(page.getByText(/Ready to make/).first()).toBeVisible();
});

test('a new card survives a reload at any moment', async ({ page }) => {
  await page.goto('/');
  await startKind(page, 'V-fold figure');
  await page.getByRole('button', { name: 'Take it to the bench' }).click();
  await page.getByLabel('Name of the card').fill('Snail on a fern');
  await page.getByLabel('Name of the card').press('Tab');
  await setSize(page, 'Crest', '52');
  await page.reload();
  await expect(page.getByLabel('Name of the card')).toHaveValue('Snail on a fern');
  await expect(page.getByRole('textbox', { name: 'Crest', exact: true })).toHaveValue('52 mm');
});

test('the dark theme and a tablet are as readable', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.setViewportSize({ width: 1024, height: 768 });
  await openDemo(page, 'Chanterelle');
  await expectAccessible(page);
  await expect(page.getByText('Ready to make').first()).toBeVisible();
});

test('a card that is not there says so', async ({ page }) => {
  await page.goto('/card/no-such-card');
  await expect(page.getByRole('heading', { name: 'There is no such card on this shelf' })).toBeVisible();
  await expectAccessible(page);
});

test('a card is made to fit an envelope that was told by its inside, in one step', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await page.getByRole('combobox', { name: 'Envelope' }).click();
  await page.getByRole('option', { name: 'another, by its inside' }).click();
  await page.getByRole('textbox', { name: 'Inside, one side' }).fill('125 mm');
  await page.getByRole('textbox', { name: 'the other' }).fill('14 mm');
  await expect(page.getByText('14 mm does not work; allowed is 40 mm to 1000 mm')).toBeVisible();
  await page.getByRole('textbox', { name: 'the other' }).fill('140 mm');
  await page.getByRole('button', { name: 'Use this envelope' }).click();
  await expect(page.getByText(/^Too large for the envelope My envelope, 140 mm × 125 mm inside/)).toBeVisible();
  await page.getByRole('button', { name: /^Make it fit this envelope: / }).click();
  await expect(page.getByText(/^Too large for the envelope/)).toHaveCount(0);
  await expect(page.getByText(/Fits the envelope My envelope/)).toBeAttached();
  await page.getByRole('button', { name: /Undo: Make it fit this envelope/ }).click();
  await expect(page.getByText(/^Too large for the envelope/)).toBeVisible();
});

test('a calculation that hangs is told, never stands as a verdict, and is begun anew', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await expect(page.getByText(/Ready to make/).first()).toBeVisible();
  // Every thread is kept busy for ever, surely before the size is changed.
  await Promise.all(
    page.workers().map((worker) =>
      worker.evaluate(
        () =>
          void setTimeout(() => {
            for (;;);
          }),
      ),
    ),
  );
  // What the page said, as it said it: a fast machine says some of it for a moment only.
  await page.evaluate(() => {
    const said: string[] = [];
    Object.assign(window, { said });
    const listen = (): void => {
      const words = document.body.innerText;
      const heard = ['Working it out…', 'Ready to make', 'took more than 3 seconds'].filter((it) => words.includes(it)).join(', ');
      if (said.at(-1) !== heard) said.push(heard);
    };
    listen();
    new MutationObserver(listen).observe(document.body, { subtree: true, childList: true, characterData: true });
  });
  await setSize(page, 'Depth', '152 mm');
  const said = (): Promise<string[]> => page.evaluate(() => (window as unknown as { said: string[] }).said);
  await expect.poll(said).toContain('took more than 3 seconds');
  await expect.poll(async () => (await said()).at(-1)).toBe('Ready to make');
  // From the change to the new verdict nothing was called ready.
  expect(await said()).toEqual(['Ready to make', 'Working it out…', 'took more than 3 seconds', 'Ready to make']);
});

test('undo takes back first what a field refuses; no card is ready while one does', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await setSize(page, 'Depth', '152 mm');
  await expect(page.getByText(/Ready to make/).first()).toBeVisible();
  await setSize(page, 'Depth', 'three');
  await expect(page.getByText('Not judged: a field holds what cannot be used.').first()).toBeVisible();
  await expect(page.getByText(/Ready to make/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo: what was typed' }).click();
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('152 mm');
  await expect(page.getByText(/Ready to make/).first()).toBeVisible();
  await page.getByRole('button', { name: /Undo: Depth/ }).click();
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('150 mm');
  // Also where nothing else is there to be undone.
  await setSize(page, 'Depth', 'four');
  await page.getByRole('button', { name: 'Undo: what was typed' }).click();
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('150 mm');
  await expect(page.getByText(/Ready to make/).first()).toBeVisible();
});

test('what is typed and not left is there after a reload', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await page.getByRole('textbox', { name: 'Notes' }).fill('gills first');
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Notes' })).toHaveValue('gills first');
  await page.getByRole('textbox', { name: 'Name of the card' }).fill('Half a name');
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Name of the card' })).toHaveValue('Half a name');
  await page.getByRole('textbox', { name: 'Depth', exact: true }).fill('151 mm');
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Depth', exact: true })).toHaveValue('151 mm');
});
