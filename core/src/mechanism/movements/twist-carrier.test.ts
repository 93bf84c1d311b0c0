import { describe, expect, it } from 'vitest';
import { newCard, type CardPart } from '../../card/document.js';
import type { Evaluation } from '../../evaluate.js';
import type { Frame } from '../../linkage/motion.js';
import { along, dot, minus, norm, type Vec3 } from '../../linkage/rigid.js';
import { benchSteps } from '../../plan/bench-steps.js';
import { scoreRuns } from '../../plan/score-runs.js';
import { at, boardById, evaluated, failing, finding, measure, refused } from '../../testing/evaluated.js';
import { card, LEAF, LENGTH, stepAt } from '../../testing/folded-card-with.js';
import { twistCarrier } from './twist-carrier.js';

const twistOf = (sizes: CardPart['sizes'] = {}) => card({ id: 'twist', mechanism: 'twist-carrier', on: 'base/main-fold', sizes });

/** Metric; in inches (1 1/2, 7 1/2, 7); a short wide strip under a carrier longer than it, off the middle. */
const SETS = {
  metric: { width: 40, stripLength: 190, carrierLength: 190, middle: 75 },
  inch: { width: 38.1, stripLength: 190.5, carrierLength: 177.8, middle: 76.2 },
  extreme: { width: 70, stripLength: 120, carrierLength: 190, middle: 60 },
};
type Made = (typeof SETS)['metric'];

/** The fold in space: a point on it, up along it, and away from it over either leaf. */
function foldIn(evaluation: Evaluation, { middle }: Made, frame: Frame) {
  const from = at(evaluation, 'base/back-leaf', [LEAF, middle], frame);
  const to = (panel: string, x: number, y: number): Vec3 => minus(at(evaluation, panel, [LEAF + x, middle + y], frame), from);
  return { from, up: to('base/back-leaf', 0, 1), second: to('base/back-leaf', 1, 0), first: to('base/front-leaf', -1, 0) };
}

/** The tilt of a leg, from the formula: tan(tilt/2) = cos(opening/2). */
const tiltAt = (opening: number): number => 2 * Math.atan(Math.cos(opening / 2));

/**
 * A point of a leg’s half, by hand: its middle fold rises at the tilt from the fold between the leaves, and at right angles
 * to it the half runs along (leaf + up) − middle fold, since the diagonal is as far from the one as from the other.
 */
function onLeg(evaluation: Evaluation, made: Made, frame: Frame, leg: 1 | -1, side: 'first' | 'second', across: number, out: number): Vec3 {
  const { from, up, first, second } = foldIn(evaluation, made, frame);
  const tilt = tiltAt(frame.opening);
  const sum = along(first, second, 1);
  const length = norm(sum);
  const between: Vec3 = length > 1e-9 ? [sum[0] / length, sum[1] / length, sum[2] / length] : [0, 0, 1];
  const way: Vec3 = [leg * up[0], leg * up[1], leg * up[2]];
  const ridge = along(along([0, 0, 0], way, Math.cos(tilt)), between, Math.sin(tilt));
  const leaf = side === 'first' ? first : second;
  return along(along(from, ridge, out), minus(along(leaf, way, 1), ridge), across);
}

describe.each(Object.entries(SETS))('a twist carrier, %s', (_, made) => {
  const evaluation = evaluated(twistOf(made));
  const frames = evaluation.motion.frames.slice(0, -1);

  it('joins exactly through the whole motion, and nothing is said against it', () => {
    expect(evaluation.motion.worstMisfit).toBeLessThan(1e-6);
    expect(evaluation.motion.freedom).toBe(0);
    expect(failing(evaluation)).toEqual([]);
  });

  it('turns its legs out of the fold by tan(tilt/2) = cos(opening/2), every corner of every half', () => {
    for (const frame of frames) {
      for (const [leg, name] of [
        [-1, 'lower'],
        [1, 'upper'],
      ] as const) {
        for (const side of ['first', 'second'] as const) {
          for (const [across, out] of [
            [0, made.stripLength / 2],
            [made.width / 2, made.stripLength / 2],
            [made.width / 2, made.width / 2],
          ] as const) {
            const x = side === 'first' ? -across : across;
            const found = at(evaluation, `twist-strip/${name}-${side}-half`, [x, leg * out], frame);
            expect(norm(minus(found, onLeg(evaluation, made, frame, leg, side, across, out)))).toBeLessThan(1e-6);
          }
        }
      }
    }
  });

  it('carries its first and last quarters flat on opposite halves of the legs', () => {
    for (const frame of frames) {
      for (const across of [-made.width / 2, made.width / 2]) {
        const first = at(evaluation, 'twist-carrier/first-quarter', [-across, -made.carrierLength / 2], frame);
        expect(norm(minus(first, onLeg(evaluation, made, frame, -1, 'first', across, made.carrierLength / 2)))).toBeLessThan(1e-6);
        const last = at(evaluation, 'twist-carrier/last-quarter', [across, made.carrierLength / 2], frame);
        expect(norm(minus(last, onLeg(evaluation, made, frame, 1, 'second', across, made.carrierLength / 2)))).toBeLessThan(1e-6);
      }
    }
  });

  it('leaves a gap of width·c(1 − c²)/(1 + c²), c = cos(opening/2), between its stiff halves drawn straight on', () => {
    for (const frame of frames) {
      const c = Math.cos(frame.opening / 2);
      const gap = norm(
        minus(
          at(evaluation, 'twist-carrier/first-quarter', [made.width / 2, 0], frame),
          at(evaluation, 'twist-carrier/last-quarter', [made.width / 2, 0], frame),
        ),
      );
      expect(gap).toBeCloseTo((made.width * c * (1 - c * c)) / (1 + c * c), 6);
    }
  });

  it('is an accordion between its legs when closed, and lies along the fold when open', () => {
    const [closed, open] = [evaluation.motion.frames[0]!, evaluation.motion.frames.at(-1)!];
    const quarter = made.carrierLength / 4;
    for (const panel of ['first', 'second', 'third', 'last'].map((name) => `twist-carrier/${name}-quarter`)) {
      const own = evaluation.design.panels.find(({ id }) => id === panel)!;
      for (const point of own.area.outer) {
        const shut = at(evaluation, panel, point, closed);
        const { from, up, second } = foldIn(evaluation, made, closed);
        const away = dot(minus(shut, from), second);
        expect(away).toBeGreaterThan(quarter - 1e-6);
        expect(away).toBeLessThan(2 * quarter + 1e-6);
        expect(Math.abs(dot(minus(shut, from), up))).toBeLessThan(made.width / 2 + 1e-6);
        const flat = minus(at(evaluation, panel, point, open), foldIn(evaluation, made, open).from);
        expect(dot(flat, foldIn(evaluation, made, open).up)).toBeCloseTo(point[1], 4);
        expect(dot(flat, foldIn(evaluation, made, open).second)).toBeCloseTo(point[0], 4);
      }
    }
    const order = evaluation.closed.stack.order.map((body) => evaluation.design.panels[body]!.id);
    const of = (panel: string): number => order.indexOf(`twist-carrier/${panel}-quarter`);
    expect([of('first'), of('second'), of('third'), of('last')].map((place) => place - of('first')).map(Math.abs)).toEqual([0, 1, 2, 3]);
  });

  it('tells how far it stands past the card, and up to where nothing does', () => {
    const room = Math.min(made.middle, LENGTH - made.middle);
    expect(measure(evaluation, 'legsPast')).toBeCloseTo(Math.max(0, made.stripLength / 2 - room), 9);
    expect(measure(evaluation, 'carrierPast')).toBeCloseTo(Math.max(0, made.carrierLength / 2 - room), 9);
    expect(measure(evaluation, 'gluedLength')).toBeCloseTo(
      Math.min(made.stripLength, made.carrierLength) / 2 - Math.max(made.carrierLength / 4, made.width / 2),
      9,
    );
    // In the frames: no panel that is stiff lies past the nearer end up to that opening, and one does beyond.
    const hidden = measure(evaluation, 'hiddenUpTo');
    const stiff = evaluation.design.panels.filter(({ id }) => id.startsWith('twist') && !/second-quarter|third-quarter/.test(id));
    for (const frame of frames) {
      const { from, up } = foldIn(evaluation, made, frame);
      const reach = Math.max(
        ...stiff.flatMap(({ id, area }) => area.outer.map((p) => Math.abs(dot(minus(at(evaluation, id, p, frame), from), up)))),
      );
      if (frame.opening < hidden - 1e-9) expect(reach).toBeLessThan(room + 1e-6);
      else expect(reach).toBeGreaterThan(room - 1e-6);
    }
  });
});

describe('a twist carrier', () => {
  it('with both ends glued on one side misses itself by its whole width when closed, and the fix mends it', () => {
    const evaluation = evaluated(twistOf({ ...SETS.metric, secondHalf: 'same' }));
    const root = finding(evaluation, 'bent-rows-meet/twist/bend');
    expect(root).toMatchObject({ severity: 'fail', owner: 'twist', at: 0 });
    expect(root.value).toBeCloseTo(40, 6);
    for (const other of failing(evaluation).filter(({ id }) => id !== root.id)) expect(other.followsFrom).toBe(root.id);
    const [change] = root.fix!.changes;
    expect(failing(evaluated(twistOf({ ...SETS.metric, [change!.size]: change!.value })))).toEqual([]);
  });

  it.each([
    ['a strip wider than the fold less its margins', { width: 145, margin: 5 }, /^Width of strip and carrier/],
    ['a strip deeper than the leaf', { stripLength: 2 * LEAF + 1 }, /^Length of the strip.*half a strip deep/],
    ['quarters shorter than half the width', { width: 40, carrierLength: 79 }, /^Length of the carrier.*half as long/],
    ['a strip that leaves no room for glue', { width: 40, stripLength: 60 }, /^Length of the strip.*glue/],
    ['its middle too near an end of the fold', { width: 40, middle: 22 }, /^Middle along the fold/],
  ])('with %s is refused with the reason', (_what, wrong, says) => {
    expect(refused(twistOf(wrong))).toMatch(says);
  });

  it('that reaches the free edge without a margin is warned of, not refused', () => {
    const evaluation = evaluated(twistOf({ margin: 0, stripLength: 2 * LEAF, carrierLength: 2 * LEAF }));
    expect(failing(evaluation)).toEqual([]);
    expect(evaluation.findings.some(({ check, severity }) => check === 'stays-inside' && severity === 'warn')).toBe(true);
  });

  it('does not stand where the leaves do not lie flat open, or do not meet', () => {
    const document = twistOf();
    const narrow = {
      ...document,
      parts: document.parts.map((part) => (part.id === 'base' ? { ...part, sizes: { ...part.sizes, openTo: Math.PI / 2 } } : part)),
    };
    expect(refused(narrow)).toMatch(/opens to 90° only/);
    const onRidge = card(stepAt('box', 'base/main-fold', { depth: 40, height: 40, width: 100, offset: 20 }), {
      id: 'twist',
      mechanism: 'twist-carrier',
      on: 'box/front-edge',
    } as Parameters<typeof card>[0]);
    expect(refused(onRidge)).toMatch(/ridge/);
  });

  it('beside a step whose box it meets says which parts, and where', () => {
    const document = card(
      { id: 'twist', mechanism: 'twist-carrier', on: 'base/main-fold', sizes: SETS.metric },
      stepAt('box', 'base/main-fold', { depth: 45, height: 45, width: 20, offset: 100 }),
    );
    const hits = failing(evaluated(document)).filter(({ check }) => check === 'clears');
    expect(hits.some(({ panels }) => panels!.some((id) => id.startsWith('twist')) && panels!.some((id) => id.includes('box')))).toBe(true);
  });

  it('turned end for end does the same', () => {
    const one = evaluated(twistOf(SETS.extreme));
    const turned = evaluated(
      card({
        id: 'twist',
        mechanism: 'twist-carrier',
        on: 'base/main-fold',
        turned: true,
        sizes: { ...SETS.extreme, middle: LENGTH - 60 },
      }),
    );
    one.motion.frames.forEach((frame, i) => {
      const heights = [one, turned].map((evaluation) => {
        const own = evaluation.motion.frames[i]!;
        return at(evaluation, 'twist-strip/upper-second-half', [0, 60], own);
      });
      const other = at(turned, 'twist-strip/lower-first-half', [0, -60], turned.motion.frames[i]!);
      expect(norm(minus(heights[0]!, other))).toBeLessThan(1e-5);
      expect(frame.opening).toBeCloseTo(turned.motion.frames[i]!.opening, 9);
    });
  });

  it('has its middle folds scored in one go, from end to end of the strip', () => {
    const evaluation = evaluated(twistOf(SETS.metric));
    const strip = evaluation.sheets.find(({ piece }) => piece.id === 'twist-strip')!;
    const [run, ...others] = scoreRuns(strip, boardById('five-mm-300'), 'mm');
    expect(others).toEqual([]);
    const line = run!.readings.filter(({ scores }) => scores.some(({ id }) => /middle/.test(id)));
    expect(line.map(({ at: x, parts }) => [x, parts])).toEqual([[20, []]]);
    expect(line[0]!.words).not.toMatch(/only/);
  });

  it('is glued with the card flat open: both triangles at once, then one half of each leg', () => {
    const steps = benchSteps(evaluated(twistOf(SETS.metric))).filter(({ kind }) => kind === 'glue');
    expect(steps).toHaveLength(3);
    expect(steps[0]!.title).toMatch(/both triangles of the strip/);
    const said = steps.slice(1).map(({ says }) => says.join(' '));
    expect(said[0]).toMatch(/half of the leg by the front leaf/);
    expect(said[1]).toMatch(/half of the leg by the back leaf/);
    for (const words of said) expect(words).toMatch(/lying flat and open/);
  });
});

describe('a sheet used up by a twist carrier and its card', () => {
  it.each([
    [297, 210, 40],
    [210, 297, 60],
    [304.8, 304.8, 50.8],
  ])('of %d × %d, %d wide, is covered by card, strip and carrier and nothing is left', (width, height, share) => {
    const { depth, length, sizes } = twistCarrier.usesUp!.from({ id: 's', name: 's', width, height }, share);
    const document = newCard({
      id: 'card',
      name: 'card',
      base: { mechanism: 'folded-card', sizes: { depth, length } },
      movements: [{ id: 'twist', mechanism: 'twist-carrier', on: { part: 'base', site: 'main-fold' }, sizes: sizes as CardPart['sizes'] }],
    });
    const evaluation = evaluated(document);
    expect(failing(evaluation)).toEqual([]);
    const taken = evaluation.sheets.map((sheet) => [sheet.width, sheet.height].sort((a, b) => b - a) as [number, number]);
    const [long, short] = [Math.max(width, height), Math.min(width, height)];
    // Side by side along the short edge, each as long as the sheet.
    expect(taken.every((sides) => sides.some((side) => Math.abs(side - long) < 1e-6))).toBe(true);
    expect(taken.reduce((sum, [a, b]) => sum + a * b, 0)).toBeCloseTo(long * short, 4);
  });

  it('can be divided at both ends of the range that it names', () => {
    const sheet = { id: 's', name: 's', width: 297, height: 210 };
    const { min, max } = twistCarrier.usesUp!.range(sheet);
    for (const share of [min, max, twistCarrier.usesUp!.usual(sheet)]) {
      const { depth, length, sizes } = twistCarrier.usesUp!.from(sheet, share);
      expect(
        failing(
          evaluated(
            newCard({
              id: 'card',
              name: 'card',
              base: { mechanism: 'folded-card', sizes: { depth, length } },
              movements: [
                { id: 'twist', mechanism: 'twist-carrier', on: { part: 'base', site: 'main-fold' }, sizes: sizes as CardPart['sizes'] },
              ],
            }),
          ),
        ),
      ).toEqual([]);
    }
  });
});
