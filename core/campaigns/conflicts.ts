import { ROOT, withOwnSupplies, type CardDocument } from '../src/card/document.js';
import { removePart } from '../src/card/parts.js';
import { CATALOGUE } from '../src/mechanism/catalogue.js';
import type { Base } from '../src/mechanism/contract.js';
import { starterFor } from '../src/supplies/starter-workshops.js';
import { dice, treeOf } from '../src/testing/any-tree.js';
import { workingOnGrid } from '../src/testing/grid-look.js';
import { repair } from '../src/trial/repair.js';
import { tried } from '../src/trial/trouble.js';

const BASES = CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base');
const PLACES = 4;

/**
 * Cards with a movement or two that are to go into an envelope far too small for them. Where wishes are said to conflict, no card
 * on a coarse grid has them all; and with any one of them given up the others can be had.
 */
export function* conflicts(seed: number, count: number): Generator<string> {
  const next = dice(seed);
  const workshop = starterFor('mm');
  let [mended, proven] = [0, 0];
  for (let i = 0; i < count; i++) {
    const base = BASES[i % BASES.length]!;
    const tree = treeOf(base, Math.floor(next() * 2 ** 31), 2);
    const long = Math.round(45 + 50 * next());
    const tiny = { id: 'tiny', name: 'Seed packet', long, short: Math.round(long * (0.6 + 0.4 * next())) };
    const card = withOwnSupplies({ ...tree, envelope: 'tiny', supplies: { ...tree.supplies, envelopes: [tiny] } }, workshop);
    const where = `${i} ${card.parts.map(({ mechanism }) => mechanism).join('+')} into ${tiny.long} × ${tiny.short}`;
    const { offers, conflict } = repair(card, workshop);
    if (offers.length > 0 || tried(card, workshop, 'fail').trouble === 0) {
      mended++;
      continue;
    }
    if (conflict.length === 0) {
      yield `${where}: neither an offer nor a conflict`;
      continue;
    }
    const kept = conflict.map(({ owner }) => owner);
    const found = workingOnGrid(having(card, kept), workshop, PLACES);
    if (found) yield `${where}: ${kept.join(', ')} conflict, but ${JSON.stringify(found.parts.map(({ sizes }) => sizes))} has them all`;
    for (const owner of kept.length > 1 ? kept : []) {
      const rest = having(
        card,
        kept.filter((other) => other !== owner),
      );
      const can = tried(rest, workshop, 'fail').trouble === 0 || repair(rest, workshop).offers.length > 0;
      if (!can) yield `${where}: without ${owner} the others of ${kept.join(', ')} cannot be had either`;
    }
    proven++;
    console.error(`${where}: ${kept.join(', ')}`);
  }
  console.log(`${mended} have offers, ${proven} conflicts looked at on a grid`);
}

/** The card with none but these of its wishes: movements by their parts, the envelope by its name. */
function having(card: CardDocument, kept: readonly string[]): CardDocument {
  const { envelope, ...bare } = card;
  const start: CardDocument = kept.includes('envelope') && envelope !== undefined ? card : bare;
  return card.parts.reduce(
    (left, { id }) => (id === ROOT || kept.includes(id) || !left.parts.some((part) => part.id === id) ? left : removePart(left, id)),
    start,
  );
}
