import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CardDocument } from './card/document.js';
import { DEMO_CARDS } from './card/demo-cards.js';
import { changesBetween } from './card/changes.js';
import { setSize } from './card/set-size.js';
import { closedOnly, evaluate, readTracked, type Evaluation } from './evaluate.js';
import { frameAt, frameBetween, poseOf } from './linkage/motion.js';
import { carry } from './linkage/rigid.js';
import { NOTATIONS, toDegrees, toRadians } from './measure/units.js';
import type { Sizes } from './mechanism/sizes.js';
import { cardOn, cardWith, evaluated, having, offered } from './testing/evaluated.js';

const easel = (sizes: Sizes): CardDocument => cardOn('easel-folded-front', sizes);
const folded = (sizes: Sizes): CardDocument => cardOn('folded-card', sizes);
const vFold = (sizes: Sizes, base: Sizes = {}): CardDocument => cardWith('v-fold', sizes, base);
const degrees = (values: Record<string, number>): Sizes =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [name, toRadians(value)]));

const refused = (card: CardDocument): string => {
  const outcome = evaluate(card);
  return outcome.ok ? '' : outcome.problems[0]!.says;
};
const finding = (evaluation: Evaluation, id: string) => evaluation.findings.find((f) => f.id.startsWith(id))!;
const measure = (evaluation: Evaluation, name: string): number => evaluation.measures.find((m) => m.name === name)!.value;
const tracked = (evaluation: Evaluation, id: string, frame: number): number =>
  readTracked(
    evaluation,
    evaluation.design.tracked.find((t) => t.id === id)!,
    evaluation.motion.frames[frame]!,
  );

describe('an easel 150 mm deep', () => {
  it.each([
    [75, Math.acos(0.5)],
    [60, Math.acos(0.4)],
    [120, Math.acos(0.8)],
  ])('with its stop at %d mm leans as the triangle says', (stopDistance, lean) => {
    const card = evaluated(easel({ depth: 150, stopDistance }));
    expect(tracked(card, 'lean', 60)).toBeCloseTo(lean, 9);
    expect(measure(card, 'lean')).toBeCloseTo(lean, 12);
    expect(card.openHeight).toBeCloseTo(150 * Math.sin(lean), 6);
  });

  it('is scored at half and at its depth', () => {
    const scores = evaluated(easel({ depth: 150 })).sheets[0]!.scores;
    expect(scores.map((s) => [s.from[0], s.fold])).toEqual([
      [75, 'valley'],
      [150, 'valley'],
    ]);
  });

  it('takes a lean instead of a stop distance', () => {
    expect(setSize(easel({ depth: 150 }), 'base', 'lean', toRadians(60)).parts[0]!.sizes['stopDistance']).toBeCloseTo(75, 9);
  });

  it('refuses a stop off the base, naming the size and what is allowed', () => {
    const says = refused(easel({ depth: 150, stopDistance: 160 }));
    expect(says).toMatch(/Stop from the fold: 160 mm/);
    expect(says).toContain(`${(150 * Math.cos(toRadians(85))).toFixed(1)} mm to ${(150 * Math.cos(toRadians(20))).toFixed(0)} mm`);
  });

  it('keeps the foot on the base all the way up', () => {
    const { motion, design } = evaluated(easel({ depth: 150, stopDistance: 60 }));
    const foot = design.linkage.bodyOf.get('base/front-lower')!;
    for (const frame of motion.frames) expect(carry(poseOf(motion, frame)[foot]!, 0, 0, 0)[2]).toBeCloseTo(0, 6);
  });

  it('says how far a tall display sticks out, and on which side', () => {
    const found = finding(evaluated(easel({ depth: 150, displayHeight: 170 })), 'stays-inside/');
    expect(found).toMatchObject({ severity: 'fail', value: expect.closeTo(20, 6), says: expect.stringContaining('past the fold') });
    const wide = evaluated(easel({ depth: 150, length: 100, displayWidth: 112 })).findings.filter(
      (f) => f.check === 'stays-inside' && f.severity === 'fail',
    );
    expect(wide.map((f) => f.value)).toEqual([expect.closeTo(6, 6), expect.closeTo(6, 6)]);
  });

  it('warns of a stop that the foot slips over, and mends it', () => {
    const low = easel({ depth: 150, stopHeight: 1 });
    const found = finding(evaluated(low), 'stands/stop');
    expect(found).toMatchObject({ severity: 'warn', limit: expect.closeTo(3 * 0.62) });
    const [change] = found.fix!.changes;
    expect(finding(evaluated(setSize(low, change!.owner, change!.size, change!.value)), 'stands/stop').severity).toBe('pass');
  });

  it('lies closed in the order base, stop, front, display', () => {
    const { closed, design } = evaluated(easel({ depth: 150 }));
    const order = closed.stack.order.map((body) => design.panels[body]!.id);
    const place = (id: string): number => order.indexOf(id);
    expect(place('base/base')).toBeLessThan(place('stop/stop'));
    expect(place('stop/stop')).toBeLessThan(place('base/front-lower'));
    expect(place('base/front-lower')).toBeLessThan(place('display/display'));
    expect(place('base/strut')).toBeLessThan(place('display/display'));
  });
});

describe('a V-fold with wing angle 60° and ray angle 45°', () => {
  const card = evaluated(vFold(degrees({ wingAngle: 60, rayAngle: 45 })));

  it('leans 45° flat open and lies at 105° closed', () => {
    expect(toDegrees(tracked(card, 'figure-crest-lean', 60))).toBeCloseTo(45, 6);
    expect(toDegrees(tracked(card, 'figure-crest-lean', 0))).toBeCloseTo(105, 9);
  });

  it('obeys the spherical triangle at every opening', () => {
    const [a, b] = [toRadians(60), toRadians(45)];
    card.motion.frames.forEach(({ opening }, i) => {
      const t = tracked(card, 'figure-crest-lean', i);
      const side = Math.cos(b) * Math.cos(t) + Math.sin(b) * Math.cos(opening / 2) * Math.sin(t);
      expect(Math.abs(side - Math.cos(a))).toBeLessThan(1e-6);
    });
  });

  it('passes every check', () => {
    expect(card.findings.filter((f) => f.severity !== 'pass')).toEqual([]);
  });

  it('works with the point away from you and tabs outside as well', () => {
    for (const sizes of [{ direction: 'away' }, { tabSide: 'outside' }, { direction: 'away', tabSide: 'outside' }] as Sizes[]) {
      const other = evaluated(vFold({ ...degrees({ wingAngle: 60, rayAngle: 45 }), ...sizes }));
      expect(toDegrees(tracked(other, 'figure-crest-lean', 60))).toBeCloseTo(45, 6);
      expect(other.motion.wrongWay).toEqual([]);
      expect(finding(other, 'folds-flat').severity).not.toBe('fail');
    }
  });
});

describe('a lopsided V-fold', () => {
  it('binds before closing when the wings differ by more than the rays', () => {
    const card = evaluated(vFold(degrees({ rayAngle: 45, wingAngle: 60, secondRayAngle: 50, secondWingAngle: 70 })));
    // Rays come within 10° of each other: cos 10° = cos 45° cos 50° + sin 45° sin 50° cos φ.
    const binds = Math.acos(
      (Math.cos(toRadians(10)) - Math.cos(toRadians(45)) * Math.cos(toRadians(50))) / (Math.sin(toRadians(45)) * Math.sin(toRadians(50))),
    );
    expect(Math.abs(toDegrees(card.motion.reachable.opening[0] - binds))).toBeLessThan(0.2);
    expect(finding(card, 'closes-loop')).toMatchObject({ severity: 'fail' });
    expect(card.findings.find((f) => f.id === 'folds-flat')).toMatchObject({ severity: 'fail', followsFrom: 'closes-loop' });
  });

  it.each([70, 80, 100, 116])('fits from where its rays come as near as wings of 50° and %f° let them, wherever that is', (second) => {
    const card = evaluated(vFold(degrees({ rayAngle: 45, wingAngle: 50, secondRayAngle: 50, secondWingAngle: second })));
    const [cos, sin] = [45, 50].reduce(([c, s], ray) => [c * Math.cos(toRadians(ray)), s * Math.sin(toRadians(ray))], [1, 1]);
    const binds = Math.acos((Math.cos(toRadians(second - 50)) - cos!) / sin!);
    expect(card.motion.fits).toHaveLength(1);
    expect(Math.abs(toDegrees(card.motion.reachable.opening[0] - binds))).toBeLessThan(0.5);
    expect(toDegrees(card.motion.reachable.opening[1])).toBeCloseTo(180, 6);
  });

  it('shuts without misfit but stands out of the leaf when only the sums differ, and is off by the chord when pressed flat', () => {
    const card = evaluated(vFold(degrees({ rayAngle: 45, wingAngle: 60, secondRayAngle: 50, secondWingAngle: 60 })));
    // Closed, the crest is 60° from both rays, 2.5° off their middle: its height over the leaf gives the wing's angle.
    const across = (Math.cos(toRadians(60)) / Math.cos(toRadians(2.5))) * Math.sin(toRadians(2.5));
    const up = Math.sqrt(1 - (Math.cos(toRadians(60)) / Math.cos(toRadians(2.5))) ** 2);
    expect(finding(card, 'closes-loop').severity).toBe('pass');
    const flat = card.findings.find((f) => f.id === 'folds-flat')!;
    expect(flat.severity).toBe('fail');
    expect(flat.says).toContain(`left to itself, first wing stands ${Math.round(toDegrees(Math.atan2(up, across)))}° out of the leaf`);
    // Pressed flat, ray and wing add up to 105° on one side and 110° on the other: the second tab lies 5° beside its place,
    // its farthest glued corner off by that chord.
    const glue = card.design.pieces.find(({ id }) => id === 'figure')!.zones.find(({ id }) => id === 'second-tab-glue')!;
    const far = Math.max(...glue.outline.map(([x, y]) => Math.hypot(x, y)));
    expect(flat.value).toBeCloseTo(2 * far * Math.sin(toRadians(2.5)), 6);
  });

  it('closes flat when ray and wing add up to the same on both sides', () => {
    const card = evaluated(vFold(degrees({ rayAngle: 45, wingAngle: 65, secondRayAngle: 50, secondWingAngle: 60 })));
    expect(card.motion.closedFlat.holds).toBe(true);
    expect(card.motion.worstMisfit).toBeLessThan(1e-6);
  });
});

describe('a box whose third wall is a tenth of a mm too wide', () => {
  it('moves between frames as it does in them: what creases give, they give everywhere', () => {
    const { motion, design } = evaluated(cardOn('box-card', { wall: 60, secondWall: 60, thirdWall: 60.1 }));
    expect(motion.closedFlat).toMatchObject({ holds: true, misfit: expect.closeTo(0.1, 6) });
    // Unled, the error alone would tilt a wall near the flat end by acos(1 − 0.1 ÷ 60): more than three degrees.
    for (const s of [0.004, 0.012, 0.02]) {
      const [solved, between] = [frameAt(motion, design.schedule, s), frameBetween(motion, s)];
      solved.folds.forEach((fold, h) => expect(Math.abs(fold - between.folds[h]!)).toBeLessThan(0.01));
    }
  });
});

describe('a V-fold that cannot open', () => {
  it('is refused with the opening at which it pulls taut', () => {
    const says = refused(vFold(degrees({ rayAngle: 45, wingAngle: 40 })));
    // sin(φ/2) = sin 40° ÷ sin 45°
    const taut = toDegrees(2 * Math.asin(Math.sin(toRadians(40)) / Math.sin(toRadians(45))));
    expect(says).toContain(`${taut.toFixed(1)}°`);
    expect(says).toContain('45° to');
  });
});

describe('a figure too tall for the closed card', () => {
  it('is told by how much, at the crest', () => {
    const card = evaluated(vFold({ ...degrees({ wingAngle: 60, rayAngle: 45 }), crestLength: 120, outline: 'pointed' }));
    const found = finding(card, 'stays-inside/figure');
    expect(found.value).toBeCloseTo(120 * Math.sin(toRadians(105)) - 105, 6);
    expect(found.says).toContain('past the free edge');
  });
});

describe('a thick stack inside', () => {
  const stack = (innerFrom: number, spine = 'none'): Evaluation => evaluated(folded({ depth: 150, innerThickness: 2.1, innerFrom, spine }));

  it('props the free edge open by depth × thickness ÷ distance', () => {
    expect(finding(stack(30), 'folds-flat/gape').value).toBeCloseTo(10.5, 5);
    expect(finding(stack(100), 'folds-flat/gape').value).toBeCloseTo(3.15, 5);
    expect(finding(stack(30), 'folds-flat/gape').says).toContain('upper estimate for stiff leaves');
  });

  it('closes without gaping round the computed spine, which the blank is longer by', () => {
    const spined = stack(30, 'auto');
    expect(finding(spined, 'folds-flat/gape').value).toBe(0);
    expect(measure(spined, 'spineWidth')).toBeCloseTo(2.1, 9);
    expect(spined.sheets[0]!.width).toBeCloseTo(302.1, 9);
  });
});

describe('scores on a grooved board', () => {
  it('are found off the groove by the right amount', () => {
    const card = evaluated(having(easel({ depth: 150 }), { board: 'eighths-12' }));
    expect(finding(card, 'scoreable').value).toBeCloseTo(24 * 3.175 - 75, 6);
    expect(finding(evaluated(having(easel({ depth: 152.4 }), { board: 'eighths-12' })), 'scoreable').severity).toBe('pass');
  });
});

describe('rounding to grooves', () => {
  it('offers the nearest depth at which every score falls into one', () => {
    const card = having(easel({ depth: 150 }), { board: 'eighths-12' });
    const { fix } = finding(offered(card), 'scoreable');
    // The front is scored at half the depth: the depth must be a multiple of a quarter inch. 6 in is 2.4 mm away, 5 3/4 in 3.95.
    expect(fix!.changes).toEqual([{ owner: 'base', size: 'depth', value: expect.closeTo(152.4, 9) }]);
    expect(finding(evaluated(setSize(card, 'base', 'depth', 152.4)), 'scoreable').severity).toBe('pass');
  });
});

describe('what changed between two states of a card', () => {
  it('is said in the maker’s words', () => {
    const before = vFold({});
    const after = setSize(having(before, { stocks: { ...before.stocks, base: 'card-216' } }), 'figure', 'crestLength', 120);
    expect(changesBetween(before, after)).toEqual(['crest from 63 mm to 120 mm', 'the base stock']);
    expect(changesBetween(before, before)).toEqual([]);
  });
});

describe('verdicts in the maker’s notation', () => {
  it('say inches on an inch card, the number beneath unchanged', () => {
    const tall = (notation: CardDocument['notation']) =>
      finding(evaluated({ ...easel({ depth: 150, displayHeight: 172 }), notation }), 'stays-inside/');
    expect(tall('inch/8').says).toContain('sticks out 0.866 in past the fold');
    expect(tall('mm').says).toContain('sticks out 22 mm past the fold');
    expect(tall('inch/8').value).toBe(tall('mm').value);
  });
});

describe('the demo cards', () => {
  it.each(DEMO_CARDS.map((card) => [card.name, card] as const))('%s has nothing that fails', (_, card) => {
    expect(evaluated(card).findings.filter((f) => f.severity === 'fail')).toEqual([]);
  });
});

const angle = (min: number, max: number) => fc.double({ min: toRadians(min), max: toRadians(max), noNaN: true });
const length = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const anyEasel = fc
  .record({
    depth: length(40, 320),
    length: length(40, 320),
    stop: length(0.1, 0.92),
    display: length(0.25, 1.8),
    spine: fc.constantFrom('none', 'auto'),
  })
  .map(({ depth, length: along, stop, display, spine }) =>
    easel({ depth, length: along, stopDistance: depth * stop, displayHeight: depth * display, spine }),
  );

const anyVFold = fc
  .record({
    depth: length(60, 250),
    length: length(80, 250),
    rayAngle: angle(15, 80),
    lift: angle(0.5, 50),
    lopsided: fc.option(angle(-8, 8)),
    direction: fc.constantFrom('toward', 'away'),
    tabSide: fc.constantFrom('inside', 'outside'),
    outline: fc.constantFrom('pointed', 'upright', 'cap'),
  })
  .map(({ depth, length: along, rayAngle, lift, lopsided, ...choices }) =>
    vFold(
      {
        ...choices,
        rayAngle,
        wingAngle: rayAngle + lift,
        ...(lopsided !== null && { secondRayAngle: rayAngle + lopsided, secondWingAngle: rayAngle + lift - lopsided }),
      },
      { depth, length: along },
    ),
  );

function numbersOf(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  if (ArrayBuffer.isView(value)) return [...(value as Float64Array)];
  if (Array.isArray(value)) return value.flatMap(numbersOf);
  return value !== null && typeof value === 'object' ? Object.values(value).flatMap(numbersOf) : [];
}

describe('any allowed sizes', () => {
  it('give no NaN and no exception, and close to a millionth of a mm or say why not', () => {
    fc.assert(
      fc.property(fc.oneof(anyEasel, anyVFold), (card) => {
        const outcome = evaluate(card);
        if (!outcome.ok) {
          expect(outcome.problems.every((p) => p.says.length > 20)).toBe(true);
          return;
        }
        const { motion, measures, findings, sheets, closed } = outcome.evaluation;
        expect(numbersOf([motion.frames, measures, findings, sheets, closed.box, closed.props]).every(Number.isFinite)).toBe(true);
        expect(motion.worstMisfit).toBeLessThan(1e-6);
        expect(motion.closedFlat.holds).toBe(true);
        expect(motion.freedom).toBe(0);
      }),
      { numRuns: 60 },
    );
  });

  it('keep both sides of every crease and bond together through the motion', () => {
    fc.assert(
      fc.property(fc.oneof(anyEasel, anyVFold), fc.integer({ min: 0, max: 60 }), (card, i) => {
        const outcome = evaluate(card);
        if (!outcome.ok) return;
        const { design, motion } = outcome.evaluation;
        const pose = poseOf(motion, motion.frames[i]!);
        const apart = (a: number, b: number, p: readonly number[], q: readonly number[]): number => {
          const [x, y, z] = carry(pose[a]!, p[0]!, p[1]!, 0);
          const [u, v, w] = carry(pose[b]!, q[0]!, q[1]!, q[2] ?? 0);
          return Math.hypot(x - u, y - v, z - w);
        };
        for (const { left, right, source } of design.linkage.hinges) {
          for (const end of [source.from, source.to]) expect(apart(left, right, end, end)).toBeLessThan(1e-6);
        }
        for (const { a, b, corners, fixed } of design.linkage.bonds) {
          for (const corner of corners) expect(apart(a, b, corner, carry(fixed, corner[0], corner[1], 0))).toBeLessThan(1e-6);
        }
      }),
      { numRuns: 30 },
    );
  });

  it('mirrored, move as the mirror image', () => {
    fc.assert(
      fc.property(angle(20, 70), angle(2, 30), angle(-6, 6), (rayAngle, lift, more) => {
        const [one, two] = [
          { rayAngle, wingAngle: rayAngle + lift },
          { secondRayAngle: rayAngle + more, secondWingAngle: rayAngle + lift - more },
        ];
        const here = evaluate(vFold({ ...one, ...two }));
        const there = evaluate(
          vFold({
            rayAngle: two.secondRayAngle,
            wingAngle: two.secondWingAngle,
            secondRayAngle: one.rayAngle,
            secondWingAngle: one.wingAngle,
          }),
        );
        expect(here.ok).toBe(there.ok);
        if (!here.ok || !there.ok) return;
        for (const i of [0, 15, 30, 45, 60]) {
          expect(tracked(here.evaluation, 'figure-crest-lean', i)).toBeCloseTo(tracked(there.evaluation, 'figure-crest-lean', i), 5);
        }
      }),
      { numRuns: 25 },
    );
  });

  it('are the same lengths whatever the notation', () => {
    fc.assert(
      fc.property(anyVFold, fc.constantFrom(...NOTATIONS.map((n) => n.id)), (card, notation) => {
        const [a, b] = [evaluate(card), evaluate({ ...card, notation })];
        expect(a.ok).toBe(b.ok);
        if (a.ok && b.ok)
          expect(numbersOf(b.evaluation.sheets.map((s) => s.outline))).toEqual(numbersOf(a.evaluation.sheets.map((s) => s.outline)));
      }),
      { numRuns: 15 },
    );
  });
});

describe('a card that is only closed, for its pictures', () => {
  it('lies and moves as the judged one does', () => {
    for (const card of DEMO_CARDS) {
      const [only, judged] = [closedOnly(card)!, evaluated(card)];
      expect(only.motion.frames).toEqual(judged.motion.frames);
      expect(only.closed.stack.layers.map(({ body }) => body)).toEqual(judged.closed.stack.layers.map(({ body }) => body));
    }
    expect(closedOnly(setSize(DEMO_CARDS[0]!, 'base', 'depth', -1))).toBeUndefined();
  });
});
