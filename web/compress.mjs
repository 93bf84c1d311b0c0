// Writes each text file of the page compressed beside itself, as small as it gets: the server then only has to send it.
import { readdirSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress } from 'node:zlib';

/** The page itself is not among them: it is different each time it is served. */
const TEXT = /\.(?:js|css|json|svg|webmanifest)$/;
const folder = fileURLToPath(new URL('dist/browser/', import.meta.url));
const compressed = promisify(brotliCompress);

const files = readdirSync(folder, { recursive: true }).filter((name) => TEXT.test(name));
await Promise.all(
  files.map(async (name) => {
    const path = join(folder, name);
    await writeFile(`${path}.br`, await compressed(await readFile(path)));
  }),
);
