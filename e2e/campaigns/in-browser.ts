import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { application } from '../../server/dist/application.js';
import { RealBrowser } from './browser.js';

/** The page as it was built. */
export const BUILT = fileURLToPath(new URL('../../web/dist/browser', import.meta.url));

/** Where a browser keeps what it keeps, until the trial is over. */
export const newProfile = (): string => mkdtempSync(join(tmpdir(), 'diptychon-profile-'));
export const removeProfile = (profile: string): void => rmSync(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });

/** Serves the page, opens it in a browser of its own, and clears everything away afterwards, however the work ends. */
export async function inBrowser(work: (page: Page, address: string) => Promise<void>): Promise<void> {
  const profile = newProfile();
  const server = application(BUILT).listen(0, '127.0.0.1');
  const browser = await RealBrowser.open(profile);
  try {
    await work(await browser.context.newPage(), `http://127.0.0.1:${(server.address() as AddressInfo).port}`);
  } finally {
    await browser.kill().catch(() => undefined);
    server.closeAllConnections();
    server.close();
    removeProfile(profile);
  }
}
