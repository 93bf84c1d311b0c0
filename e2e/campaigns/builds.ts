import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { deflateSync } from 'node:zlib';
import type { Page } from '@playwright/test';
import { application } from '../../server/dist/application.js';
import { RealBrowser } from './browser.js';
import { BUILT, newProfile, removeProfile } from './in-browser.js';

/** What was on the screen for this long may not be lost (ms). */
const DRAWN = 80;
const MOST_TABS = 2;
/** A build takes 24 photos: older ones are taken out again. */
const MOST_PHOTOS = 16;
const LONGEST = 2500;

const WAYS = ['kill', 'kill', 'kill', 'crash', 'reload', 'close', 'quota'] as const;
type Way = (typeof WAYS)[number];

/**
 * Random cycles of work and mishap in the logbook: a word is written into a build, or a photo is added, in one of two tabs; then the
 * browser is killed, a tab crashes, is closed or loaded again, or storage is full. Every word and photo that was shown, and not said to
 * be unkept, is there afterwards.
 * @returns what was lost, in sentences
 */
export async function builds(next: () => number, count: number, say: (words: string) => void = () => undefined): Promise<string[]> {
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
  private words = new Set<string>();
  /** widths of photos, by which they are known again */
  private photos: number[] = [];

  constructor(private readonly next: () => number) {}

  async begin(): Promise<void> {
    await new Promise<void>((ready) => {
      this.server = application(BUILT).listen(0, '127.0.0.1', () => {
        this.port = (this.server!.address() as AddressInfo).port;
        ready();
      });
    });
    this.browser = await RealBrowser.open(this.profile, true);
    const page = await this.browser.context.newPage();
    await page.goto(`http://127.0.0.1:${this.port}/card/logs-at-the-doors/make`);
    await page.getByRole('button', { name: 'Done, next' }).click();
    await page.getByRole('heading', { name: 'Trim: Card' }).waitFor();
    await page.goto(`http://127.0.0.1:${this.port}/logbook`);
    await page.getByRole('button', { name: /^Logs at the doors/ }).waitFor();
    await page.close();
  }

  async end(): Promise<void> {
    await this.browser.kill().catch(() => undefined);
    this.server?.closeAllConnections();
    this.server?.close();
    removeProfile(this.profile);
  }

  async cycle(i: number, way: Way): Promise<string[]> {
    const edits = 1 + Math.floor(this.next() * 3);
    for (let k = 0; k < edits; k++) {
      const tab = await this.someTab();
      const last = k === edits - 1;
      if (last && way === 'quota') await this.quota(tab, 1);
      if (this.next() < 0.4) await this.addPhoto(tab, 100 + 3 * i + k);
      else await this.write(tab, `w${i}x${k}`);
      if (last) await this.mishap(way, tab);
    }
    return this.missing();
  }

  /** Types a word at the end of what is there. */
  private async write(tab: Page, word: string): Promise<void> {
    const field = tab.getByLabel('What I would do differently');
    const before = await field.inputValue();
    if (before.length > LONGEST) for (const old of before.split(' ')) this.words.delete(old);
    await field.fill(`${before.length > LONGEST ? '' : before} ${word}`.trim());
    await tab.waitForTimeout(DRAWN);
    if (!(await this.saysUnkept(tab))) this.words.add(word);
  }

  private async addPhoto(tab: Page, width: number): Promise<void> {
    if (this.photos.length >= MOST_PHOTOS) {
      const first = this.photos.shift()!;
      const at = (await this.widths(tab)).indexOf(first);
      if (at >= 0) {
        await tab.getByRole('button', { name: `Remove photo ${at + 1}`, exact: true }).click();
        await tab.waitForTimeout(4 * DRAWN);
      }
    }
    await tab.getByLabel('Photos', { exact: true }).setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: picture(width, 40) });
    for (let tries = 0; tries < 60; tries++) {
      if ((await this.widths(tab)).includes(width)) {
        await tab.waitForTimeout(DRAWN);
        this.photos.push(width);
        return;
      }
      if (await this.saysUnkept(tab)) return;
      await tab.waitForTimeout(50);
    }
    throw new Error('a photo was neither shown nor refused');
  }

  private saysUnkept(tab: Page): Promise<boolean> {
    return tab.getByText('This could not be kept').isVisible();
  }

  private widths(tab: Page): Promise<number[]> {
    return tab.locator('.photos img').evaluateAll((all) => all.map((img) => (img as HTMLImageElement).naturalWidth));
  }

  private async mishap(way: Way, tab: Page): Promise<void> {
    if (way === 'kill') {
      await this.browser.kill();
      this.tabs = [];
      this.browser = await RealBrowser.open(this.profile, true);
    } else if (way === 'crash') {
      await tab.goto('chrome://crash').catch(() => undefined);
      await this.drop(tab);
    } else if (way === 'close') {
      await this.drop(tab);
    } else {
      if (way === 'quota') await this.quota(tab, undefined);
      await this.drop(tab);
    }
  }

  private async drop(tab: Page): Promise<void> {
    this.tabs = this.tabs.filter((other) => other !== tab);
    await tab.close().catch(() => undefined);
  }

  private async someTab(): Promise<Page> {
    const known = this.tabs[Math.floor(this.next() * MOST_TABS)];
    if (known) return known;
    const page = await this.openBuild();
    this.tabs.push(page);
    return page;
  }

  private async openBuild(): Promise<Page> {
    const page = await this.browser.context.newPage();
    await page.goto(`http://127.0.0.1:${this.port}/logbook`);
    await page.getByRole('button', { name: /^Logs at the doors/ }).click();
    await page.getByLabel('What I would do differently').waitFor();
    return page;
  }

  private async quota(tab: Page, bytes: number | undefined): Promise<void> {
    const session = await this.browser.context.newCDPSession(tab);
    const origin = `http://127.0.0.1:${this.port}`;
    await session.send('Storage.overrideQuotaForOrigin', { origin, ...(bytes !== undefined && { quotaSize: bytes }) });
    await session.detach();
  }

  /** What a page that is opened now does not show. */
  private async missing(): Promise<string[]> {
    const page = await this.openBuild();
    try {
      let lost: string[] = [];
      for (let tries = 0; tries < 20; tries++) {
        const text = new Set((await page.getByLabel('What I would do differently').inputValue()).split(' '));
        const shown = await this.widths(page);
        lost = [
          ...[...this.words].filter((word) => !text.has(word)),
          ...this.photos.filter((width) => !shown.includes(width)).map((width) => `the photo ${width} dots wide`),
        ];
        if (lost.length === 0) return [];
        await page.waitForTimeout(150);
      }
      for (const word of lost) this.words.delete(word);
      this.photos = this.photos.filter((width) => !lost.includes(`the photo ${width} dots wide`));
      return lost;
    } finally {
      await page.close();
    }
  }
}

/** A grey picture as a PNG. */
function picture(width: number, height: number): Buffer {
  const chunk = (kind: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(kind, 'latin1'), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  // Eight bits of grey.
  head[8] = 8;
  const rows = Buffer.concat(Array.from({ length: height }, () => Buffer.concat([Buffer.from([0]), Buffer.alloc(width, 140)])));
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([signature, chunk('IHDR', head), chunk('IDAT', deflateSync(rows)), chunk('IEND', Buffer.alloc(0))]);
}

/** The check sum of a PNG chunk (ISO 3309). */
function crc(data: Buffer): number {
  let sum = 0xffffffff;
  for (const byte of data) {
    sum ^= byte;
    for (let bit = 0; bit < 8; bit++) sum = sum & 1 ? (sum >>> 1) ^ 0xedb88320 : sum >>> 1;
  }
  return (sum ^ 0xffffffff) >>> 0;
}
