import { DEMO_CARDS } from '../card/demo-cards.js';
import type { CardDocument } from '../card/document.js';
import { evaluate } from '../evaluate.js';
import { readCardFile, writeCardFile } from '../format/card-file.js';
import type { FileProblem } from '../format/file-problem.js';
import { readOutlineSvg } from '../format/outline-svg.js';
import { readShelfFile, writeShelfFiles } from '../format/shelf-file.js';
import { mutated } from './old-files.js';

export type FileKind = 'card' | 'shelf' | 'svg';
export const FILE_KINDS: readonly FileKind[] = ['card', 'shelf', 'svg'];

/** A sentence about a file is a line, whatever the file holds. */
const LONGEST_LINE = 600;

const SPORE: CardDocument = {
  ...DEMO_CARDS[1]!,
  note: 'spores — ½ “print” ✦',
  outlines: [{ id: 'own-spore', name: 'Spore', points: Array.from({ length: 40 }, (_, i) => corner(i)) }],
};

function corner(i: number): [number, number] {
  const [angle, radius] = [(2 * Math.PI * i) / 40, i % 2 ? 500 : 380];
  return [Number((radius * Math.cos(angle)).toFixed(2)), Number((radius * Math.sin(angle)).toFixed(2))];
}

const DRAWINGS: readonly string[] = [
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><g transform="translate(5 5) rotate(12)"><path d="M10 10h80v40q-20 30 -40 20t-40 -20z"/></g></svg>',
  '<svg><polygon points="50,0 100,100 0,100"/><circle cx="20" cy="30" r="10"/></svg>',
  '<svg><path d="M20 0C31.046 0 40 8.954 40 20S31.046 40 20 40 0 31.046 0 20 8.954 0 20 0Z" transform="scale(2 1)"/></svg>',
  '<svg><rect x="1" y="2" width="30" height="40"/><ellipse cx="5" cy="10" rx="10" ry="20"/><polyline points="0,0 9,0 9,9 0,0"/></svg>',
];

/** What breaks readers: long words, deep nesting, numbers that are none, names of the machine, letters of all kinds. */
const NASTY: readonly ((next: () => number) => string)[] = [
  () => '\u0000',
  () => '\uFEFF',
  () => '\u202Eخط 種 🍄‍🟫',
  () => '"__proto__":{"x":1},',
  () => '"constructor":{"prototype":{}},',
  () => '1e999',
  () => '-1e-400',
  () => '99999999999999999999',
  () => 'NaN',
  () => '{"toString":1}',
  () => `"${'k'.repeat(3000)}":1,`,
  () => '['.repeat(2000),
  () => '<g>'.repeat(1500),
  () => '<g transform="scale(1e9)">',
  () => ' M 1e7 1e7 L',
  () => '<!-- ',
  () => '<![CDATA[',
  () => '<!ENTITY a "&a;&a;">',
  (next) => Array.from({ length: 300 }, () => `${(next() * 99).toFixed(1)},${(next() * 99).toFixed(1)}`).join(' '),
  (next) => 'A 5 5 0 1 1 '.repeat(Math.floor(next() * 50)),
];

/** A file of a kind that was broken in some places: its values, or its very letters. */
export function brokenFile(kind: FileKind, next: () => number): string {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(next() * from.length)]!;
  if (kind === 'svg') return scrambled(pick(DRAWINGS), next);
  const card = pick([...DEMO_CARDS, SPORE]);
  const whole = kind === 'card' ? writeCardFile(card) : writeShelfFiles([card, SPORE])[0]!;
  if (next() < 0.4) return scrambled(whole, next);
  let file = JSON.parse(whole) as Parameters<typeof mutated>[0];
  for (let times = 1 + Math.floor(next() * 2); times > 0; times--) file = mutated(file, next);
  return JSON.stringify(file);
}

function scrambled(text: string, next: () => number): string {
  let broken = text;
  for (let times = 1 + Math.floor(next() * 3); times > 0; times--) {
    const at = Math.floor(next() * broken.length);
    const to = Math.min(broken.length, at + Math.floor(next() * 30));
    const way = Math.floor(next() * 4);
    if (way === 0) broken = broken.slice(0, at) + broken.slice(to);
    else if (way === 1) broken = broken.slice(0, to) + broken.slice(at);
    else if (way === 2) broken = broken.slice(0, at) + NASTY[Math.floor(next() * NASTY.length)]!(next) + broken.slice(at);
    else broken = broken.slice(0, at) + String.fromCharCode(32 + Math.floor(next() * 95)) + broken.slice(at + 1);
  }
  return broken;
}

/**
 * A file is refused in a line, or read as just what it holds, and then the card can be worked out: says what is broken, or
 * nothing.
 */
export function fileBroken(kind: FileKind, text: string): string | undefined {
  if (kind === 'svg') return outlineBroken(text);
  const reading = kind === 'card' ? readCardFile(text) : readShelfFile(text);
  if (!reading.ok) return refusalBroken(reading.problems);
  const cards = 'cards' in reading ? reading.cards : [reading.card];
  const held = JSON.parse(text.replace(/^\uFEFF/, '')) as { cards?: unknown[]; version?: unknown };
  const wanted = held.cards ?? [held];
  for (const [i, card] of cards.entries()) {
    // A card of an older version is brought up to this one; `old-files.ts` looks after those.
    const own = wanted[i] as { version?: unknown };
    if (own.version === card.version && plain(own) !== plain(card)) return `read as another card: ${difference(plain(own), plain(card))}`;
    const again = readCardFile(writeCardFile(card));
    if (!again.ok || plain(again.card) !== plain(card)) return 'what was read cannot be written and read again';
    evaluate(card);
  }
  return undefined;
}

function refusalBroken(problems: readonly FileProblem[]): string | undefined {
  if (problems.length === 0) return 'refused without a word';
  const bad = problems.find(
    ({ path, says }) => path === '' || says === '' || /\n/.test(path + says) || path.length + says.length > LONGEST_LINE,
  );
  return bad && `refused in more than a line, or in none: ${JSON.stringify(bad).slice(0, 300)}`;
}

function outlineBroken(text: string): string | undefined {
  const reading = readOutlineSvg(text, 'leaf.svg');
  if (!reading.ok) return refusalBroken([{ path: 'file', says: reading.says }]);
  const card = { ...DEMO_CARDS[0]!, outlines: [reading.outline] };
  const kept = readCardFile(writeCardFile(card));
  return kept.ok ? undefined : `an outline was read that no card can keep: ${kept.problems[0]!.path} ${kept.problems[0]!.says}`;
}

/** A value as text, its keys in one order. */
function plain(value: unknown): string {
  return JSON.stringify(value, (_, inner: unknown) =>
    typeof inner === 'object' && inner !== null && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );
}

/** Where two texts part, with a little of both. */
function difference(one: string, other: string): string {
  const at = [...one].findIndex((letter, i) => letter !== other[i]);
  const from = Math.max(0, at - 20);
  return `${one.slice(from, at + 40)} in place of ${other.slice(from, at + 40)}`;
}
