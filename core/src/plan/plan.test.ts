import { describe, expect, it } from 'vitest';
import { undressed } from '../card/dress-card.js';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { newCard, rootOf } from '../card/document.js';
import { evaluate } from '../evaluate.js';
import { fits } from '../supplies/envelopes.js';
import { INCH_WORKSHOP, KNOWN_SHEETS, METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { boardById, cardOn, cardWith, evaluated, having } from '../testing/evaluated.js';
import { benchSteps } from './bench-steps.js';
import { baseById, CATALOGUE } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { closedSizeOf } from '../card/closed-size.js';
import { cardOfClosedSize, proportionsOf, sizeForEnvelope, sizeForSheet } from './closed-size.js';
import { stockOf } from '../card/card-stocks.js';
import { onBeds } from './beds.js';
import { materialsOf } from './materials.js';
import { scoreRuns } from './score-runs.js';

const [easel, chanterelle] = [evaluated(DEMO_CARDS[0]!), evaluated(DEMO_CARDS[1]!)];

describe('scores in runs', () => {
  it('reads all from one end when the board is long enough', () => {
    const runs = scoreRuns(easel.sheets[0]!, boardById('five-mm-300'), 'mm');
    expect(runs).toHaveLength(1);
    expect(runs[0]).toMatchObject({ face: 'up', turned: false });
    expect(runs[0]!.readings.map((r) => r.at)).toEqual([75, 150, expect.closeTo(152, 9)]);
    expect(runs[0]!.readings[1]!.words).toBe('at 15 cm');
  });

  it('turns the blank end for end for what lies beyond a short board, and mirrors those readings', () => {
    const deep = evaluated(newCard({ id: 'deep', name: 'deep', base: { mechanism: 'folded-card', sizes: { depth: 240 } } }));
    const runs = scoreRuns(deep.sheets[0]!, boardById('half-cm-210'), 'mm');
    expect(runs).toMatchObject([{ face: 'up', turned: true }]);
    expect(runs[0]!.readings[0]!.at).toBeCloseTo(480 - 240, 9);
  });

  it('turns face over for a mountain and mirrors the reading', () => {
    const sheet = { ...easel.sheets[0]!, scores: easel.sheets[0]!.scores.map((s) => ({ ...s, fold: 'mountain' as const })) };
    const runs = scoreRuns(sheet, boardById('rule'), 'mm', 'flip');
    expect(runs.map((run) => run.face)).toEqual(['down']);
    expect(runs[0]!.readings.map((r) => r.at)).toEqual([150, 152, 227].map((at) => expect.closeTo(at, 9)));
  });

  it('says how far a reading is from its groove', () => {
    const runs = scoreRuns(easel.sheets[0]!, boardById('eighths-12'), 'inch/8');
    expect(runs[0]!.readings[0]!.offGroove).toBeCloseTo(1.2, 9);
  });
});

describe('the steps of making', () => {
  it('come in the order of the work', () => {
    const kinds = benchSteps(easel).map((step) => step.kind);
    const first = (kind: string): number => kinds.indexOf(kind as (typeof kinds)[number]);
    expect(kinds[0]).toBe('ready');
    expect(kinds.at(-1)).toBe('post');
    for (const [before, after] of [
      ['trim', 'score'],
      ['score', 'fold'],
      ['fold', 'dry-fit'],
      ['dry-fit', 'burnish'],
      ['burnish', 'glue'],
      ['glue', 'test'],
    ] as const) {
      expect(first(before)).toBeLessThan(first(after));
    }
  });

  it('never name a step twice, and show the knife’s caution wherever something is cut', () => {
    for (const evaluation of [easel, chanterelle]) {
      const steps = benchSteps(evaluation);
      expect(new Set(steps.map((step) => step.id)).size).toBe(steps.length);
      for (const step of steps) if (step.kind === 'trim' || step.kind === 'cut') expect(step.cautions.join()).toMatch(/fingers/);
    }
  });

  it('score every score once, glue every joint once, the closing one last', () => {
    for (const evaluation of [easel, chanterelle]) {
      const steps = benchSteps(evaluation);
      for (const sheet of evaluation.sheets) {
        const scored = steps.flatMap((step) =>
          step.kind === 'score' && step.picture?.kind === 'flat' && step.picture.piece === sheet.piece.id ? step.picture.scores : [],
        );
        expect(scored.sort()).toEqual(sheet.scores.map((s) => s.id).sort());
      }
      expect(steps.filter((step) => step.kind === 'glue')).toHaveLength(evaluation.design.linkage.bonds.length);
    }
    const glue = benchSteps(chanterelle).filter((step) => step.kind === 'glue');
    expect(glue.map((step) => step.title)).toEqual([
      'Glue: first tab on the back leaf',
      'Close onto the glue: second tab on the front leaf',
    ]);
  });

  it('say where pencil lines go', () => {
    const marks = benchSteps(easel).find((step) => step.id === 'mark-base')!;
    // Depth 150, spine 2, stop at 75 from the fold: 150 + 2 + 75.
    expect(marks.says.join(' ')).toContain('227 mm from the left edge');
  });
});

describe('a card of one sheet, without glue', () => {
  const swing = evaluated(undressed(DEMO_CARDS.find((card) => rootOf(card).mechanism === 'swing')!));

  it('asks for no glue and names no joins', () => {
    expect(materialsOf(swing, METRIC_WORKSHOP).some((m) => m.what.includes('glue'))).toBe(false);
    const said = benchSteps(swing).flatMap((step) => [step.title, ...step.says]);
    expect(said.filter((words) => /glue|belong/i.test(words))).toEqual([]);
  });

  it('names one envelope in what to have ready and in the last step', () => {
    const ready = materialsOf(swing, METRIC_WORKSHOP).find((m) => m.what === 'Envelope')!.detail;
    expect(benchSteps(swing).at(-1)!.says.join(' ')).toContain(ready);
  });
});

describe('materials', () => {
  it('name every piece with both lengths and what a sheet gives', () => {
    const materials = materialsOf(easel, METRIC_WORKSHOP);
    for (const { piece } of easel.sheets) expect(materials.some((m) => m.what.startsWith(piece.name))).toBe(true);
    expect(materials[0]!.detail).toContain('302 mm across × 150 mm along');
  });
});

describe('a closed size', () => {
  it('found for an envelope slips into it with a thick card', () => {
    for (const envelope of [...METRIC_WORKSHOP.envelopes, ...INCH_WORKSHOP.envelopes]) {
      for (const foldEdge of ['side', 'top'] as const) {
        for (const [notation, mark] of [['mm', 1] as const, ['inch/16', 25.4 / 16] as const]) {
          const { depth, length } = sizeForEnvelope(envelope, foldEdge, notation);
          expect(fits(depth, length, 3, envelope)).toBe(true);
          expect(fits(depth + 4 + mark, length, 3, envelope)).toBe(false);
          for (const side of [depth, length]) expect(Math.abs(side / mark - Math.round(side / mark))).toBeLessThan(1e-9);
        }
      }
    }
  });

  it('found for a sheet uses the whole sheet for two plain leaves, and half of it for two cards', () => {
    for (const sheet of KNOWN_SHEETS) {
      const [one, two] = [1, 2].map((count) => sizeForSheet(baseById('folded-card'), sheet, count)!);
      // 320 mm is the most that a leaf may have.
      if (Math.max(sheet.width / 2, sheet.height / 2) < 160) {
        expect(2 * one!.depth * one!.length).toBeCloseTo(sheet.width * sheet.height, 3);
        expect(4 * two!.depth * two!.length).toBeCloseTo(sheet.width * sheet.height, 3);
      }
    }
  });

  const A4 = KNOWN_SHEETS.find((sheet) => sheet.id === 'a4')!;
  it.each(CATALOGUE.filter((m): m is Base => m.kind === 'base').map((base) => [base.id, base] as const))(
    'of %s found for a sheet of A4 lets all its pieces lie on one sheet without overlap, and no larger one is as easily found',
    (_, base) => {
      for (const count of [1, 2]) {
        const size = sizeForSheet(base, A4, count)!;
        const pieces = (k: number) => {
          const outcome = evaluate(cardOfClosedSize(base, { depth: size.depth * k, length: size.length * k }));
          if (!outcome.ok) return undefined;
          const { design, sheets } = outcome.evaluation;
          const cut = sheets.filter(({ piece }) => ['card', 'paper'].includes(stockOf(design, piece).kind));
          return Array.from({ length: count }, () => cut).flat();
        };
        const lies = (all: ReturnType<typeof pieces>): boolean =>
          all !== undefined &&
          [
            { width: 210, height: 297 },
            { width: 297, height: 210 },
          ].some((bed) => {
            const beds = onBeds(all, bed, 0);
            const boxes = (beds[0] ?? []).map(({ sheet, x, y, turned }) => [
              x,
              y,
              x + (turned ? sheet.height : sheet.width),
              y + (turned ? sheet.width : sheet.height),
            ]);
            const inside = boxes.every(([, , right, top]) => right! <= bed.width + 1e-3 && top! <= bed.height + 1e-3);
            const apart = boxes.every((a, i) =>
              boxes
                .slice(i + 1)
                .every((c) => a[2]! <= c[0]! + 1e-3 || c[2]! <= a[0]! + 1e-3 || a[3]! <= c[1]! + 1e-3 || c[3]! <= a[1]! + 1e-3),
            );
            return beds.length === 1 && inside && apart;
          });
        expect([count, lies(pieces(1))]).toEqual([count, true]);
        expect([count, lies(pieces(1.03))]).toEqual([count, false]);
      }
    },
  );

  it('looks as it is wanted, and is the largest that does', () => {
    const from = (look: 'upright' | 'square' | 'wide', foldEdge: 'side' | 'top') => {
      const { depth, length } = sizeForSheet(baseById('folded-card'), A4, 1, proportionsOf(look, foldEdge))!;
      return [Math.round(depth * 100) / 100, Math.round(length * 100) / 100];
    };
    // Two leaves of half of 297 mm, as long as the sheet or the look allows: 210, 1.04 times as much, five sixths of it.
    expect(from('upright', 'side')).toEqual([148.5, 210]);
    expect(from('square', 'side')).toEqual([148.5, 154.44]);
    expect(from('wide', 'side')).toEqual([148.5, 123.75]);
    // With its fold at the top a card is as wide as its fold is long.
    expect(from('wide', 'top')).toEqual([148.5, 210]);
  });

  it('is what a new card of it has', () => {
    for (const base of CATALOGUE) {
      if (base.kind !== 'base' || base.id === 'easel-shape') continue;
      const outcome = evaluate(cardOfClosedSize(base, { depth: 110, length: 140 }));
      if (!outcome.ok) throw new Error(`${base.id}: ${outcome.problems[0]!.says}`);
      const size = closedSizeOf(outcome.evaluation);
      expect([base.id, size.depth]).toEqual([base.id, expect.closeTo(110, 6)]);
      expect(Math.abs(size.length - 140)).toBeLessThan(1);
    }
  });
});

describe('the film stand’s tabs', () => {
  it('are each glued by their own zone and its own words', () => {
    const steps = benchSteps(evaluated(cardOn('film-stand')));
    const shown = steps.flatMap(({ picture, says, title }) =>
      picture?.kind === 'flat' && picture.zones.some((zone) => zone.endsWith('tab-glue')) ? [{ zones: picture.zones, says, title }] : [],
    );
    expect(shown.map(({ zones }) => zones)).toEqual([['left-tab-glue'], ['right-tab-glue']]);
    for (const { zones, title } of shown) expect(title.toLowerCase()).toContain(zones[0]!.startsWith('left') ? 'left tab' : 'right tab');
    expect(shown[1]!.says.join(' ')).toContain('to the other side of the film’s foot');
  });
});

describe('a fold that a step cuts in two', () => {
  it('is folded once', () => {
    const box = { id: 'box', mechanism: 'step', on: { part: 'base', site: 'main-fold' }, sizes: {} };
    const plain = cardOn('folded-card');
    const fold = benchSteps(evaluated({ ...plain, parts: [...plain.parts, box] })).find(({ id }) => id === 'fold-base')!;
    expect(fold.says[0]!.match(/main fold: toward you/g)).toHaveLength(1);
    for (const name of [
      'back fold of the step: toward you',
      'front edge of the step: away from you',
      'foot fold of the step: toward you',
    ]) {
      expect(fold.says[0]).toContain(name);
    }
  });
});

describe('pencil lines that run only part of the way up', () => {
  it('say where they begin and end, so that a strip finds its place along the fold', () => {
    const sizes = { cutFrom: 'strip', depth: 20, height: 30, width: 40, offset: 50 };
    const pencil = benchSteps(evaluated(cardWith('step', sizes, { depth: 100, length: 150 }))).find(({ id }) => id === 'mark-base')!;
    expect(pencil.says).toContain('Straight up, 80 mm from the left edge, from 50 mm to 90 mm up: the back fold of the step lies here.');
    expect(pencil.says).toContain('Straight up, 130 mm from the left edge, from 50 mm to 90 mm up: the foot fold of the step lies here.');
  });
});

describe('a score that only thickness moved off its groove', () => {
  it('keeps the groove, and says what the fold takes up', () => {
    // Tabs of 10 and a wall of 60: the right fold at 70, less two calipers of 0.2 for the tabs.
    const card = having(cardOn('box-card', { wall: 60 }), { board: 'five-mm-300' });
    const evaluation = evaluated(card);
    const divider = evaluation.sheets.find(({ piece }) => piece.id === 'divider-1')!;
    expect(divider.scores.map(({ from, allowed }) => [Number(from[0].toFixed(3)), allowed])).toEqual([
      [10, undefined],
      [69.6, expect.closeTo(-0.4, 9)],
    ]);
    const [, right] = scoreRuns(divider, boardById('five-mm-300'), 'mm')[0]!.readings;
    expect(right!.words).toMatch(/^at 7 cm: the groove is 0.4 mm over, which the fold takes up/);
    expect(right!.offGroove).toBeUndefined();
    expect(evaluation.findings.find(({ check }) => check === 'scoreable')?.creases ?? []).not.toContain('divider-1/right');
  });
});
