// Installs dependencies when the lock file changed since they were last installed. Uses Node alone.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root } from './root.mjs';

const stamp = join(root, 'node_modules', '.installed-from');
const lock = createHash('sha256')
  .update(readFileSync(join(root, 'package-lock.json')))
  .digest('hex');

if (!existsSync(stamp) || readFileSync(stamp, 'utf8') !== lock) {
  console.log('Installing dependencies…');
  // Not `npm ci`: it refuses a lock file whose optional packages for other systems a registry left out.
  const { status } = spawnSync('npm', ['install', '--no-save', '--no-audit', '--no-fund'], { cwd: root, stdio: 'inherit' });
  if (status !== 0) {
    console.error('npm install did not finish; see above.');
    process.exit(status ?? 1);
  }
  writeFileSync(stamp, lock);
}
