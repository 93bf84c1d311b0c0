// Draws the sample cards once, while the page is built: a first shelf has its pictures without any calculation.
import { mkdirSync, writeFileSync } from 'node:fs';
import { samplePictures } from '@diptychon/core';

const folder = new URL('made/', import.meta.url);
mkdirSync(folder, { recursive: true });

// The shelf only paints: of which panel a facet is, which face it shows and what it wears are left out.
const UNPAINTED = new Set(['panel', 'face', 'worn']);
const hex = (...parts) => `#${parts.map((part) => Number(part).toString(16).padStart(2, '0')).join('')}`;
const painted = JSON.stringify(samplePictures(), (key, value) => (UNPAINTED.has(key) ? undefined : value));
// Half a unit is half a dot on the shelf, and a corner is off by half of that at most: finer decimals say nothing there.
const coarse = (path) => path.replace(/-?\d+\.\d+/g, (number) => String(Math.round(Number(number) * 2) / 2));
const short = painted
  .replace(/"path":"([^"]*)"/g, (_, path) => `"path":"${coarse(path)}"`)
  // Colours in the shorter of two ways.
  .replace(/rgb\((\d+) (\d+) (\d+)\)/g, (_, ...parts) => hex(...parts.slice(0, 3)));
writeFileSync(new URL('sample-pictures.json', folder), short);
