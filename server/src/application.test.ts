import { mkdtempSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { get, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { application } from './application.js';

let server: Server;
let address: string;

beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'diptychon-page-'));
  writeFileSync(join(folder, 'index.html'), '<dip-root ngCspNonce="NONCE_OF_THIS_REQUEST"></dip-root>');
  writeFileSync(join(folder, 'main-ABCD1234.js'), 'export {};');
  writeFileSync(join(folder, 'main-ABCD1234.js.br'), brotliCompressSync('export {};'));
  writeFileSync(join(folder, 'favicon.svg'), '<svg xmlns="http://www.w3.org/2000/svg"/>');
  await new Promise<void>((ready) => {
    server = application(folder).listen(0, '127.0.0.1', () => ready());
  });
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});

afterAll(() => new Promise((done) => server.close(done)));

describe('the page server', () => {
  it('gives each page its own nonce, the same in policy and page', async () => {
    const nonces = await Promise.all(
      ['/', '/card/some-card', '/index.html'].map(async (path) => {
        const answer = await fetch(address + path);
        const nonce = /ngCspNonce="([^"]+)"/.exec(await answer.text())![1]!;
        expect(answer.headers.get('content-security-policy')).toContain(`'nonce-${nonce}'`);
        return nonce;
      }),
    );
    expect(new Set(nonces).size).toBe(3);
  });

  it('allows no inline script, no eval and no other origin', async () => {
    const policy = (await fetch(address)).headers.get('content-security-policy')!;
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain("script-src 'self';");
    expect(policy).not.toContain('unsafe');
    expect(policy).not.toContain('http');
  });

  it('lets hashed files be kept and the page not', async () => {
    expect((await fetch(`${address}/main-ABCD1234.js`)).headers.get('cache-control')).toContain('immutable');
    expect((await fetch(address)).headers.get('cache-control')).toBe('no-store');
    expect((await fetch(`${address}/favicon.svg`)).headers.get('cache-control')).toBe('no-cache');
  });

  it('sends what the build compressed, to who can read it', async () => {
    const asked = (encoding: string) => fetch(`${address}/main-ABCD1234.js`, { headers: { 'accept-encoding': encoding } });
    for (const [encoding, sent] of [
      ['gzip, br', 'br'],
      ['identity', null],
    ] as const) {
      const answer = await asked(encoding);
      expect(answer.headers.get('content-encoding')).toBe(sent);
      expect(answer.headers.get('content-type')).toMatch(/^text\/javascript/);
      expect(answer.headers.get('cache-control')).toContain('immutable');
      expect(answer.headers.get('vary')).toContain('Accept-Encoding');
      expect(await answer.text()).toBe('export {};');
    }
  });

  it('does not pretend that a missing file is a page', async () => {
    const answer = await fetch(`${address}/missing.js`);
    expect([answer.status, await answer.json()]).toEqual([404, { error: 'There is nothing here.' }]);
  });

  it('refuses a body that is too large', async () => {
    const answer = await fetch(`${address}/x`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify('x'.repeat(100_000)),
    });
    expect(answer.status).toBe(413);
  });

  it.each([
    ['that is no JSON', '{"a":', 400],
    ['that is too large', JSON.stringify('x'.repeat(100_000)), 413],
  ])('answers a body %s in JSON, without a word of this machine', async (_, body, status) => {
    const answer = await fetch(`${address}/x`, { method: 'POST', headers: { 'content-type': 'application/json' }, body });
    const said = await answer.text();
    expect(answer.status).toBe(status);
    expect(Object.keys(JSON.parse(said) as object)).toEqual(['error']);
    expect(said).not.toMatch(/[/\\]|node_modules/);
  });

  it('lets the page ask for no ability that it does not need', async () => {
    const policy = (await fetch(address)).headers.get('permissions-policy')!;
    expect(policy).toContain('camera=()');
    expect(policy).toContain('geolocation=()');
  });

  it('answers only to names of this machine', async () => {
    const asked = (host: string): Promise<number> =>
      new Promise((done, failed) => {
        get(address, { headers: { host } }, (answer) => (answer.resume(), done(answer.statusCode!))).on('error', failed);
      });
    const port = new URL(address).port;
    expect(await Promise.all(['localhost', `localhost:${port}`, '127.0.0.1', '[::1]:80'].map(asked))).toEqual([200, 200, 200, 200]);
    expect(await Promise.all(['cards.example', 'localhost.example', '127.0.0.1.example'].map(asked))).toEqual([421, 421, 421]);
  });
});
