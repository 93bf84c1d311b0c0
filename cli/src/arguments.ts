const REPEATED = ['set', 'part', 'stock', 'say', 'made', 'sheet'] as const;

/** A command line taken apart: words in order, options with their values, some of them repeated. */
export interface Arguments {
  words: string[];
  options: Map<string, string>;
  flags: Set<string>;
  /** values of options that may be given several times, in order */
  repeated: Record<(typeof REPEATED)[number], string[]>;
}

/** Something the user can put right; printed as one line, exit code 2. */
export class UsageError extends Error {}

const WITH_VALUE = new Set([
  'mechanism',
  ...REPEATED,
  'workshop',
  'notation',
  'board',
  'envelope',
  'within',
  'format',
  'out',
  'folds',
  'decimal',
  'paper',
  'outline',
  'width',
  'height',
  'thickness',
  'around',
  'ease',
  'slip',
  'overlap',
  'layers',
  'layer-steps',
  'layer-step',
  'layer-stock',
  'closed',
  'samples',
  'seed',
  'copies',
  'look',
  'tool',
  'server',
]);
const FLAGS = new Set(['json', 'help', 'anyway', 'print-and-cut', 'spares']);

/** @throws UsageError naming an option that is unknown or lacks its value */
export function readArguments(argv: readonly string[]): Arguments {
  const found: Arguments = {
    words: [],
    options: new Map(),
    flags: new Set(),
    repeated: { set: [], part: [], stock: [], say: [], made: [], sheet: [] },
  };
  for (let i = 0; i < argv.length; i++) {
    const word = argv[i]!;
    if (!word.startsWith('--')) {
      found.words.push(word);
      continue;
    }
    const [name, joined] = word.slice(2).split(/=(.*)/s) as [string, string | undefined];
    if (FLAGS.has(name)) {
      found.flags.add(name);
    } else if (WITH_VALUE.has(name)) {
      const value = joined ?? argv[++i];
      if (value === undefined) throw new UsageError(`--${name}: needs a value`);
      const several = REPEATED.find((option) => option === name);
      if (several) found.repeated[several].push(value);
      else found.options.set(name, value);
    } else {
      throw new UsageError(`--${name}: no such option; allowed: ${[...WITH_VALUE, ...FLAGS].map((o) => `--${o}`).join(', ')}`);
    }
  }
  return found;
}
