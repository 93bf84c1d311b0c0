import { ROOT } from '../src/card/document.js';
import { newCard, type CardPart } from '../src/card/document.js';
import { sizeContextOf } from '../src/card/draw.js';
import { cardToTry } from '../src/card/try-out.js';
import { CATALOGUE } from '../src/mechanism/catalogue.js';
import { dice } from '../src/testing/any-tree.js';
import { anySizes } from '../src/testing/any-sizes.js';
import { erringSizes, fails, jump, off, saidAgainst } from '../src/testing/verdict-laws.js';

/**
 * Random designs that are right, the mechanisms in turn, each with one size off: by a hair that no hand can hold, which may
 * add nothing but a hair, and by an error and a slightly larger one, which may differ by no more than what lies between.
 */
export function verdicts(seed: number, count: number): string[] {
  const next = dice(seed);
  return Array.from({ length: count }).flatMap((_, i) => {
    const mechanism = CATALOGUE[i % CATALOGUE.length]!;
    const owner = mechanism.kind === 'base' ? ROOT : mechanism.usualId;
    const sizes = erringSizes(owner, mechanism.sizes);
    const keep = sizes.filter(({ asCut }) => asCut).map(({ of, name }) => (of === undefined ? name : `${of}.${name}`));
    const plain = cardToTry(mechanism);
    const given = mechanism.kind === 'base' ? anySizes(mechanism.sizes, sizeContextOf(plain), next, keep) : {};
    const card =
      mechanism.kind === 'base'
        ? newCard({ id: 'any', name: 'any', base: { mechanism: mechanism.id, sizes: given as CardPart['sizes'] } })
        : plain;
    const right = saidAgainst(card);
    if (!right || fails(right).length > 0) return [];
    const size = sizes[Math.floor(next() * sizes.length * 0.999)]!;
    const sign = next() < 0.5 ? -1 : 1;
    const where = `${mechanism.id} ${JSON.stringify(given)}, ${size.of ?? ''}${size.name}`;
    const hair = saidAgainst(off(card, size, sign * 0.05));
    // A design may lie at an allowance's very edge: what a hair adds is then no more than the hair.
    const beyond = hair?.filter(({ severity, shortfall }) => severity === 'fail' && shortfall > 0.1) ?? [];
    const told = beyond.length > 0 ? [`${where} off by ${sign * 0.05}: ${fails(beyond).join(', ')}`] : [];
    const error = 10 ** (-3 + 3.9 * next());
    const [one, more] = [saidAgainst(off(card, size, sign * error)), saidAgainst(off(card, size, sign * (error + 0.01)))];
    const jumped = one && more && jump(one, more, 0.01);
    return jumped ? [...told, `${where} off by ${sign * error}: ${jumped}`] : told;
  });
}
