// The page is different each time it is served: it carries the nonce of its answer. The service worker may keep it, but
// cannot hold it against a hash of the built file.
import { readFileSync, writeFileSync } from 'node:fs';

const file = new URL('dist/browser/ngsw.json', import.meta.url);
const manifest = JSON.parse(readFileSync(file, 'utf8'));
if (!(manifest.index in manifest.hashTable)) throw new Error(`${manifest.index} is not in the table of hashes`);
delete manifest.hashTable[manifest.index];
writeFileSync(file, JSON.stringify(manifest, null, 2));
