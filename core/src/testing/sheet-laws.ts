import { MaxRectsPacker } from 'maxrects-packer/dist/maxrects-packer.mjs';
import { fenceCuts } from '../plan/fence-cuts.js';
import { freeLayout, type FreeLayout } from '../plan/free-layout.js';
import { guillotine, placedOn, type Blank, type GuillotineLayout, type PlacedBlank, type Rectangle } from '../plan/guillotine.js';
import { leastSheets } from '../plan/least-sheets.js';

/** Blanks in whole mm, some of them several alike, and a sheet that holds each of them. */
export function anyJob(next: () => number): { blanks: Blank[]; sheet: { width: number; height: number } } {
  const within = (from: number, to: number): number => Math.round(from + next() * (to - from));
  const sheet = { width: within(180, 450), height: within(180, 450) };
  const kinds = within(1, 8);
  const blanks = Array.from({ length: kinds }, (_, kind): Blank[] => {
    const [width, height] = [within(6, 0.9 * Math.min(sheet.width, sheet.height)), within(6, 0.9 * Math.min(sheet.width, sheet.height))];
    return Array.from({ length: within(1, 10) }, (_unused, copy): Blank => ({ id: `${kind}#${copy}`, width, height, lies: 'either' }));
  });
  return { blanks: blanks.flat(), sheet };
}

const SAME = 1e-6;
const same = (a: number, b: number): boolean => Math.abs(a - b) < SAME;

/** What is wrong with a layout that a trimmer is to cut: nothing, when a maker who only reads the cuts ends with every blank. */
export function wrongWithCuts(layout: GuillotineLayout, blanks: readonly Blank[], sheet: { width: number; height: number }): string[] {
  const wrong = layout.sheets.flatMap((whole, i) => {
    // What lies on the table: one sheet at first, cut in two each time.
    let parts: Rectangle[] = [{ x: 0, y: 0, ...sheet }];
    const broken: string[] = [];
    for (const { order, fence, edge, from, to } of fenceCuts(whole)) {
      const isUpright = same(from[0], to[0]);
      const part = parts.find((one) =>
        isUpright
          ? same(one.y, from[1]) && same(one.y + one.height, to[1]) && from[0] > one.x + SAME && from[0] < one.x + one.width - SAME
          : same(one.x, from[0]) && same(one.x + one.width, to[0]) && from[1] > one.y + SAME && from[1] < one.y + one.height - SAME,
      );
      if (!part) {
        broken.push(`sheet ${i}, cut ${order} goes edge to edge through nothing that is there`);
        continue;
      }
      const edges = { left: part.x, right: part.x + part.width, lower: part.y, upper: part.y + part.height };
      const at = isUpright ? from[0] : from[1];
      if ((edge === 'left' || edge === 'right') !== isUpright || !same(Math.abs(at - edges[edge]), fence)) {
        broken.push(`sheet ${i}, cut ${order} is ${fence} from its ${edge} edge, but lies at ${at}`);
      }
      const [first, second]: [Rectangle, Rectangle] = isUpright
        ? [
            { ...part, width: at - part.x },
            { ...part, x: at, width: part.x + part.width - at },
          ]
        : [
            { ...part, height: at - part.y },
            { ...part, y: at, height: part.y + part.height - at },
          ];
      parts = [...parts.filter((other) => other !== part), first, second];
    }
    const isThere = (placed: PlacedBlank): boolean =>
      parts.some(
        ({ x, y, width, height }) => same(x, placed.x) && same(y, placed.y) && same(width, placed.width) && same(height, placed.height),
      );
    return [
      ...broken,
      ...placedOn(whole)
        .filter((placed) => !isThere(placed))
        .map(({ blank }) => `sheet ${i}: ${blank.id} is none of the parts`),
    ];
  });
  return [...wrong, ...wrongWithPlaces(layout.sheets.map(placedOn), blanks, sheet, 0)];
}

/** What is wrong with where blanks lie: each once, as large as it is, on its sheet, and so far from every other. */
export function wrongWithPlaces(
  sheets: readonly (readonly PlacedBlank[])[],
  blanks: readonly Blank[],
  sheet: { width: number; height: number },
  gap: number,
): string[] {
  const placed = sheets.flatMap((on, i) =>
    on.flatMap((one, k) => {
      const { blank, x, y, width, height, turned } = one;
      const [w, h] = turned ? [blank.height, blank.width] : [blank.width, blank.height];
      const mayLie = blank.lies === 'either' || (blank.lies === 'turned') === turned;
      const isOn = x > -SAME && y > -SAME && x + width < sheet.width + SAME && y + height < sheet.height + SAME;
      const over = on
        .slice(k + 1)
        .filter(
          (other) =>
            x < other.x + other.width + gap - SAME &&
            other.x < x + width + gap - SAME &&
            y < other.y + other.height + gap - SAME &&
            other.y < y + height + gap - SAME,
        );
      return [
        ...(same(width, w) && same(height, h) && mayLie ? [] : [`sheet ${i}: ${blank.id} is not as large as it is, or lies as it may not`]),
        ...(isOn ? [] : [`sheet ${i}: ${blank.id} lies beside the sheet`]),
        ...over.map((other) => `sheet ${i}: ${blank.id} lies over ${other.blank.id}`),
      ];
    }),
  );
  return [...notOnce(sheets, blanks), ...placed];
}

/** Blanks that lie on no sheet, or more than once. */
export function notOnce(sheets: readonly (readonly PlacedBlank[])[], blanks: readonly Blank[]): string[] {
  return blanks.flatMap(({ id }) => {
    const times = sheets.flat().filter((placed) => placed.blank.id === id).length;
    return times === 1 ? [] : [`${id} lies there ${times} times`];
  });
}

/** How many sheets a general packer takes, which cuts no piece edge to edge. */
export function sheetsOfPacker(blanks: readonly Blank[], { width, height }: { width: number; height: number }): number {
  const packer = new MaxRectsPacker(width, height, 0, { smart: false, pot: false, square: false, allowRotation: true, border: 0 });
  packer.addArray(blanks.map((blank) => ({ width: blank.width, height: blank.height, x: 0, y: 0, data: blank.id })) as never[]);
  return packer.bins.length;
}

/** A random job, cut both ways: what is wrong, and how many sheets each takes. */
export function judgedJob(next: () => number): { wrong: string[]; sheets: number; free: number; packer: number; least: number } {
  const { blanks, sheet } = anyJob(next);
  const least = leastSheets(blanks, sheet);
  const layout = guillotine(blanks, sheet, least);
  const free: FreeLayout = freeLayout(blanks, sheet, 2);
  const packer = sheetsOfPacker(blanks, sheet);
  const [own, other] = [layout.sheets.length, free.sheets.length];
  const wrong = [
    ...wrongWithCuts(layout, blanks, sheet),
    ...wrongWithPlaces(
      free.sheets.map(({ placed }) => placed),
      blanks,
      sheet,
      2,
    ),
    ...(own < least || packer < least ? [`${own} and ${packer} sheets are fewer than the least, ${least}`] : []),
    ...(own > packer ? [`${own} sheets where a general packer takes ${packer}`] : []),
  ];
  return { wrong, sheets: own, free: other, packer, least };
}
