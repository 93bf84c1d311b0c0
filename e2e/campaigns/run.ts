// Long trials in a real browser: `npm run campaign -- NAME [--seed S] [--count N]`. Ends with how many held.
import { parseArgs } from 'node:util';
import { builds } from './builds.js';
import { cycles } from './cycles.js';
import { dice } from './dice.js';
import { filesInPage } from './files-in-page.js';
import { soak } from './soak.js';

const CAMPAIGNS: Record<string, typeof cycles> = { builds, cycles, 'files-in-page': filesInPage, soak };
const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { seed: { type: 'string', default: '1' }, count: { type: 'string', default: '100' } },
});
const [name = ''] = positionals;
const [seed, count] = [Number(values.seed), Number(values.count)];
const campaign = CAMPAIGNS[name];
if (!campaign || !Number.isInteger(seed) || !Number.isInteger(count) || count < 1) {
  console.error(`npm run campaign -- ${Object.keys(CAMPAIGNS).join('|')} [--seed S] [--count N]: S and N are whole numbers.`);
  process.exit(2);
}
const broken = await campaign(dice(seed), count, (words) => console.log(words));
for (const says of broken) console.log(says);
console.log(`${name}, seed ${seed}: ${count} tried, ${broken.length} broken`);
process.exit(broken.length > 0 ? 1 : 0);
