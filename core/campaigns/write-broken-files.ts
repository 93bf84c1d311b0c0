// Prints the nastiest of many broken files as JSON, with what reading each comes to: for trials through the page itself.
import { parseArgs } from 'node:util';
import { readCardFile } from '../src/format/card-file.js';
import { readOutlineSvg } from '../src/format/outline-svg.js';
import { readShelfFile } from '../src/format/shelf-file.js';
import { dice } from '../src/testing/any-tree.js';
import { brokenFile, FILE_KINDS, type FileKind } from '../src/testing/broken-files.js';

const { values } = parseArgs({ options: { seed: { type: 'string', default: '1' }, count: { type: 'string', default: '200' } } });
const [seed, count] = [Number(values.seed), Number(values.count)];
/** Of so many each is the nastiest. */
const OUT_OF = 25;

interface Broken {
  kind: FileKind;
  text: string;
  /** the cards that come of it, without their ids; nothing where it is refused; of a drawing whether it is an outline */
  reads: unknown[] | undefined;
}

function readingOf(kind: FileKind, text: string): unknown[] | undefined {
  if (kind === 'svg') return readOutlineSvg(text, 'broken.svg').ok ? [] : undefined;
  const reading = kind === 'card' ? readCardFile(text) : readShelfFile(text);
  if (!reading.ok) return undefined;
  const cards = 'cards' in reading ? reading.cards : [reading.card];
  return cards.map(({ id: _, ...card }) => card);
}

/** What is read although it is broken is the nastiest; then what is long, and deep. */
function nastiness({ text, reads }: Broken): number {
  let [depth, deepest] = [0, 0];
  for (const letter of text) {
    if ('[{<'.includes(letter)) deepest = Math.max(deepest, ++depth);
    else if (']}>'.includes(letter)) depth--;
  }
  return (reads ? 1e4 : 0) + deepest + text.length / 100;
}

const next = dice(seed);
const nastiest = Array.from({ length: count }, (_, i) => {
  const kind = FILE_KINDS[i % FILE_KINDS.length]!;
  // Every other one is to be refused.
  const some = Array.from({ length: OUT_OF }, (): Broken => {
    const text = brokenFile(kind, next);
    return { kind, text, reads: readingOf(kind, text) };
  }).filter(({ reads }) => i % 2 === 0 || reads === undefined);
  return some.sort((a, b) => nastiness(b) - nastiness(a))[0];
}).filter((broken) => broken !== undefined);
process.stdout.write(JSON.stringify(nastiest));
