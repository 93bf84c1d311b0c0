// Long trials: `npm run campaign -- NAME [--seed S] [--count N]`. Those in a browser are the journeys' room's, all others the core's.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { ensureChromium } from './ensure-chromium.mjs';
import { root } from './root.mjs';

const IN_BROWSER = ['builds', 'cycles', 'files-in-page', 'soak'];
const [name, ...rest] = process.argv.slice(2);
const inBrowser = IN_BROWSER.includes(name);
const env = { ...process.env };
if (inBrowser) {
  if (!build()) process.exit(1);
  env.CHROMIUM = ensureChromium() ?? '';
}
const { status } = spawnSync('npx', ['tsx', 'campaigns/run.ts', name, ...rest].filter(Boolean), {
  cwd: join(root, inBrowser ? 'e2e' : 'core'),
  stdio: 'inherit',
  env,
});
process.exit(status ?? 1);
