import { describe, expect, it } from 'vitest';
import { diptychon } from './testing/diptychon.js';

const told = diptychon;
/** What a command tells a script. */
const record = async (...argv: string[]): Promise<ReturnType<typeof JSON.parse>> => {
  const { code, out, err } = await diptychon(...argv, '--json');
  expect([code, err]).toEqual([0, '']);
  return JSON.parse(out);
};
interface Told {
  severity: string;
}
const EASEL = ['--mechanism', 'easel-folded-front'];

describe('repair', () => {
  it('gives offers with the sizes that change, and what they leave', async () => {
    const { offers, conflict } = await record('repair', ...EASEL, '--set', 'depth=150', '--set', 'stopDistance=149');
    expect(conflict).toEqual([]);
    expect(offers[0].changes[0]).toEqual({
      owner: 'base',
      size: expect.any(String) as string,
      from: expect.any(Number) as number,
      to: expect.any(Number) as number,
    });
    expect(offers.every(({ leaves }: { leaves: Told[] }) => leaves.every(({ severity }) => severity !== 'fail'))).toBe(true);
    // The size that is offered is allowed: the card works with it.
    const [{ owner, size, to }] = offers[0].changes;
    const sizes = ['--set', 'depth=150', '--set', 'stopDistance=149', '--set', `${owner}.${size}=${to}mm`.replace('base.', '')];
    const { findings } = await record('compute', ...EASEL, ...sizes);
    expect(findings.filter(({ severity }: Told) => severity === 'fail')).toEqual([]);
  });

  it('of a card that works offers nothing', async () => {
    expect(await record('repair', '--mechanism', 'folded-card')).toMatchObject({ offers: [], conflict: [] });
    expect((await told('repair', '--mechanism', 'folded-card')).out).toContain('Nothing is to be mended');
  });
});

describe('reconcile', () => {
  const SAID = ['--say', 'scores=75,151', '--say', 'blank=300x105', '--say', 'closedWidth=150'];
  it('names the number whose change makes all agree', async () => {
    const { contradictions, corrections } = await record('reconcile', ...EASEL, ...SAID);
    expect(contradictions[0].says).toContain('150 mm');
    expect(corrections).toContainEqual({ entry: 'scores[2]', from: 151, to: expect.closeTo(150, 2) as number, leaves: 0 });
  });

  it('reads inches, and without a mechanism says which it could be', async () => {
    const { contradictions } = await record(
      'reconcile',
      ...EASEL,
      '--notation',
      'inch/16',
      '--say',
      'scores=3,6',
      '--say',
      'blank=12x4 1/8',
    );
    expect(contradictions).toEqual([]);
    const { could } = await record('reconcile', '--say', 'scores=105', '--say', 'blank=210x148', '--say', 'closedWidth=105');
    expect(could[0].mechanism).toBe('folded-card');
  }, 60_000);

  it.each([
    [['--say', 'scores=75,apple'], /scores.*apple/],
    [['--say', 'weight=3'], /allowed: scores=/],
    [['--say', 'blank=1x2x3'], /allowed: scores=/],
    [[], /say at least one number/],
    [['--say', 'closedWidth=3', '--say', 'closedWidth=4'], /said twice/],
    [['--set', 'depth=3', '--say', 'closedWidth=4'], /--set: not an option of reconcile/],
  ] as const)('refuses %j in a line', async (given, says) => {
    const { code, err } = await told('reconcile', ...EASEL, ...given);
    expect(code).toBe(2);
    expect(err).toMatch(says);
    expect(err.trim().split('\n')).toHaveLength(1);
  });
});

describe('rescue', () => {
  it('ranks ways to go on from what was made', async () => {
    const { made, works, repairs } = await record('rescue', ...EASEL, '--set', 'depth=150', '--made', 'base/main-fold=152mm');
    expect(made).toEqual([{ piece: 'base', line: 'main-fold', at: 152, meant: 150, off: 2 }]);
    expect(works).toBe(false);
    expect(repairs[0]).toMatchObject({ kind: 'trim', changes: [{ owner: 'base', size: 'depth', from: 150, to: 148 }] });
    expect(repairs.at(-1).kind).toBe('start-again');
  });

  it('of how long, which way over and where it is glued, judges what can be judged', async () => {
    const first = async (made: string) => record('rescue', ...EASEL, '--set', 'depth=150', '--made', made);
    const short = await first('base/front-score=0..80mm');
    expect(short.made).toEqual([{ piece: 'base', line: 'front-score', from: 0, to: 80, meantFrom: 0, meantTo: 105 }]);
    expect([short.works, short.repairs[0].kind]).toEqual([false, 'go-on']);
    expect(short.findings).toEqual([]);
    const over = await first('base/front-score=other-way');
    expect([over.made, over.repairs[0].kind]).toEqual([[{ piece: 'base', line: 'front-score', otherWay: true }], 'fold-back']);
    const glued = await first('display-on-front=5mm up');
    expect([glued.made, glued.works]).toEqual([[{ joint: 'display-on-front', right: 0, up: 5 }], false]);
    expect(glued.repairs.map(({ kind }: { kind: string }) => kind)).toEqual(['trim', 'glue-again', 'start-again']);
  });

  it.each([
    [[], /say what was made/],
    [['--made', 'base=3'], /not PIECE\/SCORE=PLACE/],
    [['--made', 'base/lid=3'], /there are .*main-fold/],
    [['--made', 'base/main-fold=soon'], /soon/],
    [['--made', 'base/main-fold=9..3'], /end after it begins/],
    [['--made', 'lid=3 up'], /no glued place “lid”.*stop-on-base/],
  ] as const)('refuses %j in a line', async (given, says) => {
    const { code, err } = await told('rescue', ...EASEL, ...given);
    expect([code, err]).toEqual([2, expect.stringMatching(says) as string]);
  });
});

describe('tolerance', () => {
  it('gives shares with their intervals, the same for a seed', async () => {
    const once = await record('tolerance', '--mechanism', 'folded-card', '--samples', '2000', '--seed', '4');
    expect(await record('tolerance', '--mechanism', 'folded-card', '--samples', '2000', '--seed', '4')).toEqual(once);
    expect(once['closes']).toMatchObject({ share: 1, high: 1 });
    expect(once['meets'].low).toBeLessThan(once['meets'].share);
    expect(once['critical'][0].source).toBe('base/main-fold');
    expect(once['used'].reduce((sum: number, { samples }: { samples: number }) => sum + samples, 0)).toBe(2000);
  });

  it('refuses samples and seeds that are none', async () => {
    for (const given of [
      ['--samples', '3'],
      ['--samples', 'many'],
      ['--seed', '1.5'],
    ]) {
      expect((await told('tolerance', '--mechanism', 'folded-card', ...given)).code).toBe(2);
    }
  });
});

describe('resize', () => {
  it('makes the card for a closed size, and for an envelope', async () => {
    const { closed, changes, works } = await record('resize', ...EASEL, '--set', 'depth=150', '--closed', '120x90');
    expect([closed.width, closed.height]).toEqual([expect.closeTo(120, 6), expect.closeTo(90, 6)]);
    expect(changes).toContainEqual({ owner: 'base', size: 'depth', from: 150, to: 120 });
    expect(works).toBe(true);
    const c6 = await record('resize', '--mechanism', 'folded-card', '--set', 'depth=150', '--set', 'length=210', '--envelope', 'c6');
    expect(c6['card'].envelope).toBe('c6');
    expect(c6['closed'].width).toBeLessThan(114);
  });

  it('makes one card in three sizes', async () => {
    const { sizes } = await record('resize', ...EASEL, '--set', 'depth=150', '--closed', '120x90; 75x60;180x126');
    const widths = sizes.map(({ closed }: { closed: { width: number } }) => closed.width);
    expect(widths).toEqual([120, 75, 180].map((mm) => expect.closeTo(mm, 6) as number));
    expect(sizes.every(({ works }: { works: boolean }) => works)).toBe(true);
  });

  it('wants one of both', async () => {
    expect((await told('resize', ...EASEL)).err).toContain('--envelope ID or --closed WxH');
    expect((await told('resize', ...EASEL, '--closed', '120')).err).toContain('WIDTHxHEIGHT');
    expect((await told('resize', ...EASEL, '--envelope', 'sack')).err).toContain('none of my envelopes');
  });
});

describe('fit-sheet', () => {
  it('gives the largest card of which all pieces come out of a sheet', async () => {
    const { closed, pieces, used } = await record('fit-sheet', '--mechanism', 'folded-card', '--sheet', '210x297');
    // Two plain leaves use the whole sheet.
    expect(2 * closed.width * closed.height).toBeCloseTo(210 * 297, 2);
    expect(pieces).toHaveLength(1);
    expect(used).toBeCloseTo(1, 6);
    const two = await record('fit-sheet', '--mechanism', 'folded-card', '--sheet', '210x297', '--copies', '2');
    expect(4 * two['closed'].width * two['closed'].height).toBeCloseTo(210 * 297, 2);
  });

  it('alone may be told how the card is to look', async () => {
    const { code, err } = await told('repair', '--mechanism', 'folded-card', '--look', 'square');
    expect([code, err]).toEqual([2, expect.stringContaining('--look') as string]);
  });

  it('looks as it is told to', async () => {
    const { closed, look } = await record('fit-sheet', '--mechanism', 'folded-card', '--sheet', '210x297', '--look', 'square');
    expect(look).toBe('square');
    // 1.04 times half of 297 is as far from a square as is allowed.
    expect([closed.width, closed.height]).toEqual([expect.closeTo(148.5, 2), expect.closeTo(154.44, 2)]);
  });

  it('of a stock, whose thickness its spines follow', async () => {
    const [thin, thick] = (await Promise.all(
      ['light-card-160', 'board-400'].map((stock) => record('fit-sheet', '--mechanism', 'rising-pocket', '--sheet', `200x600:${stock}`)),
    )) as { stock: string; closed: { width: number }; pieces: { width: number }[] }[];
    expect([thin!.stock, thick!.stock]).toEqual(['light-card-160', 'board-400']);
    // Card, strip and pocket lie end to end: what the spines of thick board take is taken from all three.
    for (const { pieces } of [thin!, thick!]) expect(pieces.reduce((sum, { width }) => sum + width, 0)).toBeCloseTo(600, 1);
    expect(thick!.closed.width).toBeLessThan(thin!.closed.width - 0.1);
  });

  it.each([
    [['--mechanism', 'folded-card', '--sheet', '210x297:vellum'], /--sheet: “vellum” is no card or paper of mine; allowed: /],
    [['--mechanism', 'folded-card', '--sheet', '210x297', '--look', 'round'], /--look: “round” is none/],
    [['--sheet', '210x297'], /--mechanism/],
    [['--mechanism', 'v-fold', '--sheet', '210x297'], /is a movement/],
    [['--mechanism', 'folded-card'], /--sheet/],
    [['--mechanism', 'box-card', '--sheet', '30x30'], /not even a small card/],
  ] as const)('refuses %j in a line', async (given, says) => {
    const { code, err } = await told('fit-sheet', ...given);
    expect([code, err]).toEqual([2, expect.stringMatching(says) as string]);
  });
});
