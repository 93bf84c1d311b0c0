import { dice } from '../src/testing/any-tree.js';
import { freeLayout } from '../src/plan/free-layout.js';
import { nested } from '../src/plan/outline-nesting.js';
import { anyShapes, wrongWithOutlines } from '../src/testing/nesting-laws.js';
import { judgedJob } from '../src/testing/sheet-laws.js';

/** Between shapes, mm. */
const ROOM = 2;

/**
 * Random jobs. For a trimmer: every cut goes edge to edge and ends with the blanks, nothing lies over anything, and there are no more sheets than a
 * general packer takes; says how often each is as good as can be proven. By outlines: no shape nearer to another than it may, by
 * looking at every edge of both.
 */
export function sheets(seed: number, count: number): string[] {
  const next = dice(seed);
  const all = { own: 0, packer: 0, least: 0, proven: 0, fewer: 0 };
  const broken = Array.from({ length: count }).flatMap((_, i): string[] => {
    const job = judgedJob(next);
    all.own += job.sheets;
    all.packer += job.packer;
    all.least += job.least;
    if (job.sheets === job.least) all.proven++;
    if (job.sheets < job.packer) all.fewer++;
    return job.wrong.map((says) => `${i}: ${says}`);
  });
  console.log(`${all.own} sheets cut edge to edge; a general packer takes ${all.packer}; none takes fewer than ${all.least}`);
  console.log(`${all.proven} of ${count} jobs proven to need no fewer; ${all.fewer} need fewer than the packer's`);
  return [...broken, ...byOutline(next, count)];
}

function byOutline(next: () => number, count: number): string[] {
  const all = { outlines: 0, boxes: 0 };
  const broken = Array.from({ length: count }).flatMap((_, i): string[] => {
    const { blanks, shapes, sheet } = anyShapes(next);
    const { sheets: own } = nested(blanks, sheet, ROOM, ({ id }) => shapes.get(id)!)!;
    all.outlines += own.length;
    all.boxes += freeLayout(blanks, sheet, ROOM).sheets.length;
    const places = own.map(({ placed }) => placed);
    return wrongWithOutlines(places, blanks, shapes, sheet, ROOM).map((says) => `shapes ${i}: ${says}`);
  });
  console.log(`${all.outlines} sheets by outlines, ${all.boxes} by boxes`);
  return broken;
}
