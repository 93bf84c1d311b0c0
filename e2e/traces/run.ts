// How soon the page answers a hand: `npm run trace [-- --count N]`, on a machine that does nothing else. Nothing here passes or fails.
import { parseArgs } from 'node:util';
import type { Page } from '@playwright/test';
import { inBrowser } from '../campaigns/in-browser.js';
import { quantile, stopwatch, type Marks } from './stopwatch.js';

const { values } = parseArgs({ options: { count: { type: 'string', default: '40' } } });
const count = Number(values.count);
if (!Number.isInteger(count) || count < 5) {
  console.error('npm run trace [-- --count N]: N is a whole number of at least 5.');
  process.exit(2);
}

const marksOf = (page: Page): Promise<Marks> =>
  page.evaluate(() => {
    const { marks } = window as unknown as { marks: Marks };
    const taken = { given: [...marks.given], committed: [...marks.committed], drawn: [...marks.drawn] };
    marks.given.length = marks.committed.length = marks.drawn.length = 0;
    return taken;
  });

const row = (what: string, times: readonly number[]): void =>
  console.log(
    `${what.padEnd(64)}${quantile(times, 0.5).toFixed(0).padStart(6)}${quantile(times, 0.95).toFixed(0).padStart(6)}  of ${times.length}`,
  );

async function open(page: Page, address: string, name: string): Promise<void> {
  await page.goto(address);
  await page.getByRole('link', { name: new RegExp(name) }).click();
  await page.locator('dip-standing-view canvas').waitFor();
  await page.waitForTimeout(4500);
}

/** A size typed again and again, each time long after the last: until the numbers are new, and until the card in the round is. */
async function typed(page: Page, label: string, from: number): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: true });
  const [numbers, pictures]: [number[], number[]] = [[], []];
  for (let i = 0; i < count; i++) {
    await marksOf(page);
    await field.fill(`${from + (i % 9)} mm`);
    await page.waitForTimeout(700);
    const { given, committed, drawn } = await marksOf(page);
    const at = committed.find((time) => time >= given[0]!);
    const picture = drawn.find(({ began }) => began >= given[0]!);
    if (at === undefined || !picture) continue;
    numbers.push(at - given[0]!);
    pictures.push(picture.done - given[0]!);
  }
  row('  typed to numbers', numbers);
  row('  typed to the picture finished', pictures);
}

/** What moves on the page is dragged to and fro for five seconds, as fast as a hand's moves come in. */
async function dragged(page: Page, selector: string, reach: number): Promise<void> {
  const handle = page.locator(selector).first();
  const box = (await handle.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await marksOf(page);
  await handle.evaluate(
    async (line, way) => {
      const until = performance.now() + 5000;
      for (let i = 0; performance.now() < until; i++) {
        line.dispatchEvent(
          new PointerEvent('pointermove', { bubbles: true, pointerId: 1, clientX: way.x + way.reach * Math.sin(i / 20), clientY: way.y }),
        );
        await new Promise((next) => setTimeout(next, 8));
      }
    },
    { x, y, reach },
  );
  const { given, committed, drawn } = await marksOf(page);
  await page.mouse.up();
  const seconds = (given.at(-1)! - given[0]!) / 1000;
  const apart = drawn.slice(1).map(({ done }, i) => done - drawn[i]!.done);
  console.log(
    `  dragged: ${(drawn.length / seconds).toFixed(1)} pictures and ${(committed.length / seconds).toFixed(1)} new numbers a second`,
  );
  row('  dragged: from one picture to the next', apart);
}

/** A topper moved a little at a time, each time long after the last: until it, and with it the verdict, is drawn anew. */
async function nudged(page: Page, piece: string): Promise<void> {
  await page.locator('dip-flat-view .pieces').getByText(piece, { exact: true }).click();
  const box = (await page.locator('.topper:not(.under) circle').first().boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  const times: number[] = [];
  for (let i = 0; i < count; i++) {
    await marksOf(page);
    await page.mouse.move(x + 2 + 2 * (i % 7), y + 2 * (i % 5));
    await page.waitForTimeout(250);
    const { given, committed } = await marksOf(page);
    const at = committed.find((time) => time >= given[0]!);
    if (at !== undefined) times.push(at - given[0]!);
  }
  await page.mouse.up();
  row('  a topper moved to its verdict', times);
}

await inBrowser(async (page, address) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  // What runs this file gives functions their names by a helper that the page does not have.
  await page.addInitScript('globalThis.__name = (named) => named');
  await page.addInitScript(stopwatch);
  console.log(`${'ms'.padEnd(64)}${'half'.padStart(6)}${'95 %'.padStart(6)}`);
  console.log('Thank-you easel');
  await open(page, address, 'Thank-you easel');
  await typed(page, 'Depth', 150);
  await dragged(page, '.score .handle[aria-label*="front score"]', 40);
  await nudged(page, 'Display');
});
