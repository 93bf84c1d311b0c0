import { DOMParser } from '@xmldom/xmldom';
import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { evaluate } from '../evaluate.js';
import { readCardFile, writeCardFile } from './card-file.js';
import { writeSvg } from './svg.js';

/** Path data read without the writer's help: every number pair after M or L. */
function pointsOf(d: string): [number, number][] {
  return [...d.matchAll(/[ML]\s*(-?[\d.]+)[\s,]+(-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);
}

describe('SVG for a cutter', () => {
  it.each(DEMO_CARDS.map((card) => [card.name, card] as const))('holds every line of %s within 0.01 mm', (_, card) => {
    const outcome = evaluate(card);
    if (!outcome.ok) throw new Error('demo refused');
    const svg = new DOMParser().parseFromString(writeSvg(outcome.evaluation.sheets, card.name), 'image/svg+xml');
    const root = svg.documentElement!;
    const viewBox = root.getAttribute('viewBox')!.split(' ').map(Number);
    expect(root.getAttribute('width')).toBe(`${viewBox[2]}mm`);
    const groups = [...root.getElementsByTagName('g')];
    for (const sheet of outcome.evaluation.sheets) {
      const group = (layer: string) => groups.find((g) => g.getAttribute('id') === `${sheet.piece.id}-${layer}`);
      const paths = (layer: string) => [...(group(layer)?.getElementsByTagName('path') ?? [])];
      const outline = pointsOf(
        paths('cut')
          .find((p) => p.getAttribute('data-id') === 'outline')!
          .getAttribute('d')!,
      );
      const left = Math.min(...outline.map(([x]) => x));
      const bottom = Math.max(...outline.map(([, y]) => y));
      const near = ([x, y]: [number, number], [px, py]: readonly [number, number]): void => {
        expect(Math.abs(x - left - px)).toBeLessThan(0.01);
        expect(Math.abs(bottom - y - py)).toBeLessThan(0.01);
      };
      outline.forEach((p, i) => near(p, sheet.outline[i]!));
      const drawn = [...paths('score-mountain'), ...paths('score-valley')];
      expect(drawn).toHaveLength(sheet.scores.length);
      for (const score of sheet.scores) {
        const path = paths(`score-${score.fold}`).find((p) => p.getAttribute('data-id') === score.id)!;
        const [from, to] = pointsOf(path.getAttribute('d')!);
        near(from!, score.from);
        near(to!, score.to);
      }
    }
  });

  it('escapes what a maker may type in a name', () => {
    expect(writeSvg([], '<b>&"')).toContain('&lt;b&gt;&amp;&quot;');
  });
});

describe('card files', () => {
  it.each(DEMO_CARDS.map((card) => [card.name, card] as const))('%s comes back exactly', (_, card) => {
    expect(readCardFile(writeCardFile(card))).toEqual({ ok: true, card });
  });

  it('of an earlier version is brought up to date: a fitted spine is automatic, and there is an everyday film', () => {
    const { film, ...stocks } = DEMO_CARDS[0]!.stocks;
    const { sizes } = DEMO_CARDS[0]!.base;
    const old = { ...DEMO_CARDS[0]!, version: 1, stocks, base: { mechanism: 'easel-folded-front', sizes: { ...sizes, spine: 'fitted' } } };
    const reading = readCardFile(JSON.stringify(old));
    expect(reading).toMatchObject({ ok: true, card: { version: 2, stocks: { film }, base: { sizes: { spine: 'auto' } } } });
  });

  const demo = DEMO_CARDS[0]!;
  const broken = (change: object): string => JSON.stringify({ ...demo, ...change });
  it.each([
    ['not JSON', '{', 'file', 'not JSON'],
    ['a list', '[]', 'file', 'no card'],
    ['a newer version', broken({ version: 99 }), 'version', 'newer'],
    ['no version', broken({ version: undefined }), 'version', 'allowed'],
    ['an unknown stock', broken({ stocks: { ...demo.stocks, base: 'gold' } }), 'stocks.base', 'allowed stocks'],
    ['a missing name', broken({ name: undefined }), 'name', 'missing'],
    ['a size that is no number', broken({ base: { ...demo.base, sizes: { depth: null } } }), 'base.sizes.depth', 'allowed'],
    ['an unknown mechanism', broken({ base: { mechanism: 'flying-carpet', sizes: {} } }), 'base.mechanism', 'catalogue'],
    ['a movement as base', broken({ base: { mechanism: 'v-fold', sizes: {} } }), 'base.mechanism', 'not a base'],
    ['something that does not belong', broken({ script: 'x' }), 'script', 'does not belong'],
    ['far too much', `"${'x'.repeat(600 * 1024)}"`, 'file', 'at most'],
  ])('refuses %s, naming the place and what is allowed', (_, text, path, says) => {
    const reading = readCardFile(text);
    expect(reading.ok).toBe(false);
    if (!reading.ok) {
      expect(reading.problems[0]!.path).toBe(path);
      expect(reading.problems.map((p) => p.says).join()).toContain(says);
    }
  });
});
