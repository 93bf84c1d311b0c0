import { movementsOf, ROOT, type CardDocument } from '../card/document.js';
import { readCardFile } from '../format/card-file.js';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
type Raw = Record<string, Json>;

/** A card as version 1 or 2 wrote it: one base, movements by the fold of it that carries them, supplies only by name. */
export function asOldFile(card: CardDocument, version: 1 | 2): Raw {
  const { parts, supplies: _, stocks, ...rest } = JSON.parse(JSON.stringify(card)) as CardDocument & Raw;
  const { stop: __, ...named } = stocks;
  const { mechanism, sizes } = parts[0]!;
  const written = version === 1 && sizes['spine'] === 'auto' ? { ...sizes, spine: 'fitted' } : sizes;
  const movements = movementsOf({ ...card, parts }).map(({ on, ...part }) => ({ ...part, host: on.site }));
  return { ...rest, version, base: { mechanism, sizes: written }, movements, stocks: named } as unknown as Raw;
}

/** Only what a card of the second version could be: everything on the base, the usual way round. */
export const asOldCardsWere = (card: CardDocument): CardDocument => ({
  ...card,
  parts: card.parts
    .filter(({ id, on }) => id === ROOT || on?.part === ROOT)
    .map(({ on, ...part }) => (on ? { ...part, on: { part: on.part, site: on.site } } : part)),
});

const WRONG: readonly Json[] = [null, true, -1, 0, 1e9, '', 'nonsense', [], {}, [1], { id: 'base' }];

/** A file with one place of it changed, taken away, or given something more. */
export function mutated(file: Raw, next: () => number): Raw {
  const copy = JSON.parse(JSON.stringify(file)) as Raw;
  const places: [Record<string, Json> | Json[], string | number][] = [];
  const visit = (value: Json): void => {
    if (typeof value !== 'object' || value === null) return;
    const keys = Array.isArray(value) ? value.map((_, i) => i) : Object.keys(value);
    for (const key of keys) {
      places.push([value, key]);
      visit((value as Record<string | number, Json>)[key]!);
    }
  };
  visit(copy);
  const [holder, key] = places[Math.floor(next() * places.length)]!;
  const wrong = WRONG[Math.floor(next() * WRONG.length)]!;
  const way = Math.floor(next() * 3);
  if (Array.isArray(holder)) {
    if (way === 0) holder.splice(Number(key), 1);
    else if (way === 1) holder[Number(key)] = wrong;
    else holder.push(wrong);
  } else if (way === 0) delete holder[key];
  else if (way === 1) holder[key] = wrong;
  else holder['extra'] = wrong;
  return copy;
}

/** The same whatever order its fields were written in; what a reader puts in where it is left out counts as left out. */
function plainly(value: Json, path = ''): Json {
  if (Array.isArray(value)) return value.map((each) => plainly(each, path));
  if (typeof value !== 'object' || value === null) return value;
  const kept = Object.keys(value)
    .filter((key) => !(path === '/stocks' && key === 'film' && value[key] === 'film-190'))
    .sort();
  return Object.fromEntries(kept.map((key) => [key, plainly(value[key]!, `${path}/${key}`)]));
}

/** A file of an old version is read as the card that it holds, or refused with the place in it: says what is broken, or nothing. */
export function oldFileBroken(file: Raw): string | undefined {
  const reading = readCardFile(JSON.stringify(file));
  if (!reading.ok) {
    const silent = reading.problems.find(({ path, says }) => path === '' || says === '');
    return reading.problems.length === 0 || silent ? `refused without a path: ${JSON.stringify(reading.problems)}` : undefined;
  }
  const { version } = file;
  if (version !== 1 && version !== 2) return `version ${JSON.stringify(version)} is read`;
  const [read, held] = [asOldFile(reading.card, version), file].map((each) => JSON.stringify(plainly(each)));
  return read === held ? undefined : `read as another card: ${read} in place of ${held}`;
}
