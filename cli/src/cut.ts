import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { LARGEST_SVG, type CutterReport } from '@diptychon/core';
import { UsageError, type Arguments } from './arguments.js';

interface Progress {
  id: string;
  state: 'waiting' | 'plotting' | 'paused' | 'done' | 'cancelled';
  done: number;
  seconds: number;
  of: number;
}

interface Streams {
  stdout: { write(text: string): unknown };
  stderr: { write(text: string): unknown };
}

/** A lost connection is taken up again so often, after so long (ms). */
const MOST_TRIES = 8;
const TRY_AFTER = 500;
/** Progress is told by tenths. */
const TENTH = 0.1;

/** Sends a drawing to a machine, follows it to its end, and says what came of it. @returns the exit code */
export async function cut(given: Arguments, { stdout, stderr }: Streams): Promise<number> {
  const file = given.words[1];
  if (!file) throw new UsageError('file: say which drawing, as in diptychon cut card.svg --server http://localhost:4173');
  const server = serverOf(given.options.get('server'));
  const drawing = read(file);
  const sent = await asked<Progress>(`${server}/cutter/jobs`, {
    method: 'POST',
    headers: { 'content-type': 'image/svg+xml' },
    body: drawing,
  });
  let last = sent;
  if (!given.flags.has('json')) stdout.write(`taken: ${Math.round(sent.of)} s of the machine’s time\n`);
  for (let lost = 0; last.state !== 'done' && last.state !== 'cancelled';) {
    try {
      for await (const progress of followed(`${server}/cutter/jobs/${sent.id}/events`)) {
        if (!given.flags.has('json') && Math.floor(progress.done / TENTH) > Math.floor(last.done / TENTH))
          stdout.write(`${Math.floor(100 * progress.done)} %\n`);
        [last, lost] = [progress, 0];
      }
      if (last.state !== 'done' && last.state !== 'cancelled') throw new Error('the connection ended');
    } catch (error) {
      if (error instanceof UsageError || ++lost > MOST_TRIES)
        throw new UsageError(`--server: the machine at ${server} is not heard of any more; the drawing may still be on it`);
      stderr.write('The connection was lost; taking it up again…\n');
      await wait(TRY_AFTER);
    }
  }
  const report = await asked<CutterReport>(`${server}/cutter/jobs/${sent.id}/report`);
  const out = given.options.get('out');
  if (out) await keepPicture(`${server}/cutter/jobs/${sent.id}/picture.svg`, out);
  if (given.flags.has('json')) stdout.write(`${JSON.stringify({ state: last.state, ...report }, null, 2)}\n`);
  else stdout.write(inWords(last.state, report));
  return last.state === 'done' ? 0 : 3;
}

function serverOf(typed: string | undefined): string {
  if (!typed) throw new UsageError('--server: say where the machine is, as in --server http://localhost:4173');
  try {
    const url = new URL(typed);
    if (url.protocol === 'http:' || url.protocol === 'https:') return url.origin;
  } catch {
    // Told below.
  }
  throw new UsageError(`--server: “${typed}” is no address of a server; allowed is one as http://localhost:4173`);
}

function read(file: string): string {
  try {
    if (statSync(file).size > LARGEST_SVG) throw new UsageError(`${file}: too large; allowed are ${LARGEST_SVG / 1024} kB`);
    return readFileSync(file, 'utf8');
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${file}: cannot be read`);
  }
}

async function asked<T>(address: string, request: RequestInit = {}): Promise<T> {
  let answer: Response;
  try {
    answer = await fetch(address, request);
  } catch {
    throw new UsageError(`--server: nothing answers at ${new URL(address).origin}`);
  }
  const told = (await answer.json().catch(() => ({}))) as T & { error?: string };
  if (!answer.ok) throw new UsageError(told.error ?? `--server: the machine answered with ${answer.status}`);
  return told;
}

/** What a machine tells while it works, as it comes. */
async function* followed(address: string): AsyncGenerator<Progress> {
  const answer = await fetch(address, { headers: { accept: 'text/event-stream' } });
  if (!answer.ok || !answer.body) throw new UsageError(`--server: the machine answered with ${answer.status}`);
  const decoder = new TextDecoder();
  let rest = '';
  for await (const piece of answer.body as unknown as AsyncIterable<Uint8Array>) {
    rest += decoder.decode(piece, { stream: true });
    const events = rest.split('\n\n');
    rest = events.pop()!;
    for (const event of events) {
      const data = /^data: (.*)$/m.exec(event);
      if (data) yield JSON.parse(data[1]!) as Progress;
    }
  }
}

async function keepPicture(address: string, out: string): Promise<void> {
  const answer = await fetch(address);
  try {
    writeFileSync(out, await answer.text());
  } catch {
    throw new UsageError(`--out: “${out}” cannot be written`);
  }
}

function inWords(state: Progress['state'], report: CutterReport): string {
  const { seconds, piecesFree, openingsFree, scoresMissed, tooClose, thinBridges } = report;
  const many = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;
  return [
    state === 'done' ? `cut in ${Math.round(seconds)} s` : `ended before it was done: ${state}`,
    `${many(piecesFree, 'piece')} and ${many(openingsFree, 'opening')} come free`,
    ...scoresMissed.map((says) => `score: ${says}`),
    ...tooClose.map((says) => `too close: ${says}`),
    ...thinBridges.map((says) => `thin: ${says}`),
    ...(report.unlooked ? ['there is so much in it that not every score and every pair of cuts was looked at'] : []),
    '',
  ].join('\n');
}
