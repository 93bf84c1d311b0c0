import { CURRENT_VERSION } from './document.js';

type Raw = Record<string, unknown>;

/** What turns a document of version n into one of version n + 1. */
const STEPS: Readonly<Record<number, (card: Raw) => Raw>> = { 1: spineIsAutomatic };

/** Version 2 calls a spine fitted to the stack `auto`. */
function spineIsAutomatic(card: Raw): Raw {
  const base = card['base'] as { sizes?: Raw } | undefined;
  if (base?.sizes?.['spine'] !== 'fitted') return card;
  return { ...card, base: { ...base, sizes: { ...base.sizes, spine: 'auto' } } };
}

/**
 * Brings a stored document up to the current version, a step at a time.
 * @throws RangeError when it was made by a newer Diptychon or has no version
 */
export function migrate(raw: Raw): Raw {
  let card = raw;
  const version = card['version'];
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    throw new RangeError(`version: “${String(version)}” is not a version; allowed: 1 to ${CURRENT_VERSION}`);
  }
  if (version > CURRENT_VERSION) {
    throw new RangeError(`version: ${version} was made by a newer Diptychon; allowed: 1 to ${CURRENT_VERSION}`);
  }
  for (let from = version; from < CURRENT_VERSION; from++) card = { ...STEPS[from]!(card), version: from + 1 };
  return card;
}
