import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { distance, distanceToSegment, type Point } from '../plane/point.js';
import { areaOf, boxOf } from '../plane/outline.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, cardWith, evaluated } from '../testing/evaluated.js';
import { halfTemplate } from '../sheet/half-template.js';
import { writeCsv } from './csv.js';
import { drawingsOf } from './layout.js';
import { linesOf, perforated } from './lines.js';
import { readShelfFile, writeShelfFiles } from './shelf-file.js';
import { writeSvg } from './svg.js';

const evaluations = DEMO_CARDS.map((card): Evaluation => {
  const outcome = evaluate(card);
  if (!outcome.ok) throw new Error('demo refused');
  return outcome.evaluation;
});
const [easel, chanterelle] = [evaluations[0]!, evaluations[1]!];

describe('perforated folds', () => {
  it('stop short of both ends, stay on the line and leave paper between dashes', () => {
    const coordinate = fc.double({ min: 0, max: 300, noNaN: true });
    fc.assert(
      fc.property(coordinate, coordinate, coordinate, coordinate, (a, b, c, d) => {
        const [from, to]: [Point, Point] = [
          [a, b],
          [c, d],
        ];
        const length = distance(from, to);
        fc.pre(length > 1);
        const dashes = perforated(from, to);
        const alongs = dashes.map(([p, q]) => [distance(from, p), distance(from, q)] as const);
        for (const [p, q] of dashes) for (const end of [p, q]) expect(distanceToSegment(end, from, to)).toBeLessThan(1e-6);
        expect(alongs[0]![0]).toBeGreaterThan(Math.min(2.99, length / 4));
        expect(length - alongs.at(-1)![1]).toBeGreaterThan(Math.min(2.99, length / 4));
        alongs.slice(1).forEach(([start], i) => expect(start - alongs[i]![1]).toBeGreaterThan(0.9));
      }),
    );
  });

  it('replace the score groups in the drawing', () => {
    const svg = drawingsOf(easel, METRIC_WORKSHOP)
      .map((drawing) => writeSvg(drawing, 'x', { folds: 'perforation' }))
      .join('');
    expect(svg).toContain('id="base-perforation"');
    expect(svg).not.toContain('id="base-score-valley"');
  });

  it('keep their margin at slots and openings too', () => {
    const [box] = evaluated(cardOn('film-stand')).sheets;
    const slot = boxOf(box!.windows[0]!.outline);
    const dashes = linesOf(box!, { folds: 'perforation' }).filter(
      ({ layer, points }) => layer === 'perforation' && points[0]![0] > slot.minX && points[0]![0] < slot.maxX,
    );
    expect(dashes.length).toBeGreaterThan(1);
    for (const { points } of dashes) {
      const [low, high] = [Math.min(points[0]![1], points[1]![1]), Math.max(points[0]![1], points[1]![1])];
      expect(high < slot.minY - 1 || low > slot.maxY + 1).toBe(true);
    }
    expect(new Set(dashes.map(({ id }) => id)).size).toBe(dashes.length);
  });
});

describe('half templates', () => {
  it('are half of a symmetrical figure, straight edge on the fold', () => {
    const figure = chanterelle.sheets.find((s) => s.piece.id === 'figure')!;
    const half = halfTemplate(figure)!;
    expect(areaOf({ outer: half.outline, holes: [] })).toBeCloseTo(areaOf({ outer: figure.outline, holes: [] }) / 2, 2);
    expect(Math.min(...half.outline.map(([x]) => x))).toBeCloseTo(0, 5);
    expect(half.scores.map((s) => s.id)).toEqual(['first-ray']);
  });

  it('are not offered for a lopsided figure or a plain rectangle', () => {
    const lopsided = evaluated(cardWith('v-fold', { rayAngle: 0.8, wingAngle: 1.1, secondRayAngle: 0.85, secondWingAngle: 1.05 }));
    expect(lopsided.sheets.map(halfTemplate)).toEqual([undefined, undefined]);
    expect(easel.sheets.map(halfTemplate)).toEqual([undefined, undefined, undefined]);
  });
});

describe('CSV of measures', () => {
  /** A reader of its own: quotes, separators, lines. */
  function read(text: string, separator: string): string[][] {
    const rows: string[][] = [[]];
    for (const [, quoted, plain, end] of text
      .slice(1)
      .matchAll(new RegExp(`(?:"((?:[^"]|"")*)"|([^"\\r\\n${separator}]*))(${separator}|\\r\\n)`, 'g'))) {
      rows.at(-1)!.push(quoted?.replaceAll('""', '"') ?? plain!);
      if (end === '\r\n') rows.push([]);
    }
    return rows.filter((row) => row.length > 0);
  }

  it.each([
    ['point', ',', (n: string) => Number(n)],
    ['comma', ';', (n: string) => Number(n.replace(',', '.'))],
  ] as const)('has seven columns and the right decimals with a decimal %s', (dialect, separator, number) => {
    const text = writeCsv(easel, dialect);
    expect(text.startsWith('\uFEFF')).toBe(true);
    const rows = read(text, separator);
    expect(rows.every((row) => row.length === 7)).toBe(true);
    expect(new Set(rows.map((row) => row.join('|'))).size).toBe(rows.length);
    const top = rows.find((row) => row[2] === 'Top of the display')!;
    expect(top.slice(0, 2)).toEqual(['base', '']);
    expect(number(top[3]!)).toBeCloseTo(150 * Math.sin(Math.PI / 3), 3);
    expect(top[5]).toBe(dialect === 'point' ? '129.9 mm' : '129,9 mm');
    expect(top[3]).toContain(dialect === 'point' ? '.' : ',');
  });
});

describe('CSV of a card in inches', () => {
  it('says every length as its ruler reads it, beside the millimetres', () => {
    const text = writeCsv(evaluated({ ...cardOn('folded-card', { depth: 4.5 * 25.4, length: 100 }), notation: 'inch/8' }));
    expect(text).toContain('main fold,114.3,mm,4 1/2 in,');
  });
});

describe('shelf files', () => {
  it('come back exactly, one card or many', () => {
    expect(readShelfFile(writeShelfFiles(DEMO_CARDS)[0]!)).toEqual({ ok: true, cards: DEMO_CARDS });
    expect(readShelfFile(JSON.stringify(DEMO_CARDS[0]))).toEqual({ ok: true, cards: [DEMO_CARDS[0]] });
  });

  it('are taken whole or not at all', () => {
    const broken = JSON.stringify({ format: 'diptychon-shelf', version: 1, cards: [DEMO_CARDS[0], { ...DEMO_CARDS[1], board: 'gold' }] });
    const reading = readShelfFile(broken);
    expect(reading).toMatchObject({ ok: false, problems: [{ path: 'cards.1.board' }] });
    expect(readShelfFile('{"format":"diptychon-shelf","version":2,"cards":[]}')).toMatchObject({
      ok: false,
      problems: [{ path: 'version' }],
    });
    expect(readShelfFile('{"format":"diptychon-shelf","version":1,"cards":7}')).toMatchObject({ ok: false, problems: [{ path: 'cards' }] });
  });
});
