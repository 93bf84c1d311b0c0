import { DOMParser, type Element } from '@xmldom/xmldom';
import dxfParser from 'dxf-parser';
import svgpath from 'svgpath';
import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import type { CardDocument } from '../card/document.js';
import { stockOf } from '../card/card-stocks.js';
import { cardToTry } from '../card/try-out.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { between, distance, distanceToSegment, type Point } from '../plane/point.js';
import { linesOf } from '../sheet/cut-lines.js';
import { INCH_WORKSHOP, METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { writeDxf } from './dxf.js';
import { onBeds, placeIn } from '../plan/beds.js';
import { everySheet } from '../dress/every-sheet.js';
import { drawingsOf } from './layout.js';
import { writeSvg } from './svg.js';

/** The package's types describe it as a namespace; at run time it is the class. */
const DxfParser = dxfParser as unknown as new () => { parseSync: (text: string) => { entities: Entity[] } };

interface Entity {
  type: string;
  layer: string;
  shape?: boolean;
  vertices: { x: number; y: number }[];
}

const CARDS: readonly (readonly [string, CardDocument])[] = [
  ...CATALOGUE.map((mechanism) => [mechanism.id, cardToTry(mechanism)] as const),
  ...DEMO_CARDS.map((card) => [card.name, card] as const),
];
const STEPS = 40;

/** A path put into points by another reader: arcs become cubic curves, curves are walked along. */
function walked(d: string): Point[] {
  const points: Point[] = [];
  let at: Point = [0, 0];
  svgpath(d)
    .unarc()
    .abs()
    .iterate(([letter, ...numbers]) => {
      const n = numbers as unknown as number[];
      if (letter === 'C') {
        for (let i = 1; i <= STEPS; i++) {
          const t = i / STEPS;
          const mix = (a: number, b: number, c: number, e: number): number =>
            (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t ** 2 * c + t ** 3 * e;
          points.push([mix(at[0], n[0]!, n[2]!, n[4]!), mix(at[1], n[1]!, n[3]!, n[5]!)]);
        }
        at = [n[4]!, n[5]!];
      } else if (letter === 'L' || letter === 'M') {
        at = [n[0]!, n[1]!];
        points.push(at);
      }
    });
  return points;
}

const pathsOf = (group: Element): Element[] => [...group.getElementsByTagName('path')];

describe.each(CARDS)('the drawings of %s for a cutter', (_name, card) => {
  const evaluation = evaluated(card);
  const drawings = drawingsOf(evaluation, METRIC_WORKSHOP);

  it('hold every piece once, each drawing one stock, on the bed of my cutter, none touching another', () => {
    const pieces = drawings.flatMap(({ placed }) => placed.map(({ sheet }) => sheet.piece.id));
    expect(pieces.sort()).toEqual(
      everySheet(evaluation)
        .map(({ piece }) => piece.id)
        .sort(),
    );
    expect(new Set(drawings.map(({ suffix }) => suffix)).size).toBe(drawings.length);
    const [bed] = METRIC_WORKSHOP.cutters;
    for (const { placed, width, height } of drawings) {
      expect(new Set(placed.map(({ sheet }) => stockOf(evaluation.design, sheet.piece).id)).size).toBe(1);
      if (placed.length > 1) expect(Math.max(width - bed!.width, height - bed!.height)).toBeLessThan(1e-6);
      const boxes = placed.map((own) => {
        const [a, b] = [placeIn(own, [0, 0]), placeIn(own, [own.sheet.width, own.sheet.height])];
        return [Math.min(a[0], b[0]), Math.max(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[1], b[1])] as const;
      });
      boxes.forEach(([left, right, low, high], i) => {
        expect(Math.min(left, low, width - right, height - high)).toBeGreaterThan(-1e-6);
        for (const [l, r, b, t] of boxes.slice(i + 1)) expect(l > right + 1 || r < left - 1 || b > high + 1 || t < low - 1).toBe(true);
      });
    }
  });

  it('go through every corner of every outline, and along every score, within 0.01 mm; the outline is the last line of its piece', () => {
    for (const drawing of drawings) {
      const root = new DOMParser().parseFromString(writeSvg(drawing, card.name), 'image/svg+xml').documentElement!;
      expect(root.getAttribute('width')).toBe(`${root.getAttribute('viewBox')!.split(' ')[2]}mm`);
      for (const placed of drawing.placed) {
        const { sheet } = placed;
        const at = (p: Point): Point => {
          const [x, y] = placeIn(placed, p);
          return [x, drawing.height - y];
        };
        const group = [...root.getElementsByTagName('g')].find((g) => g.getAttribute('id') === sheet.piece.id)!;
        expect(pathsOf(group).at(-1)!.getAttribute('data-id')).toBe('outline');
        const kinds = [...group.getElementsByTagName('g')].map((g) => g.getAttribute('class'));
        const order = ['draw', 'score-mountain', 'score-valley', 'perforation', 'cut'];
        expect(kinds).toEqual(order.filter((kind) => kinds.includes(kind)));
        const line = walked(pathsOf(group).at(-1)!.getAttribute('d')!);
        const around = [...line, line[0]!];
        const toLine = (p: Point): number => Math.min(...around.slice(1).map((b, i) => distanceToSegment(p, around[i]!, b)));
        for (const corner of sheet.outline.filter((_, i) => i % Math.ceil(sheet.outline.length / 40) === 0))
          expect(toLine(at(corner))).toBeLessThan(0.01);
        for (const score of sheet.scores) {
          const own = pathsOf(group).filter((p) => p.getAttribute('data-id') === score.id);
          for (const end of own.flatMap((p) => walked(p.getAttribute('d')!))) {
            expect(distanceToSegment(end, at(score.from), at(score.to))).toBeLessThan(0.01);
          }
        }
      }
    }
  });

  it('draw nothing that belongs on the back: the pen is over the front', () => {
    for (const drawing of drawings) {
      const { entities } = new DxfParser().parseSync(writeDxf(drawing));
      for (const placed of drawing.placed) {
        const { id, marks } = { id: placed.sheet.piece.id, marks: placed.sheet.marks };
        const letters = (placed.sheet.lettering ?? []).flatMap((loop) =>
          loop.map((from, i) => ({ from, to: loop[(i + 1) % loop.length]! })),
        );
        const front = [...marks.filter(({ face }) => face !== 'down'), ...letters].map(
          ({ from, to }) => [placeIn(placed, from), placeIn(placed, to)] as const,
        );
        for (const { vertices } of entities.filter(({ layer }) => layer === `${id}-draw`)) {
          const [p, q] = vertices.map(({ x, y }): Point => [x, y]);
          const off = front.map(([from, to]) => distanceToSegment(between(p!, q!, 0.5), from, to));
          expect(Math.min(...off)).toBeLessThan(0.01);
        }
      }
    }
  });

  it('are the same lines as DXF, in layers by piece and kind', () => {
    for (const drawing of drawings) {
      const { entities } = new DxfParser().parseSync(writeDxf(drawing));
      for (const placed of drawing.placed) {
        const { sheet } = placed;
        const cut = entities.filter(({ layer }) => layer === `${sheet.piece.id}-cut`);
        const slits = sheet.cuts.filter(({ line }) => !line).length + linesOf(sheet.cuts).length;
        expect(cut).toHaveLength(1 + sheet.windows.length + slits);
        const drawnCuts = cut.flatMap(({ vertices }) =>
          vertices.slice(1).map((b, i): [Point, Point] => [
            [vertices[i]!.x, vertices[i]!.y],
            [b.x, b.y],
          ]),
        );
        for (const { from, to } of sheet.cuts) {
          // A curve in chords is off it by 0.02 mm at the most, and so by as much off the chord it was drawn with.
          for (const p of [from, between(from, to, 0.5), to]) {
            expect(Math.min(...drawnCuts.map(([a, b]) => distanceToSegment(placeIn(placed, p), a, b)))).toBeLessThan(0.05);
          }
        }
        const outline = cut.at(-1)!.vertices.map(({ x, y }): Point => [x, y]);
        const around = [...outline, outline[0]!];
        for (const corner of sheet.outline) {
          const p = placeIn(placed, corner);
          expect(Math.min(...around.slice(1).map((b, i) => distanceToSegment(p, around[i]!, b)))).toBeLessThan(0.02);
        }
        for (const { layer, vertices } of entities.filter((e) => e.layer.startsWith(`${sheet.piece.id}-score`))) {
          const ends = vertices.map(({ x, y }): Point => [x, y]);
          const is = sheet.scores.some(
            ({ fold, from, to }) =>
              layer.endsWith(fold) && ends.every((end) => distanceToSegment(end, placeIn(placed, from), placeIn(placed, to)) < 0.01),
          );
          expect(is).toBe(true);
        }
      }
    }
  });
});

describe('a round piece', () => {
  const evaluation = evaluated(cardOn('easel-shape', { outline: 'circle', size: 130 }));
  const drawing = drawingsOf(evaluation, METRIC_WORKSHOP).find(({ placed }) => placed.some(({ sheet }) => sheet.piece.id === 'cover'))!;
  const cover = drawing.placed.find(({ sheet }) => sheet.piece.id === 'cover')!;
  const [cx, cy] = placeIn(cover, [65, 65]);

  it('is arcs of its own circle, not facets', () => {
    const svg = new DOMParser().parseFromString(writeSvg(drawing, 'x'), 'image/svg+xml').documentElement!;
    const group = [...svg.getElementsByTagName('g')].find((g) => g.getAttribute('id') === 'cover')!;
    const d = pathsOf(group).at(-1)!.getAttribute('d')!;
    expect(d).toMatch(/^M [^A-Z]+( A 65 65 0 0 [01] [^A-Z]+)+ Z$/);
    for (const [x, y] of walked(d)) expect(Math.abs(Math.hypot(x - cx, drawing.height - y - cy) - 65)).toBeLessThan(0.01);
  });

  it('is drawn in chords no farther than 0.02 mm from it where only chords can be had', () => {
    const { entities } = new DxfParser().parseSync(writeDxf(drawing));
    const points = entities.find(({ layer }) => layer === 'cover-cut')!.vertices.map(({ x, y }): Point => [x, y]);
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length]!;
      expect(65 - Math.hypot((p[0] + q[0]) / 2 - cx, (p[1] + q[1]) / 2 - cy)).toBeLessThan(0.02);
      expect(Math.abs(distance(p, [cx, cy]) - 65)).toBeLessThan(0.001);
    });
  });
});

describe('a bed of twelve inches', () => {
  it('holds every drawing of every card but those of a piece that is larger than it', () => {
    const [bed] = INCH_WORKSHOP.cutters;
    for (const [, card] of CARDS) {
      const evaluation = evaluated(card);
      for (const { placed, width, height } of drawingsOf(evaluation, INCH_WORKSHOP)) {
        const larger = placed.some(({ sheet }) => Math.max(sheet.width, sheet.height) > Math.max(bed!.width, bed!.height));
        if (!larger) expect(width <= bed!.width + 1e-6 && height <= bed!.height + 1e-6).toBe(true);
      }
    }
  });

  it('turns a piece that fits only so', () => {
    const [sheet] = evaluated(cardOn('folded-card', { depth: 120, length: 100 })).sheets;
    expect(onBeds([sheet!], { width: 110, height: 250 })).toEqual([[{ sheet, x: 0, y: 0, turned: true }]]);
  });
});

describe('what a maker may type', () => {
  it('never breaks the drawing: marks are written, control characters left out', () => {
    const [drawing] = drawingsOf(evaluated(DEMO_CARDS[0]!), METRIC_WORKSHOP);
    const svg = writeSvg(drawing!, '<b>&"\u0000\u001b\ud800');
    expect(svg).toContain('&lt;b&gt;&amp;&quot;:');
    expect(svg).not.toMatch(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/);
  });
});
