import { dice } from '../src/testing/any-tree.js';
import { judgedJob } from '../src/testing/sheet-laws.js';

/**
 * Random jobs: every cut goes edge to edge and ends with the blanks, nothing lies over anything, and there are no more sheets than a
 * general packer takes. Says how often each is as good as can be proven.
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
  return broken;
}
