import { parseLength, printLength, type Notation, type Supply, type SupplyField } from '@diptychon/core';

/** What was typed into a field, or what is wrong with it in a sentence. An empty optional field is nothing. */
export type FieldReading = { ok: true; value: unknown } | { ok: false; says: string };

/** A length as a maker types it: on a mark of the notation as a reading, between two in mm, so that nothing is lost. */
export function lengthText(mm: number, notation: Notation): string {
  const { text, off } = printLength(mm, notation);
  return off === 0 ? text : `${Number(mm.toFixed(4))} mm`;
}

/** A field's value as it is typed. */
export function fieldText(field: SupplyField, value: unknown, notation: Notation): string {
  if (value === undefined || value === null) return '';
  const length = (mm: unknown): string => lengthText(Number(mm), notation);
  switch (field.kind) {
    case 'length':
      return length(value);
    case 'thickness':
      return `${String(value)} mm`;
    case 'lengths':
      return (value as number[]).map(length).join('; ');
    case 'pairs':
      return (value as Record<string, number>[]).map((pair) => field.of.map((name) => length(pair[name])).join('; ')).join('\n');
    case 'sheet': {
      const { width, height } = value as { width: number; height: number };
      return `${length(width)} × ${length(height)}`;
    }
    default:
      return String(value);
  }
}

/** An entry with another value in one field; without that field where there is no value. */
export function withField(entry: Supply, name: string, value: unknown): Supply {
  const { [name]: _, ...rest } = entry as unknown as Record<string, unknown>;
  return (value === undefined ? rest : { ...entry, [name]: value }) as unknown as Supply;
}

/** Reads a field as a maker types it; limits are checked with the whole entry. */
export function readField(field: SupplyField, typed: string, notation: Notation): FieldReading {
  const text = typed.trim();
  if (text === '' && 'optional' in field && field.optional) return { ok: true, value: undefined };
  switch (field.kind) {
    case 'length':
      return lengths([text], notation, field.label, ([mm]) => mm);
    case 'thickness':
      return lengths([text], 'mm', field.label, ([mm]) => mm);
    case 'lengths':
      return lengths(text.split(';'), notation, field.label, (all) => all);
    case 'pairs':
      return lengths(text.split(/[\n;]/), notation, field.label, (all) =>
        Array.from({ length: Math.ceil(all.length / 2) }, (_, i) => ({ [field.of[0]]: all[2 * i], [field.of[1]]: all[2 * i + 1] })),
      );
    case 'sheet':
      return lengths(text.split(/[×x]/), notation, field.label, ([width, height]) => ({ width, height }));
    case 'number':
    case 'whole': {
      const value = Number(text.replace(',', '.').replace(/[^\d.eE+-]+$/, ''));
      return text !== '' && Number.isFinite(value)
        ? { ok: true, value }
        : { ok: false, says: `${field.label}: “${typed}” is not a number.` };
    }
    case 'choice':
      // A choice of nothing leaves the field out.
      if (text === '') return { ok: true, value: undefined };
      return { ok: true, value: field.number ? Number(text) : text };
    case 'yes':
      return { ok: true, value: text === 'true' ? true : undefined };
    default:
      return { ok: true, value: text };
  }
}

function lengths(texts: readonly string[], notation: Notation, label: string, made: (mm: readonly number[]) => unknown): FieldReading {
  const values: number[] = [];
  for (const text of texts.filter((part) => part.trim() !== '')) {
    const reading = parseLength(text, notation, label);
    if (!reading.ok) return { ok: false, says: reading.problem };
    values.push(reading.value);
  }
  if (values.length === 0) return { ok: false, says: `${label}: nothing was typed; allowed is a length.` };
  return { ok: true, value: made(values) };
}
