/** What a sample is asked. */
export const ASKED = ['closes', 'meets', 'swings', 'inside', 'fits'] as const;
export type Asked = (typeof ASKED)[number];

/** How often each question was answered well, over samples from one number up to another. */
export interface SampleCounts {
  samples: number;
  well: Record<Asked | 'works', number>;
  /** by source: samples that would work were it exact */
  ifExact: number[];
  /** by how much of its play the most strained place takes: samples by tenths, the last for all beyond */
  used: number[];
}

/** Counts of two runs of samples together. */
export function together(a: SampleCounts, b: SampleCounts): SampleCounts {
  const well = Object.fromEntries(
    Object.entries(a.well).map(([asked, count]) => [asked, count + b.well[asked as Asked]]),
  ) as SampleCounts['well'];
  return {
    samples: a.samples + b.samples,
    well,
    ifExact: a.ifExact.map((count, s) => count + b.ifExact[s]!),
    used: a.used.map((count, k) => count + b.used[k]!),
  };
}
