import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { diptychon } from './testing/diptychon.js';

const folder = mkdtempSync(join(tmpdir(), 'diptychon-cut-'));
const drawing = join(folder, 'card.svg');
writeFileSync(drawing, '<svg/>');
const REPORT = {
  seconds: 8,
  lengths: {},
  piecesFree: 1,
  openingsFree: 0,
  scoresMissed: ['line 3 leaves every piece'],
  tooClose: [],
  thinBridges: [],
  unlooked: false,
};

describe('cut', () => {
  let server: Server;
  let url: string;
  /** what each connection is told, in turn; the last one again and again */
  let told: { state: string; done: number }[][];
  let refused: string | undefined;
  let connections: number;

  beforeAll(async () => {
    server = createServer((request, response) => {
      const json = (status: number, says: unknown): void => {
        response.writeHead(status, { 'content-type': 'application/json' });
        response.end(JSON.stringify(says));
      };
      if (request.method === 'POST')
        return refused ? json(422, { error: refused }) : json(201, { id: 'one', state: 'plotting', done: 0, seconds: 0, of: 8 });
      if (request.url!.endsWith('/report')) return json(200, REPORT);
      if (request.url!.endsWith('/picture.svg')) return void response.end('<svg>picture</svg>');
      response.writeHead(200, { 'content-type': 'text/event-stream' });
      const own = told[Math.min(connections++, told.length - 1)]!;
      for (const progress of own)
        response.write(`event: progress\ndata: ${JSON.stringify({ id: 'one', seconds: 0, of: 8, ...progress })}\n\n`);
      const isOver = own.some(({ state }) => state === 'done' || state === 'cancelled');
      if (isOver) response.end();
      else setTimeout(() => response.destroy(), 20);
    });
    await new Promise<void>((ready) => void server.listen(0, '127.0.0.1', ready));
    url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(() => void server.close());
  beforeEach(() => {
    told = [[{ state: 'done', done: 1 }]];
    refused = undefined;
    connections = 0;
  });

  it('follows a drawing to its end, says what came of it, and keeps the picture', async () => {
    const out = join(folder, 'cut.svg');
    const { code, out: said, err } = await diptychon('cut', drawing, '--server', url, '--out', out);
    expect([code, err]).toEqual([0, '']);
    expect(said).toContain('cut in 8 s\n1 piece and 0 openings come free\nscore: line 3 leaves every piece');
    expect(readFileSync(out, 'utf8')).toContain('picture');
    const record = JSON.parse((await diptychon('cut', drawing, '--server', url, '--json')).out) as object;
    expect(record).toEqual({ state: 'done', ...REPORT });
  });

  it('takes a lost connection up again, and ends otherwise where the drawing was cancelled', async () => {
    told = [[{ state: 'plotting', done: 0.34 }], [{ state: 'plotting', done: 0.4 }], [{ state: 'cancelled', done: 0.5 }]];
    const { code, out, err } = await diptychon('cut', drawing, '--server', url);
    expect(connections).toBe(3);
    expect(code).toBe(3);
    expect(err).toContain('The connection was lost; taking it up again');
    expect(out).toContain('34 %');
    expect(out).toContain('ended before it was done: cancelled');
  });

  it('says what the machine does not take', async () => {
    refused = 'The drawing holds no line to follow.';
    expect(await diptychon('cut', drawing, '--server', url)).toMatchObject({ code: 2, err: 'The drawing holds no line to follow.\n' });
  });

  it.each([
    [[], /say which drawing/],
    [[drawing], /--server: say where the machine is/],
    [[drawing, '--server', 'ftp://somewhere'], /“ftp:\/\/somewhere” is no address/],
    [[drawing, '--server', 'http://127.0.0.1:1'], /nothing answers at http:\/\/127.0.0.1:1/],
    [[join(folder, 'none.svg'), '--server', 'http://localhost'], /none.svg: cannot be read/],
    [[drawing, '--server', 'http://localhost', '--copies', '3'], /--copies: not an option of cut/],
  ] as const)('refuses %j in a line', async (given, says) => {
    const { code, err } = await diptychon('cut', ...given);
    expect([code, err]).toEqual([2, expect.stringMatching(says) as string]);
    expect(err.trim().split('\n')).toHaveLength(1);
  });
});
