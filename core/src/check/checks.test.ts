import { claimsOf } from '../card/draw.js';
import { describe, expect, it } from 'vitest';
import { ROOT, type CardDocument } from '../card/document.js';
import { standingOf } from '../card/standing.js';
import type { Claim } from '../claim/claims.js';
import { told } from '../measure/sentence.js';
import { baseSizes, cardOn, cardWith, checkInputOf, evaluated, failing, finding, having, stockById } from '../testing/evaluated.js';
import { runChecks } from './all-checks.js';
import { bulk } from './bulk.js';
import { clears } from './clears.js';
import { closesLoop } from './closes-loop.js';
import type { CheckInput, Verdict } from './finding.js';
import { foldsFlat } from './folds-flat.js';
import { glueClear } from './glue-clear.js';
import { meets } from './meets.js';
import { scoreable } from './scoreable.js';
import { stands } from './stands.js';
import { staysInside } from './stays-inside.js';

type SizeMap = Record<string, number | string>;

const easelCard = (sizes: SizeMap = {}): CardDocument => cardOn('easel-folded-front', sizes);
const vFoldCard = (sizes: SizeMap = {}, base: SizeMap = {}): CardDocument => cardWith('v-fold', sizes, base);
const inputOf = checkInputOf;

const bad = <V extends Verdict>(findings: readonly V[]): V[] => findings.filter((f) => f.severity !== 'pass');

/** A design that claims something else instead. */
const claiming = (input: CheckInput, ...claims: Claim[]): CheckInput => ({
  ...input,
  design: { ...input.design, claims: claims.map((claim) => ({ ...claim, owner: ROOT })) },
});

describe('meets', () => {
  it('is content with edges that meet', () => {
    expect(bad(meets(inputOf(easelCard())))).toEqual([]);
  });

  it('measures by how much two edges miss each other', () => {
    const input = inputOf(vFoldCard());
    const [edges] = claimsOf(input.design, 'meeting');
    // The back leaf's edge looked for 1.5 mm nearer the fold than it is: the front's lies that far past it.
    const b = { ...edges!.b, from: [edges!.b.from[0] - 1.5, 0] as const, to: [edges!.b.to[0] - 1.5, edges!.b.to[1]] as const };
    expect(meets(claiming(input, { ...edges!, b }))).toMatchObject([{ severity: 'fail', value: expect.closeTo(1.5, 9) }]);
  });
});

describe('closes-loop', () => {
  it('names creases that would have to fold the other way', () => {
    const input = inputOf(vFoldCard());
    const found = closesLoop({ ...input, free: { ...input.free, wrongWay: ['figure/crest'] } });
    expect(bad(found)).toMatchObject([{ id: 'closes-loop/wrong-way', severity: 'fail', creases: ['figure/crest'] }]);
  });

  it('warns of a part that nothing leads', () => {
    const input = inputOf(vFoldCard());
    expect(bad(closesLoop({ ...input, free: { ...input.free, freedom: 1 } }))).toMatchObject([
      { id: 'closes-loop/loose', severity: 'warn' },
    ]);
  });
});

describe('folds-flat', () => {
  it('reports panels that would have to pass through each other, and piles that go round in a circle', () => {
    const input = inputOf(vFoldCard());
    const stack = input.closed.stack;
    const crossed = foldsFlat({ ...input, closed: { ...input.closed, stack: { ...stack, crossings: [{ bodies: [0, 1], width: 2 }] } } });
    expect(bad(crossed)[0]!.says).toContain('pass through each other');
    expect(bad(crossed)[0]!.value).toBe(2);
    const circle = foldsFlat({ ...input, closed: { ...input.closed, stack: { ...stack, circle: 2 } } });
    expect(bad(circle)[0]!.says).toContain('circle');
  });

  it('lets a crease give near its fold, by two calipers of the card', () => {
    const caliper = stockById('card-250').caliper;
    const gapeOf = (innerThickness: number, innerFrom: number): number =>
      foldsFlat(inputOf(cardOn('folded-card', { depth: 100, innerThickness, innerFrom }))).find((f) => f.id.startsWith('folds-flat/gape'))!
        .value!;
    expect(gapeOf(1, 10)).toBeCloseTo(Math.max(((1 - 2 * caliper) / 10) * 100, (1 / 20) * 100), 3);
    expect(gapeOf(1, 25)).toBeCloseTo(4, 4);
  });
});

describe('stays-inside', () => {
  it('warns of a figure that comes near the edge without passing it', () => {
    // 105 mm deep: a pointed crest reaching 103 mm from the fold when closed is within the 3 mm margin.
    const crestLength = 103 / Math.sin((105 * Math.PI) / 180);
    const found = staysInside(inputOf(vFoldCard({ crestLength, outline: 'pointed' })));
    expect(bad(found)).toMatchObject([{ id: 'stays-inside/margin', severity: 'warn', value: expect.closeTo(2, 6) }]);
  });

  it('takes the thickness off the envelope both ways', () => {
    // C6 is 162 × 114 inside: 161 mm long leaves 1 mm, which a closed easel of more than 1 mm does not have.
    const tight = staysInside(inputOf(having(easelCard({ depth: 161, length: 105 }), { envelope: 'c6' })));
    const thickness = inputOf(easelCard({ depth: 161, length: 105 })).closed.thickest.thickness;
    expect(tight.find((f) => f.id === 'stays-inside/envelope')).toMatchObject({
      severity: 'fail',
      value: expect.closeTo(161 + thickness - 162, 6),
    });
    const easy = staysInside(inputOf(having(easelCard({ depth: 150, length: 105 }), { envelope: 'c6' })));
    expect(easy.find((f) => f.id === 'stays-inside/envelope')!.severity).toBe('pass');
  });

  it('names the smallest listed envelope when none is chosen', () => {
    const hint = staysInside(inputOf(easelCard({ depth: 150, length: 105 }))).find((f) => f.id === 'stays-inside/envelope')!;
    expect(hint.says).toContain('C6');
    const huge = staysInside(inputOf(easelCard({ depth: 320, length: 320 }))).find((f) => f.id === 'stays-inside/envelope')!;
    expect(huge.says).toContain('fold one');
    // Inside 320 and 3 of ease and the thickness, both ways: × √2, and 12 to lap over.
    const { thickness } = inputOf(easelCard({ depth: 320, length: 320 })).closed.thickest;
    expect(told(huge.says, 'mm')).toContain(`square of ${Number(((323 + thickness) * Math.SQRT2 + 12).toFixed(1))} mm`);
  });
});

describe('a closed fold of any part', () => {
  it('is propped by what lies beside it where it has come to lie: both doors of a tucked display alike', () => {
    // Wings of 60, returns of 20: from 60 − 20 = 40 mm on, return, band and picture lie between door and wing.
    const caliper = stockById('card-250').caliper;
    const card = evaluated(cardOn('tucked-display', { wing: 60, returnWidth: 20, spine: 'none' }));
    for (const side of ['left', 'right'])
      expect(finding(card, `folds-flat/gape/base/${side}-door`).value).toBeCloseTo(((3 * caliper) / 40) * 60, 4);
    const spined = evaluated(cardOn('tucked-display', { wing: 60, returnWidth: 20, spine: 'auto' }));
    const { spines } = spined.closed;
    expect(spines['base/left-door']).toBe(spines['base/right-door']);
    expect(spines['base/left-door']).toBe(1);
  });

  it('is propped by a short block too, by what of its height a dent does not take up', () => {
    const gape = (stopLength: number): number =>
      finding(evaluated(cardOn('easel-folded-front', { stopLength, stopHeight: 12 })), 'folds-flat/gape').value!;
    // A block from 75 mm of a leaf of 150: its height twice over. A dent is at most 1 mm deep.
    expect(gape(40)).toBeCloseTo(24, 6);
    for (const length of [10, 14, 17, 18, 19]) {
      expect(gape(length)).toBeLessThanOrEqual(24);
      expect(gape(length)).toBeGreaterThan(22);
    }
  });
});

describe('layers inside', () => {
  const told = (innerThickness: number, innerFrom: number) =>
    evaluated(cardOn('easel-folded-front', { innerThickness, innerFrom, stopHeight: 4 })).findings.filter(
      ({ check }) => check === 'layers-on-blocks',
    );

  it('are told of where they lie on the stop, with how high both are together', () => {
    // The stop lies from 75 to 83 mm from the fold; on it the lower of the two is added to the higher.
    expect(told(2, 60)).toMatchObject([{ severity: 'warn', value: 2, says: expect.stringContaining('both together are 6') }]);
    expect(told(9, 60)).toMatchObject([{ value: 4 }]);
    expect(told(2, 82.5)).toMatchObject([{ value: expect.closeTo(0.5, 9) }]);
    expect(told(2, 83)).toEqual([]);
    expect(told(0.2, 60)).toEqual([]);
  });
});

describe('clears', () => {
  it('lets a figure overhang above the rim that its strip is glued below, and no lower', () => {
    const divided = (height: number) =>
      evaluated(
        cardOn('box-card', {
          ...{ wall: 60, secondWall: 60, height: 90, flaps: [] },
          dividers: [{ distance: 30, height, figure: 'heart', figureHeight: 60, figureWidth: 40, figureAt: 8 }],
        }),
      ).findings.filter(({ check, severity }) => check === 'clears' && severity === 'fail');
    expect(divided(90)).toEqual([]);
    expect(divided(40)).toMatchObject([{ panels: ['base/fourth-wall', 'divider-1/divider-1'] }]);
  });

  it('finds a figure that stands in the way of the foot of an easel', () => {
    // A figure on the main fold of an easel stands under the strut, where the triangle is narrow.
    const sizes = { crestLength: 150, wingLength: 60, outline: 'upright', apex: 60 };
    const figure = { id: 'figure', mechanism: 'v-fold', on: { part: ROOT, site: 'main-fold' }, sizes };
    const easel = easelCard({ depth: 200, length: 150, stopDistance: 100 });
    const input = inputOf({ ...easel, parts: [...easel.parts, figure] });
    const found = bad(clears(input));
    expect(found.length).toBeGreaterThan(0);
    for (const finding of found) {
      expect(finding.value).toBeGreaterThan(0);
      expect(finding.at).toBeGreaterThan(0);
      expect(finding.panels!.some((id) => id.startsWith('figure/'))).toBe(true);
    }
  });

  it('finds nothing where panels only touch', () => {
    expect(bad(clears(inputOf(vFoldCard())))).toEqual([]);
    expect(bad(clears(inputOf(easelCard())))).toEqual([]);
  });
});

describe('stands', () => {
  it('knows that a card standing half open does not tip, and one stood nearly shut does', () => {
    const half = stands(inputOf(cardOn('folded-card', { shown: 'standing' })));
    expect(half[0]!.severity).toBe('pass');
    // Two leaves 105 deep at a right angle on edge: contact is the triangle of both feet; the centre of weight lies
    // half way along each leaf, so it is 105·√2/4 from the hypotenuse's middle line: 37.1/… measured inward.
    const reach = (105 / 2 / Math.SQRT2) * 1;
    expect(half[0]!.value).toBeLessThanOrEqual(reach + 1e-6);
    expect(half[0]!.value).toBeGreaterThan(0);
  });

  it('measures a flat card from its middle to its nearer edge', () => {
    const flat = stands(inputOf(cardOn('folded-card', { depth: 105, length: 148 })));
    expect(flat[0]!.value).toBeCloseTo(148 / 2, 6);
  });

  it('says how far the weight falls outside what touches the table', () => {
    const input = inputOf(easelCard({ displayHeight: 120 }));
    // The same easel looked at as if its back were the table: it would rest on the fold edge alone.
    const design = { ...input.design, base: { ...input.design.base, rest: { ...input.design.base.rest, up: [1, 0, 0] as const } } };
    const [found] = stands({ ...input, design, standing: standingOf(design, input.motion, input.resting) });
    expect(found).toMatchObject({ severity: 'fail' });
    expect(found!.says).toMatch(/tips over .*touches the table along a line only, and its weight falls .* off it/);
  });

  it('fails a stop lower than the foot is thick', () => {
    const found = stands(inputOf(easelCard({ stopHeight: 0.5 })));
    expect(found.find((f) => f.id === 'stands/stop')).toMatchObject({ severity: 'fail', value: 0.5, limit: expect.closeTo(6 * 0.31, 9) });
  });
});

describe('bulk', () => {
  it('adds up every layer at the thickest place', () => {
    const input = inputOf(cardOn('folded-card', { innerThickness: 5 }));
    expect(bulk(input)[0]).toMatchObject({ id: 'bulk', severity: 'warn', value: expect.closeTo(2 * 0.31 + 5, 9) });
    expect(bulk(inputOf(vFoldCard()))[0]!.severity).toBe('pass');
  });

  it('names the panels piled up there', () => {
    const [found] = bulk(inputOf(easelCard()));
    expect(found!.panels).toEqual(expect.arrayContaining(['base/base', 'stop/stop', 'display/display']));
  });
});

describe('bulk: sides and post', () => {
  const block = (innerFrom: number): CardDocument => cardOn('folded-card', { depth: 100, length: 80, innerThickness: 4, innerFrom });

  it('says which half is thicker, by the mean over each', () => {
    // A block of 4 mm from 50 to 97 of 100, 74 of 80 along: all of it in the free half. 4 × 47 × 74 ÷ (50 × 80).
    const uneven = bulk(inputOf(block(50))).find((f) => f.id === 'bulk/uneven')!;
    expect(uneven).toMatchObject({ severity: 'warn', value: expect.closeTo((4 * 47 * 74) / 4000, 6) });
    expect(uneven.says).toContain('toward the free edge');
    expect(bulk(inputOf(easelCard())).find((f) => f.id === 'bulk/uneven')!.severity).toBe('pass');
  });

  it('holds the card against limits of the post only where the maker entered them', () => {
    expect(bulk(inputOf(block(20))).filter((f) => f.id.startsWith('bulk/post'))).toEqual([]);
    const posted = bulk(inputOf({ ...block(20), post: { thickness: 4.5, long: 120, short: 90, weight: 100 } }));
    const verdicts = Object.fromEntries(posted.filter((f) => f.id.startsWith('bulk/post')).map((f) => [f.id, [f.severity, f.value]]));
    expect(verdicts).toEqual({
      'bulk/post-thickness': ['fail', expect.closeTo(4 + 2 * 0.31, 9)],
      'bulk/post-long': ['pass', expect.closeTo(100, 9)],
      'bulk/post-short': ['pass', expect.closeTo(80, 9)],
      // Two leaves of 100 × 80 mm at 250 g/m².
      'bulk/post-weight': ['pass', expect.closeTo(4, 9)],
    });
  });
});

describe('scoreable', () => {
  it('reads a score beyond a short board from the other end', () => {
    const card = cardOn('folded-card', { depth: 240 }, { board: 'half-cm-210' });
    // 240 from both ends of 480: beyond a board of 210 either way.
    expect(bad(scoreable(inputOf(card)))[0]!.says).toContain('beyond the board from both ends');
    const shorter = baseSizes(card, { depth: 205 });
    expect(bad(scoreable(inputOf(shorter)))).toEqual([]);
  });

  it('leaves the second score of a spine, and scores that do not cross the blank, to pencil and rule', () => {
    const spined: CardDocument = having(easelCard({ depth: 150, spine: 'auto' }), { board: 'five-mm-300' });
    expect(bad(scoreable(inputOf(spined)))).toEqual([]);
    expect(bad(scoreable(inputOf(having(vFoldCard({}, { depth: 105 }), { board: 'five-mm-300' }))))).toEqual([]);
  });
});

describe('glue-clear', () => {
  it('measures glue that reaches past its panel', () => {
    const input = inputOf(easelCard());
    const [display] = input.design.linkage.bonds;
    // The glued area moved up by 30 mm reaches past the lower half of the front onto the strut.
    const moved = { ...display!, corners: display!.corners.map(([x, y]) => [x, y + 30] as const) };
    const linkage = { ...input.design.linkage, bonds: [moved] };
    const found = bad(glueClear({ ...input, design: { ...input.design, linkage } }));
    const past = found.find((f) => f.id.endsWith('/past'))!;
    expect(past.severity).toBe('fail');
    // The display is glued 2 mm short of the front's fold.
    expect(past.value).toBeCloseTo(30 - 2, 1);
  });

  it('warns of a tab too narrow to hold', () => {
    const found = bad(glueClear(inputOf(vFoldCard({ tabWidth: 4 }))));
    expect(found.map((f) => f.id.split('/').at(-1))).toEqual(['narrow', 'narrow']);
    for (const finding of found) expect(finding.value).toBeLessThan(4);
  });

  it('passes on what could not be split', () => {
    const input = inputOf(easelCard());
    const design = { ...input.design, faults: [{ kind: 'locked-panels' as const, says: 'Neither can fold.' }] };
    expect(bad(glueClear({ ...input, design }))).toMatchObject([{ severity: 'fail', says: 'Neither can fold.' }]);
  });
});

describe('all checks', () => {
  it('come worst first, causes before what follows from them, each with a sentence and an id of its own', () => {
    const card = vFoldCard({ rayAngle: 0.785, wingAngle: 1.047, secondRayAngle: 0.873, secondWingAngle: 1.222, crestLength: 130 });
    const found = runChecks(inputOf(card));
    const weight = { fail: 0, warn: 1, pass: 2 };
    found.slice(1).forEach((finding, i) => expect(weight[found[i]!.severity]).toBeLessThanOrEqual(weight[finding.severity]));
    for (const [i, finding] of found.entries()) {
      if (!finding.followsFrom) continue;
      const cause = found.findIndex((f) => f.id === finding.followsFrom);
      expect(cause).toBeGreaterThanOrEqual(0);
      expect(cause).toBeLessThan(i);
    }
    expect(new Set(found.map((f) => f.id)).size).toBe(found.length);
    for (const finding of found) expect(finding.says).toMatch(/^[A-Z].*[.!]$/s);
  });
});

describe('what the closed card must keep inside', () => {
  const tall = (given: Partial<CardDocument> = {}) =>
    evaluated(having(cardOn('easel-folded-front', { depth: 150, length: 105, displayHeight: 172 }), given));

  it('is its own outline, unless only the envelope counts', () => {
    // Twice the flap of 75 less 172: 22 mm past the fold.
    expect(finding(tall(), 'stays-inside/display/display/fold')).toMatchObject({ severity: 'fail', value: expect.closeTo(22, 6) });
    const free = tall({ within: 'envelope' });
    expect(finding(free, 'stays-inside/display/display/fold')).toMatchObject({ severity: 'pass', shortfall: 0 });
    expect(failing(free)).toEqual([]);
  });

  it('does not go into an envelope that it is too long for, and says what would have to change by how much', () => {
    // 172 mm and the thickness against 162; 105 against 114 is well.
    const posted = tall({ within: 'envelope', envelope: 'c6' });
    const said = finding(posted, 'stays-inside/envelope');
    const thickness = posted.closed.thickest.thickness;
    expect(said).toMatchObject({ severity: 'fail', value: expect.closeTo(10 + thickness, 6) });
    expect(said.says).toContain(`its side of 172 mm would have to be ${Number((10 + thickness).toFixed(1))} mm shorter`);
    expect(said.says).not.toContain('side of 105 mm');
    expect(finding(tall({ within: 'envelope', envelope: 'c5' }), 'stays-inside/envelope').severity).toBe('pass');
  });
});

describe('a blank that no sheet holds', () => {
  it('is told with how much too large it is, and not in silence', () => {
    // A strip of 180 + 60 + 60 + 60 drawn out to 800.
    const long = evaluated(cardOn('folded-card', { depth: 300, length: 150 }));
    expect(finding(long, 'has-sheet/base')).toMatchObject({
      severity: 'warn',
      value: expect.closeTo(180, 6),
      shortfall: expect.closeTo(180, 6),
    });
    expect(finding(evaluated(cardOn('folded-card')), 'has-sheet').severity).toBe('pass');
  });

  it('is judged by the sheets that its own stock is bought in', () => {
    const card = cardOn('folded-card', { depth: 150, length: 150 });
    const stocks = card.supplies.stocks.map((stock) =>
      stock.id === card.stocks.base ? { ...stock, sheet: { width: 200, height: 290 } } : stock,
    );
    const said = finding(evaluated({ ...card, supplies: { ...card.supplies, stocks } }), 'has-sheet/base');
    expect(said.value).toBeCloseTo(10, 6);
  });
});

describe('a short prop', () => {
  /** The greatest thickness that props the leaf of an easel with a stop of this length. */
  const propped = (stopLength: number, stopHeight = 5): number => {
    const { closed } = evaluated(cardOn('easel-folded-front', { depth: 150, length: 105, stopLength, stopHeight }));
    return Math.max(...Object.values(closed.props).flatMap((props) => props.map(({ thickness }) => thickness)));
  };

  it('dents the leaf by up to a mm, the more the shorter it is, exactly', () => {
    const long = propped(30);
    for (const length of [19, 16.4, 12.3, 10]) expect(long - propped(length)).toBeCloseTo(1 - length / 20, 6);
    expect(propped(21)).toBeCloseTo(long, 6);
  });

  it('is seen along all of the fold’s line, however short the chord that is left of the fold', () => {
    const [chord, stopLength, stopHeight] = [5, 18, 6];
    const card = (size: number) =>
      evaluated(cardOn('easel-shape', { outline: 'star', size, chord, stopDistance: 120, stopHeight, stopLength }));
    const thickest = (size: number): number => Math.max(...card(size).closed.props['base/main-fold']!.map(({ thickness }) => thickness));
    for (const size of [160, 160.001, 160.5]) expect(thickest(size)).toBeGreaterThanOrEqual(stopHeight - (1 - stopLength / 20) - 1e-6);
  });
});
