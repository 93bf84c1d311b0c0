import { setTimeout } from 'node:timers/promises';
import type { CDPSession, Page } from '@playwright/test';
import { inBrowser } from './in-browser.js';

const EDITS = 10;
/** By then everything that loads once has been loaded: of a short evening a third. */
const SETTLED = 20;
/** What is left behind may be so much more than at the beginning. */
const FLAT = 1.25;
/** So many seconds a busy browser has to let go of what it need not hold: a bent sheet that is being worked out holds its screen. */
const PATIENCE = 120;

interface Left {
  nodes: number;
  listeners: number;
  /** MB */
  heap: number;
}

/**
 * A long evening in one page: cards are opened one after the other, each is edited ten times, and the shelf is gone back to.
 * What the page holds is counted on the shelf, after everything that can be let go of was.
 * @returns what grew, in sentences
 */
export async function soak(next: () => number, count: number, say: (words: string) => void = () => undefined): Promise<string[]> {
  const faults: string[] = [];
  await inBrowser(async (page, address) => {
    page.on('pageerror', (error) => faults.push(`the page threw: ${error.message}`));
    page.on('console', (message) => {
      // A browser that paints without a graphics card reads each picture back: that is no fault of the page.
      if (/WebGL|context lost/i.test(message.text()) && !/GPU stall due to ReadPixels/.test(message.text()))
        faults.push(`the browser warned: ${message.text()}`);
    });
    const session = await page.context().newCDPSession(page);
    await page.goto(address);
    let settled: Left | undefined;
    for (let i = 0; i < count; i++) {
      await openSome(page, next);
      for (let k = 0; k < EDITS; k++) await edit(page, next);
      await page.locator('a.home').first().click();
      await page.locator('.cards .card').first().waitFor();
      if (i + 1 === Math.min(SETTLED, Math.ceil(count / 3))) settled = await leftIn(session);
      if (i % 20 === 19) say(`${i + 1} cards, ${(i + 1) * EDITS} edits: ${words(await leftIn(session))}`);
    }
    if (settled) faults.push(...(await grownAtLast(settled, () => leftIn(session))));
  });
  return faults;
}

/** What a closed screen held is let go of when the browser finds time for it: what is still held after that has leaked. */
async function grownAtLast(settled: Left, left: () => Promise<Left>): Promise<string[]> {
  let faults = grown(settled, await left());
  for (let k = 0; faults.length > 0 && k < PATIENCE; k++) {
    await setTimeout(1000);
    faults = grown(settled, await left());
  }
  return faults;
}

const grown = (from: Left, to: Left): string[] =>
  (['nodes', 'listeners', 'heap'] as const)
    .filter((what) => to[what] > from[what] * FLAT)
    .map((what) => `${what} grew from ${from[what]} to ${to[what]}`);

const words = ({ nodes, listeners, heap }: Left): string => `${nodes} nodes, ${listeners} listeners, ${heap} MB`;

async function openSome(page: Page, next: () => number): Promise<void> {
  const cards = page.locator('.cards .card .picture');
  await cards.first().waitFor();
  await cards.nth(Math.floor(next() * (await cards.count()))).click();
  // A card may have been left with a size that leaves another no room: then that is said in place of its drawing.
  await page.locator('dip-standing-view canvas, p.waiting[role=alert]').waitFor();
}

/** A size of a card one ruler step up or down, or an undo. */
async function edit(page: Page, next: () => number): Promise<void> {
  if (next() < 0.2) {
    const undo = page.getByRole('button', { name: /^Undo/ });
    // What was refused may be taken back by then, and nothing be left to undo.
    if (await undo.isEnabled()) await undo.click({ timeout: 1000 }).catch(() => undefined);
    return;
  }
  const fields = page.locator('dip-length-field input');
  const field = fields.nth(Math.floor(next() * (await fields.count())));
  await field.press(next() < 0.5 ? 'ArrowUp' : 'ArrowDown');
}

/** Measured so often, and so many ms apart, until it stays the same. */
const LOOKS = 20;
const APART = 500;
const SAME = 1.01;

/** What the page holds once it has come to rest: a shelf that is still drawing its pictures holds fewer nodes than one that has. */
async function leftIn(session: CDPSession): Promise<Left> {
  let left = await measured(session);
  for (let k = 0, alike = 0; k < LOOKS && alike < 2; k++) {
    await setTimeout(APART);
    const next = await measured(session);
    alike = next.nodes < left.nodes * SAME && left.nodes < next.nodes * SAME ? alike + 1 : 0;
    left = next;
  }
  return left;
}

async function measured(session: CDPSession): Promise<Left> {
  await session.send('HeapProfiler.collectGarbage');
  const { nodes, jsEventListeners } = await session.send('Memory.getDOMCounters');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  return { nodes, listeners: jsEventListeners, heap: Math.round(usedSize / 1e5) / 10 };
}
