import { carriedFor, type UsedSupplies } from '../supplies/supplies-in-use.js';
import { CURRENT_VERSION, ROOT } from './document.js';

type Raw = Record<string, unknown>;

/** What turns a document of version n into one of version n + 1. */
const STEPS: Readonly<Record<number, (card: Raw) => Raw>> = { 1: spineIsAutomatic, 2: treeOfParts };

/** Version 2 calls a spine fitted to the stack `auto`. */
function spineIsAutomatic(card: Raw): Raw {
  const base = card['base'] as { sizes?: Raw } | undefined;
  if (base?.sizes?.['spine'] !== 'fitted') return card;
  return { ...card, base: { ...base, sizes: { ...base.sizes, spine: 'auto' } } };
}

/** A refusal with the path of what is wrong, as a file's reader tells it. */
export class MigrationProblem extends Error {
  constructor(
    readonly path: string,
    readonly says: string,
  ) {
    super(`${path}: ${says}`);
  }
}

const isRaw = (value: unknown): value is Raw => typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Version 3 is a tree: the base is the first part, movements name the part and the fold they stand on; supplies, until
 * then fixed lists of the program, are copied into the card.
 */
function treeOfParts({ base, movements, ...card }: Raw): Raw {
  if (!isRaw(base))
    throw new MigrationProblem('base', base === undefined ? 'is missing' : 'is not a base; allowed: a mechanism and its sizes');
  for (const key of Object.keys(base)) {
    if (key !== 'mechanism' && key !== 'sizes') throw new MigrationProblem(`base.${key}`, 'does not belong in a card file');
  }
  if (!Array.isArray(movements))
    throw new MigrationProblem('movements', movements === undefined ? 'is missing' : 'is not a list; allowed: a list');
  const others = movements.map((movement: unknown, i): Raw => {
    if (!isRaw(movement)) throw new MigrationProblem(`movements.${i}`, 'is not a movement; allowed: id, mechanism, host, sizes');
    const { host, ...rest } = movement;
    if ('on' in rest) throw new MigrationProblem(`movements.${i}.on`, 'does not belong in a card file');
    if (rest['id'] === ROOT)
      throw new MigrationProblem(`movements.${i}.id`, `is “${ROOT}”, which is kept for the base; allowed: any other`);
    return { ...rest, on: { part: ROOT, site: host } };
  });
  const given = isRaw(card['stocks']) ? card['stocks'] : {};
  if ('stop' in given) throw new MigrationProblem('stocks.stop', 'does not belong in a card file');
  const stocks = { ...given, film: 'film' in given ? given['film'] : 'film-190', stop: 'foam' };
  const used = { board: card['board'], envelope: card['envelope'], stocks } as UsedSupplies;
  for (const key of ['pieceStocks', 'supplies', 'parts']) {
    if (key in card) throw new MigrationProblem(key, 'does not belong in a card file');
  }
  return { ...card, parts: [{ id: ROOT, ...base }, ...others], stocks, supplies: JSON.parse(JSON.stringify(carriedFor(used))) as unknown };
}

/**
 * Brings a stored document up to the current version, a step at a time.
 * @throws MigrationProblem when it was made by a newer Diptychon, has no version, or cannot be taken over
 */
export function migrate(raw: Raw): Raw {
  let card = raw;
  const version = card['version'];
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    const shown = typeof version === 'object' ? 'an object' : `“${String(version).slice(0, 40)}”`;
    throw new MigrationProblem('version', `${shown} is not a version; allowed: 1 to ${CURRENT_VERSION}`);
  }
  if (version > CURRENT_VERSION) {
    throw new MigrationProblem('version', `${version} was made by a newer Diptychon; allowed: 1 to ${CURRENT_VERSION}`);
  }
  for (let from = version; from < CURRENT_VERSION; from++) card = { ...STEPS[from]!(card), version: from + 1 };
  return card;
}
