// Long trials with random cards: `npm run campaign -- NAME [--seed S] [--count N]`. Ends with how many held.
import { parseArgs } from 'node:util';
import { conflicts } from './conflicts.js';
import { files } from './files.js';
import { trees } from './trees.js';
import { migrations } from './migrations.js';
import { lists } from './lists.js';
import { repairs } from './repairs.js';
import { sheets } from './sheets.js';
import { verdicts } from './verdicts.js';

const CAMPAIGNS: Record<string, (seed: number, count: number) => Iterable<string>> = {
  trees,
  migrations,
  verdicts,
  files,
  repairs,
  conflicts,
  lists,
  sheets,
};
const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { seed: { type: 'string', default: '1' }, count: { type: 'string', default: '1000' } },
});
const [name = ''] = positionals;
const [seed, count] = [Number(values.seed), Number(values.count)];
const campaign = CAMPAIGNS[name];
if (!campaign || !Number.isInteger(seed) || !Number.isInteger(count) || count < 1) {
  console.error(
    `npm run campaign -- NAME [--seed S] [--count N]: NAME is one of ${Object.keys(CAMPAIGNS).join(', ')}; S and N are whole numbers.`,
  );
  process.exit(2);
}
let broken = 0;
for (const says of campaign(seed, count)) {
  console.log(says);
  broken++;
}
console.log(`${name}, seed ${seed}: ${count} tried, ${broken} broken`);
process.exit(broken > 0 ? 1 : 0);
