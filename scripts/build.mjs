// Builds what is stale: core, then the command line, the server and the web page that stand on it.
import { createHash } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from './root.mjs';

const ROOMS = [
  {
    name: 'core',
    sources: ['core/src', 'core/package.json', 'core/tsconfig.build.json', 'tsconfig.base.json', 'package-lock.json'],
    made: 'core/dist/index.js',
  },
  { name: 'cli', sources: ['cli/src', 'cli/tsconfig.build.json'], above: ['core'], made: 'cli/dist/run.js' },
  {
    name: 'server',
    sources: ['server/src', 'server/tsconfig.build.json', 'tsconfig.base.json', 'package-lock.json'],
    above: ['core'],
    made: 'server/dist/serve.js',
  },
  {
    name: 'web',
    sources: [
      'web/src',
      'web/public',
      'web/angular.json',
      'web/ngsw-config.json',
      'web/compress.mjs',
      'web/unhash-index.mjs',
      'web/write-sample-pictures.mjs',
      'package-lock.json',
      'web/tsconfig.json',
      'web/tsconfig.app.json',
    ],
    above: ['core'],
    made: 'web/dist/browser/index.html',
  },
];

function filesIn(path) {
  const full = join(root, path);
  if (!existsSync(full)) return [];
  try {
    return readdirSync(full, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile() && !entry.name.includes('.test.') && !entry.name.includes('.spec.'))
      .map((entry) => join(entry.parentPath ?? entry.path, entry.name))
      .sort();
  } catch {
    return [full];
  }
}

function fingerprint(room, of) {
  const hash = createHash('sha256');
  for (const source of room.sources) for (const file of filesIn(source)) hash.update(file).update(readFileSync(file));
  for (const below of room.above ?? []) hash.update(of[below]);
  return hash.digest('hex');
}

/** Builds every stale room. @returns whether all of it worked */
export function build() {
  mkdirSync(join(root, '.build'), { recursive: true });
  const of = {};
  for (const room of ROOMS) {
    const stamp = join(root, '.build', room.name);
    of[room.name] = fingerprint(room, of);
    const fresh = existsSync(stamp) && readFileSync(stamp, 'utf8') === of[room.name] && existsSync(join(root, room.made));
    if (fresh) continue;
    console.log(`Building ${room.name}…`);
    const { status } = spawnSync('npm', ['run', '--silent', 'build', '--workspace', room.name], { cwd: root, stdio: 'inherit' });
    if (status !== 0) return false;
    writeFileSync(stamp, of[room.name]);
  }
  return true;
}

if (import.meta.url === pathToFileURL(process.argv[1]).href && !build()) process.exit(1);
