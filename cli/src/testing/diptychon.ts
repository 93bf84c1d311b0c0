import { run } from '../run.js';

/** Runs the command line as a shell would, without one. */
export async function diptychon(...argv: string[]): Promise<{ code: number; out: string; err: string }> {
  let [out, err] = ['', ''];
  const code = await run(argv, { stdout: { write: (text) => (out += text) }, stderr: { write: (text) => (err += text) } });
  return { code, out, err };
}
