import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Cutter, NoSuchPlot, type CutterState } from './cutter.js';

const SQUARE =
  '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="120mm" viewBox="0 0 120 120"><g class="score"><path d="M 60 10 V 110"/></g><g class="cut"><rect x="10" y="10" width="100" height="100"/></g></svg>';

/** All lengths of lines in a picture, in mm. */
const drawn = (picture: string): number =>
  [...picture.matchAll(/ d="M([^"]*)"/g)]
    .map(([, path]) => path!.split('L').map((point) => point.split(' ').map(Number)))
    .flatMap((points) => points.slice(1).map(([x, y], i) => Math.hypot(x! - points[i]![0]!, y! - points[i]![1]!)))
    .reduce((sum, mm) => sum + mm, 0);

describe('a cutter that is held, gone on with and called off at any moment', () => {
  const orders = fc.array(
    fc.record({ after: fc.double({ min: 0, max: 6, noNaN: true }), what: fc.constantFrom('pause', 'resume', 'cancel', 'look') }),
    {
      maxLength: 12,
    },
  );

  it('has gone on for just as long as it was let, and has cut no less than it had before', () => {
    fc.assert(
      fc.property(orders, (given) => {
        let time = 0;
        const cutter = new Cutter({ pace: 1, now: () => time, newId: () => 'only' });
        const { of } = cutter.take(SQUARE);
        let [state, gone, cut]: [CutterState, number, number] = ['plotting', 0, 0];
        for (const { after, what } of given) {
          time += 1000 * after;
          if (state === 'plotting') gone = Math.min(of, gone + after);
          if (state === 'plotting' && gone >= of) state = 'done';
          const allowed = {
            pause: ['plotting'],
            resume: ['paused'],
            cancel: ['plotting', 'paused'],
            look: ['plotting', 'paused', 'done', 'cancelled'],
          }[what];
          if (what === 'look') cutter.progress('only');
          else if (!allowed.includes(state)) expect(() => cutter[what]('only')).toThrow(NoSuchPlot);
          else {
            cutter[what]('only');
            state = { pause: 'paused', resume: 'plotting', cancel: 'cancelled' }[what] as CutterState;
          }
          const progress = cutter.progress('only');
          expect(progress.state).toBe(state);
          expect(progress.seconds).toBeCloseTo(gone, 6);
          const now = drawn(cutter.picture('only'));
          expect(now).toBeGreaterThanOrEqual(cut - 1e-6);
          cut = now;
        }
        if (state === 'paused') cutter.resume('only');
        time += 1000 * of;
        // A score of 100 mm and a square of 400 mm, which is cut past its beginning by the overcut.
        if (state !== 'cancelled') expect(drawn(cutter.picture('only'))).toBeGreaterThanOrEqual(500);
      }),
      { numRuns: 300 },
    );
  });
});
