import { INCH_WORKSHOP, METRIC_WORKSHOP, SUPPLY_FIELDS, type Supply, type SupplyField, type SupplyList } from '@diptychon/core';
import { fieldText, readField } from './supply-text';

const LISTS = Object.keys(SUPPLY_FIELDS) as SupplyList[];
const entries = LISTS.flatMap((list) =>
  [METRIC_WORKSHOP, INCH_WORKSHOP].flatMap((workshop) =>
    (workshop[list] as readonly Supply[]).map((entry) => ({ list, id: entry.id, entry: entry as unknown as Record<string, unknown> })),
  ),
);

describe('a field of a supply', () => {
  it.each(entries)('of $list, $id, reads back what it shows', ({ list, entry }) => {
    for (const field of SUPPLY_FIELDS[list]) {
      for (const notation of ['mm', 'inch/16', 'cm'] as const) {
        const value = entry[field.name];
        if (value === undefined) continue;
        const reading = readField(field, fieldText(field, value, notation), notation);
        expect(reading.ok, `${field.name}: ${fieldText(field, value, notation)}`).toBe(true);
        expect(reading.ok && rounded(reading.value)).toEqual(rounded(value));
      }
    }
  });

  const length: SupplyField = SUPPLY_FIELDS.boards.find(({ kind }) => kind === 'length')!;

  it('takes a length as the maker writes it, and says what is wrong with one that is none', () => {
    expect(readField(length, '11 3/4', 'inch/16')).toEqual({ ok: true, value: 11.75 * 25.4 });
    const reading = readField(length, 'long', 'mm');
    expect(reading).toMatchObject({ ok: false, says: expect.stringContaining('“long”') });
  });
});

/** Lengths to a ten-thousandth of a mm, as they are shown between two marks. */
function rounded(value: unknown): unknown {
  if (typeof value === 'number') return Math.round(value * 1e4) / 1e4;
  if (Array.isArray(value)) return value.map(rounded);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, rounded(each)]));
}
