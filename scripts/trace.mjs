// How soon the page answers a hand, in a real browser that draws without a graphics card: `npm run trace [-- --count N]`.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { ensureChromium } from './ensure-chromium.mjs';
import { root } from './root.mjs';

if (!build()) process.exit(1);
const { status } = spawnSync('npx', ['tsx', 'traces/run.ts', ...process.argv.slice(2)], {
  cwd: join(root, 'e2e'),
  stdio: 'inherit',
  env: { ...process.env, CHROMIUM: ensureChromium() ?? '' },
});
process.exit(status ?? 1);
