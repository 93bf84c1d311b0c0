import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { CDPSession, Page } from '@playwright/test';
import { application } from '../../server/dist/application.js';
import { RealBrowser } from './browser.js';

const BUILT = fileURLToPath(new URL('../../web/dist/browser', import.meta.url));
const EDITS = 10;
/** By then everything that loads once has been loaded. */
const SETTLED = 20;
/** What is left behind may be so much more than at the beginning. */
const FLAT = 1.25;

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
  const profile = mkdtempSync(join(tmpdir(), 'diptychon-soak-'));
  const server = application(BUILT).listen(0, '127.0.0.1');
  const browser = await RealBrowser.open(profile);
  const faults: string[] = [];
  try {
    const page = await browser.context.newPage();
    page.on('pageerror', (error) => faults.push(`the page threw: ${error.message}`));
    page.on('console', (message) => {
      if (/WebGL|context lost/i.test(message.text())) faults.push(`the browser warned: ${message.text()}`);
    });
    const session = await browser.context.newCDPSession(page);
    await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
    let settled: Left | undefined;
    for (let i = 0; i < count; i++) {
      await openSome(page, next);
      for (let k = 0; k < EDITS; k++) await edit(page, next);
      await page.locator('a.home').first().click();
      await page.locator('.cards .card').first().waitFor();
      if (i + 1 === SETTLED) settled = await leftIn(session);
      if (i % 20 === 19) say(`${i + 1} cards, ${(i + 1) * EDITS} edits: ${words(await leftIn(session))}`);
    }
    const end = await leftIn(session);
    if (settled) {
      for (const what of ['nodes', 'listeners', 'heap'] as const) {
        if (end[what] > settled[what] * FLAT) faults.push(`${what} grew from ${settled[what]} to ${end[what]}`);
      }
    }
  } finally {
    await browser.kill().catch(() => undefined);
    server.closeAllConnections();
    server.close();
    rmSync(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
  }
  return faults;
}

const words = ({ nodes, listeners, heap }: Left): string => `${nodes} nodes, ${listeners} listeners, ${heap} MB`;

async function openSome(page: Page, next: () => number): Promise<void> {
  const cards = page.locator('.cards .card .picture');
  await cards.first().waitFor();
  await cards.nth(Math.floor(next() * (await cards.count()))).click();
  await page.locator('dip-standing-view canvas').waitFor();
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

async function leftIn(session: CDPSession): Promise<Left> {
  await session.send('HeapProfiler.collectGarbage');
  const { nodes, jsEventListeners } = await session.send('Memory.getDOMCounters');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  return { nodes, listeners: jsEventListeners, heap: Math.round(usedSize / 1e5) / 10 };
}
