import dxfParser from 'dxf-parser';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { distance, distanceToSegment, type Point } from '../plane/point.js';
import { areaOf } from '../plane/outline.js';
import { cardWith, evaluated } from '../testing/evaluated.js';
import { halfTemplate } from '../sheet/half-template.js';
import { writeCsv } from './csv.js';
import { writeDxf } from './dxf.js';
import { perforated } from './lines.js';
import { readShelfFile, writeShelfFile } from './shelf-file.js';
import { writeSvg } from './svg.js';

const evaluations = DEMO_CARDS.map((card): Evaluation => {
  const outcome = evaluate(card);
  if (!outcome.ok) throw new Error('demo refused');
  return outcome.evaluation;
});
const [easel, chanterelle] = [evaluations[0]!, evaluations[1]!];

/** The package's types describe it as a namespace; at run time it is the class. */
const DxfParser = dxfParser as unknown as new () => { parseSync: (text: string) => { entities: Entity[] } };

interface Entity {
  type: string;
  layer: string;
  vertices: { x: number; y: number }[];
}

describe('DXF', () => {
  it('holds every score and outline in its layer, within 0.01 mm', () => {
    for (const { sheets } of evaluations) {
      const { entities } = new DxfParser().parseSync(writeDxf(sheets));
      const outlines = entities.filter((e) => e.layer === 'cut');
      expect(outlines).toHaveLength(sheets.reduce((sum, { windows, cuts }) => sum + 1 + windows.length + cuts.length, 0));
      let next = 0;
      sheets.forEach((sheet) => {
        const points = outlines[next]!.vertices;
        next += 1 + sheet.windows.length + sheet.cuts.length;
        const [left, bottom] = [Math.min(...points.map((p) => p.x)), Math.min(...points.map((p) => p.y))];
        sheet.outline.forEach(([x, y], k) => {
          expect(Math.abs(points[k]!.x - left - x)).toBeLessThan(0.01);
          expect(Math.abs(points[k]!.y - bottom - y)).toBeLessThan(0.01);
        });
        for (const score of sheet.scores) {
          const there = entities.some(
            (e) =>
              e.layer === `score-${score.fold}` &&
              distance([e.vertices[0]!.x - left, e.vertices[0]!.y - bottom], score.from) < 0.01 &&
              distance([e.vertices[1]!.x - left, e.vertices[1]!.y - bottom], score.to) < 0.01,
          );
          expect(there).toBe(true);
        }
      });
    }
  });
});

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
    const svg = writeSvg(easel.sheets, 'x', { folds: 'perforation' });
    expect(svg).toContain('id="base-perforation"');
    expect(svg).not.toContain('id="base-score-valley"');
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
  ] as const)('has five columns and the right decimals with a decimal %s', (dialect, separator, number) => {
    const text = writeCsv(easel, dialect);
    expect(text.startsWith('\uFEFF')).toBe(true);
    const rows = read(text, separator);
    expect(rows.every((row) => row.length === 5)).toBe(true);
    const top = rows.find((row) => row[1] === 'Top of the display')!;
    expect(number(top[2]!)).toBeCloseTo(150 * Math.sin(Math.PI / 3), 3);
    expect(top[2]).toContain(dialect === 'point' ? '.' : ',');
  });
});

describe('shelf files', () => {
  it('come back exactly, one card or many', () => {
    expect(readShelfFile(writeShelfFile(DEMO_CARDS))).toEqual({ ok: true, cards: DEMO_CARDS });
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
