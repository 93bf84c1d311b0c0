import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_CARDS } from '../card/demo-cards.js';
import { dressedBy, dressedOtherwise, undressed } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import { thicknessAt } from '../card/pile.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { frameAt, poseOf } from '../linkage/motion.js';
import { carry, carryDirection, carryFlat, dot, type Rigid } from '../linkage/rigid.js';
import { intersect, subtract, totalArea } from '../plane/boolean.js';
import { areaContains, areaOf, boxOf, type Area, type Loop } from '../plane/outline.js';
import { place } from '../plane/placement.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import { GLUE_FILM } from '../supplies/limits.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import type { Base } from '../mechanism/contract.js';
import { treeOf, treeSeed } from '../testing/any-tree.js';
import { cardOn, evaluated, finding, stockById } from '../testing/evaluated.js';
import type { DressedLayer } from './layer.js';

const dressed = (card: CardDocument, border: number, steps: 1 | 2 | 3 = 1): CardDocument =>
  dressedBy(card, { border, steps }, starterFor(card.notation));

const on = (evaluation: Evaluation, panel: string, face: 'up' | 'down', step = 1): DressedLayer => {
  const found = evaluation.dressed.layers.filter((layer) => layer.panel === panel && layer.face === face && layer.step === step);
  expect(found, `${panel} ${face} ${step}`).toHaveLength(1);
  return found[0]!;
};

const sizeOf = ({ box }: DressedLayer): [number, number] => [box.width, box.height];
const close = (found: [number, number], wanted: [number, number]): void => {
  expect(found[0]).toBeCloseTo(wanted[0], 5);
  expect(found[1]).toBeCloseTo(wanted[1], 5);
};

/** Every demo card that is dressed, worked out once. */
const DRESSED = DEMO_CARDS.map(undressed)
  .map((card) => ({ card, border: card.marks === 'inch' ? 3.175 : 3 }))
  .map(({ card, border }) => ({
    name: card.name,
    border,
    bare: evaluated(card),
    evaluation: evaluated(dressed(card, border, 2)),
  }));

describe('the layers of a card', () => {
  it('are as large as their panels less the border each way, without one where two doors meet', () => {
    // Doors of a card 120 × 150 mm closed whose strip is 30 wide: 60 each, 30 + 2 · 45 inside (45 = 60 − 15).
    const doors = evaluated(dressed(cardOn('rising-strip-doors', { closedWidth: 120, length: 150, strip: 30 }), 3));
    close(sizeOf(on(doors, 'base/left-door', 'down')), [57, 144]);
    close(sizeOf(on(doors, 'base/right-door', 'down')), [57, 144]);
    expect(on(doors, 'base/left-door', 'down').borders.left).toBeCloseTo(0, 6);
    expect(on(doors, 'base/right-door', 'down').borders.right).toBeCloseTo(0, 6);
    close(sizeOf(on(doors, 'base/strip', 'up')), [24, 144]);
  });

  it('shrink by the step each way from one to the next, and keep a seam', () => {
    const card = dressedBy(
      cardOn('rising-strip-doors', { closedWidth: 120, length: 150, strip: 30 }),
      { border: 3, step: 2, steps: 3 },
      starterFor('mm'),
    );
    const doors = evaluated(card);
    close(sizeOf(on(doors, 'base/left-door', 'down', 1)), [57, 144]);
    close(sizeOf(on(doors, 'base/left-door', 'down', 2)), [55, 140]);
    close(sizeOf(on(doors, 'base/left-door', 'down', 3)), [53, 136]);
  });

  it('keep to the borders of each side where they are told', () => {
    const plain = dressed(cardOn('folded-card', { depth: 100, length: 140 }), 3);
    const card = dressedOtherwise(plain, { panel: 'base/front-leaf', face: 'down' }, { left: 10, top: 0, border: 4 });
    const layer = on(evaluated(card), 'base/front-leaf', 'down');
    close(sizeOf(layer), [86, 136]);
    expect(layer.borders.left).toBeCloseTo(10, 5);
    expect(layer.borders.right).toBeCloseTo(4, 5);
    expect(layer.borders.top).toBeCloseTo(0, 5);
    expect(layer.borders.bottom).toBeCloseTo(4, 5);
  });

  it('follow a window one border wider all round', () => {
    const stage = evaluated(dressed(cardOn('layered-stage', {}), 3));
    const framed = stage.dressed.layers.filter(({ area }) => area.holes.length > 0);
    expect(framed.length).toBeGreaterThan(0);
    for (const { panel, area } of framed) {
      const holes = stage.design.panels.find(({ id }) => id === panel)!.area.holes.map((hole) => boxOf(hole));
      area.holes.forEach((hole) => {
        const own = boxOf(hole);
        expect(
          holes.some(
            (other) =>
              Math.abs(other.minX - own.minX - 3) < 0.01 &&
              Math.abs(own.maxX - other.maxX - 3) < 0.01 &&
              Math.abs(own.maxY - other.maxY - 3) < 0.01,
          ),
        ).toBe(true);
      });
    }
  });

  it('keep away from what is glued on a face, and leave a narrow strip covered or bare', () => {
    for (const { evaluation } of DRESSED) {
      const { design, dressed: worn } = evaluation;
      for (const layer of worn.layers) {
        const body = design.linkage.bodyOf.get(layer.panel)!;
        for (const { a, b, fixed, source } of design.linkage.bonds) {
          if (b !== body || source.partnerFace !== layer.face) continue;
          const carried = (loop: Loop): Loop => loop.map((point) => carryFlat(fixed, point));
          const { outer, holes } = design.panels[a]!.area;
          expect(totalArea(intersect([layer.area], [{ outer: carried(outer), holes: holes.map(carried) }]))).toBeLessThan(0.01);
        }
      }
    }
  });

  it('never reach past their panels, and every corner keeps the border from every edge that is no seam', () => {
    for (const { name, evaluation, border } of DRESSED) {
      for (const layer of evaluation.dressed.layers) {
        const { area } = evaluation.design.panels.find(({ id }) => id === layer.panel)!;
        expect(totalArea(subtract([layer.area], [area])), `${name} ${layer.number}`).toBeLessThan(0.01);
        if (layer.covers || layer.seams > 0) continue;
        const edges = [area.outer, ...area.holes].flatMap((loop) => loop.map((from, i) => [from, loop[(i + 1) % loop.length]!] as const));
        for (const corner of layer.area.outer) {
          const near = Math.min(...edges.map(([from, to]) => distanceToSegment(corner, from, to)));
          expect(near, `${name} ${layer.number}`).toBeGreaterThan(border * layer.step - 1e-3);
        }
      }
    }
  });

  it('lie on their panel from the sheet they are cut from, good side out and what is up at the top', () => {
    for (const { evaluation } of DRESSED) {
      const { design, motion } = evaluation;
      for (const { sheet, placement, area, panel, face, upWhenOpen, shows } of evaluation.dressed.layers) {
        const laid: Area = {
          outer: sheet.outline.map((p) => place(p, placement)),
          holes: sheet.windows.map(({ outline }) => outline.map((p) => place(p, placement))),
        };
        expect(totalArea(intersect([laid], [area]))).toBeCloseTo(areaOf(area), 1);
        expect(placement.flipped).toBe(face === 'down');
        const [x, y] = [place([0, 1], placement), place([0, 0], placement)];
        const up: Point = [x[0] - y[0], x[1] - y[1]];
        const side = { left: [-1, 0], right: [1, 0], bottom: [0, -1], top: [0, 1] }[upWhenOpen];
        expect(up[0]).toBeCloseTo(side[0]!, 6);
        expect(up[1]).toBeCloseTo(side[1]!, 6);
        // On what stands upright the sheet's top is really the higher one.
        if (!shows.includes('open')) continue;
        const m = poseOf(motion, frameAt(motion, design.schedule, design.base.rest.at))[design.linkage.bodyOf.get(panel)!]!;
        const { up: world } = design.base.rest;
        const level = Math.abs(dot(carryDirection(m, 0, 0, 1), world));
        if (level < 0.2 && Math.abs(world[2]) < 0.5) expect(dot(carryDirection(m, up[0], up[1], 0), world)).toBeGreaterThan(0.5);
      }
    }
  });

  it('are named as twins only where the named motion lays one on the other', () => {
    let twins = 0;
    for (const { evaluation } of DRESSED) {
      const { layers } = evaluation.dressed;
      for (const layer of layers) {
        if (!layer.twin) continue;
        twins++;
        const first = layers.find(({ id }) => id === layer.twin!.of)!.sheet;
        const { width, height } = first;
        const move = ([x, y]: Point): Point => {
          const { by } = layer.twin!;
          if (by === 'same') return [x, y];
          if (by === 'half turn') return [width - x, height - y];
          return by === 'mirror image' ? [width - x, y] : [x, height - y];
        };
        const moved: Area = { outer: first.outline.map(move), holes: first.windows.map(({ outline }) => outline.map(move)) };
        const own: Area = { outer: layer.sheet.outline, holes: layer.sheet.windows.map(({ outline }) => outline) };
        const differs = totalArea(subtract([moved], [own])) + totalArea(subtract([own], [moved]));
        expect(differs / areaOf(own)).toBeLessThan(1e-3);
      }
    }
    expect(twins).toBeGreaterThan(20);
  });

  it('names the second of two wings a mirror image, and two walls alike the same', () => {
    const figure = DRESSED.find(({ name }) => name === 'Chanterelle birthday card')!.evaluation;
    const { layers } = figure.dressed;
    const second = layers.find(({ panel }) => panel === 'figure/second-wing')!;
    expect(second.twin).toEqual({ of: layers.find(({ panel }) => panel === 'figure/first-wing')!.id, by: 'mirror image' });
    const box = evaluated(dressed(cardOn('box-card', { wall: 60, secondWall: 60, height: 90, flaps: [], dividers: [] }), 3));
    expect(box.dressed.layers.some(({ twin }) => twin?.by === 'same')).toBe(true);
  });
});

describe('a dressed card', () => {
  it('is as thick as its sheets and layers where they lie, by points thrown at it', () => {
    for (const { name, evaluation } of DRESSED) {
      const { design, motion, closed } = evaluation;
      const pose = poseOf(motion.pressed ?? motion, (motion.pressed ?? motion).frames[0]!);
      const inside = (area: Area, m: Rigid, point: Point): boolean =>
        areaContains(
          { outer: area.outer.map((p) => carryFlat(m, p)), holes: area.holes.map((hole) => hole.map((p) => carryFlat(m, p))) },
          point,
        );
      let seed = 7;
      const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
      const { minX, maxX, minY, maxY } = closed.box;
      let [thrown, mapped] = [0, 0];
      for (let i = 0; i < 160; i++) {
        const point: Point = [minX + random() * (maxX - minX), minY + random() * (maxY - minY)];
        const here = design.panels.filter((panel, body) => inside(panel.area, pose[body]!, point));
        const glued = design.linkage.bonds.filter(
          ({ a, b }) => here.includes(design.panels[a]!) && here.includes(design.panels[b]!),
        ).length;
        thrown += here.reduce(
          (sum, { piece }) => sum + (piece.thickness ?? (design.stocks.pieces[piece.id] ?? design.stocks[piece.stock]).caliper),
          glued * GLUE_FILM,
        );
        for (const layer of evaluation.dressed.layers) {
          if (inside(layer.area, pose[design.linkage.bodyOf.get(layer.panel)!]!, point)) thrown += layer.stock.caliper + GLUE_FILM;
        }
        mapped += thicknessAt(
          design,
          closed.pile.filter(({ body, name: called }) => body >= 0 || called !== undefined),
          point,
        ).thickness;
      }
      expect(mapped / thrown, name).toBeCloseTo(1, 2);
    }
  });

  it('weighs what its panels and layers weigh, and its weight falls where theirs does', () => {
    for (const { name, bare, evaluation } of DRESSED) {
      const { design, motion, standing, resting } = evaluation;
      const pose = poseOf(motion, resting);
      let grams = bare.standing.weight;
      const moment = bare.standing.centre.map((part) => part * grams);
      for (const { area, panel, stock } of evaluation.dressed.layers) {
        // Area and centre by triangles about the first corner, openings taken off.
        let [sum, cx, cy] = [0, 0, 0];
        for (const loop of [area.outer, ...area.holes]) {
          const [o] = loop as [Point];
          for (let i = 1; i + 1 < loop.length; i++) {
            const [p, q] = [loop[i]!, loop[i + 1]!];
            const two = (p[0] - o[0]) * (q[1] - o[1]) - (q[0] - o[0]) * (p[1] - o[1]);
            sum += two / 2;
            cx += (two / 6) * (o[0] + p[0] + q[0]);
            cy += (two / 6) * (o[1] + p[1] + q[1]);
          }
        }
        const own = (sum * stock.weight) / 1e6;
        grams += own;
        carry(pose[design.linkage.bodyOf.get(panel)!]!, cx / sum, cy / sum, 0).forEach((part, k) => (moment[k]! += part * own));
      }
      expect(standing.weight, name).toBeCloseTo(grams, 3);
      moment.forEach((part, k) => expect(standing.centre[k]! * grams, name).toBeCloseTo(part, 0));
    }
  });

  it('says the same as before once it is undressed', () => {
    for (const card of [DEMO_CARDS[0]!, DEMO_CARDS[1]!, DEMO_CARDS[8]!].map(undressed)) {
      const back = evaluated(undressed(dressed(card, 3, 3)));
      expect(back.findings).toEqual(evaluated(card).findings);
      expect(back.closed.thickest).toEqual(evaluated(card).closed.thickest);
    }
  });

  it('has its message on the layer that lies uppermost, and nowhere on a pattern', () => {
    const card = cardOn('folded-card', { depth: 100, length: 140, openTo: Math.PI });
    const plain = dressedBy(card, { border: 3, steps: 2, stock: 'text-100' }, starterFor('mm'));
    // Two layers of 3 mm a side: 100 − 12 by 140 − 12.
    expect(finding(evaluated(plain), 'writable').says).toMatch(/layer L\d of .* 88 mm × 128 mm/);
    const patterned = finding(evaluated(dressedBy(card, { border: 3, stock: 'patterned-120' }, starterFor('mm'))), 'writable');
    expect(patterned.severity).toBe('warn');
    expect(patterned.says).toMatch(/wears patterned paper: cut layer L\d/);
    const bare = dressedOtherwise(
      dressedBy(card, { border: 3, stock: 'patterned-120' }, starterFor('mm')),
      { panel: 'base/back-leaf', face: 'up' },
      { bare: true },
    );
    expect(finding(evaluated(bare), 'writable').severity).toBe('pass');
  });

  it('tells what its maker asked of a face that cannot be', () => {
    const plain = dressed(cardOn('folded-card', { depth: 100, length: 140 }), 3);
    const face = { panel: 'base/front-leaf', face: 'down' } as const;
    const tooWide = evaluated(dressedOtherwise(plain, face, { border: 50 }));
    expect(finding(tooWide, 'dressing-placed/base/front-leaf/down').says).toContain('100 mm × 140 mm');
    const gone = evaluated(dressedOtherwise(plain, { panel: 'figure/wing', face: 'up' }, { border: 5 }));
    expect(finding(gone, 'dressing-placed/figure/wing/up').says).toContain('has not any more');
    const steps = evaluated(dressedOtherwise(plain, face, { border: 46, steps: 2 }));
    expect(finding(steps, 'dressing-placed/base/front-leaf/down').says).toContain('only 1 is wide enough');
  });

  it('of any tree and any borders is worked out without a throw or a number that is none', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...CATALOGUE.filter((mechanism): mechanism is Base => mechanism.kind === 'base')),
        treeSeed,
        fc.double({ min: 0, max: 30, noNaN: true }),
        fc.constantFrom(1, 2, 3),
        (base, seed, border, steps) => {
          const card = treeOf(base, seed);
          // A tree that is refused bare is for the tests of trees.
          fc.pre(evaluate(card).ok);
          const { dressed: worn, findings, closed } = evaluated(dressed(card, border, steps as 1 | 2 | 3));
          expect(Number.isFinite(closed.thickest.thickness)).toBe(true);
          expect(findings.every(({ says }) => !says.includes('NaN'))).toBe(true);
          for (const { area, sheet } of worn.layers) {
            expect(areaOf(area)).toBeGreaterThan(0);
            expect(Number.isFinite(sheet.width * sheet.height)).toBe(true);
          }
          expect(new Set(worn.layers.map(({ id }) => id)).size).toBe(worn.layers.length);
        },
      ),
      { numRuns: 15, seed: 20261127 },
    );
  });
});

describe('what a layer adds', () => {
  it('is its caliper and a film of glue', () => {
    const card = cardOn('folded-card', { depth: 100, length: 140 });
    const { thickness } = evaluated(card).closed.thickest;
    const faces = evaluated(dressed(card, 3));
    const added = faces.dressed.layers.length * (stockById('patterned-120').caliper + GLUE_FILM);
    expect(faces.closed.thickest.thickness).toBeCloseTo(thickness + added, 6);
  });
});
