import type { PDFFont } from '@cantoo/pdf-lib';
import type { Mm } from '../measure/units.js';
import { PT } from './pdf-units.js';

/** A stretch of words that one font file has all letters of. */
export interface Run {
  font: PDFFont;
  words: string;
}

/** What stands for a letter that none of the files has. */
const MISSING = '?';

/** Letters from several font files as one font: each letter comes from the first file that has it. */
export class PrintFont {
  /** letters that were asked for and that no file has */
  readonly missing = new Set<string>();
  private readonly widths = new Map<string, number>();
  private readonly sets: readonly ReadonlySet<number>[];

  constructor(private readonly fonts: readonly PDFFont[]) {
    this.sets = fonts.map((font) => new Set(font.getCharacterSet()));
  }

  runs(words: string): Run[] {
    const runs: Run[] = [];
    for (const letter of words) {
      const found = this.sets.findIndex((set) => set.has(letter.codePointAt(0)!));
      if (found < 0) this.missing.add(letter);
      const font = this.fonts[Math.max(0, found)]!;
      const shown = found < 0 ? MISSING : letter;
      const last = runs.at(-1);
      if (last?.font === font) last.words += shown;
      else runs.push({ font, words: shown });
    }
    return runs;
  }

  /** Width of words at a size in points. */
  width(words: string, size: number): Mm {
    return (this.perPoint(words) * size) / PT;
  }

  /** Width at a size of one point, in points: measuring letters is slow, and the same words come again at many sizes. */
  private perPoint(words: string): number {
    const known = this.widths.get(words);
    if (known !== undefined) return known;
    const width = this.runs(words).reduce((sum, run) => sum + run.font.widthOfTextAtSize(run.words, 1), 0);
    this.widths.set(words, width);
    return width;
  }

  /** Words broken into lines no wider than `width`; a word that is wider by itself is broken too. */
  wrapped(words: string, size: number, width: Mm): string[] {
    const lines: string[] = [];
    const space = this.width(' ', size);
    let [line, wide] = ['', 0];
    for (const word of words.split(/\s+/).flatMap((whole) => this.brokenWord(whole, size, width))) {
      const own = this.width(word, size);
      if (line && wide + space + own > width) {
        lines.push(line);
        [line, wide] = [word, own];
      } else [line, wide] = line ? [`${line} ${word}`, wide + space + own] : [word, own];
    }
    return [...lines, line];
  }

  /** Words cut off to a width, with a mark where something is left out. */
  shortened(words: string, size: number, width: Mm): string {
    if (this.width(words, size) <= width) return words;
    let kept = [...words];
    while (kept.length > 1 && this.width(`${kept.join('')}…`, size) > width) kept = kept.slice(0, -1);
    return `${kept.join('').trimEnd()}…`;
  }

  private brokenWord(word: string, size: number, width: Mm): string[] {
    if (this.width(word, size) <= width) return [word];
    const pieces: string[] = [''];
    for (const letter of word) {
      if (pieces.at(-1) !== '' && this.width(pieces.at(-1)! + letter, size) > width) pieces.push(letter);
      else pieces[pieces.length - 1] += letter;
    }
    return pieces;
  }
}
