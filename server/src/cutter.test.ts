import { mkdtempSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { application } from './application.js';
import { NoSuchPlot, NotTaken, type Cutter, type CutterProgress } from '@diptychon/core';
import { cutterHere } from './cutter.js';

/** A square of 100 mm cut at 50 mm/s: 2 s and a little. */
const SQUARE =
  '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="120mm" viewBox="0 0 120 120"><g class="score"><path d="M 60 10 V 110"/></g><g class="cut"><rect x="10" y="10" width="100" height="100"/></g></svg>';

describe('a cutter that stands in for a real one', () => {
  let time = 0;
  const machine = (): Cutter => cutterHere(1, () => time);

  it('takes as long as its way, and is done then', () => {
    const cutter = machine();
    const { id, of, state } = cutter.take(SQUARE);
    expect(state).toBe('plotting');
    expect(of).toBeGreaterThan(400 / 50);
    time += 1000 * (of / 2);
    expect(cutter.progress(id).done).toBeCloseTo(0.5, 9);
    time += 1000 * of;
    expect(cutter.progress(id)).toMatchObject({ state: 'done', done: 1 });
    expect(cutter.report(id).piecesFree).toBe(1);
  });

  it('stands still while it is held, and goes on from there, whenever that is', () => {
    // Stopped and gone on with at odd moments: only the time that it moved counts.
    const cutter = machine();
    const { id, of } = cutter.take(SQUARE);
    let moved = 0;
    let before = 0;
    for (const [run, rest] of [
      [0.3, 5],
      [0.01, 0],
      [1.7, 100],
      [0, 3],
      [2.2, 0.5],
    ] as const) {
      time += 1000 * run;
      moved += run;
      cutter.pause(id);
      time += 1000 * rest;
      const now = cutter.progress(id);
      expect(now).toMatchObject({ state: 'paused', tool: null });
      expect(now.seconds).toBeCloseTo(moved, 6);
      expect(now.done).toBeGreaterThanOrEqual(before);
      before = now.done;
      cutter.resume(id);
    }
    time += 1000 * of;
    expect(cutter.progress(id).state).toBe('done');
  });

  it('shows what has been cut so far, and at last all of it', () => {
    const cutter = machine();
    const { id, of } = cutter.take(SQUARE);
    const drawn = (): number => [...cutter.picture(id).matchAll(/<path/g)].length;
    expect(drawn()).toBe(0);
    time += 1000 * of;
    expect(cutter.progress(id).state).toBe('done');
    expect(drawn()).toBe(2);
    expect(cutter.picture(id)).toContain('L110 110L10 110L10 10');
  });

  it('follows one drawing after the other, and lets go of one that is cancelled', () => {
    const cutter = machine();
    const [first, second] = [cutter.take(SQUARE), cutter.take(SQUARE)];
    expect(second.state).toBe('waiting');
    cutter.pause(first.id);
    expect(cutter.progress(second.id).state).toBe('plotting');
    cutter.cancel(second.id);
    expect(cutter.progress(second.id).state).toBe('cancelled');
    expect(() => cutter.resume(second.id)).toThrow(NoSuchPlot);
    cutter.resume(first.id);
    time += 60_000;
    expect(cutter.progress(first.id).state).toBe('done');
  });

  it('refuses what it cannot follow, and more than it can hold', () => {
    const cutter = machine();
    expect(() => cutter.take('<svg/>')).toThrow(NotTaken);
    for (let i = 0; i < 16; i++) cutter.take(SQUARE);
    expect(() => cutter.take(SQUARE)).toThrow(/16 drawings/);
    expect(() => cutter.progress('nobody')).toThrow(NoSuchPlot);
    time += 600_000;
    cutter.progress(cutter.take(SQUARE).id);
  });
});

describe('the cutter over HTTP', () => {
  let server: Server;
  let address: string;
  const send = (body: string, type = 'image/svg+xml'): Promise<Response> =>
    fetch(`${address}/jobs`, { method: 'POST', headers: { 'content-type': type }, body });
  const turn = (id: string, what: string): Promise<Response> =>
    fetch(`${address}/jobs/${id}/${what}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' });

  beforeAll(async () => {
    const folder = mkdtempSync(join(tmpdir(), 'diptychon-cutter-'));
    writeFileSync(join(folder, 'index.html'), 'page');
    await new Promise<void>((ready) => {
      server = application(folder, cutterHere(20)).listen(0, '127.0.0.1', () => ready());
    });
    address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/cutter`;
  });
  afterAll(() => new Promise((done) => (server.closeAllConnections(), server.close(done))));

  it('takes a drawing, tells how far it is until it is done, and gives back picture and report', async () => {
    const { id } = (await (await send(SQUARE)).json()) as CutterProgress;
    const events = await (await fetch(`${address}/jobs/${id}/events`)).text();
    const told = [...events.matchAll(/^data: (.*)$/gm)].map(([, data]) => JSON.parse(data!) as CutterProgress);
    const shares = told.map(({ done }) => done);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(told.at(-1)).toMatchObject({ id, state: 'done', done: 1 });
    expect(((await (await fetch(`${address}/jobs/${id}/report`)).json()) as { piecesFree: number }).piecesFree).toBe(1);
    const picture = await fetch(`${address}/jobs/${id}/picture.svg`);
    expect(picture.headers.get('content-type')).toMatch(/^image\/svg\+xml/);
    expect(await picture.text()).toContain('width="120mm"');
    // Who comes back later hears the end at once.
    expect(await (await fetch(`${address}/jobs/${id}/events`)).text()).toContain('"done"');
  });

  it('is held, gone on with and called off', async () => {
    const { id } = (await (await send(SQUARE)).json()) as CutterProgress;
    expect(await (await turn(id, 'pause')).json()).toMatchObject({ state: 'paused' });
    expect(await (await turn(id, 'resume')).json()).toMatchObject({ state: 'plotting' });
    expect(await (await turn(id, 'cancel')).json()).toMatchObject({ state: 'cancelled' });
    const again = await turn(id, 'pause');
    expect([again.status, await again.json()]).toEqual([409, { error: 'This drawing is cancelled: that cannot be done with it now.' }]);
  });

  it.each([
    ['no drawing', '<html></html>', 'image/svg+xml', 422, /is not an SVG drawing/],
    ['another kind', SQUARE, 'text/plain', 415, /image\/svg\+xml/],
    ['nothing', '', 'image/svg+xml', 415, /image\/svg\+xml/],
    ['too much', `<svg>${'x'.repeat(1_200_000)}</svg>`, 'image/svg+xml', 413, /too large/],
  ] as const)('refuses %s in words', async (_, body, type, status, says) => {
    const answer = await send(body, type);
    expect(answer.status).toBe(status);
    expect(((await answer.json()) as { error: string }).error).toMatch(says);
  });

  it('takes 200 hostile and broken jobs without harm: each is answered in words, and the next good one is cut', async () => {
    let state = 7;
    const next = (): number => (state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0) / 2 ** 32;
    const some = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
    const VALUES = ['NaN', '-1', '1e308', '1e-308', '9'.repeat(400), '', 'M', '∞', '0', '"', '<', '100000', 'url(http://127.0.0.1/)'];
    const WHOLE: readonly (() => string)[] = [
      () => SQUARE.slice(0, Math.floor(next() * SQUARE.length)),
      () => SQUARE.replace('<svg', '<!DOCTYPE svg [<!ENTITY a "b"><!ENTITY c "&a;&a;&a;&a;">]><svg').replace('60 10', '&c;'),
      () => `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="120mm">${'<g class="cut">'.repeat(5000)}`,
      () => SQUARE.replace('</svg>', '<script>alert(1)</script><image href="http://127.0.0.1/x"/></svg>'),
      () => SQUARE.replace('M 60 10 V 110', `M 0 0 ${'L 100000 100000 '.repeat(2000)}`),
      () => SQUARE.replace('M 60 10 V 110', `M ${Array.from({ length: 3000 }, () => (next() * 120).toFixed(2)).join(' ')}`),
      () => String.fromCharCode(...Array.from({ length: 200 }, () => Math.floor(next() * 60_000))),
      () => SQUARE.replace('class="cut"', `transform="${some(['rotate(', 'matrix(0 0 0 0 0 0)', 'scale(1e9)', 'skewX(90)'])}" class="cut"`),
      () => SQUARE.replaceAll('mm', some(['em', '%', 'px', 'parsec'])),
      () => '{"svg": true}',
    ];
    const mangled = (): string => {
      const at = [...SQUARE.matchAll(/[\d.]+|[MV]/g)];
      const { index, 0: found } = some(at);
      return SQUARE.slice(0, index) + some(VALUES) + SQUARE.slice(index! + found.length);
    };
    const counted: Record<number, number> = {};
    for (let i = 0; i < 200; i++) {
      const answer = await send(i % 2 ? mangled() : some(WHOLE)());
      counted[answer.status] = (counted[answer.status] ?? 0) + 1;
      const told = (await answer.json()) as { error?: string; id?: string; of?: number };
      if (answer.status === 201) {
        expect(told.of).toBeGreaterThanOrEqual(0);
        expect(Number.isFinite(told.of)).toBe(true);
        await turn(told.id!, 'cancel');
      } else {
        expect([413, 415, 422]).toContain(answer.status);
        expect(told.error).toMatch(/^[A-Z“].{8,}[.!]$/s);
        expect(told.error!.length).toBeLessThan(400);
      }
    }
    expect(counted[422]).toBeGreaterThan(100);
    const { id } = (await (await send(SQUARE)).json()) as CutterProgress;
    expect(await (await fetch(`${address}/jobs/${id}/events`)).text()).toContain('"done"');
  }, 60_000);

  it('knows nothing of what it never had, and takes no word of another kind', async () => {
    for (const path of ['', '/report', '/picture.svg', '/events']) expect((await fetch(`${address}/jobs/none${path}`)).status).toBe(409);
    expect(
      (await fetch(`${address}/jobs/none/cancel`, { method: 'POST', headers: { 'content-type': 'text/plain' }, body: '' })).status,
    ).toBe(415);
  });
});
