// The list of rooms is the list of folders, and every rule of the house can fire: each is given an import that it must refuse.
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ESLint } from 'eslint';
import { FOR_TESTS, ROOMS, forbiddenTo } from './floors.mjs';
import { root } from './root.mjs';

const listed = [...ROOMS.map(({ room }) => room), FOR_TESTS].sort();
const folders = readdirSync(join(root, 'core', 'src'), { withFileTypes: true })
  .filter((entry) => entry.isDirectory())
  .map(({ name }) => name)
  .sort();
const faults = [];
if (listed.join() !== folders.join()) faults.push(`scripts/floors.mjs lists ${listed.join(', ')}; core/src holds ${folders.join(', ')}`);

const BREACHES = [
  ...ROOMS.flatMap(({ room }) =>
    forbiddenTo(room).map((pattern) => ({
      file: `core/src/${room}/probe.ts`,
      from: pattern.replace('**/', '../').replace('**', 'probe.js'),
    })),
  ),
  ...['web/src/app', 'cli/src', 'server/src', 'e2e'].flatMap((place) =>
    ['@diptychon/core/dist/evaluate.js', '../../core/src/evaluate.js', '@diptychon/core/src/card/draw.js'].map((from) => ({
      file: `${place}/probe.ts`,
      from,
    })),
  ),
];
const ALLOWED = [
  { file: 'core/src/check/probe.ts', from: '../card/join.js' },
  { file: 'web/src/app/probe.ts', from: '@diptychon/core' },
  { file: 'cli/src/probe.ts', from: '@diptychon/core/files' },
];

const eslint = new ESLint({ cwd: root });
const refused = async ({ file, from }) => {
  const [{ messages }] = await eslint.lintText(`import { probe } from '${from}';\nprobe();\n`, { filePath: join(root, file) });
  return messages.some(({ ruleId }) => ruleId === 'no-restricted-imports');
};
for (const breach of BREACHES) if (!(await refused(breach))) faults.push(`${breach.file} may import ${breach.from}, which no rule refuses`);
for (const fine of ALLOWED) if (await refused(fine)) faults.push(`${fine.file} may not import ${fine.from}, which it should`);

for (const fault of faults) console.error(fault);
if (faults.length > 0) process.exit(1);
console.log(`Floors: ${ROOMS.length} rooms, ${BREACHES.length} forbidden imports refused, ${ALLOWED.length} allowed ones let through`);
