import { newCard, type CardDocument } from '../card/document.js';
import { sizeContextOf } from '../card/draw.js';
import { cardToTry } from '../card/try-out.js';
import { setSize } from '../card/set-size.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { freeRows } from '../trial/changed-sizes.js';
import { tried } from '../trial/trouble.js';
import { anySizes } from './any-sizes.js';

/** A card that works, the same broken, and what would make it whole again. */
export interface BrokenCard {
  whole: CardDocument;
  card: CardDocument;
  /** from the broken card back to the whole one */
  changes: { owner: string; size: string; to: number }[];
}

/** How far a size is taken out of the way, mm; of an angle what moves a place 60 mm out by as much. */
const LEAST_BREAK = 2;
const MOST_BREAK = 25;
const TRIALS = 30;

/** A card of one mechanism of the catalogue after the other, one to three of its sizes changed by whole mm so that it fails; nothing where it will not. */
export function brokenCard(nth: number, next: () => number): BrokenCard | undefined {
  const mechanism = CATALOGUE[nth % CATALOGUE.length]!;
  const plain = cardToTry(mechanism);
  const workshop = starterFor(plain.notation);
  const own =
    mechanism.kind === 'base' && next() < 0.5 ? anySizes(mechanism.sizes, sizeContextOf(plain), next, asCut(mechanism.sizes)) : {};
  const given = newCard({ id: 'any', name: 'any', base: { mechanism: mechanism.id, sizes: own as never } });
  const whole = mechanism.kind === 'base' && tried(given, workshop, 'fail').trouble === 0 ? given : plain;
  if (tried(whole, workshop, 'fail').trouble > 0) return undefined;
  for (let trial = 0; trial < TRIALS; trial++) {
    const rows = freeRows(whole).filter(({ kind, insteadOf, range }) => (kind === 'length' || kind === 'angle') && !insteadOf && range);
    const count = 1 + Math.floor(next() * 2.999);
    const chosen = Array.from({ length: count }, () => rows[Math.floor(next() * rows.length * 0.999)]!).filter(
      (row, i, all) => all.indexOf(row) === i,
    );
    const broken = chosen.map((row) => {
      const by = Math.round(LEAST_BREAK + next() * (MOST_BREAK - LEAST_BREAK)) * (next() < 0.5 ? -1 : 1);
      const now = Number(row.value);
      return { owner: row.owner, size: row.name, from: now + (row.kind === 'angle' ? by / 60 : by), to: now };
    });
    const card = broken.reduce((changed, { owner, size, from }) => setSize(changed, owner, size, from), whole);
    if (tried(card, workshop, 'fail').trouble > 0)
      return { whole, card, changes: broken.map(({ owner, size, to }) => ({ owner, size, to })) };
  }
  return undefined;
}

function asCut(sizes: (typeof CATALOGUE)[number]['sizes']): string[] {
  return sizes.flatMap((size) =>
    size.kind === 'list' ? size.item.filter((own) => own.asCut).map((own) => `${size.name}.${own.name}`) : size.asCut ? [size.name] : [],
  );
}
