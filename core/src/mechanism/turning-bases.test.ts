import { describe, expect, it } from 'vitest';
import { GLUE_FILM } from '../supplies/limits.js';
import { at, boxIn, cardOn, evaluated, failing, finding, measure, refused, scoresOf, tracked, stockById } from '../testing/evaluated.js';
import { boxOf, signedArea } from '../plane/outline.js';
import { toDegrees, toRadians } from '../measure/units.js';
import { frameAt, poseOf } from '../linkage/motion.js';
import { carry, type Vec3 } from '../linkage/rigid.js';

const IN = 25.4;
const near = (value: number, digits = 6) => expect.closeTo(value, digits);
const distance = (a: Vec3, b: Vec3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

describe('step easel', () => {
  const METRIC = { depth: 150, length: 120, riser: 25, tread: 20, upperRiser: 30, lean: toRadians(75) };
  const INCH = { depth: 6 * IN, length: 5 * IN, riser: IN, tread: 0.75 * IN, upperRiser: 1.25 * IN, lean: toRadians(80) };
  // Slope 12 under risers of 15: the greatest lean is asin(12 ÷ 15) = 53.13°.
  const EXTREME = { depth: 40, length: 40, riser: 5, tread: 13, upperRiser: 10, lean: Math.asin(0.8), rail: 8 };

  it.each([
    [METRIC, [25, 45, 75, 150], 40],
    [INCH, [25.4, 44.45, 76.2, 152.4], 38.1],
    [EXTREME, [5, 18, 28, 40], 10],
  ])('%j is scored from its foot, and folded the working way leaves depth − 2u3 + 2u2 − 2u1', (sizes, scores, slack) => {
    const card = evaluated(cardOn('step-easel', sizes));
    expect(scoresOf(card, 'base')).toEqual([
      [near(scores[0]!), 'mountain'],
      [near(scores[1]!), 'valley'],
      [near(scores[2]!), 'mountain'],
      [near(scores[3]!), 'mountain'],
    ]);
    const [u1, u2, u3] = scores as [number, number, number];
    expect(sizes.depth - 2 * u3 + 2 * u2 - 2 * u1).toBeCloseTo(slack, 6);
    expect(tracked(card, 'foot', card.motion.frames[0]!)).toBeCloseTo(slack, 6);
    expect(measure(card, 'workingSlack')).toBeCloseTo(slack, 6);
    expect(card.motion.closedFlat.holds).toBe(true);
    expect(card.motion.freedom).toBe(0);
  });

  it.each([METRIC, INCH, EXTREME])(
    '%j stands with a level tread, both risers leaning alike, its foot where the polygon closes',
    (sizes) => {
      const card = evaluated(cardOn('step-easel', sizes));
      const { riser, tread, upperRiser, lean, depth } = sizes;
      const slope = depth - riser - tread - upperRiser;
      // Rise and run of the open polygon, part by part, instead of the formula.
      const rise = Math.asin(((riser + upperRiser) * Math.sin(lean)) / slope);
      const run = slope * Math.cos(rise) + upperRiser * Math.cos(lean) + tread + riser * Math.cos(lean);
      expect(tracked(card, 'lean', card.resting)).toBeCloseTo(lean, 6);
      expect(tracked(card, 'tread', card.resting)).toBeCloseTo(0, 5);
      expect(tracked(card, 'foot', card.resting)).toBeCloseTo(run, 5);
      expect(measure(card, 'stopDistance')).toBeCloseTo(run, 9);
      expect(at(card, 'base/riser', [0, 5], card.resting)[2]).toBeCloseTo(0, 5);
      for (const y of [2, sizes.length - 2]) {
        const [bottom, top] = [at(card, 'base/riser', [riser, y], card.resting), at(card, 'base/slope', [depth - slope, y], card.resting)];
        expect(Math.abs(top[2] - bottom[2])).toBeCloseTo(upperRiser * Math.sin(lean), 5);
      }
    },
  );

  it('floats its panel in the plane of the upper riser, in its window', () => {
    const card = evaluated(cardOn('step-easel', METRIC));
    const { width, height } = card.sheets.find((sheet) => sheet.piece.id === 'panel')!;
    expect([width, height]).toEqual([near(measure(card, 'windowAlong') - 4), near(measure(card, 'windowAcross') - 4)]);
    const pose = poseOf(card.motion, card.resting);
    const normal = (panel: string) =>
      carry(pose[card.design.linkage.bodyOf.get(panel)!]!, 0, 0, 1).map(
        (n, i) => n - carry(pose[card.design.linkage.bodyOf.get(panel)!]!, 0, 0, 0)[i]!,
      );
    expect(normal('panel/panel').map(Math.abs)).toEqual(normal('base/near-rail').map((n) => near(Math.abs(n))));
  });

  it('leans at most as far as its slope reaches', () => {
    expect(toDegrees(measure(evaluated(cardOn('step-easel', EXTREME)), 'greatestLean'))).toBeCloseTo(53.13, 2);
    expect(toDegrees(measure(evaluated(cardOn('step-easel', METRIC)), 'greatestLean'))).toBeCloseTo(90, 9);
    expect(refused(cardOn('step-easel', { ...EXTREME, lean: toRadians(60) }))).toMatch(/Lean of the risers: 60° .*53\.1°.*slope ÷ risers/);
  });

  it('refuses risers whose foot would pass the main fold, and warns of one that comes close', () => {
    expect(refused(cardOn('step-easel', { ...METRIC, upperRiser: 51 }))).toMatch(/Upper riser: 51 mm .*to 50 mm.*main fold/);
    const close = evaluated(cardOn('step-easel', { ...METRIC, upperRiser: 49, lean: toRadians(45) }));
    expect(finding(close, 'has-room/foot')).toMatchObject({ severity: 'warn', value: near(2), limit: 3 });
  });

  it('is posted folded the working way', () => {
    expect(evaluated(cardOn('step-easel', METRIC)).design.words.posting).toContain('foot toward the main fold');
  });

  it.each(['film', 'mechanism'])(
    'covers the back of its panel with a twin behind a strip of %s, edge on edge all the way',
    (stripStock) => {
      const card = evaluated(cardOn('step-easel', { ...METRIC, stripStock, twin: 'behind' }));
      expect(failing(card)).toEqual([]);
      const [panel, twin, strip] = ['panel', 'twin', 'strip'].map((id) => card.sheets.find(({ piece }) => piece.id === id)!);
      expect([twin!.width, twin!.height]).toEqual([panel!.width, panel!.height]);
      expect(strip!.piece.stock).toBe(stripStock);
      for (const frame of card.motion.frames) {
        // Back to back: what is left on the one is right on the other, feet together.
        for (const [x, y] of panel!.outline) {
          const front = at(card, 'panel/panel', [x, y], frame);
          const back = at(card, 'twin/twin', [panel!.width - x, y], frame);
          expect(Math.hypot(front[0] - back[0], front[1] - back[1], front[2] - back[2])).toBeLessThan(1e-6);
        }
      }
      const order = card.closed.stack.order.map((body) => card.design.panels[body]!.id);
      const place = (id: string): number => order.indexOf(id);
      expect(Math.sign(place('panel/panel') - place('strip/strip'))).toBe(-Math.sign(place('twin/twin') - place('strip/strip')));
    },
  );
});

describe('half-turn stand', () => {
  it.each([
    [{ blankLength: 200, blankWidth: 140, inset: 30 }, 70, 100],
    [{ blankLength: 8 * IN, blankWidth: 5.5 * IN, inset: 1.25 * IN }, 69.85, 101.6],
    [{ blankLength: 80, blankWidth: 320, inset: 30 }, 160, 40],
  ])('%j has three cuts to its centre line, a valley half and a mountain half', (sizes, line, middle) => {
    const card = evaluated(cardOn('half-turn-stand', sizes));
    const [sheet] = card.sheets;
    const ends = sheet!.cuts.map(({ from, to }) => [from, to].map((p) => p.map((n) => Number(n.toFixed(6)))));
    const { blankLength: A, blankWidth: B, inset: e } = sizes;
    expect(ends).toEqual([
      [
        [0, near(middle)],
        [near(line), near(middle)],
      ],
      [
        [near(line), near(e)],
        [near(B), near(e)],
      ],
      [
        [near(line), near(A - e)],
        [near(B), near(A - e)],
      ],
    ]);
    const folds = sheet!.scores.map(({ fold, from, to }) => [fold, from[1], to[1]]).sort((a, b) => Number(a[1]) - Number(b[1]));
    expect(folds).toEqual([
      ['valley', near(e), near(middle)],
      ['mountain', near(middle), near(A - e)],
    ]);
    const { minX, maxX, minY, maxY } = card.closed.box;
    expect([maxX - minX, maxY - minY]).toEqual([near(B), near(A)]);
    expect(card.openHeight).toBeCloseTo(line, 6);
    expect(toDegrees(tracked(card, 'upright', card.resting))).toBeCloseTo(90, 6);
    expect(toDegrees(tracked(card, 'turn', card.resting))).toBeCloseTo(180, 6);
    expect(failing(card)).toEqual([]);
  });

  it('scores the whole line in the other school, its ends staying flat', () => {
    const card = evaluated(cardOn('half-turn-stand', { school: 'full' }));
    expect(card.sheets[0]!.scores).toHaveLength(4);
    for (const frame of card.motion.frames) {
      for (const end of ['near', 'far']) {
        const flat = card.design.linkage.hingeIndex.get(`base/${end}-end`)!;
        expect(frame.folds[flat]).toBeCloseTo(0, 9);
      }
    }
  });

  it('turns through half a turn from the flat blank, and no two panels meet off the axis on the way', () => {
    const card = evaluated(cardOn('half-turn-stand', { posted: 'flat', school: 'full' }));
    const panels = card.design.panels.map(({ id, area }) => ({ id, points: gridIn(area.outer) }));
    for (let step = 0; step <= 20; step++) {
      const frame = frameAt(card.motion, card.design.schedule, step / 20);
      const turn = (step / 20) * 180;
      expect(toDegrees(tracked(card, 'turn', frame))).toBeCloseTo(turn, 5);
      const placed = panels.map(({ id, points }) => points.map((p) => at(card, id, p, frame)));
      for (let a = 0; a < placed.length; a++) {
        for (let b = a + 1; b < placed.length; b++) {
          // Points more than 5 mm off the axis (x = 70, z = 0) of different panels keep apart, unless both lie in the flat blank's own cuts.
          const least = Math.min(
            ...placed[a]!.flatMap((p) => (offAxis(p) < 5 ? [] : placed[b]!.flatMap((q) => (offAxis(q) < 5 ? [] : [distance(p, q)])))),
          );
          expect(least).toBeGreaterThan(0.5);
        }
      }
    }
    expect(finding(card, 'clears').severity).toBe('pass');
  });

  it('has floor layers of the same hand: cut alike, one the half-turn twin of the other on the table', () => {
    const card = evaluated(cardOn('half-turn-stand', { blankLength: 200, blankWidth: 140, layers: 'floor', layerBorder: 5 }));
    const [near, far] = ['near-layer', 'far-layer'].map((id) => card.sheets.find((sheet) => sheet.piece.id === id)!);
    expect(far!.outline).toEqual(near!.outline);
    for (const corner of near!.outline) {
      const here = at(card, 'near-layer/layer', corner, card.resting);
      const there = at(card, 'far-layer/layer', corner, card.resting);
      // Half a turn about the middle of the blank (70, 100), seen from above.
      expect([there[0], there[1]]).toEqual([expect.closeTo(140 - here[0], 6), expect.closeTo(200 - here[1], 6)]);
    }
  });

  it.each(['full', 'part'])('has layers round the corner of the upright, with the notch told, scored %s', (school) => {
    const sizes = { blankLength: 200, blankWidth: 140, inset: 40, layers: 'corner', layerBorder: 5, school };
    const card = evaluated(cardOn('half-turn-stand', sizes));
    expect(failing(card)).toEqual([]);
    const [near, far] = ['near-layer', 'far-layer'].map((id) => card.sheets.find((sheet) => sheet.piece.id === id)!);
    expect(far!.outline).toEqual(near!.outline);
    // 140 − 10 by 100 − 10, less a notch of 70 by 60.
    expect(Math.abs(signedArea(near!.outline))).toBeCloseTo(130 * 90 - 70 * 60, 6);
    expect([measure(card, 'layerNotchAcross'), measure(card, 'layerNotchAlong')]).toEqual([70, 60]);
    const corners = near!.outline.map((corner) => at(card, 'near-layer/layer', corner, card.resting));
    const twins = far!.outline.map((corner) => at(card, 'far-layer/layer', corner, card.resting));
    corners.forEach((here, i) => {
      expect([twins[i]![0], twins[i]![1]]).toEqual([expect.closeTo(140 - here[0], 6), expect.closeTo(200 - here[1], 6)]);
      // On the floor round the near end: five in from its edges, five short of the cut and of the upright.
      expect(here[0]).toBeGreaterThan(5 - 1e-6);
      expect(here[0]).toBeLessThan((here[1] > 35 + 1e-6 ? 65 : 135) + 1e-6);
      expect(here[1]).toBeLessThan(95 + 1e-6);
    });
  });

  it('says that crease memory alone holds it, and refuses an inset beyond half', () => {
    expect(finding(evaluated(cardOn('half-turn-stand')), 'stands/held-by-creases').says).toContain('crease memory alone');
    expect(refused(cardOn('half-turn-stand', { blankLength: 200, inset: 100 }))).toMatch(
      /Outer cuts from the ends: 100 mm .*to 90 mm.*half the length/,
    );
  });
});

const offAxis = (p: Vec3): number => Math.hypot(p[0] - 70, p[2]);

/** Points over a rectangle, half a mm inside its edges. */
function gridIn(outline: readonly (readonly [number, number])[]): [number, number][] {
  const { minX, maxX, minY, maxY } = boxOf(outline);
  const steps = [0, 0.25, 0.5, 0.75, 1];
  return steps.flatMap((u) => steps.map((v): [number, number] => [minX + 0.5 + u * (maxX - minX - 1), minY + 0.5 + v * (maxY - minY - 1)]));
}

describe('film stand', () => {
  const METRIC = { floor: 30, wall: 20, length: 110, slotMargin: 10, filmHeight: 130 };
  const INCH = { floor: 1.25 * IN, wall: 0.75 * IN, length: 4.5 * IN, slotMargin: 0.5 * IN, filmHeight: 6 * IN };
  const EXTREME = { floor: 120, wall: 10, length: 40, slotMargin: 5, filmHeight: 300 };

  it.each([
    [METRIC, [20, 50, 70, 100, 130, 150, 180], 200],
    [INCH, [19.05, 50.8, 69.85, 101.6, 133.35, 152.4, 184.15], 203.2],
    [EXTREME, [10, 130, 140, 260, 380, 390, 510], 520],
  ])('%j is scored at wall, floor and wall, top and top, and the same back', (sizes, scores, blank) => {
    const card = evaluated(cardOn('film-stand', { ...sizes, layer: 'none' }));
    expect(scoresOf(card, 'base')).toEqual(scores.map((x) => [near(x), 'valley']));
    expect(card.sheets[0]!.width).toBeCloseTo(blank, 6);
    expect(card.motion.freedom).toBe(0);
    expect(failing(card).filter((f) => f.check !== 'stiff-enough')).toEqual([]);
    // Flat, the card is as high as film or wall and two floors, whichever is longer.
    expect(card.closed.box.maxX - card.closed.box.minX).toBeCloseTo(Math.max(sizes.filmHeight, sizes.wall + 2 * sizes.floor), 6);
  });

  it.each([METRIC, INCH, EXTREME])(
    '%j slides its slot as wall + 2·floor·sin(tilt) at twenty openings, walls parallel to the film',
    (sizes) => {
      const card = evaluated(cardOn('film-stand', { ...sizes, layer: 'none' }));
      for (let i = 0; i < 20; i++) {
        const frame = frameAt(card.motion, card.design.schedule, i / 19);
        const tilt = Math.PI / 2 - tracked(card, 'floor', frame);
        expect(tracked(card, 'slot', frame)).toBeCloseTo(sizes.wall + 2 * sizes.floor * Math.sin(tilt), 4);
        const [foot, edge] = [[sizes.wall + sizes.floor, 20] as const, [2 * sizes.wall + sizes.floor, 20] as const];
        const [low, high] = [at(card, 'base/left-wall', foot, frame), at(card, 'base/left-wall', edge, frame)];
        // The film is the ground: its plane is z = 0.
        expect(high[2]).toBeCloseTo(low[2], 4);
      }
    },
  );

  it('has its decoration zone above the slot’s highest place', () => {
    const card = evaluated(cardOn('film-stand', METRIC));
    const zone = card.design.pieces.find((piece) => piece.id === 'film')!.zones.find((z) => z.kind === 'decorate')!;
    expect(boxOf(zone.outline).minX).toBeGreaterThanOrEqual(20 + 60 + 3 - 1e-9);
  });

  it('needs a slot of film ÷ sin θ + card ÷ tan θ + clearance, wider for a layer that has to pass', () => {
    const [card, film, layer] = [stockById('card-250').caliper, stockById('film-190').caliper, stockById('card-250').caliper];
    const plain = evaluated(cardOn('film-stand', METRIC));
    const at30 = (strip: number) => strip / 0.5 + card * Math.sqrt(3) + 0.3;
    expect(finding(plain, 'slot-fits/slot')).toMatchObject({ severity: 'pass' });
    expect(finding(plain, 'slot-fits/slot').limit!).toBeLessThanOrEqual(at30(film) + 1e-9);
    expect(measure(plain, 'slotForFilm')).toBeCloseTo(at30(film), 9);
    // A layer from 40 mm up lies where the slot slides; a slot for plain film is too narrow for it.
    const narrow = evaluated(cardOn('film-stand', { ...METRIC, layer: 'front', layerFrom: 40, layerHeight: 60, slotWidth: 1.25 }));
    const found = finding(narrow, 'slot-fits/slot');
    expect(found.severity).toBe('fail');
    expect(found.panels).toEqual(['base/left-top', 'film/film']);
    expect(found.limit!).toBeGreaterThan(at30(film + layer) - 0.12);
    expect(found.limit!).toBeLessThanOrEqual(at30(film + layer) + 1e-9);
    expect(finding(evaluated(cardOn('film-stand', { ...METRIC, layerFrom: 40, layerHeight: 60 })), 'slot-fits/slot').severity).toBe('pass');
  });

  it('has a twin behind its layer, foot to foot, that is weighed, passes the slot and is in the thickness', () => {
    const stand = (layer: string, sizes = {}) =>
      evaluated(cardOn('film-stand', { ...METRIC, layer, layerFrom: 40, layerHeight: 60, ...sizes }));
    const [front, both] = ['front', 'card'].map((layer) => stand(layer, { slotWidth: 3 }));
    const { caliper, weight } = stockById('card-250');
    const piece = both!.sheets.find((sheet) => sheet.piece.id === 'twin')!;
    expect([piece.width, piece.height]).toEqual(
      ['width', 'height'].map((of) => both!.sheets.find((s) => s.piece.id === 'layer')![of as 'width']),
    );
    expect(both!.standing.weight - front!.standing.weight).toBeCloseTo((piece.width * piece.height * weight) / 1e6, 6);
    const [twin, layer] = ['twin/twin', 'layer/layer'].map((panel) => boxIn(both!, panel, both!.resting));
    for (const side of ['minX', 'maxX', 'minY', 'maxY'] as const) expect(twin![side]).toBeCloseTo(layer![side], 6);
    // Of thick board, where the layers lie is the thickest place, and it is one board thicker.
    const board = (layer: string) =>
      evaluated(
        cardOn(
          'film-stand',
          { ...METRIC, layer, layerFrom: 40, layerHeight: 60, slotWidth: 4 },
          { stocks: { display: 'board-400', base: 'text-100' } },
        ),
      );
    const [one, two] = ['front', 'card'].map((layer) => board(layer).closed.thickest.thickness);
    expect(two! - one!).toBeCloseTo(stockById('board-400').caliper + GLUE_FILM, 6);
    // The slot has to pass both, so it is wider by a card ÷ sin 30°, to a twentieth of a mm.
    const widths = ['front', 'card'].map((layer) => finding(stand(layer), 'slot-fits/slot').value!);
    expect(Math.abs(widths[1]! - widths[0]! - 2 * caliper)).toBeLessThan(0.051);
  });

  it.each([
    [130, 0.19, 'film-190'],
    [130, 0.25, 'film-250'],
    [220, 0.25, 'film-250'],
  ])('a film %d mm high and %d mm thick buckles under π²EI ÷ 4L²', (filmHeight, thickness, film) => {
    const card = evaluated(cardOn('film-stand', { ...METRIC, filmHeight, layer: 'none', tipWeight: 50 }, { stocks: { film } }));
    const [width, free] = [89, filmHeight - 20];
    // E = 3500 N/mm²; in grams, 1 N is 1000 ÷ 9.80665.
    const limit = ((Math.PI ** 2 * 3500 * (width * thickness ** 3)) / 12 / (4 * free ** 2)) * (1000 / 9.80665);
    const found = finding(card, 'stiff-enough/film');
    expect(Math.abs(found.limit! / limit - 1)).toBeLessThan(0.01);
    const own = (width * free * stockById(film).weight) / 1e6;
    expect(found.value).toBeCloseTo(50 + 0.3 * own, 6);
    expect(found.severity).toBe('fail');
    expect(found.says).toMatch(/\d layers glued together carry it/);
  });

  it('says how many glued layers carry a weight: n³ as stiff', () => {
    const card = evaluated(cardOn('film-stand', { ...METRIC, layer: 'none', tipWeight: 30 }));
    const { value, limit, says } = finding(card, 'stiff-enough/film');
    const own = (value! - 30) / 0.3;
    const needed = [2, 3, 4, 5, 6].find((n) => 30 + 0.3 * n * own < n ** 3 * limit!)!;
    expect(says).toContain(`${needed} layers glued together`);
  });

  it('is threaded before it is glued, and settles only if friction lets it', () => {
    const card = evaluated(cardOn('film-stand', METRIC));
    expect(card.design.words.fitting!.join(' ')).toContain('before anything is glued');
    expect(finding(card, 'stands/held-by-friction').severity).toBe('warn');
  });
});
