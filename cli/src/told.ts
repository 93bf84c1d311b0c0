/** What a command tells: as a record for `--json`, and in lines for people. */
export interface Told {
  record: object;
  lines: string;
}

/** Lines with an end each. */
export const inLines = (lines: readonly string[]): string => `${lines.join('\n')}\n`;
