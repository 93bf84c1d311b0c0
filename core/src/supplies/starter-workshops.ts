import { inchDenominator, type Mm, type Notation } from '../measure/units.js';
import type { Board } from './boards.js';
import type { Envelope } from './envelopes.js';
import type { SheetSize } from './sheets.js';
import type { Stock } from './stocks.js';
import type { Workshop } from './workshop.js';

const inches = (n: number): Mm => n * 25.4;

const STOCKS: readonly Stock[] = [
  { id: 'text-100', name: 'Text paper, 100 g', kind: 'paper', caliper: 0.12, weight: 100, stiffness: 4500, grain: 'long', goodSides: 2 },
  {
    id: 'patterned-120',
    name: 'Patterned paper, 120 g',
    kind: 'paper',
    caliper: 0.16,
    weight: 120,
    stiffness: 3500,
    grain: 'long',
    goodSides: 1,
  },
  {
    id: 'light-card-160',
    name: 'Light card, 160 g',
    kind: 'card',
    caliper: 0.2,
    weight: 160,
    stiffness: 4000,
    grain: 'long',
    goodSides: 2,
  },
  {
    id: 'moss-100',
    name: 'Moss paper, 100 g',
    kind: 'paper',
    caliper: 0.12,
    weight: 100,
    stiffness: 4500,
    grain: 'long',
    goodSides: 2,
    shade: 'moss',
  },
  {
    id: 'chanterelle-100',
    name: 'Chanterelle paper, 100 g',
    kind: 'paper',
    caliper: 0.12,
    weight: 100,
    stiffness: 4500,
    grain: 'long',
    goodSides: 2,
    shade: 'chanterelle',
  },
  {
    id: 'bark-card-220',
    name: 'Bark card, 220 g',
    kind: 'card',
    caliper: 0.28,
    weight: 220,
    stiffness: 4000,
    grain: 'long',
    goodSides: 2,
    shade: 'bark',
  },
  {
    id: 'night-card-220',
    name: 'Night card, 220 g',
    kind: 'card',
    caliper: 0.28,
    weight: 220,
    stiffness: 4000,
    grain: 'long',
    goodSides: 2,
    shade: 'night',
  },
  { id: 'card-216', name: 'Card, 216 g', kind: 'card', caliper: 0.27, weight: 216, stiffness: 4000, grain: 'long', goodSides: 2 },
  { id: 'card-250', name: 'Card, 250 g', kind: 'card', caliper: 0.31, weight: 250, stiffness: 4000, grain: 'long', goodSides: 2 },
  {
    id: 'heavy-card-300',
    name: 'Heavy card, 300 g',
    kind: 'card',
    caliper: 0.38,
    weight: 300,
    stiffness: 4200,
    grain: 'long',
    goodSides: 2,
  },
  { id: 'board-400', name: 'Thin board, 400 g', kind: 'card', caliper: 0.55, weight: 400, stiffness: 3200, grain: 'long', goodSides: 2 },
  { id: 'film-125', name: 'Clear film, 0.125 mm', kind: 'film', caliper: 0.125, weight: 175, stiffness: 3500 },
  { id: 'film-190', name: 'Clear film, 0.19 mm', kind: 'film', caliper: 0.19, weight: 265, stiffness: 3500 },
  { id: 'film-250', name: 'Clear film, 0.25 mm', kind: 'film', caliper: 0.25, weight: 350, stiffness: 3500 },
  // Sold by height: caliper and weight are those of one mm.
  { id: 'foam', name: 'Foam, or layers of card', kind: 'foam', caliper: 1, weight: 120, stiffness: 1, heights: [1, 2, 3] },
];

const RULE: Board = { id: 'rule', name: 'No board: pencil, rule and bone folder', pitch: 0.5, length: 1000, free: true, notation: 'mm' };

const INCH_BOARDS: readonly Board[] = [
  { id: 'eighths-12', name: 'Grooves every 1/8 in, 12 in long', pitch: 3.175, length: 304.8, notation: 'inch/8' },
  { id: 'sixteenths-12', name: 'Grooves every 1/16 in, 12 in long', pitch: 1.5875, length: 304.8, notation: 'inch/16' },
];
const METRIC_BOARDS: readonly Board[] = [
  { id: 'five-mm-300', name: 'Grooves every 5 mm, 30 cm long', pitch: 5, length: 300, notation: 'cm' },
  { id: 'half-cm-210', name: 'Grooves every 5 mm, 21 cm long', pitch: 5, length: 210, notation: 'cm' },
];

const INCH_ENVELOPES: readonly Envelope[] = [
  { id: 'a2', name: 'A2, 5 3/4 × 4 3/8 in', long: 146.05, short: 111.125, region: 'inch' },
  { id: 'a6', name: 'A6, 6 1/2 × 4 3/4 in', long: 165.1, short: 120.65, region: 'inch' },
  { id: 'a7', name: 'A7, 7 1/4 × 5 1/4 in', long: 184.15, short: 133.35, region: 'inch' },
  { id: 'square-6', name: 'Square, 6 in', long: 152.4, short: 152.4, region: 'inch' },
];
const METRIC_ENVELOPES: readonly Envelope[] = [
  { id: 'c7', name: 'C7, 114 × 81 mm', long: 114, short: 81, region: 'metric' },
  { id: 'c6', name: 'C6, 162 × 114 mm', long: 162, short: 114, region: 'metric' },
  { id: 'dl', name: 'DL, 220 × 110 mm', long: 220, short: 110, region: 'metric' },
  { id: 'square-155', name: 'Square, 155 mm', long: 155, short: 155, region: 'metric' },
  { id: 'square-165', name: 'Square, 165 mm', long: 165, short: 165, region: 'metric' },
  { id: 'c5', name: 'C5, 229 × 162 mm', long: 229, short: 162, region: 'metric' },
  { id: 'c4', name: 'C4, 324 × 229 mm', long: 324, short: 229, region: 'metric' },
];

const INCH_SHEETS: readonly SheetSize[] = [
  { id: 'letter', name: 'US Letter', width: 215.9, height: 279.4 },
  { id: 'square-12', name: '12 × 12 in', width: 304.8, height: 304.8 },
];
const METRIC_SHEETS: readonly SheetSize[] = [
  { id: 'a4', name: 'A4', width: 210, height: 297 },
  { id: 'a3', name: 'A3', width: 297, height: 420 },
  { id: 'cm-30', name: '30 × 30 cm', width: 300, height: 300 },
];

const SHARED: Pick<Workshop, 'format' | 'version' | 'stocks' | 'adhesives' | 'knives' | 'schools' | 'hand'> = {
  format: 'diptychon-workshop',
  version: 1,
  stocks: STOCKS,
  adhesives: [
    { id: 'strong-tape', name: 'Strong double-sided tape', grip: 'strong', setMinutes: 0 },
    { id: 'tacky-glue', name: 'Fast tacky glue', grip: 'strong', setMinutes: 5 },
    { id: 'liquid-glue', name: 'Liquid glue', grip: 'slidable', setMinutes: 20 },
    { id: 'removable', name: 'Removable adhesive', grip: 'removable', setMinutes: 0 },
    { id: 'film-tape', name: 'Strong tape for film', grip: 'film', setMinutes: 0 },
  ],
  knives: [{ id: 'knife', name: 'Craft knife and steel rule', error: 0.25 }],
  schools: { scoring: 'one-face', cutting: 'trimmer' },
  hand: { score: 0.3, cut: 0.25, glue: 0.4 },
};

const USUAL_STOCKS = { base: 'card-250', mechanism: 'light-card-160', display: 'card-250', film: 'film-190', stop: 'foam' };

/** What a maker who measures in millimetres and centimetres usually has. */
export const METRIC_WORKSHOP: Workshop = {
  ...SHARED,
  notation: 'mm',
  region: 'metric',
  boards: [...METRIC_BOARDS, RULE],
  magnets: [{ id: 'disc-10', name: 'Thin disc, 10 mm', diameter: 10, thickness: 0.6 }],
  trimmers: [{ id: 'trimmer', name: 'Sliding-blade trimmer, 30 cm', length: 300, guides: 'left', error: 0.3 }],
  cutters: [{ id: 'cutter', name: 'Electronic cutter, 30 × 30 cm', width: 300, height: 300, kerf: 0.2, folds: 'score', smallestRadius: 1 }],
  dies: [
    {
      id: 'nested-circles',
      name: 'Nested circles',
      outline: 'circle',
      sizes: [
        { cut: 90, opening: 92 },
        { cut: 75, opening: 77 },
        { cut: 60, opening: 62 },
        { cut: 45, opening: 47 },
      ],
    },
  ],
  envelopes: METRIC_ENVELOPES,
  sheets: METRIC_SHEETS,
  usual: { board: 'rule', stocks: USUAL_STOCKS },
  habits: { border: 3, layerStep: 3, clearance: 2, tabWidth: 12 },
};

/** What a maker who measures in inches usually has. */
export const INCH_WORKSHOP: Workshop = {
  ...SHARED,
  notation: 'inch/16',
  region: 'inch',
  boards: [...INCH_BOARDS, RULE],
  magnets: [{ id: 'disc-3-8', name: 'Thin disc, 3/8 in', diameter: inches(3 / 8), thickness: 0.6 }],
  trimmers: [{ id: 'trimmer', name: 'Sliding-blade trimmer, 12 in', length: inches(12), guides: 'left', error: 0.3 }],
  cutters: [
    {
      id: 'cutter',
      name: 'Electronic cutter, 12 × 12 in',
      width: inches(12),
      height: inches(12),
      kerf: 0.2,
      folds: 'score',
      smallestRadius: 1,
    },
  ],
  dies: [
    {
      id: 'nested-circles',
      name: 'Nested circles',
      outline: 'circle',
      sizes: [3.5, 3, 2.5, 2].map((cut) => ({ cut: inches(cut), opening: inches(cut + 1 / 16) })),
    },
  ],
  envelopes: INCH_ENVELOPES,
  sheets: INCH_SHEETS,
  usual: { board: 'eighths-12', stocks: USUAL_STOCKS },
  habits: { border: inches(1 / 8), layerStep: inches(1 / 8), clearance: inches(1 / 16), tabWidth: inches(1 / 2) },
};

/** The starter workshop of a maker who measures so. */
export const starterFor = (notation: Notation): Workshop => (inchDenominator(notation) === undefined ? METRIC_WORKSHOP : INCH_WORKSHOP);

/** The sheets of both starter workshops. */
export const KNOWN_SHEETS: readonly SheetSize[] = [...METRIC_SHEETS, ...INCH_SHEETS];
