import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Page } from '@playwright/test';
import { application } from '../../server/dist/application.js';
import { RealBrowser } from './browser.js';
import { BUILT, newProfile, removeProfile } from './in-browser.js';

/** What was on the screen for this long may not be lost (ms). */
const DRAWN = 50;
/** With software drawing, on a busy machine (ms). */
const A_FRAME = 100;
/** A tab that is there closes within this (ms). */
const CLOSES_WITHIN = 5_000;
const CARDS = ['foray-guide-easel', 'chanterelle-birthday'];
const MOST_TABS = 3;
/** Notes grow with each edit; a card takes 4,000 characters. */
const LONGEST_NOTE = 3000;

const WAYS = ['kill', 'kill', 'kill', 'crash', 'reload', 'close', 'slow', 'quota', 'offline', 'leave'] as const;
type Way = (typeof WAYS)[number];

/**
 * Random cycles of work and mishap: a word is added to a card's notes in one of up to three tabs; then the browser is killed,
 * a tab crashes, is closed or loaded again, storage is slow or full, or the server is gone. Every word that was drawn for
 * 50 ms is afterwards somewhere on the shelf: in its card, or in another version of it.
 * @returns what was lost, in sentences
 */
export async function cycles(next: () => number, count: number, say: (words: string) => void = () => undefined): Promise<string[]> {
  const trial = new Trial(next);
  const lost: string[] = [];
  await trial.begin();
  try {
    for (let i = 0; i < count; i++) {
      const way = WAYS[Math.floor(next() * WAYS.length)]!;
      for (const words of await trial.cycle(i, way)) {
        lost.push(`cycle ${i} (${way}): ${words}`);
        say(lost.at(-1)!);
      }
      if (i % 20 === 19) say(`${i + 1} cycles, ${lost.length} lost`);
    }
  } finally {
    await trial.end();
  }
  return lost;
}

class Trial {
  private readonly profile = newProfile();
  private server: Server | undefined;
  private port = 0;
  private browser!: RealBrowser;
  private tabs: Page[] = [];
  /** words that must be somewhere, each with the mishap of the cycle in which it was written */
  private expected = new Map<string, Way>();

  constructor(private readonly next: () => number) {}

  async begin(): Promise<void> {
    await this.serve();
    this.browser = await RealBrowser.open(this.profile, true);
  }

  async end(): Promise<void> {
    await this.browser.kill().catch(() => undefined);
    await this.stop();
    removeProfile(this.profile);
  }

  /** Some words in some tabs, a mishap, and a look at the shelf. @returns the words that are gone */
  async cycle(i: number, way: Way): Promise<string[]> {
    const edits = 1 + Math.floor(this.next() * 3);
    for (let k = 0; k < edits; k++) {
      const tab = await this.someTab();
      const last = k === edits - 1;
      if (last && way === 'slow') await this.holdStorage(600);
      if (last && way === 'quota') await this.quota(tab, 1);
      if (last && way === 'offline') await this.stop();
      const word = `w${i}x${k}`;
      const notes = tab.getByRole('textbox', { name: 'Notes' });
      const before = await notes.inputValue();
      await notes.fill(`${before.length > LONGEST_NOTE ? '' : before} ${word}`.trim());
      if (before.length > LONGEST_NOTE) for (const old of before.split(' ')) this.expected.delete(old);
      await drawn(tab);
      await tab.waitForTimeout(last ? DRAWN : Math.floor(this.next() * 300));
      this.expected.set(word, way);
      if (last) await this.mishap(way, tab);
    }
    return this.missing();
  }

  private async mishap(way: Way, tab: Page): Promise<void> {
    if (way === 'kill') {
      await this.browser.kill();
      this.tabs = [];
      this.browser = await RealBrowser.open(this.profile, true);
    } else if (way === 'crash') {
      await tab.goto('chrome://crash').catch(() => undefined);
      await this.drop(tab);
    } else if (way === 'close' || way === 'slow') {
      await this.drop(tab);
    } else if (way === 'leave') {
      await tab.locator('a.home').first().click();
      await this.drop(tab);
    } else {
      if (way === 'offline') await this.serve();
      await tab.reload();
      if (way === 'quota') await this.quota(tab, undefined);
    }
  }

  private async drop(tab: Page): Promise<void> {
    this.tabs = this.tabs.filter((other) => other !== tab);
    // A tab that crashed may never answer that it is closed: it is gone all the same.
    await Promise.race([tab.close().catch(() => undefined), new Promise((gone) => setTimeout(gone, CLOSES_WITHIN))]);
  }

  /** An open tab with a card, or a new one. */
  private async someTab(): Promise<Page> {
    const at = Math.floor(this.next() * MOST_TABS);
    const known = this.tabs[at];
    if (known) return known;
    const page = await this.browser.context.newPage();
    const card = CARDS[Math.floor(this.next() * CARDS.length)]!;
    await page.goto(`http://127.0.0.1:${this.port}/card/${card}`);
    await page.getByRole('textbox', { name: 'Notes' }).waitFor();
    this.tabs.push(page);
    return page;
  }

  /** Another page of the same origin keeps all drawers to itself for a while. */
  private async holdStorage(ms: number): Promise<void> {
    const page = await this.browser.context.newPage();
    await page.goto(`http://127.0.0.1:${this.port}/ngsw.json`);
    await page.evaluate(`new Promise((held) => {
      const asked = indexedDB.open('diptychon');
      asked.onsuccess = () => {
        const store = asked.result.transaction(['cards', 'notes', 'unsaved'], 'readwrite').objectStore('notes');
        const until = Date.now() + ${ms};
        const again = () => {
          store.get('none').onsuccess = () => (Date.now() < until ? again() : asked.result.close());
        };
        again();
        held();
      };
    })`);
    setTimeout(() => void page.close().catch(() => undefined), ms + 200);
  }

  private async quota(tab: Page, bytes: number | undefined): Promise<void> {
    const session = await this.browser.context.newCDPSession(tab);
    await session.send('Storage.overrideQuotaForOrigin', {
      origin: `http://127.0.0.1:${this.port}`,
      ...(bytes !== undefined && { quotaSize: bytes }),
    });
    await session.detach();
  }

  /** Words that are in no card on the shelf. Tabs that are open may still be about to save; a moment is given to them. */
  private async missing(): Promise<string[]> {
    const page = await this.browser.context.newPage();
    try {
      for (let tries = 0; ; tries++) {
        await page.goto(`http://127.0.0.1:${this.port}/`);
        await page.locator('.cards .card').first().waitFor();
        const shown = new Set((await page.locator('.cards .says').allTextContents()).join(' ').split(/\s+/));
        // What a tab in conflict holds is kept beside the shelf until it is gone.
        for (const tab of this.tabs) {
          const value = await tab
            .getByRole('textbox', { name: 'Notes' })
            .inputValue()
            .catch(() => '');
          for (const word of value.split(' ')) shown.add(word);
        }
        const lost = [...this.expected.keys()].filter((word) => !shown.has(word));
        if (lost.length === 0 || tries === 2) {
          const told = lost.map((word) => `${word}, written before a mishap of the kind ${this.expected.get(word)}`);
          for (const word of lost) this.expected.delete(word);
          return told;
        }
        await page.waitForTimeout(700);
      }
    } finally {
      await page.close();
    }
  }

  private serve(): Promise<void> {
    return new Promise((ready) => {
      this.server = application(BUILT).listen(this.port, '127.0.0.1', () => {
        this.port = (this.server!.address() as AddressInfo).port;
        ready();
      });
    });
  }

  private stop(): Promise<void> {
    return new Promise((done) => {
      const { server } = this;
      if (!server) return done();
      this.server = undefined;
      server.closeAllConnections();
      server.close(() => done());
    });
  }
}

/** Resolves once what was typed is on the screen. A tab behind another draws nothing: it is given as long as a frame takes here. */
const drawn = (tab: Page): Promise<unknown> =>
  tab.evaluate(
    `Promise.race([new Promise((done) => requestAnimationFrame(() => setTimeout(done))), new Promise((done) => setTimeout(done, ${A_FRAME}))])`,
  );
