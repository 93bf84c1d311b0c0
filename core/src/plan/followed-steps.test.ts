import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import type { CardDocument } from '../card/document.js';
import { withTopper } from '../card/dress-card.js';
import { cardToTry } from '../card/try-out.js';
import { everySheet } from '../dress/every-sheet.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { intersect, totalArea } from '../plane/boolean.js';
import { areaOf, boxOf, loopContains, type Area, type Loop } from '../plane/outline.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { METRIC_WORKSHOP, starterFor } from '../supplies/starter-workshops.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { alongLine, madeFrom, type PaperPiece } from '../testing/paper-maker.js';
import { benchSteps } from './bench-steps.js';
import { stepsRecord } from './steps-record.js';

/** A topper with two papers behind it, one on film with a twin past the edge, and one that lies partly on the first. */
function sheetsBehindToppers(): CardDocument {
  const plain = cardOn('folded-card', { depth: 100, length: 140 }, { within: 'envelope' });
  const on = { panel: 'base/front-leaf', face: 'up' as const, stock: 'card-250', outline: 'mushroom' };
  const backings = [
    { border: 3, stock: 'text-100' },
    { border: 2, stock: 'card-250' },
  ];
  const film = { wide: 12, long: 60, stock: 'film-190' };
  return [
    { ...on, across: 35, along: 60, height: 40, backings },
    { ...on, across: 60, along: 165, height: 40, film, twin: true as const },
    { ...on, across: 60, along: 60, height: 30, turn: 0.3 },
  ].reduce((card, topper) => withTopper(card, topper, METRIC_WORKSHOP), plain);
}

const CARDS: readonly (readonly [string, CardDocument])[] = [
  ...CATALOGUE.map((mechanism) => [mechanism.id, cardToTry(mechanism)] as const),
  ...DEMO_CARDS.map((card) => [card.name, card] as const),
  ['a card with papers, film and a twin behind toppers', sheetsBehindToppers()],
];

const EXACT = 0.01;
type Line = readonly Point[];

const faceOf = ({ outline, holes }: { outline: Loop; holes: Loop[] }): Area => ({ outer: outline, holes });
const closed = (loop: Loop): Line => [...loop, loop[0]!];
const near = (p: Point, lines: readonly Line[]): boolean =>
  lines.some((line) => line.some((a, i) => i + 1 < line.length && distanceToSegment(p, a, line[i + 1]!) < EXACT));

/** Points of some lines that are farther than a hundredth of a millimetre from all others. */
const missed = (lines: readonly Line[], others: readonly Line[], butFor: (p: Point) => boolean = () => false): Point[] =>
  lines.flatMap(alongLine).filter((p) => !near(p, others) && !butFor(p));

function differences(paper: PaperPiece, sheet: CutSheet): unknown {
  const { width, height } = paper;
  const blank = closed([
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ]);
  const wanted = [
    closed(sheet.outline),
    ...sheet.windows.map(({ outline }) => closed(outline)),
    ...sheet.cuts.map(({ from, to }) => [from, to]),
  ];
  const offPaper = (p: Point): boolean =>
    !loopContains(sheet.outline, p) || sheet.windows.some(({ outline }) => loopContains(outline, p)) || near(p, wanted);
  const scores = paper.scores.map(({ from, to }): Line => [from, to]);
  const box = boxOf(sheet.outline);
  const inBox = ([x, y]: Point): Point => [x, Math.min(box.maxY, Math.max(box.minY, y))];
  return {
    size: [width - (box.maxX - box.minX), height - (box.maxY - box.minY)].map((mm) => Math.abs(mm) < EXACT),
    notCut: missed(wanted, [blank, ...paper.cuts]),
    cutTooMuch: missed(paper.cuts, wanted),
    notScored: missed(
      sheet.scores.map(({ from, to }) => [inBox(from), inBox(to)]),
      scores,
    ),
    scoredTooMuch: missed(
      scores,
      sheet.scores.map(({ from, to }) => [from, to]),
      offPaper,
    ),
    foldsOtherWay: sheet.scores.filter(({ from, to, fold }) => {
      const middle: Point = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
      return !paper.scores.some((score) => score.fold === fold && near(middle, [[score.from, score.to]]));
    }),
  };
}

const SAME = { size: [true, true], notCut: [], cutTooMuch: [], notScored: [], scoredTooMuch: [], foldsOtherWay: [] };

describe.each(CARDS)('a maker who only reads the steps of %s', (_name, card) => {
  const evaluation = evaluated(card);
  const sheets = everySheet(evaluation);
  const follow = (workshop = starterFor(card.notation)) => madeFrom(JSON.stringify(stepsRecord(benchSteps(evaluation, workshop))));

  it('ends with the pieces of the design, whatever the school', () => {
    for (const scoring of ['one-face', 'flip'] as const) {
      for (const cutting of ['trimmer', 'knife'] as const) {
        const { pieces } = follow({ ...METRIC_WORKSHOP, schools: { scoring, cutting } });
        expect([...pieces.keys()].sort()).toEqual(sheets.map(({ piece }) => piece.id).sort());
        for (const sheet of sheets)
          expect([sheet.piece.id, differences(pieces.get(sheet.piece.id)!, sheet)]).toEqual([sheet.piece.id, SAME]);
      }
    }
  });

  it('finds every place for glue bare, alike and of paper, and has one card in the end', () => {
    const { joins, troubles } = follow();
    expect(troubles).toEqual([]);
    const { layers, toppers, bands, magnets } = evaluation.dressed;
    const onToppers = (id: string): boolean => toppers.some(({ id: own, under }) => [own, ...under.map((sheet) => sheet.id)].includes(id));
    const sunk = magnets.flatMap((magnet) => magnet.sheets.map(({ piece }) => piece.id));
    const hides = layers.filter(({ number }) =>
      magnets.some(({ first, second }) => [first, second].some((disc) => disc?.coveredBy === number)),
    );
    expect(
      joins
        .filter(({ glued }) => !onToppers(glued.piece) && !hides.some(({ id }) => id === glued.piece))
        .map(({ id }) => id)
        .sort(),
    ).toEqual(
      [
        ...evaluation.design.linkage.bonds.map(({ id }) => id),
        ...layers.filter((layer) => !hides.includes(layer)).map(({ id }) => id),
        ...bands.map(({ sheet }) => sheet.piece.id),
        ...sunk,
      ].sort(),
    );
    for (const { id, sheet } of hides) {
      // A layer that hides a disc is glued whole, a part of it on the paper round the disc.
      const own = joins.filter(({ glued }) => glued.piece === id);
      expect([id, own.some(({ onto }) => sunk.includes(onto.piece))]).toEqual([id, true]);
      const whole = areaOf({ outer: sheet.outline, holes: sheet.windows.map(({ outline }) => outline) });
      expect(own.reduce((sum, { glued }) => sum + areaOf(faceOf(glued)), 0)).toBeCloseTo(whole, 1);
    }
    for (const { id: own, glue, ground, under } of toppers) {
      // What lies lowest carries it.
      const id = under.find(({ as }) => as !== 'twin')?.id ?? own;
      // All the glue of a topper that has the panel under it finds a place, and no more than there is of it.
      const found = joins.filter(({ glued }) => glued.piece === id).reduce((sum, { glued }) => sum + areaOf(faceOf(glued)), 0);
      expect([id, found > Math.abs(totalArea(intersect(glue, ground))) - 0.1]).toEqual([id, true]);
      expect([id, found < glue.reduce((sum, area) => sum + areaOf(area), 0) + 0.1]).toEqual([id, true]);
    }
    const together = new Set([sheets[0]!.piece.id]);
    for (let before = 0; before < together.size;) {
      before = together.size;
      for (const { glued, onto } of joins) {
        if (together.has(glued.piece) || together.has(onto.piece)) together.add(glued.piece).add(onto.piece);
      }
    }
    expect(evaluation.sheets.map(({ piece }) => piece.id).filter((id) => !together.has(id))).toEqual([]);
    for (const { piece, outline } of joins.flatMap(({ glued, onto }) => [glued, onto])) {
      const sheet = sheets.find((each) => each.piece.id === piece)!;
      const edges = [closed(sheet.outline)];
      expect([piece, outline.filter((p) => !loopContains(sheet.outline, p) && !near(p, edges))]).toEqual([piece, []]);
    }
  });
});

describe('the maker of paper', () => {
  const steps = (...given: object[]) =>
    JSON.stringify({ steps: given.map((step) => ({ title: 'S', blanks: [], readings: [], joins: [], ...step })) });
  const square = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
  ];
  const blanks = ['a', 'b', 'c'].map((piece) => ({ piece, width: 20, height: 10 }));
  const on = (piece: string, face: string, outline = square) => ({ piece, face, outline, holes: [] });

  it('measures from the edge that is said', () => {
    const { pieces } = madeFrom(
      steps({ blanks }, { readings: [{ piece: 'a', kind: 'score', edge: 'right edge', at: 5, from: 2, to: 8, fold: 'valley' }] }),
    );
    expect(pieces.get('a')!.scores).toEqual([{ from: [15, 2], to: [15, 8], fold: 'valley' }]);
  });

  it('tells what is in the way, and what does not lie on the other', () => {
    const mirrored = square.map(([x, y]) => [10 - x!, y!]);
    const join = (id: string, glued: object, onto: object) => ({ id, glued, onto });
    const first = join('first', on('a', 'up'), on('b', 'up', mirrored));
    expect(madeFrom(steps({ blanks }, { joins: [first] })).troubles).toEqual([]);
    expect(madeFrom(steps({ blanks }, { joins: [join('first', on('a', 'up'), on('b', 'up'))] })).troubles).toHaveLength(1);
    expect(madeFrom(steps({ blanks }, { joins: [first, join('second', on('c', 'up'), on('b', 'up', mirrored))] })).troubles).toEqual([
      'S: second: something is glued on b there already',
    ]);
    expect(madeFrom(steps({ readings: [{ piece: 'x', kind: 'cut', edge: 'left edge', at: 1, from: 0, to: 1 }] })).troubles).toHaveLength(1);
  });
});
