/** Writes docs/mechanisms from the catalogue. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { handbookIndex, handbookPage } from '../src/format/handbook.js';
import { CATALOGUE } from '../src/mechanism/catalogue.js';

const folder = new URL('../../docs/mechanisms/', import.meta.url);
mkdirSync(folder, { recursive: true });
for (const mechanism of CATALOGUE) {
  const { id, markdown, drawing } = handbookPage(mechanism);
  writeFileSync(new URL(`${id}.md`, folder), markdown);
  writeFileSync(new URL(`${id}.svg`, folder), drawing);
}
writeFileSync(new URL('README.md', folder), handbookIndex(CATALOGUE));
console.log(`wrote ${CATALOGUE.length} pages to docs/mechanisms`);
