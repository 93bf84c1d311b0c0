// Finds a Chromium for the browser tests, installing Debian's where that is possible.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const PLACES = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
const found = () => PLACES.find((place) => place && existsSync(place));

/** @returns the path of a Chromium, or undefined after saying what to install */
export function ensureChromium() {
  if (found()) return found();
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Chromium for the browser tests…');
    spawnSync('apt-get', ['update', '-q'], { stdio: 'inherit' });
    spawnSync('apt-get', ['install', '-y', '-q', 'chromium', 'poppler-utils'], {
      stdio: 'inherit',
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    if (found()) return found();
  }
  console.error('The browser tests need Chromium. Install it (Debian: apt-get install chromium) or set CHROMIUM to its path.');
  return undefined;
}
