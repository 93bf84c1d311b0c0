import { brokenFile, fileBroken, FILE_KINDS } from '../src/testing/broken-files.js';
import { dice } from '../src/testing/any-tree.js';

const LONGEST_MS = 1000;

/** Broken card, shelf and outline files: refused in a line or read as the same, none thrown at, none over a second. */
export function files(seed: number, count: number): string[] {
  const next = dice(seed);
  let longest = 0;
  const broken = Array.from({ length: count }).flatMap((_, i) => {
    const kind = FILE_KINDS[i % FILE_KINDS.length]!;
    const text = brokenFile(kind, next);
    const begun = performance.now();
    const says = saidOf(() => fileBroken(kind, text));
    const took = performance.now() - begun;
    longest = Math.max(longest, took);
    const slow = took > LONGEST_MS ? `took ${Math.round(took)} ms` : undefined;
    return [says, slow].filter(Boolean).map((what) => `${kind} ${i}: ${what}: ${JSON.stringify(text.slice(0, 200))}`);
  });
  console.log(`the longest took ${Math.round(longest)} ms`);
  return broken;
}

function saidOf(work: () => string | undefined): string | undefined {
  try {
    return work();
  } catch (error) {
    return `thrown: ${error instanceof Error ? error.message : String(error)}`;
  }
}
