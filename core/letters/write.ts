import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import * as fontkit from 'fontkit';
import { FillRule, unionD, type PathD } from 'clipper2-ts';
import { format } from 'prettier';
import type { FontTable } from '../src/letters/font-table.js';

/** Writes the letters of the shipped fonts as tables of outlines, so that words can be cut and drawn without a font file. */

const LETTERS = [
  ...'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789',
  ..." .,:;!?'’“”()&+-–",
  ...'ÄÖÜäöüßÀÁÂÃÅÆÇÈÉÊËÍÎÑÓÔØÚàáâãåæçèéêëíîïñóôõøùúûý',
];
/** A curve is drawn no farther from its letter than so many thousandths of the type’s size. */
const TOLERANCE = 3;

const require = createRequire(import.meta.url);
const file = (name: string): string => require.resolve(name);
const SOURCES = [
  { id: 'serif', constant: 'SERIF', file: file('@fontsource/literata/files/literata-latin-600-normal.woff') },
  {
    id: 'plain',
    constant: 'PLAIN',
    file: new URL('../../web/public/print-fonts/atkinson-hyperlegible-next-latin-700-normal.woff', import.meta.url).pathname,
  },
  { id: 'handwritten', constant: 'HANDWRITTEN', file: file('@fontsource/caveat/files/caveat-latin-600-normal.woff') },
];

interface Command {
  command: 'moveTo' | 'lineTo' | 'quadraticCurveTo' | 'bezierCurveTo' | 'closePath';
  args: number[];
}

/** The outlines of a letter as straight stretches, overlapping strokes made one. */
function outlines(commands: readonly Command[], scale: number): string {
  const paths: PathD[] = [];
  let path: { x: number; y: number }[] = [];
  const at = (): { x: number; y: number } => path.at(-1)!;
  for (const { command, args } of commands) {
    const points = Array.from({ length: args.length / 2 }, (_, i) => ({ x: args[2 * i]! * scale, y: args[2 * i + 1]! * scale }));
    if (command === 'moveTo') paths.push((path = [points[0]!]) as PathD);
    else if (command === 'lineTo') path.push(points[0]!);
    else if (command !== 'closePath') {
      const handles = [at(), ...points];
      // A curve strays from the chords of n steps by about its height ÷ n².
      const bow = Math.max(...points.map(({ x, y }) => Math.hypot(x - at().x, y - at().y)));
      const steps = Math.max(2, Math.ceil(Math.sqrt(bow / (4 * TOLERANCE))));
      for (let i = 1; i <= steps; i++) path.push(onCurve(handles, i / steps));
    }
  }
  const whole = unionD(paths as unknown as PathD[] as never, [] as never, FillRule.NonZero, 3) as unknown as { x: number; y: number }[][];
  return (
    whole
      .map((loop) => loop.map(({ x, y }) => [Math.round(x), Math.round(y)] as const))
      .map((loop) => loop.filter(([x, y], i) => i === 0 || x !== loop[i - 1]![0] || y !== loop[i - 1]![1]))
      .filter((loop) => loop.length > 2)
      // Steps from point to point are shorter to write than places.
      .map((loop) => loop.map(([x, y], i) => `${x - (loop[i - 1]?.[0] ?? 0)} ${y - (loop[i - 1]?.[1] ?? 0)}`).join(' '))
      .join(';')
  );
}

/** De Casteljau: halfway points of halfway points. */
function onCurve(handles: readonly { x: number; y: number }[], t: number): { x: number; y: number } {
  if (handles.length === 1) return handles[0]!;
  const next = handles
    .slice(1)
    .map(({ x, y }, i) => ({ x: handles[i]!.x + t * (x - handles[i]!.x), y: handles[i]!.y + t * (y - handles[i]!.y) }));
  return onCurve(next, t);
}

for (const { id, constant, file: path } of SOURCES) {
  const font = fontkit.create(readFileSync(path)) as fontkit.Font;
  const scale = 1000 / font.unitsPerEm;
  const own = LETTERS.filter((letter) => font.hasGlyphForCodePoint(letter.codePointAt(0)!));
  const advance = (words: string): number => font.layout(words).glyphs.length && font.layout(words).advanceWidth * scale;
  const letters: Record<string, readonly [number, string]> = {};
  for (const letter of own) {
    const glyph = font.glyphForCodePoint(letter.codePointAt(0)!);
    letters[letter] = [Math.round(glyph.advanceWidth * scale), outlines(glyph.path.commands as Command[], scale)];
  }
  const kerns: Record<string, number> = {};
  const plain = own.filter((letter) => /[A-Za-z.,]/.test(letter));
  for (const a of plain)
    for (const b of plain) {
      const run = font.layout(a + b);
      // Letters that melt into one are set apart all the same: each is an outline of its own.
      if (run.glyphs.length !== 2) continue;
      const kern = Math.round(advance(a + b) - advance(a) - advance(b));
      if (Math.abs(kern) >= 6) kerns[a + b] = kern;
    }
  const height = font.glyphForCodePoint('H'.codePointAt(0)!).bbox.maxY * scale;
  const table: FontTable = {
    capital: Math.round(height),
    line: Math.round((font.ascent - font.descent + font.lineGap) * scale),
    letters,
    kerns,
  };
  const text = `import type { FontTable } from './font-table.js';

/** Written by \`npm run letters --workspace core\`: do not edit. */
export const ${constant}: FontTable = JSON.parse(${JSON.stringify(JSON.stringify(table)).replaceAll('`', '\\`')}) as FontTable;
`;
  const folder = new URL('../src/letters/', import.meta.url);
  mkdirSync(folder, { recursive: true });
  writeFileSync(new URL(`${id}.ts`, folder), await format(text, { parser: 'typescript', printWidth: 140, singleQuote: true }));
}
