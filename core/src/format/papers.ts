import { MM_PER_INCH, type Mm } from '../measure/units.js';

/** Paper that printers take. */
export const PAPER_IDS = ['a4', 'a3', 'a5', 'letter', 'legal', 'tabloid'] as const;
export type PaperId = (typeof PAPER_IDS)[number];

const inches = (width: number, height: number) => ({ width: width * MM_PER_INCH, height: height * MM_PER_INCH });

/** Their names and sizes, upright. */
export const PAPERS: Readonly<Record<PaperId, { name: string; width: Mm; height: Mm }>> = {
  a4: { name: 'A4', width: 210, height: 297 },
  a3: { name: 'A3', width: 297, height: 420 },
  a5: { name: 'A5', width: 148, height: 210 },
  letter: { name: 'US Letter', ...inches(8.5, 11) },
  legal: { name: 'US Legal', ...inches(8.5, 14) },
  tabloid: { name: 'US Tabloid', ...inches(11, 17) },
};
