import { SHAPES } from '../plane/shapes.js';
import { NOTATIONS, type Notation } from '../measure/units.js';
import { SHADE_IDS } from './shades.js';
import { STOCK_KIND_NAMES } from './stocks.js';
import type { Supply, SupplyList, SupplyOf, Workshop } from './workshop.js';

/** One field of a supply as a screen asks for it. Lengths are mm; `thickness` is told in mm in every notation. */
export type SupplyField =
  | { name: string; label: string; help?: string; kind: 'text' }
  | { name: string; label: string; help?: string; kind: 'length' | 'thickness'; optional?: true }
  | { name: string; label: string; help?: string; kind: 'number' | 'whole'; unit: string; optional?: true }
  | { name: string; label: string; help?: string; kind: 'choice'; options: readonly { value: string; label: string }[]; number?: true }
  | { name: string; label: string; help?: string; kind: 'yes' }
  /** several lengths in one field, apart by semicolons */
  | { name: string; label: string; help?: string; kind: 'lengths'; optional?: true }
  /** pairs of lengths, one a line */
  | { name: string; label: string; help?: string; kind: 'pairs'; of: readonly [string, string] }
  /** width and height of a sheet, both or neither */
  | { name: string; label: string; help?: string; kind: 'sheet'; optional: true };

const NAME: SupplyField = { name: 'name', label: 'Name', kind: 'text' };
const ERROR: SupplyField = { name: 'error', label: 'Usually off by', help: 'Two cuts in three are nearer than this.', kind: 'thickness' };
const REGIONS = [
  { value: 'inch', label: 'inch sizes' },
  { value: 'metric', label: 'metric sizes' },
];

/** What is asked about an entry of each list. */
export const SUPPLY_FIELDS: Readonly<Record<SupplyList, readonly SupplyField[]>> = {
  stocks: [
    NAME,
    { name: 'kind', label: 'Kind', kind: 'choice', options: STOCK_KIND_NAMES },
    {
      name: 'caliper',
      label: 'Thickness of one sheet',
      help: 'Press ten sheets together, measure, and divide by ten. For foam: of one mm of height, 1.',
      kind: 'thickness',
    },
    { name: 'weight', label: 'Weight', help: 'Printed on most packets.', kind: 'number', unit: 'g/m²' },
    {
      name: 'stiffness',
      label: 'Stiffness along the grain',
      help: 'Card is about 4000; the droop test finds yours.',
      kind: 'number',
      unit: 'N/mm²',
    },
    {
      name: 'grain',
      label: 'Grain runs',
      help: 'A fold along the grain is clean, across it cracks.',
      kind: 'choice',
      options: [
        { value: 'long', label: 'along the longer side of the sheet' },
        { value: 'short', label: 'along the shorter side' },
        { value: 'none', label: 'no grain' },
      ],
    },
    {
      name: 'goodSides',
      label: 'Good sides',
      kind: 'choice',
      number: true,
      options: [
        { value: '1', label: 'one' },
        { value: '2', label: 'both' },
      ],
    },
    {
      name: 'shade',
      label: 'Drawn in',
      kind: 'choice',
      options: [{ value: '', label: 'the colour of what it is for' }, ...SHADE_IDS.map((value) => ({ value, label: value }))],
    },
    { name: 'sheet', label: 'Bought in sheets of', kind: 'sheet', optional: true },
    { name: 'left', label: 'Sheets left', kind: 'whole', unit: '', optional: true },
    { name: 'heights', label: 'Heights (foam)', help: 'Apart by semicolons.', kind: 'lengths', optional: true },
  ],
  adhesives: [
    NAME,
    {
      name: 'grip',
      label: 'Holds',
      kind: 'choice',
      options: [
        { value: 'strong', label: 'strongly, at once' },
        { value: 'slidable', label: 'and may be slid into place' },
        { value: 'removable', label: 'until it is taken off again' },
        { value: 'film', label: 'film' },
      ],
    },
    { name: 'setMinutes', label: 'Sets in', kind: 'number', unit: 'min' },
  ],
  magnets: [NAME, { name: 'diameter', label: 'Diameter', kind: 'length' }, { name: 'thickness', label: 'Thickness', kind: 'thickness' }],
  boards: [
    NAME,
    { name: 'notation', label: 'Marked in', kind: 'choice', options: NOTATIONS.map(({ id, label }) => ({ value: id, label })) },
    { name: 'pitch', label: 'From groove to groove', kind: 'length' },
    { name: 'length', label: 'From the fence to the last groove', kind: 'length' },
    {
      name: 'begins',
      label: 'First groove at',
      help: 'From the fence; left empty it is at the fence itself.',
      kind: 'length',
      optional: true,
    },
    { name: 'extra', label: 'Grooves besides', help: 'From the fence, apart by semicolons.', kind: 'lengths', optional: true },
    { name: 'free', label: 'No grooves: every position can be scored', kind: 'yes' },
  ],
  trimmers: [
    NAME,
    { name: 'length', label: 'Longest cut', kind: 'length' },
    {
      name: 'guides',
      label: 'Scale at',
      kind: 'choice',
      options: [
        { value: 'left', label: 'the left of the blade' },
        { value: 'right', label: 'the right of the blade' },
        { value: 'both', label: 'both sides' },
      ],
    },
    ERROR,
  ],
  knives: [NAME, ERROR],
  cutters: [
    NAME,
    { name: 'width', label: 'Bed, across', kind: 'length' },
    { name: 'height', label: 'Bed, along', kind: 'length' },
    { name: 'kerf', label: 'The cut is wide', kind: 'thickness' },
    {
      name: 'folds',
      label: 'Folds',
      kind: 'choice',
      options: [
        { value: 'score', label: 'with a score tool' },
        { value: 'dashes', label: 'as dashes' },
      ],
    },
    { name: 'smallestRadius', label: 'Tightest curve', kind: 'thickness' },
  ],
  dies: [
    NAME,
    { name: 'outline', label: 'Outline', kind: 'choice', options: SHAPES.map(({ id, name }) => ({ value: id, label: name })) },
    {
      name: 'sizes',
      label: 'Nested sizes',
      help: 'One a line, largest first: what it cuts out; the opening that stays. A semicolon between them.',
      kind: 'pairs',
      of: ['cut', 'opening'],
    },
  ],
  envelopes: [
    NAME,
    { name: 'long', label: 'Inside, longer side', kind: 'length' },
    { name: 'short', label: 'Inside, shorter side', kind: 'length' },
    { name: 'region', label: 'Sold in', kind: 'choice', options: REGIONS },
  ],
  sheets: [NAME, { name: 'width', label: 'Width', kind: 'length' }, { name: 'height', label: 'Height', kind: 'length' }],
};

/** What each list is called, and one entry of it. */
export const SUPPLY_LIST_NAMES: Readonly<Record<SupplyList, { title: string; one: string }>> = {
  stocks: { title: 'Stocks, film and foam', one: 'stock' },
  adhesives: { title: 'Adhesives', one: 'adhesive' },
  magnets: { title: 'Magnets', one: 'magnet' },
  boards: { title: 'Scoring boards', one: 'board' },
  trimmers: { title: 'Trimmers', one: 'trimmer' },
  knives: { title: 'Knives', one: 'knife' },
  cutters: { title: 'Electronic cutters', one: 'cutter' },
  dies: { title: 'Dies and punches', one: 'die' },
  envelopes: { title: 'Envelopes', one: 'envelope' },
  sheets: { title: 'Sheets at hand', one: 'sheet' },
};

/** A new entry of a list, to be changed: everyday values, an id of its own. */
export function newSupply<L extends SupplyList>(list: L, workshop: Workshop): SupplyOf<L> {
  const { one } = SUPPLY_LIST_NAMES[list];
  const id = freeId(`my-${one}`, workshop[list]);
  const notation: Notation = workshop.notation;
  const name = `My ${one}`;
  const made: { [K in SupplyList]: SupplyOf<K> } = {
    stocks: { id, name, kind: 'card', caliper: 0.3, weight: 250, stiffness: 4000, grain: 'long', goodSides: 2 },
    adhesives: { id, name, grip: 'strong', setMinutes: 5 },
    magnets: { id, name, diameter: 10, thickness: 0.6 },
    boards: { id, name, pitch: workshop.region === 'inch' ? 3.175 : 5, length: workshop.region === 'inch' ? 304.8 : 300, notation },
    trimmers: { id, name, length: 300, guides: 'left', error: 0.3 },
    knives: { id, name, error: 0.25 },
    cutters: { id, name, width: 300, height: 300, kerf: 0.2, folds: 'score', smallestRadius: 1 },
    dies: { id, name, outline: 'circle', sizes: [{ cut: 60, opening: 62 }] },
    envelopes: {
      id,
      name,
      long: workshop.region === 'inch' ? 184.15 : 160,
      short: workshop.region === 'inch' ? 133.35 : 110,
      region: workshop.region,
    },
    sheets: { id, name, width: 210, height: 297 },
  };
  return made[list];
}

function freeId(wanted: string, taken: readonly { id: string }[]): string {
  for (let n = 1; ; n++) {
    const id = n === 1 ? wanted : `${wanted}-${n}`;
    if (!taken.some((entry) => entry.id === id)) return id;
  }
}

/** A workshop with an entry put in place of the one of its id, or added. */
export function withSupply(workshop: Workshop, list: SupplyList, entry: Supply): Workshop {
  const before = workshop[list] as readonly Supply[];
  const isKnown = before.some(({ id }) => id === entry.id);
  return { ...workshop, [list]: isKnown ? before.map((other) => (other.id === entry.id ? entry : other)) : [...before, entry] };
}

/** Why an entry cannot be taken away, as a sentence; nothing when it can. */
export function cannotTakeAway({ usual, boards, stocks }: Workshop, list: SupplyList, id: string): string | undefined {
  if (list === 'boards' && boards.length === 1) return 'A workshop keeps at least one board; change this one.';
  if (list === 'stocks' && stocks.length === 1) return 'A workshop keeps at least one stock; change this one.';
  const used = list === 'boards' ? usual.board === id : list === 'stocks' && Object.values(usual.stocks).includes(id);
  return used ? 'New cards begin with it: choose another one for them first, under “New cards begin with”.' : undefined;
}

/** A workshop without one entry of a list. */
export function withoutSupply(workshop: Workshop, list: SupplyList, id: string): Workshop {
  return { ...workshop, [list]: (workshop[list] as readonly Supply[]).filter((entry) => entry.id !== id) };
}
