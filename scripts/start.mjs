// Builds what is stale, then serves the application until stopped.
import { spawn } from 'node:child_process';
import { build } from './build.mjs';
import { root } from './root.mjs';

if (!build()) process.exit(1);
const server = spawn(process.execPath, ['server/dist/serve.js'], { cwd: root, stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
