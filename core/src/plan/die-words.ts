import { sayLength } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';
import { boxOf, isRectangle, type Loop } from '../plane/outline.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import { fitted, shapeNamed } from '../plane/shapes.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Die, Workshop } from '../supplies/workshop.js';

/** A die cuts a drawn line that is nowhere farther from its own. */
const FITS: Mm = 0.5;
/** Of a die of the shape, sizes within this are told, though they are none of them right. */
const NEAR: Mm = 12;

export const PRESS =
  'Dies and press: mind the cutting edge, keep fingers out of the rollers, and follow its instructions and your local rules.';

const TURNS = ['upright', 'turned a quarter to the left', 'turned upside down', 'turned a quarter to the right'] as const;

/** A die laid so that it cuts a line: which of its sizes, and how it is turned. */
interface Laid {
  die: Die;
  size: Mm;
  turn: (typeof TURNS)[number];
  exact: boolean;
}

/** A die that cuts an opening, or a piece, of just this outline; or the nearest size of one that has its shape. */
function laidOn(outline: Loop, of: 'cut' | 'opening', dies: readonly Die[], own: Readonly<Record<string, Loop>>): Laid | undefined {
  let best: (Laid & { off: Mm }) | undefined;
  for (const die of dies) {
    const shape = shapeNamed(die.outline, own);
    if (!shape) continue;
    for (const [quarters, turn] of TURNS.entries()) {
      const { minX, maxX, minY, maxY } = boxOf(turnedBack(outline, quarters));
      const [width, height] = [maxX - minX, maxY - minY];
      // It has the die's shape where the die's outline, brought to its height, lies on it.
      const drawn = fitted(shape, height);
      const upright = turnedBack(outline, quarters).map(([x, y]): Point => [x - minX, y - minY]);
      // Its width alone tells most shapes apart.
      if (Math.abs(boxOf(drawn).maxX - width) > FITS || apartFrom(drawn, upright) > FITS) continue;
      for (const size of die.sizes) {
        const off = Math.abs(size[of] - width);
        if (off > NEAR || (best && best.off <= off)) continue;
        best = { die, size: size[of], turn, exact: off <= FITS, off };
      }
      // A circle lies the same every way.
      if (best?.exact) return best;
    }
  }
  return best;
}

/** An outline turned back by so many quarters to the left. */
function turnedBack(loop: Loop, quarters: number): Loop {
  return loop.map(([x, y]): Point => {
    if (quarters === 1) return [y, -x];
    if (quarters === 2) return [-x, -y];
    return quarters === 3 ? [-y, x] : [x, y];
  });
}

const apartFrom = (a: Loop, b: Loop): Mm => Math.max(farthest(a, b), farthest(b, a));

const farthest = (points: Loop, line: Loop): Mm =>
  Math.max(...points.map((p) => Math.min(...line.map((from, i) => distanceToSegment(p, from, line[(i + 1) % line.length]!)))));

/** Which of my dies cuts an opening of a piece, and where its middle is laid; as sentences, with whether one fits. */
export function dieWords(
  { outline, windows }: Pick<CutSheet, 'outline' | 'windows'>,
  where: 'inside' | 'out',
  { dies }: Pick<Workshop, 'dies'>,
  own: Readonly<Record<string, Loop>>,
  notation: Notation,
): { says: string[]; fits: boolean } {
  const say = (mm: Mm): string => sayLength(mm, notation);
  const lines = where === 'out' ? [outline] : windows.filter(({ slot }) => !slot).map((window) => window.outline);
  const found = lines
    .filter((line) => !isRectangle(line))
    .flatMap((line) => {
      const laid = laidOn(line, where === 'out' ? 'cut' : 'opening', dies, own);
      return laid ? [{ line, laid }] : [];
    });
  const says = found.map(({ line, laid: { die, size, turn, exact } }) => {
    const { minX, maxX, minY, maxY } = boxOf(line);
    const what = where === 'out' ? 'size' : 'opening';
    if (!exact)
      return `Of “${die.name}” the nearest ${what} is ${say(size)} wide: this one is ${say(maxX - minX)}, so a die does not serve.`;
    if (where === 'out') return `Or cut it with “${die.name}”, its ${what} ${say(size)} wide, ${turn}.`;
    return `Or with “${die.name}”, its ${what} ${say(size)} wide, laid ${turn} on the unfolded piece: its middle ${say((minX + maxX) / 2)} from the left edge and ${say((minY + maxY) / 2)} from the lower edge. Pencil both lines through it, and line up the die's own middle.`;
  });
  return { says, fits: found.some(({ laid }) => laid.exact) };
}
