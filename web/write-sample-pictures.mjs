// Draws the sample cards once, while the page is built: a first shelf has its pictures without any calculation.
import { mkdirSync, writeFileSync } from 'node:fs';
import { samplePictures } from '@diptychon/core';

const folder = new URL('made/', import.meta.url);
mkdirSync(folder, { recursive: true });
writeFileSync(new URL('sample-pictures.json', folder), JSON.stringify(samplePictures()));
