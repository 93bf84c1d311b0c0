import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutterMoves, lengthOf, USUAL_CUTTER, type CutterJob, type CutterLine } from './cutter-job.js';
import { cutterReport } from './cutter-report.js';

const square = (x: number, y: number, side: number, tool: CutterLine['tool'] = 'cut'): CutterLine => ({
  tool,
  closed: true,
  points: [
    [x, y],
    [x + side, y],
    [x + side, y + side],
    [x, y + side],
  ],
});
const line = (tool: CutterLine['tool'], from: [number, number], to: [number, number]): CutterLine => ({
  tool,
  closed: false,
  points: [from, to],
});
const job = (...lines: CutterLine[]): CutterJob => ({ width: 200, height: 200, lines });

describe('the way of a cutter', () => {
  const plain = job(square(10, 10, 40), square(20, 20, 10), line('score', [30, 10], [30, 50]), line('draw', [15, 15], [45, 15]));

  it('draws and scores before it cuts, and cuts what lies inside first', () => {
    const tools = cutterMoves(plain, USUAL_CUTTER).filter(({ tool }) => tool !== 'travel');
    expect(tools.map(({ tool, line: nth }) => [tool, nth])).toEqual([
      ['draw', 3],
      ['score', 2],
      ['cut', 1],
      ['cut', 0],
    ]);
  });

  it('is as long as its lines, closed ones by the overcut longer, and takes as long as that at its speed', () => {
    const { lengths, seconds } = cutterReport(plain, USUAL_CUTTER);
    const { speed, overcut } = USUAL_CUTTER;
    expect(lengths['cut']).toBeCloseTo(4 * 40 + 4 * 10 + 2 * overcut, 9);
    expect([lengths['score'], lengths['draw']]).toEqual([40, 30]);
    expect(seconds).toBeCloseTo(lengths['cut']! / speed.cut + 40 / speed.score + 30 / speed.draw + lengths['travel']! / speed.travel, 9);
  });

  it('hangs together, follows every line once, and never leaves one', () => {
    const spot = fc.tuple(fc.integer({ min: 0, max: 150 }), fc.integer({ min: 0, max: 150 }));
    const tool = fc.constantFrom('draw' as const, 'score' as const, 'cut' as const);
    const any = fc.oneof(
      fc.tuple(spot, fc.integer({ min: 1, max: 50 }), tool).map(([[x, y], side, own]) => square(x, y, side, own)),
      fc
        .tuple(spot, spot, tool)
        .filter(([a, b]) => a[0] !== b[0] || a[1] !== b[1])
        .map(([a, b, own]) => line(own, a, b)),
    );
    fc.assert(
      fc.property(fc.array(any, { minLength: 1, maxLength: 12 }), (lines) => {
        const moves = cutterMoves(job(...lines), USUAL_CUTTER);
        moves.slice(1).forEach((move, i) => expect(move.points[0]).toEqual(moves[i]!.points.at(-1)));
        const followed = moves.flatMap(({ line: nth }) => nth ?? []);
        expect([...followed].sort((a, b) => a - b)).toEqual(lines.map((_, i) => i));
        for (const { line: nth, length } of moves) {
          if (nth === undefined) continue;
          const { points, closed } = lines[nth]!;
          const own = lengthOf(closed ? [...points, points[0]!] : points);
          expect(length - own).toBeCloseTo(closed ? USUAL_CUTTER.overcut : 0, 6);
        }
      }),
    );
  });
});

describe('what comes of a drawing on a cutter', () => {
  it('counts what comes free: pieces, and openings in them, and pieces in those', () => {
    const { piecesFree, openingsFree } = cutterReport(
      job(square(0, 0, 100), square(20, 20, 60), square(30, 30, 20), square(120, 120, 30)),
      USUAL_CUTTER,
    );
    expect([piecesFree, openingsFree]).toEqual([3, 1]);
  });

  // An opening 0.3 mm from the edge tears, one 1 mm from it holds badly, one 5 mm from it holds.
  it.each([
    [0.3, 1, 0],
    [1, 0, 1],
    [5, 0, 0],
  ])('says of %d mm of paper beside an opening how it holds', (by, close, thin) => {
    const { tooClose, thinBridges } = cutterReport(job(square(0, 0, 100), square(by, 30, 20)), USUAL_CUTTER);
    expect([tooClose.length, thinBridges.length]).toEqual([close, thin]);
    if (close + thin > 0) expect([...tooClose, ...thinBridges][0]).toContain(`${by.toFixed(2)} mm`);
  });

  it('takes cuts that meet as meant', () => {
    const slit = line('cut', [0, 50], [40, 50]);
    expect(cutterReport(job(square(0, 0, 100), slit), USUAL_CUTTER).tooClose).toEqual([]);
  });

  it('says which scores are missed', () => {
    const { scoresMissed } = cutterReport(
      job(square(0, 0, 100), line('score', [50, 0], [50, 100]), line('score', [90, 40], [140, 40]), line('score', [5, 5], [5.2, 5])),
      USUAL_CUTTER,
    );
    expect(scoresMissed).toEqual([expect.stringMatching(/^line 3 leaves every piece/), expect.stringMatching(/^line 4 is 0.20 mm long/)]);
  });

  it('of more than can be looked at says so', () => {
    // A thousand rings round one another: near each other all of them.
    const many = Array.from({ length: 1000 }, (_, i): CutterLine => {
      const points = Array.from({ length: 50 }, (_unused, k): [number, number] => [
        100 + (20 + i / 20) * Math.cos(k / 8),
        100 + (20 + i / 20) * Math.sin(k / 8),
      ]);
      return { tool: 'cut', closed: true, points };
    });
    expect(cutterReport(job(...many), USUAL_CUTTER).unlooked).toBe(true);
    expect(cutterReport(job(square(0, 0, 100)), USUAL_CUTTER).unlooked).toBe(false);
  });
});
