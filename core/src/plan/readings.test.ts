import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import type { CardDocument } from '../card/document.js';
import { cardToTry } from '../card/try-out.js';
import { carry, dot } from '../linkage/rigid.js';
import { poseOf } from '../linkage/motion.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { boxOf } from '../plane/outline.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { scorePlaces } from '../sheet/score-places.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { cardOn, cardWith, evaluated, having } from '../testing/evaluated.js';
import { benchSteps } from './bench-steps.js';
import type { LineReading } from './reading.js';
import { waysUp } from './way-up.js';

const CARDS: readonly (readonly [string, CardDocument])[] = [
  ...CATALOGUE.map((mechanism) => [mechanism.id, cardToTry(mechanism)] as const),
  ...DEMO_CARDS.map((card) => [card.name, card] as const),
  ['swing with frames', cardOn('swing', { swings: '2', frames: 'outer' })],
  ['layered stage with round windows', cardOn('layered-stage', { windowShape: 'circle' })],
];

/** A reading put back on its blank: the line that a maker makes who follows it. */
function lineOf({ edge, at, atEnd = at, from, to }: LineReading, { width, height }: CutSheet): [Point, Point] {
  const place = (off: number, along: number): Point =>
    ({
      'left edge': [off, along] as const,
      'right edge': [width - off, along] as const,
      'lower edge': [along, off] as const,
      'upper edge': [along, height - off] as const,
    })[edge];
  return [place(at, from), place(atEnd, to)];
}

const NEAR = 1e-3;

function makes(reading: LineReading, sheet: CutSheet, points: readonly Point[]): boolean {
  if (reading.traced) {
    const { at, atEnd = at, from, to } = reading;
    return points.every(([x, y]) => x >= at - NEAR && x <= atEnd + NEAR && y >= from - NEAR && y <= to + NEAR);
  }
  const [a, b] = lineOf(reading, sheet);
  return points.every((p) => distanceToSegment(p, a, b) < NEAR);
}

/** Edges of a piece that are cut after its blank is trimmed: each with the kinds that its reading may have. */
function edgesToCut(sheet: CutSheet): { ends: [Point, Point]; kinds: readonly LineReading['kind'][]; of: string }[] {
  const { minX, maxX, minY, maxY } = boxOf(sheet.outline);
  const onSide = (a: Point, b: Point): boolean =>
    [minX, maxX].some((x) => Math.abs(a[0] - x) < NEAR && Math.abs(b[0] - x) < NEAR) ||
    [minY, maxY].some((y) => Math.abs(a[1] - y) < NEAR && Math.abs(b[1] - y) < NEAR);
  const around = (loop: readonly Point[]) => loop.map((p, i): [Point, Point] => [p, loop[(i + 1) % loop.length]!]);
  return [
    ...sheet.cuts.map(({ id, line, from, to }) => ({ ends: [from, to] as [Point, Point], kinds: ['cut'] as const, of: line ?? id })),
    ...sheet.windows.flatMap(({ id, outline }) =>
      around(outline).map((ends) => ({ ends, kinds: ['window', 'slot'] as const, of: `${id}/` })),
    ),
    ...around(sheet.outline)
      .filter(([a, b]) => !onSide(a, b))
      .map((ends) => ({ ends, kinds: ['notch', 'outline'] as const, of: 'notch-' })),
  ];
}

describe.each(CARDS)('the steps of %s', (_name, card) => {
  const evaluation = evaluated(card);
  const steps = benchSteps(evaluation);
  const readings = steps.flatMap((step) => step.readings);

  it('make every score in exactly one reading, from end to end, and nothing beyond but waste', () => {
    for (const sheet of evaluation.sheets) {
      const own = readings.filter(({ piece, kind }) => piece === sheet.piece.id && kind === 'score');
      expect(own.map(({ line }) => line).sort()).toEqual(sheet.scores.map(({ id }) => id).sort());
      for (const { id, from, to } of sheet.scores) {
        const reading = own.find(({ line }) => line === id)!;
        expect(
          makes(
            reading,
            sheet,
            [from, to].map(([x, y]): Point => [x, Math.min(sheet.height, Math.max(0, y))]),
          ),
        ).toBe(true);
      }
    }
  });

  it('make every slit, edge of an opening, slot and notch in exactly one reading', () => {
    for (const sheet of evaluation.sheets) {
      const own = readings.filter(({ piece, kind }) => piece === sheet.piece.id && kind !== 'score');
      for (const { ends, kinds, of } of edgesToCut(sheet)) {
        const fitting = own.filter((reading) => kinds.includes(reading.kind) && reading.line.startsWith(of) && makes(reading, sheet, ends));
        const byRule = fitting.filter(({ traced }) => !traced);
        expect([sheet.piece.id, ends, byRule.length || fitting.length]).toEqual([sheet.piece.id, ends, 1]);
      }
      expect(new Set(own.map(({ line }) => line)).size).toBe(own.length);
    }
  });

  it('join every glued place in exactly one step, its own area hatched', () => {
    const gluing = steps.filter(({ kind }) => kind === 'glue');
    expect(gluing.flatMap(({ glues }) => glues!).sort()).toEqual(evaluation.design.linkage.bonds.map(({ id }) => id).sort());
    for (const bond of evaluation.design.linkage.bonds) {
      const { picture } = gluing.find(({ glues }) => glues!.includes(bond.id))!;
      if (picture?.kind !== 'flat') throw new Error('no picture');
      expect(picture.piece).toBe(evaluation.design.panels[bond.a]!.piece.id);
      expect(picture.zones).toContain(bond.source.zone);
    }
  });

  it('have titles of their own', () => {
    const titles = steps.map(({ title }) => title);
    expect(titles.filter((title, i) => titles.indexOf(title) !== i)).toEqual([]);
  });

  it('score one face in one pass, or both faces for who flips', () => {
    const faces = (scoring: 'one-face' | 'flip') =>
      benchSteps(evaluation, { ...METRIC_WORKSHOP, schools: { scoring, cutting: 'knife' } }).flatMap(({ kind, picture, scores }) =>
        kind === 'score' && scores && picture?.kind === 'flat' ? scores.map(({ fold }) => ({ face: picture.face, fold })) : [],
      );
    expect(faces('one-face').filter(({ face }) => face !== 'up')).toEqual([]);
    for (const { face, fold } of faces('flip')) expect(face).toBe(fold === 'valley' ? 'up' : 'down');
  });

  it('name the edge that is up when it is open: that way a picture rises', () => {
    const { design, motion, resting } = evaluation;
    const pose = poseOf(motion.pressed ?? motion, resting);
    const { up } = design.base.rest;
    const WAYS: Record<string, Point> = { 'right edge': [1, 0], 'left edge': [-1, 0], 'upper edge': [0, 1], 'lower edge': [0, -1] };
    for (const { panel, top } of waysUp(evaluation)) {
      const m = pose[design.panels.findIndex(({ id }) => id === panel)]!;
      const rise = ([x, y]: Point): number => dot(carry(m, x, y, 0), up) - dot(carry(m, 0, 0, 0), up);
      const steepest = Math.hypot(rise([1, 0]), rise([0, 1]));
      if (steepest > 0.35 && WAYS[top]) expect(rise(WAYS[top])).toBeGreaterThan(0.8 * steepest);
    }
  });
});

describe('settings of the board', () => {
  it('are half as many where the blank is the same turned end for end', () => {
    // Closed 120 wide: panels p = (120 − 30) ÷ 2 = 45, doors g = 45 + 15 = 60: scores at 60, 105, 135 and 180 of 240.
    const [sheet] = evaluated(cardOn('rising-strip-doors', { closedWidth: 120, strip: 30, gap: 0 })).sheets;
    const places = scorePlaces(sheet!, 300, 'one-face');
    expect(sheet!.scores.map(({ from }) => from[0])).toEqual([60, 105, 135, 180]);
    expect(places.map(({ at, scores, again }) => [at, scores[0]!.from[0], again[0]!.from[0]])).toEqual([
      [60, 60, 180],
      [105, 105, 135],
    ]);
  });

  it('make every score once, wherever the board ends and whichever school', () => {
    for (const [, card] of CARDS) {
      for (const sheet of evaluated(card).sheets) {
        for (const reach of [40, 90, 150, 400]) {
          for (const scoring of ['one-face', 'flip'] as const) {
            const places = scorePlaces(sheet, reach, scoring);
            const made = places.flatMap(({ scores, again }) => [...scores, ...again].map(({ id }) => id));
            const upright = sheet.scores.filter(({ from, to }) => Math.abs(from[0] - to[0]) < 1e-6);
            expect(made.sort()).toEqual(upright.map(({ id }) => id).sort());
            for (const { at, face, turned, scores, again } of places) {
              const fromRight = turned !== (face === 'down');
              for (const { from } of scores) expect(fromRight ? sheet.width - from[0] : from[0]).toBeCloseTo(at, 4);
              for (const { from } of again) expect(fromRight ? from[0] : sheet.width - from[0]).toBeCloseTo(at, 4);
            }
          }
        }
      }
    }
  });
});

describe('the order on one piece', () => {
  const kindsOn = (card: CardDocument, piece: string) =>
    benchSteps(evaluated(card))
      .filter((step) => step.readings.some((reading) => reading.piece === piece))
      .map(({ kind }) => kind);

  it('is cuts before scores where the cuts show where scores end', () => {
    expect(kindsOn(cardOn('swing'), 'base')).toEqual(['cut', 'score']);
    expect(kindsOn(cardOn('half-turn-stand'), 'base')).toEqual(['cut', 'score']);
    const said = benchSteps(evaluated(cardOn('swing'))).flatMap(({ scores }) => scores ?? []);
    for (const { words } of said) expect(words).toContain('no further than the cut');
  });

  it('is scores right across before what they end at is cut away', () => {
    const card = cardOn('tucked-display');
    expect(kindsOn(card, 'base')).toEqual(['score', 'cut']);
    const [sheet] = evaluated(card).sheets;
    const scores = benchSteps(evaluated(card)).flatMap(({ readings }) => readings.filter(({ kind }) => kind === 'score'));
    expect(scores.map(({ from, to }) => [from, to])).toEqual(scores.map(() => [0, sheet!.height]));
  });

  it('shows a blank until its outline is cut', () => {
    const steps = benchSteps(evaluated(cardOn('tucked-display'))).filter(
      ({ picture }) => picture?.kind === 'flat' && picture.piece === 'base',
    );
    const cutOut = steps.findIndex(({ id }) => id === 'cut-out-base');
    expect(cutOut).toBeGreaterThan(0);
    steps.forEach(({ picture }, i) => expect(picture?.kind === 'flat' && picture.blank === true).toBe(i < cutOut));
  });

  it('is the clear strip on both rails at once, then its panel, both with the card flat, and the stop last', () => {
    const glued = benchSteps(evaluated(cardOn('step-easel'))).filter(({ kind }) => kind === 'glue');
    expect(glued.map(({ glues }) => glues)).toEqual([['strip-near', 'strip-far'], ['panel-on-strip'], [expect.stringContaining('stop')]]);
    for (const { says } of glued.slice(0, 2)) expect(says.join(' ')).toContain('lying flat');
  });

  it('sets every stop after everything else', () => {
    for (const id of ['easel-folded-front', 'easel-strip', 'easel-shape', 'easel-row']) {
      const glued = benchSteps(evaluated(cardOn(id))).filter(({ kind }) => kind === 'glue');
      const stops = glued.map(({ says }) => says.some((words) => words.includes('The foot will rest against it')));
      expect(stops).toEqual([...stops].sort());
      expect(stops.at(-1)).toBe(true);
    }
  });
});

describe('clear film', () => {
  const film = having(cardOn('easel-folded-front'), { stocks: { ...cardOn('easel-folded-front').stocks, display: 'film-190' } });

  it('gets no pencil line, and tape instead of glue', () => {
    const steps = benchSteps(evaluated(film));
    expect(steps.some(({ id }) => id === 'mark-display')).toBe(false);
    const joined = steps.find(({ glues }) => glues?.includes('display-on-front'))!;
    expect(joined.title).toMatch(/^Tape: /);
    expect(joined.says.join(' ')).toContain('not glue');
  });

  it('that slides must be square', () => {
    const trim = benchSteps(evaluated(cardOn('film-stand'))).find(({ id }) => id === 'trim-film')!;
    expect(trim.says.join(' ')).toContain('square');
  });
});

describe('words for my tools', () => {
  const said = (cutting: 'knife' | 'trimmer') =>
    benchSteps(evaluated(cardWith('step', { depth: 20, height: 30, width: 40, offset: 50 }, { depth: 100, length: 150 })), {
      ...METRIC_WORKSHOP,
      schools: { scoring: 'one-face', cutting },
    }).find(({ id }) => id === 'cut-base')!.says;

  it('are a blade to drop for a trimmer, a rule to lay for a knife', () => {
    // Slits from b = 20 before the fold at 100 to h = 30 behind it, 50 and 90 up.
    expect(said('trimmer')).toContain('1: slit, 50 mm from the lower edge: drop the blade at 80 mm, stop at 130 mm.');
    expect(said('knife')).toContain('1: slit, 50 mm from the lower edge: lay the rule there and cut from 80 mm to 130 mm.');
  });

  it('tell to score thick card', () => {
    const thick = having(cardOn('folded-card'), { stocks: { ...cardOn('folded-card').stocks, base: 'board-400' } });
    const score = (card: CardDocument) =>
      benchSteps(evaluated(card))
        .find(({ kind }) => kind === 'score')!
        .says.join(' ');
    expect(score(thick)).toContain('0.55 mm thick');
    expect(score(cardOn('folded-card'))).not.toContain('thick');
  });
});

describe('what was found of my tools and accepted', () => {
  const calibrations = [
    { kind: 'trimmer' as const, id: METRIC_WORKSHOP.trimmers[0]!.id, value: -0.4, uncertainty: 0.1, count: 12 },
    { kind: 'board' as const, id: cardOn('folded-card').board, value: 0.3, uncertainty: 0.1, count: 12 },
    { kind: 'fold' as const, id: cardOn('folded-card').stocks.base, value: 0.2, uncertainty: 0.1, count: 12 },
  ];
  const said = (kind: string, cutting: 'knife' | 'trimmer' = 'trimmer'): string =>
    benchSteps(evaluated(cardOn('folded-card')), { ...METRIC_WORKSHOP, schools: { scoring: 'one-face', cutting }, calibrations })
      .filter((step) => step.kind === kind)
      .flatMap(({ says }) => says)
      .join(' ');

  it('is said where it counts, and only of the tool in hand', () => {
    expect(said('trim')).toContain('cuts 0.4 mm too narrow: set its fence 0.4 mm more.');
    expect(said('trim', 'knife')).not.toContain('fence');
    expect(said('score')).toContain(
      'This board scores 0.3 mm too far from its zero: let the edge lie 0.3 mm from the zero toward the first groove.',
    );
    expect(said('fold')).toContain('bulge by 0.2 mm each');
  });
});
