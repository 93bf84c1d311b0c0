import * as v from 'valibot';

/** What is wrong with a file, where, and what would be right. */
export interface FileProblem {
  path: string;
  says: string;
}

const MOST_TOLD = 10;
/** Longer names and values of a broken file are cut: a message is a line. */
const LONGEST = 120;

/** The complaints of a schema as problems of a file. @param what “a card file” */
export function complaints(issues: readonly v.BaseIssue<unknown>[], what: string): FileProblem[] {
  return issues.slice(0, MOST_TOLD).map((issue) => ({ path: cut(pathOf(issue)), says: cut(complaint(issue, what)) }));
}

/** Where it is; a name that is empty is said to be. */
function pathOf(issue: v.BaseIssue<unknown>): string {
  const path = v.getDotPath(issue) ?? 'file';
  return path
    .split('.')
    .map((name) => name || '(an empty name)')
    .join('.');
}

function complaint(issue: v.BaseIssue<unknown>, what: string): string {
  if (issue.type === 'strict_object') return issue.expected === 'never' ? `does not belong in ${what}` : 'is missing';
  const shown = issue.received === 'undefined' ? 'is missing' : `is ${issue.received}`;
  return `${shown}; ${issue.message.startsWith('allowed') ? issue.message : `allowed: ${issue.expected ?? 'another kind of value'}`}`;
}

const cut = (words: string, longest = LONGEST): string => {
  // A name in a broken file may hold anything, line breaks too.
  const line = words.replace(/[\p{Cc}\p{Cf}\u2028\u2029]+/gu, ' ');
  return line.length > longest ? `${line.slice(0, longest - 1)}…` : line;
};

/** Problems whose names and values are cut to a line. */
export const inALine = (problems: readonly FileProblem[]): FileProblem[] =>
  problems.slice(0, MOST_TOLD).map(({ path, says }) => ({ path: cut(path), says: cut(says, 3 * LONGEST) }));

/** A value of a broken file, short enough for a sentence. */
export function shownValue(value: unknown): string {
  if (Array.isArray(value)) return 'a list';
  if (typeof value === 'object' && value !== null) return 'an object';
  return `“${cut(String(value))}”`;
}

/** The value that the text of a file holds; a byte-order mark before it is no fault. @throws SyntaxError where it is no JSON */
export const jsonOf = (text: string): unknown => JSON.parse(text.replace(/^\uFEFF/, ''));
