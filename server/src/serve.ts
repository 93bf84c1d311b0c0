import { fileURLToPath } from 'node:url';
import type { AddressInfo } from 'node:net';
import { application } from './application.js';
import { cutterHere } from './cutter.js';

// An empty one is one that was not given.
const port = Number(process.env['PORT'] || 4173);
const host = process.env['HOST'] || '127.0.0.1';
/** How many times faster than itself the machine runs that stands in for a real one. */
const pace = Number(process.env['CUTTER_PACE'] || 20);
const pageFolder = fileURLToPath(new URL('../../web/dist/browser', import.meta.url));

if (!Number.isInteger(port) || port < 0 || port > 65535) {
  console.error(`PORT: “${process.env['PORT']}” is not a port; allowed: 0 to 65535`);
  process.exit(2);
}

if (!(pace > 0 && pace <= 10_000)) {
  console.error(`CUTTER_PACE: “${process.env['CUTTER_PACE']}” is no pace; allowed: more than 0, up to 10000`);
  process.exit(2);
}

const server = application(pageFolder, cutterHere(pace)).listen(port, host, (error?: Error) => {
  if (error) {
    const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
    console.error(
      taken
        ? `Port ${port} is taken. Stop what uses it, or choose another: PORT=${port + 1} npm start`
        : `The server cannot start: ${error.message}`,
    );
    process.exit(1);
  }
  console.log(`Diptychon is at http://${host}:${(server.address() as AddressInfo).port}/`);
});
