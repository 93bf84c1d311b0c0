import type { Evaluation } from '../evaluate.js';

/** What was judged of a card, in one sentence: to stand on whatever leaves the program. */
export interface VerdictLine {
  works: boolean;
  says: string;
}

/** The verdict of all checks together, its first fault named. */
export function verdictLine({ findings }: Pick<Evaluation, 'findings'>): VerdictLine {
  const failing = findings.filter(({ severity }) => severity === 'fail');
  const warnings = findings.filter(({ severity }) => severity === 'warn').length;
  const [first] = failing;
  if (first) {
    const more = failing.length > 1 ? ` And ${failing.length - 1} more.` : '';
    return { works: false, says: `This card does not work yet: ${first.says}${more}` };
  }
  const also = warnings === 0 ? '' : `, ${warnings === 1 ? 'one thing' : `${warnings} things`} to watch`;
  return { works: true, says: `Judged and found to work${also}.` };
}
