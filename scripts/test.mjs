// Everything that must hold: lint, unit tests, component tests, journeys in a browser. Ends with one line of counts.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build.mjs';
import { ensureChromium } from './ensure-chromium.mjs';
import { root } from './root.mjs';

const reports = join(root, '.build', 'reports');
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });

const counts = { passed: 0, failed: 0 };

function run(title, command, args, { cwd = root, env = {} } = {}) {
  console.log(`\n— ${title}`);
  const { status } = spawnSync(command, args, { cwd, stdio: 'inherit', env: { ...process.env, ...env } });
  return status === 0;
}

/** A step without tests of its own counts as one. */
function step(title, ok) {
  counts[ok ? 'passed' : 'failed']++;
  if (!ok) console.error(`${title} failed`);
  return ok;
}

function tally(file, ok, read) {
  if (!existsSync(file)) {
    counts.failed++;
    return;
  }
  const { passed, failed } = read(JSON.parse(readFileSync(file, 'utf8')));
  counts.passed += passed;
  counts.failed += failed;
  if (!ok && failed === 0) counts.failed++;
}

const vitest = (report) => ({ passed: report.numPassedTests, failed: report.numFailedTests });
const playwright = ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected });

const built = step('build', build());
step('lint', run('Lint and floors', 'npm', ['run', '--silent', 'lint']));
if (built) {
  for (const room of ['core', 'cli', 'server']) {
    const file = join(reports, `${room}.json`);
    const ok = run(`Tests of ${room}`, 'npx', ['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${file}`], {
      cwd: join(root, room),
    });
    tally(file, ok, vitest);
  }
  const webReport = join(reports, 'web.json');
  const webOk = run(
    'Tests of web',
    'npx',
    ['ng', 'test', '--watch=false', '--reporters=default', '--reporters=json', `--output-file=${webReport}`],
    { cwd: join(root, 'web') },
  );
  tally(webReport, webOk, vitest);

  const chromium = ensureChromium();
  if (chromium) {
    const ok = run('Journeys in the browser', 'npx', ['playwright', 'test'], { cwd: join(root, 'e2e'), env: { CHROMIUM: chromium } });
    tally(join(root, 'e2e', 'test-results', 'report.json'), ok, playwright);
  } else {
    counts.failed++;
  }
}

console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed > 0 ? 1 : 0);
