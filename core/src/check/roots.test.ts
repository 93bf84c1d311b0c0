import { describe, expect, it } from 'vitest';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { withCauses } from './causes.js';
import { equalWidths } from './equal-widths.js';
import type { CheckInput, Verdict } from './finding.js';
import { hasRoom } from './has-room.js';
import { reservedClear } from './reserved-clear.js';
import { rises } from './rises.js';
import { thicknessPull } from './thickness-pull.js';
import { ROOT } from '../card/document.js';
import * as claim from '../claim/claims.js';
import type { Claim } from '../claim/claims.js';
import { told } from '../measure/sentence.js';
import { applyFix } from '../trial/apply-fix.js';

type SizeMap = Record<string, number | string>;

/** A check’s view of a card that claims only this. */
function seen(evaluation: Evaluation, ...claims: Claim[]): CheckInput {
  const { design } = evaluation;
  return { ...(evaluation as unknown as CheckInput), design: { ...design, claims: claims.map((claim) => ({ ...claim, owner: ROOT })) } };
}

const leaves = evaluated(cardOn('folded-card', { depth: 100, length: 80 }));
const [LEFT, RIGHT] = leaves.design.panels.map((panel) => panel.id) as [string, string];
/** The leaf that lies still: the closed card is told in its axes. */
const GROUND = RIGHT;

describe('equal widths', () => {
  const pair = {
    id: 'leaves',
    name: 'the leaves',
    a: { says: 'the left leaf', panels: [LEFT] },
    b: { says: 'the right leaf', panels: [RIGHT] },
  };

  it('passes panels that are equally wide', () => {
    const [found] = equalWidths(seen(leaves, claim.equalWidths({ ...pair, or: 'it gapes' })));
    expect(found).toMatchObject({ severity: 'pass', value: 0 });
    expect(told(found!.says, 'mm')).toBe('The leaves are equally wide, 100 mm.');
  });

  it('measures each row by its mean, and names what follows', () => {
    const bellows = evaluated(cardOn('bellows-box', { frontWidth: 110, length: 150, bellows: 18 }));
    const row = (id: string, panels: string[]) => ({ says: id, panels });
    const [found] = equalWidths(
      seen(
        bellows,
        claim.equalWidths({
          id: 'x',
          name: 'x',
          a: row('the front', ['base/front']),
          b: row('the bellows', ['base/left-front-bellows']),
          or: 'it shears',
        }),
      ),
    );
    expect(found).toMatchObject({ severity: 'fail', value: expect.closeTo(110 - 18, 9) });
    expect(told(found!.says, 'mm')).toBe('The front is 110 mm wide, the bellows 18 mm: 92 mm apart, so that it shears.');
  });
});

describe('room in the closed card', () => {
  const says = { enough: 'lies clear', tight: 'comes near', none: 'runs into it' };
  const room = (least: number, apart: number): Verdict =>
    hasRoom(
      seen(
        leaves,
        claim.room({
          id: 'r',
          name: 'It',
          from: { panel: GROUND, at: [50, 0] },
          to: { panel: GROUND, at: [50 + apart, 9] },
          along: [1, 0],
          least,
          says,
        }),
      ),
    )[0]!;

  it('is the distance along the direction asked for, whatever lies across it', () => {
    expect(room(2, 10).value).toBeCloseTo(10, 9);
    expect(room(2, -4).value).toBeCloseTo(-4, 9);
  });

  it('is a warning below the least and fails below nothing', () => {
    expect([10, 2, 1, -4].map((apart) => room(2, apart).severity)).toEqual(['pass', 'pass', 'warn', 'fail']);
  });
});

describe('places kept for something else', () => {
  const windowed = evaluated(
    cardOn('bellows-box', { frontWidth: 110, length: 150, bellows: 18, windowShape: 'rectangle', windowWidth: 60, windowHeight: 80 }),
  );
  const front = windowed.design.panels.find((panel) => panel.id === 'base/front')!;
  const [hole] = front.piece.windows;
  const xs = hole!.outline.map(([x]) => x);
  const [low, high] = [Math.min(...xs), Math.max(...xs)];

  /** A strip as high as the piece whose right edge is at x. */
  const kept = (x: number): Verdict[] =>
    reservedClear(
      seen(
        windowed,
        claim.reserved({
          id: 'strip',
          panel: 'base/front',
          outline: [
            [low - 30, 0],
            [x, 0],
            [x, 150],
            [low - 30, 150],
          ],
          for: 'where the bellows lie',
        }),
      ),
    );

  it('say by how much an opening reaches in', () => {
    expect(kept(low + 8)).toMatchObject([{ severity: 'fail', value: expect.closeTo(8, 6) }]);
    expect(kept(high + 8)).toMatchObject([{ severity: 'fail', value: expect.closeTo(60, 6) }]);
  });

  it('are clear when it only comes up to them', () => {
    expect(kept(low)).toMatchObject([{ id: 'reserved-clear', severity: 'pass' }]);
    expect(kept(low - 5)).toMatchObject([{ id: 'reserved-clear', severity: 'pass' }]);
  });
});

describe('parts raised one by one', () => {
  // Closed, the doors of 60 mm lie on the middle, 60 to 120 and 120 to 180; the strip's scores stay at 105 and 135.
  const doors = evaluated(cardOn('rising-strip-doors', { closedWidth: 120, strip: 30, length: 80 }));
  const [LEFT_DOOR, RIGHT_DOOR] = ['base/left-door', 'base/right-door'];
  const order = (first: string[], second: string[]): Verdict[] =>
    rises(
      seen(
        doors,
        claim.rising({ id: 'a', name: 'one', hinge: 'base/strip-left', panels: first }),
        claim.rising({ id: 'b', name: 'other', hinge: 'base/strip-right', panels: second }),
      ),
    );

  it('go up in any order when neither lies over the other’s hinge', () => {
    expect(order([LEFT_DOOR], [RIGHT_DOOR])).toMatchObject([{ severity: 'pass', says: 'The parts can be raised in any order.' }]);
  });

  it('go up first when they lie over the other’s hinge', () => {
    expect(order([LEFT_DOOR, RIGHT_DOOR], [RIGHT_DOOR])[0]!.says).toBe('Raise one before other; lay them down the other way round.');
    expect(order([LEFT_DOOR], [LEFT_DOOR, RIGHT_DOOR])[0]!.says).toBe('Raise other before one; lay them down the other way round.');
  });

  it('hold each other down when both do, by the smaller of what is on either side of a hinge', () => {
    // 60 … 180 over 135 and over 105: 45 on the shorter side both times.
    expect(order([LEFT_DOOR, RIGHT_DOOR], [LEFT_DOOR, RIGHT_DOOR])).toMatchObject([{ severity: 'fail', value: expect.closeTo(45, 6) }]);
  });
});

describe('a width that thickness pulls two ways', () => {
  const torn = (wantedOpen: number, wantedClosed: number, given: number) =>
    thicknessPull(seen(leaves, claim.tornWidth({ id: 'front', piece: 'base', name: 'the front', wantedOpen, wantedClosed, given })))[0]!;

  it('is said with what is missing at either end', () => {
    const found = torn(0.62, 0, 0.31);
    expect(found).toMatchObject({ severity: 'pass', value: expect.closeTo(0.62, 12), limit: 2 });
    expect(told(found.says, 'mm')).toContain('standing it is 0.31 mm too narrow, flat it is 0.31 mm too wide');
  });

  it('is a warning when one end lacks more than a fold gives', () => {
    expect(torn(2.2, 0, 1.1).severity).toBe('warn');
    expect(torn(2.2, 0, 2.2).severity).toBe('warn');
    expect(torn(1.8, 0, 0.9).severity).toBe('pass');
  });
});

describe('causes and what follows from them', () => {
  const bad = (id: string, panels?: string[]): Verdict => ({
    id,
    check: id.split('/')[0]!,
    severity: 'fail',
    says: 'So.',
    ...(panels && { panels }),
  });
  const causeOf = (findings: Verdict[], id: string): string | undefined => withCauses(findings).find((f) => f.id === id)!.followsFrom;

  it('explain a collision by the root that shares a panel with it', () => {
    expect(causeOf([bad('clears/a', ['p', 'q']), bad('meets/doors', ['q'])], 'clears/a')).toBe('meets/doors');
    expect(causeOf([bad('clears/a', ['p']), bad('meets/doors', ['q'])], 'clears/a')).toBeUndefined();
  });

  it('explain what is about the whole card by any root', () => {
    expect(causeOf([bad('folds-flat/x', ['p']), bad('rises/a', ['q'])], 'folds-flat/x')).toBe('rises/a');
  });

  it('leave roots, passes and known causes alone', () => {
    const findings = [
      bad('equal-widths/w', ['p']),
      { ...bad('clears/a', ['p']), severity: 'pass' as const },
      { ...bad('clears/b', ['p']), followsFrom: 'known' },
    ];
    expect(withCauses(findings)).toEqual(findings);
  });

  it('are never lost: every finding comes back in its place', () => {
    const findings = [bad('clears/a', ['p']), bad('equal-widths/w', ['p']), bad('stays-inside/x')];
    expect(withCauses(findings).map((f) => f.id)).toEqual(findings.map((f) => f.id));
  });
});

describe('a fault and its remedy', () => {
  const CASES: [string, string, SizeMap][] = [
    ['a door too wide', 'rising-strip-doors', { closedWidth: 120, leftDoor: 63 }],
    ['bellows that differ', 'bellows-box', { frontWidth: 110, bellows: 18, rightBellows: 20 }],
    ['a wall too wide', 'box-card', { wall: 60, secondWall: 50, thirdWall: 62 }],
    ['a stop lower than the foot is thick', 'easel-folded-front', { stopHeight: 0.5 }],
  ];
  it.each(CASES)('%s: the remedy offered removes it', (_, mechanism, sizes) => {
    const broken = evaluated(cardOn(mechanism, sizes));
    const root = broken.findings.find((f) => f.severity !== 'pass' && !f.followsFrom && f.fix)!;
    const outcome = evaluate(applyFix(broken.design.card, root.fix!));
    expect(outcome.ok).toBe(true);
    if (outcome.ok) expect(outcome.evaluation.findings.filter((f) => f.id === root.id && f.severity !== 'pass')).toEqual([]);
  });
});
