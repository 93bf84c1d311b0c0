import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { isDeepStrictEqual } from 'node:util';
import type { Page } from '@playwright/test';
import { inBrowser } from './in-browser.js';

const CORE = fileURLToPath(new URL('../../core', import.meta.url));
/** From the choice of a file to what is said of it (ms). */
const LONGEST_MS = 1000;
const LONGEST_LINE = 800;
const A_MOMENT = 300;

interface Broken {
  kind: 'card' | 'shelf' | 'svg';
  text: string;
  reads: Record<string, unknown>[] | undefined;
}

/** What the page made of a file: a sentence where it was refused, and the cards that are new on the shelf. */
interface Outcome {
  refused: string | undefined;
  came: Record<string, unknown>[];
  ms: number;
}

/**
 * The nastiest of many broken files, opened in the page as its user does: refused in a line with the shelf as it was, or read as
 * just what the core reads of them; none takes over a second.
 * @returns what was broken, in sentences
 */
export async function filesInPage(next: () => number, count: number, say: (words: string) => void = () => undefined): Promise<string[]> {
  const files = nastiest(Math.floor(next() * 2 ** 31), count);
  const broken: string[] = [];
  let longest = 0;
  await inBrowser(async (page, address) => {
    page.on('pageerror', (error) => broken.push(`the page threw: ${error.message}`));
    for (const [i, file] of files.entries()) {
      const outcome = file.kind === 'svg' ? await draw(page, address, file) : await openOnShelf(page, address, file);
      longest = Math.max(longest, outcome.ms);
      for (const says of faults(file, outcome))
        broken.push(`file ${i} (${file.kind}): ${says}: ${JSON.stringify(file.text.slice(0, 200))}`);
      if (i % 20 === 19) say(`${i + 1} files, ${broken.length} broken, the longest took ${Math.round(longest)} ms`);
    }
  });
  return broken;
}

function nastiest(seed: number, count: number): Broken[] {
  const { stdout, status } = spawnSync(
    'npx',
    ['tsx', 'campaigns/write-broken-files.ts', '--seed', String(seed), '--count', String(count)],
    {
      cwd: CORE,
      encoding: 'utf8',
      maxBuffer: 256 * 1024 * 1024,
    },
  );
  if (status !== 0) throw new Error('the broken files could not be made');
  return JSON.parse(stdout) as Broken[];
}

function faults({ kind, reads }: Broken, { refused, came, ms }: Outcome): string[] {
  const says: string[] = [];
  if (ms > LONGEST_MS) says.push(`took ${Math.round(ms)} ms`);
  if (refused !== undefined && (/\n/.test(refused) || refused.length > LONGEST_LINE || refused.trim() === ''))
    says.push(`was refused in more than a line, or in none: ${refused}`);
  if (reads && refused !== undefined) says.push(`is read by the core and was refused: ${refused}`);
  if (!reads && refused === undefined) says.push('is refused by the core and was taken');
  if (kind !== 'svg' && !isDeepStrictEqual(sorted(came), sorted(refused === undefined ? (reads ?? []) : [])))
    says.push(`${came.length} cards came onto the shelf, and not just those of the file`);
  return says;
}

const sorted = (cards: readonly object[]): string[] => cards.map((card) => JSON.stringify(inOrder(card))).sort();

function inOrder(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inOrder);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, inner]) => [key, inOrder(inner)]),
  );
}

/** How long it takes from the choice of a file until something is said of it, or the page goes on to a card. */
const WATCH = `window.watched = new Promise((done) => {
  document.addEventListener('change', () => {
    const begun = performance.now();
    const from = location.pathname;
    const before = document.querySelectorAll('.p-toast-message').length;
    const look = () => {
      const said = document.querySelectorAll('.p-toast-message').length > before || location.pathname !== from;
      if (said || performance.now() - begun > 20000) done(performance.now() - begun);
      else setTimeout(look, 5);
    };
    look();
  }, { once: true, capture: true });
})`;

async function openOnShelf(page: Page, address: string, { text }: Broken): Promise<Outcome> {
  await page.goto(address);
  await page.locator('.cards .card').first().waitFor();
  const before = new Set((await shelved(page)).map(({ id }) => id));
  await page.evaluate(`void (${WATCH})`);
  await page
    .getByLabel('Card file', { exact: true })
    .setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  const ms = (await page.evaluate('window.watched')) as number;
  const refusal = page.locator('.p-toast-message-error .p-toast-detail');
  const refused = (await refusal.count()) > 0 ? ((await refusal.first().textContent()) ?? '').trim() : undefined;
  const came = (await shelved(page)).filter(({ id }) => !before.has(id));
  await page.evaluate(`(${FORGET})(${JSON.stringify(came.map(({ id }) => id))})`);
  return { refused, came: came.map(({ card: { id: _, ...card } }) => card), ms };
}

async function draw(page: Page, address: string, { text }: Broken): Promise<Outcome> {
  await page.goto(`${address}/card/lantern-box`);
  const field = page.getByLabel('Drawing for Window');
  await field.waitFor({ state: 'attached' });
  const chosen = page.getByRole('combobox', { name: 'Window', exact: true });
  const before = (await chosen.textContent()) ?? '';
  // An outline of the same name takes the place of the other: a card never holds more than two of them.
  const name = before.includes('broken-a') ? 'broken-b.svg' : 'broken-a.svg';
  const begun = performance.now();
  await field.setInputFiles({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(text) });
  const trouble = page.locator('dip-sizes-panel .trouble');
  for (;;) {
    const ms = performance.now() - begun;
    if ((await chosen.textContent()) !== before) return { refused: undefined, came: [], ms };
    if ((await trouble.count()) > 0) {
      // What was left out of a drawing that was taken is said in the same place.
      await page.waitForTimeout(A_MOMENT);
      const refused = (await chosen.textContent()) === before ? ((await trouble.first().textContent()) ?? '').trim() : undefined;
      return { refused, came: [], ms };
    }
    if (ms > 20_000) return { refused: '', came: [], ms };
  }
}

interface Shelved {
  id: string;
  card: Record<string, unknown>;
}

const shelved = (page: Page): Promise<Shelved[]> =>
  page.evaluate(`new Promise((done) => {
    const asked = indexedDB.open('diptychon');
    asked.onsuccess = () => {
      const all = asked.result.transaction('cards').objectStore('cards').getAll();
      all.onsuccess = () => { asked.result.close(); done(all.result); };
    };
  })`);

const FORGET = `(ids) => new Promise((done) => {
  const asked = indexedDB.open('diptychon');
  asked.onsuccess = () => {
    const tx = asked.result.transaction('cards', 'readwrite');
    for (const id of ids) tx.objectStore('cards').delete(id);
    tx.oncomplete = () => { asked.result.close(); done(); };
  };
})`;
