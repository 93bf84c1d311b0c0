import * as v from 'valibot';
import { NOTATIONS, type Mm, type Notation } from '../measure/units.js';
import type { Board } from './boards.js';
import { CALIBRATED, type Calibration } from './calibration.js';
import type { Envelope } from './envelopes.js';
import type { SheetSize } from './sheets.js';
import { SHADE_IDS } from './shades.js';
import { STOCK_ROLES, type Stock, type StockRole } from './stocks.js';
import type { Adhesive, Cutter, Die, Knife, Magnet, SupplyList, Supply, Trimmer, Workshop } from './workshop.js';

/** What may stand in a supply, field by field. Limits are wide: they keep out slips of the hand and broken files. */

const between = (min: number, max: number, unit: string) => {
  const allowed = `allowed: ${min} to ${max}${unit && ` ${unit}`}`;
  return v.pipe(v.number(allowed), v.finite(allowed), v.minValue(min, allowed), v.maxValue(max, allowed));
};
const mm = (min: Mm, max: Mm) => between(min, max, 'mm');
const whole = (min: number, max: number) => v.pipe(between(min, max, ''), v.integer('allowed: whole numbers'));

const id = v.pipe(v.string('allowed: text'), v.regex(/^[a-z0-9][a-z0-9-]{0,63}$/i, 'allowed: letters, digits and hyphens, at most 64'));
const name = v.pipe(
  v.string('allowed: text'),
  v.minLength(1, 'allowed: at least one character'),
  v.maxLength(80, 'allowed: at most 80 characters'),
);
const notation = v.pipe(
  v.picklist(
    NOTATIONS.map((n) => n.id),
    `allowed: ${NOTATIONS.map((n) => n.id).join(', ')}`,
  ),
  v.transform((value) => value as Notation),
);
const pick = <const T extends readonly string[]>(...values: T) => v.picklist(values, `allowed: ${values.join(', ')}`);
const upTo = <S extends v.GenericSchema>(schema: S, most: number) => v.pipe(v.array(schema), v.maxLength(most, `allowed: at most ${most}`));

export const stockSchema = v.strictObject({
  id,
  name,
  kind: pick('card', 'paper', 'film', 'foam'),
  caliper: mm(0.02, 10),
  weight: between(5, 5000, 'g/m²'),
  stiffness: between(0.5, 20_000, 'N/mm²'),
  grain: v.optional(pick('long', 'short', 'none')),
  goodSides: v.optional(v.picklist([1, 2], 'allowed: 1, 2')),
  shade: v.optional(v.picklist(SHADE_IDS, `allowed: ${SHADE_IDS.join(', ')}`)),
  sheet: v.optional(v.strictObject({ width: mm(20, 2000), height: mm(20, 2000) })),
  left: v.optional(whole(0, 100_000)),
  heights: v.optional(upTo(mm(0.2, 30), 12)),
}) satisfies v.GenericSchema<Stock>;

export const boardSchema = v.strictObject({
  id,
  name,
  pitch: mm(0.25, 50),
  length: mm(50, 2000),
  begins: v.optional(mm(0, 100)),
  extra: v.optional(upTo(mm(0, 2000), 24)),
  free: v.optional(v.boolean('allowed: true, false')),
  notation,
}) satisfies v.GenericSchema<Board>;

/** An envelope is named longer side first, so that lists compare. */
export const envelopeSchema = v.pipe(
  v.strictObject({ id, name, long: mm(40, 1000), short: mm(40, 1000), region: v.optional(pick('inch', 'metric')) }),
  v.check(({ long, short }) => long >= short, 'allowed: the longer side first'),
) satisfies v.GenericSchema<Envelope>;

const adhesiveSchema = v.strictObject({
  id,
  name,
  grip: pick('strong', 'slidable', 'removable', 'film'),
  setMinutes: between(0, 2880, 'minutes'),
}) satisfies v.GenericSchema<Adhesive>;

const magnetSchema = v.strictObject({ id, name, diameter: mm(2, 50), thickness: mm(0.2, 10) }) satisfies v.GenericSchema<Magnet>;

const trimmerSchema = v.strictObject({
  id,
  name,
  length: mm(50, 2000),
  guides: pick('left', 'right', 'both'),
  error: mm(0, 5),
}) satisfies v.GenericSchema<Trimmer>;

const knifeSchema = v.strictObject({ id, name, error: mm(0, 5) }) satisfies v.GenericSchema<Knife>;

const cutterSchema = v.strictObject({
  id,
  name,
  width: mm(50, 3000),
  height: mm(50, 3000),
  kerf: mm(0, 3),
  folds: pick('score', 'dashes'),
  smallestRadius: mm(0, 20),
}) satisfies v.GenericSchema<Cutter>;

const dieSchema = v.strictObject({
  id,
  name,
  outline: v.pipe(v.string(), v.maxLength(64, 'allowed: at most 64 characters')),
  sizes: v.pipe(
    upTo(v.strictObject({ cut: mm(3, 400), opening: mm(3, 420) }), 24),
    v.minLength(1, 'allowed: at least one size'),
    v.check((sizes) => sizes.every(({ cut, opening }) => opening >= cut), 'allowed: an opening as large as its cut or larger'),
  ),
}) satisfies v.GenericSchema<Die>;

const sheetSchema = v.strictObject({ id, name, width: mm(20, 2000), height: mm(20, 2000) }) satisfies v.GenericSchema<SheetSize>;

/** What an entry of each list must be. */
export const SUPPLY_SCHEMAS: Readonly<Record<SupplyList, v.GenericSchema<Supply>>> = {
  stocks: stockSchema,
  adhesives: adhesiveSchema,
  magnets: magnetSchema,
  boards: boardSchema,
  trimmers: trimmerSchema,
  knives: knifeSchema,
  cutters: cutterSchema,
  dies: dieSchema,
  envelopes: envelopeSchema,
  sheets: sheetSchema,
} as unknown as Readonly<Record<SupplyList, v.GenericSchema<Supply>>>;

const calibrationSchema = v.strictObject({
  kind: pick(...CALIBRATED),
  id,
  value: mm(-20, 20),
  uncertainty: mm(0, 20),
  count: whole(1, 1_000_000),
  before: v.optional(mm(0, 5)),
}) satisfies v.GenericSchema<Calibration>;

export const workshopSchema = v.strictObject({
  format: v.literal('diptychon-workshop', 'allowed: diptychon-workshop'),
  version: v.literal(1, 'allowed: 1'),
  notation,
  region: pick('inch', 'metric'),
  stocks: v.pipe(upTo(stockSchema, 200), v.minLength(1, 'allowed: at least one stock')),
  adhesives: upTo(adhesiveSchema, 100),
  magnets: upTo(magnetSchema, 100),
  boards: v.pipe(upTo(boardSchema, 40), v.minLength(1, 'allowed: at least one board')),
  trimmers: upTo(trimmerSchema, 40),
  knives: upTo(knifeSchema, 40),
  cutters: upTo(cutterSchema, 40),
  dies: upTo(dieSchema, 200),
  envelopes: upTo(envelopeSchema, 200),
  sheets: upTo(sheetSchema, 200),
  usual: v.strictObject({
    board: id,
    stocks: v.strictObject(Object.fromEntries(STOCK_ROLES.map((role) => [role, id])) as Record<StockRole, typeof id>),
  }),
  habits: v.strictObject({ border: mm(0, 30), layerStep: mm(0, 30), clearance: mm(0, 20), tabWidth: mm(3, 60) }),
  hand: v.strictObject({ score: mm(0, 3), cut: mm(0, 3), glue: mm(0, 5) }),
  schools: v.strictObject({ scoring: pick('one-face', 'flip'), cutting: pick('knife', 'trimmer') }),
  calibrations: v.optional(upTo(calibrationSchema, 400)),
}) satisfies v.GenericSchema<Workshop>;
