// Finds what the browser tests need (Chromium, and pdftoppm to look at PDFs), installing Debian's where that is possible.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const PLACES = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
const found = () => PLACES.find((place) => place && existsSync(place));

const rendersPdf = () => spawnSync('pdftoppm', ['-v'], { stdio: 'ignore' }).error === undefined;

/** @returns the path of a Chromium, or undefined after saying what to install */
export function ensureChromium() {
  if (found() && rendersPdf()) return found();
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Chromium and poppler-utils for the browser tests…');
    spawnSync('apt-get', ['update', '-q'], { stdio: 'inherit' });
    spawnSync('apt-get', ['install', '-y', '-q', 'chromium', 'poppler-utils'], {
      stdio: 'inherit',
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    if (found() && rendersPdf()) return found();
  }
  console.error(
    'The browser tests need Chromium and pdftoppm. Install them (Debian: apt-get install chromium poppler-utils), or set CHROMIUM to its path.',
  );
  return undefined;
}
