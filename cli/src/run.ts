import { writeFileSync } from 'node:fs';
import { evaluate, report, writeSvg, type CardDocument, type Evaluation } from '@diptychon/core';
import { readArguments, UsageError, type Arguments } from './arguments.js';
import { cardFrom } from './card-from-arguments.js';
import { catalogueRecord, printCatalogue, printReport } from './print.js';

interface Streams {
  stdout: { write: (text: string) => unknown };
  stderr: { write: (text: string) => unknown };
}

const HELP = `diptychon list [--json]
    the catalogue with each mechanism's free sizes, limits and defaults
diptychon compute CARD.json [--set NAME=VALUE …] [--json]
diptychon compute --mechanism ID [--set NAME=VALUE …] [--json]
    pieces, measures with reasons, findings and the motion's summary
diptychon export CARD.json --format FORMAT --out FILE
    a file for a cutter or printer

Lengths take a unit: 54mm, 5,4cm, 3 5/8, 3.625in. Angles: 45deg.
`;

const WRITERS: Readonly<Record<string, (evaluation: Evaluation, card: CardDocument) => string>> = {
  svg: ({ sheets }, card) => writeSvg(sheets, card.name),
};

/** Runs one command. @returns the exit code: 0 done, 2 something to put right */
export async function run(argv: readonly string[], { stdout, stderr }: Streams): Promise<number> {
  try {
    const given = readArguments(argv);
    const command = given.flags.has('help') ? 'help' : (given.words[0] ?? 'help');
    if (command === 'help') stdout.write(HELP);
    else if (command === 'list') stdout.write(given.flags.has('json') ? json(catalogueRecord()) : printCatalogue());
    else if (command === 'compute') {
      const { evaluation } = evaluated(given);
      stdout.write(given.flags.has('json') ? json(report(evaluation)) : printReport(report(evaluation)));
    } else if (command === 'export') stdout.write(exportTo(given));
    else throw new UsageError(`${command}: no such command; allowed: list, compute, export`);
    return 0;
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    stderr.write(`${error.message}\n`);
    return 2;
  }
}

function evaluated(given: Arguments): { evaluation: Evaluation; card: CardDocument } {
  const card = cardFrom(given);
  let outcome;
  try {
    outcome = evaluate(card);
  } catch (error) {
    if (error instanceof RangeError) throw new UsageError(error.message);
    throw error;
  }
  if (!outcome.ok) throw new UsageError(`${outcome.problems[0]!.size}: ${outcome.problems[0]!.says}`);
  return { evaluation: outcome.evaluation, card };
}

function exportTo(given: Arguments): string {
  const format = given.options.get('format') ?? '';
  const writer = WRITERS[format];
  if (!writer) throw new UsageError(`--format: “${format}” is not a format; allowed: ${Object.keys(WRITERS).join(', ')}`);
  const out = given.options.get('out');
  if (!out) throw new UsageError('--out: say which file to write');
  const { evaluation, card } = evaluated(given);
  try {
    writeFileSync(out, writer(evaluation, card));
  } catch {
    throw new UsageError(`--out: “${out}” cannot be written`);
  }
  return `wrote ${out}\n`;
}

function json(value: unknown): string {
  return `${JSON.stringify(value, null, 2)}\n`;
}
