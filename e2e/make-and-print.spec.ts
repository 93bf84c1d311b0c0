import { unzipSync } from 'fflate';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Download, Page } from '@playwright/test';
import { expect, expectAccessible, openDemo, test } from './page';

const DPI = 300;
const PER_MM = DPI / 25.4;

interface Grey {
  width: number;
  height: number;
  at: (x: number, y: number) => number;
}

/** Renders a page of a PDF at 300 dpi with a program that is not ours, and reads the grey picture. */
function rendered(file: string, page: number): Grey {
  const out = join(mkdtempSync(join(tmpdir(), 'diptychon-pdf-')), 'page');
  execFileSync('pdftoppm', ['-r', String(DPI), '-gray', '-f', String(page), '-l', String(page), '-singlefile', file, out]);
  const data = readFileSync(`${out}.pgm`);
  const header = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(data.subarray(0, 40).toString('latin1'))!;
  const [width, height] = [Number(header[1]), Number(header[2])];
  return { width, height, at: (x, y) => data[header[0].length + y * width + x]! };
}

/** Runs of dark pixels along a row (y in mm from the top), as start and end in mm. */
function darkRuns(page: Grey, yMm: number, least: number): [number, number][] {
  const y = Math.round(yMm * PER_MM);
  const runs: [number, number][] = [];
  let start = -1;
  for (let x = 0; x <= page.width; x++) {
    const dark = x < page.width && page.at(x, y) < 150;
    if (dark && start < 0) start = x;
    if (!dark && start >= 0) {
      if ((x - start) / PER_MM >= least) runs.push([start / PER_MM, x / PER_MM]);
      start = -1;
    }
  }
  return runs;
}

/** The long dark runs anywhere in a band of rows, the longest of each start. */
function longRuns(page: Grey, fromMm: number, toMm: number, least: number): [number, number][] {
  for (let y = fromMm; y < toMm; y += 0.04) {
    const runs = darkRuns(page, y, least);
    if (runs.length > 0) return runs;
  }
  return [];
}

/** Share of a column (x in mm) that is dark between two heights: near 1 for a line, about a half for a dashed one. */
function darkShare(page: Grey, xMm: number, fromMm: number, toMm: number): number {
  const x = Math.round(xMm * PER_MM);
  let dark = 0;
  let all = 0;
  for (let y = Math.round(fromMm * PER_MM); y < toMm * PER_MM; y++) {
    all++;
    if (Math.min(page.at(x - 1, y), page.at(x, y), page.at(x + 1, y)) < 170) dark++;
  }
  return dark / all;
}

/** Upright lines between two heights: centres in mm. */
function uprightLines(page: Grey, fromMm: number, toMm: number): number[] {
  const found: number[] = [];
  let run: number[] = [];
  for (let px = 2; px < page.width - 2; px++) {
    const dark = darkShare(page, px / PER_MM, fromMm, toMm) > 0.4;
    if (dark) run.push(px);
    else if (run.length > 0) {
      found.push((run[0]! + run.at(-1)! + 1) / 2 / PER_MM);
      run = [];
    }
  }
  return found;
}

async function file(page: Page, button: string): Promise<string> {
  const [download] = (await Promise.all([
    page.waitForEvent('download'),
    // An icon's glyph stands before the words.
    page.getByRole('button', { name: new RegExp(`${button}$`) }).click(),
  ])) as [Download, void];
  return download.path();
}

/** All files of an archive, one after the other. */
const fromArchive = (path: string): string =>
  Object.values(unzipSync(readFileSync(path)))
    .map((bytes) => new TextDecoder().decode(bytes))
    .join('');

test('templates are true to size on paper, and tiles fit together', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await page.getByRole('button', { name: 'Print and files' }).click();
  await expectAccessible(page);
  const pdf = await file(page, 'True-size templates');
  const fonts = execFileSync('pdffonts', [pdf]).toString().split('\n').slice(2).filter(Boolean);
  expect(fonts.length).toBeGreaterThan(0);
  for (const font of fonts) expect(font).toMatch(/ yes (yes|no)\s+(yes|no)/);

  const [one, two] = [rendered(pdf, 1), rendered(pdf, 2)];
  expect(one.width / PER_MM).toBeCloseTo(210, 0);
  // Check bars stand 20 mm above the lower edge of an A4 page: 50 mm and 2 in long.
  const bars = longRuns(one, 276.5, 277.6, 40);
  expect(bars).toHaveLength(2);
  expect(Math.abs(bars[0]![1] - bars[0]![0] - 50)).toBeLessThan(0.5);
  const [barLeft, barRight] = uprightLines(one, 277.4, 278.6).slice(0, 2);
  expect(Math.abs(barRight! - barLeft! - 50)).toBeLessThan(0.2);

  // The card is 302 × 150 mm: two columns. First tile begins at the left margin of 10 mm; the piece lies
  // at the bottom of the room, 34 to 184 mm above the lower edge, so its scores run from 113 to 263 mm down.
  const lines = uprightLines(one, 140, 240);
  for (const score of [75, 150, 152]) {
    const nearest = Math.min(...lines.map((x) => Math.abs(x - (10 + score))));
    expect(nearest).toBeLessThan(0.3);
  }
  // The second tile is the first moved by its step of 180 mm: outline's right edge at 302 mm, stop line at 227 mm.
  const second = uprightLines(two, 140, 240);
  expect(Math.min(...second.map((x) => Math.abs(x - (10 + 302 - 180))))).toBeLessThan(0.3);
  // A cross in the overlap is on both tiles at the same place of the piece (185 mm from its left edge).
  const crossRow = 297 - 34 - 75;
  const crossOn = (tile: Grey, shift: number): number => {
    const runs = longRuns(tile, crossRow - 0.4, crossRow + 0.4, 6).map(([a, b]) => (a + b) / 2 - shift);
    return runs.reduce((best, x) => (Math.abs(x - 185) < Math.abs(best - 185) ? x : best), Infinity);
  };
  const [here, there] = [crossOn(one, 10), crossOn(two, 10 - 180)];
  expect(Math.abs(here - 185)).toBeLessThan(0.3);
  expect(Math.abs(here - there)).toBeLessThan(0.3);
});

test('the one page of a card that wears nothing is one page, with every measure and step', async ({ page }) => {
  await openDemo(page, 'Chanterelle');
  const wears = page.locator('dip-dressing-panel');
  await wears.getByText('What it wears').click();
  await wears.getByRole('button', { name: 'Take all layers off' }).click();
  for (const worn of [/^T1 /, /^R1 /]) {
    await wears.getByRole('button', { name: worn }).click();
    await wears.getByRole('button', { name: 'Take it away' }).click();
  }
  await expect(wears.getByText('nothing yet')).toBeVisible();
  await page.getByRole('button', { name: 'Print and files' }).click();
  await page.locator('#paper').locator('..').click();
  await page.getByRole('option', { name: 'US Letter' }).click();
  const pdf = await file(page, 'One page with everything');
  const info = execFileSync('pdfinfo', [pdf]).toString();
  expect(info).toMatch(/Pages:\s+1\b/);
  expect(info).toContain('612 x 792');
  const text = execFileSync('pdftotext', ['-layout', pdf, '-']).toString();
  for (const words of [
    'Chanterelle birthday card',
    'Judged and found to work',
    'Have ready',
    'Measures',
    'Main fold at',
    'Steps',
    'Into the envelope',
    'fingers',
  ])
    expect(text).toContain(words);
});

test('DXF, perforated SVG and measures come as files', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await page.getByRole('button', { name: 'Print and files' }).click();
  expect(fromArchive(await file(page, 'DXF'))).toContain('base-score-valley');
  expect(readFileSync(await file(page, 'Measures, decimal comma'), 'utf8')).toContain('Top of the display;129,904;mm');
  await page.locator('#folds').locator('..').click();
  await page.getByRole('option', { name: /perforations/ }).click();
  expect(fromArchive(await file(page, 'SVG'))).toContain('id="base-perforation"');
});

test('a card is made step by step; what is ticked survives a reload', async ({ page }) => {
  await openDemo(page, 'Thank-you easel');
  await page.getByRole('link', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { name: 'Put everything on the table' })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'Trim: Card' })).toBeVisible();
  await expect(page.getByText(/away from your fingers/)).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'Score: Card' })).toBeVisible();
  await expect(page.getByText('at 15 cm; valley')).toBeVisible();
  await expectAccessible(page);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Score: Card' })).toBeVisible();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('button', { name: 'Not done after all' })).toBeVisible();
  await page.getByRole('button', { name: /Glue: stop on the base/ }).click();
  await page.getByRole('button', { name: /start 5 minutes/ }).click();
  await expect(page.getByRole('timer')).toContainText(/4:5\d left|5:00 left/);
});

test('making works on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 800 });
  await openDemo(page, 'Chanterelle');
  await page.goto('/card/chanterelle-birthday/make');
  await page.getByRole('button', { name: 'Done, next' }).click();
  await expect(page.getByRole('heading', { name: 'Trim: Card' })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await expectAccessible(page);
});
