import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DEMO_CARDS, METRIC_WORKSHOP, undressed, writeCardFile, writeWorkshopFile } from '@diptychon/core';
import { describe, expect, it } from 'vitest';
import { diptychon } from './testing/diptychon.js';

const folder = mkdtempSync(join(tmpdir(), 'diptychon-cli-'));
const cardFile = join(folder, 'easel.json');
writeFileSync(cardFile, writeCardFile(undressed(DEMO_CARDS[0]!)));

describe('diptychon compute', () => {
  it('works an easel out from sizes with units', async () => {
    const { code, out } = await diptychon(
      'compute',
      '--mechanism',
      'easel-folded-front',
      '--set',
      'depth=15cm',
      '--set',
      'stopDistance=60mm',
      '--json',
    );
    const report = JSON.parse(out);
    expect(code).toBe(0);
    expect(report.pieces[0].scores.map((score: { from: number[] }) => score.from[0])).toEqual([75, 150]);
    expect(report.open.lean).toBeCloseTo((Math.acos(0.4) * 180) / Math.PI, 6);
    expect(report.closed).toMatchObject({ width: expect.closeTo(150, 9), height: expect.closeTo(105, 9) });
    expect(report.motion.frames).toBe(61);
  });

  it('takes a lean in place of the stop, and a fraction of an inch', async () => {
    const report = JSON.parse(
      (await diptychon('compute', '--mechanism', 'easel-folded-front', '--set', 'depth=6 in', '--set=lean=60deg', '--json')).out,
    );
    expect(report.measures.find((m: { name: string }) => m.name === 'lean').value).toBeCloseTo(60, 9);
    expect(report.pieces[0].width).toBeCloseTo(304.8, 9);
  });

  it('gives the V-fold’s crest at every opening', async () => {
    const report = JSON.parse(
      (await diptychon('compute', '--mechanism', 'v-fold', '--set', 'wingAngle=60deg', '--set', 'rayAngle=45deg', '--json')).out,
    );
    const rad = Math.PI / 180;
    for (const pose of report.motion.poses) {
      const lean = pose['figure-crest-lean'] * rad;
      expect(Math.cos(45 * rad) * Math.cos(lean) + Math.sin(45 * rad) * Math.cos((pose.opening * rad) / 2) * Math.sin(lean)).toBeCloseTo(
        0.5,
        6,
      );
    }
  });

  it('reads a card file and prints reasons and verdicts for people', async () => {
    const { code, out } = await diptychon('compute', cardFile);
    expect(code).toBe(0);
    expect(out).toContain('front score (valley): 75, 0 to 75, 150');
    expect(out).toContain('because half the depth');
    expect(out).toContain('PASS');
  });

  it.each([
    [['compute', '--mechanism', 'flying-carpet'], /flying-carpet.*v-fold/],
    [['compute', '--mechanism', 'v-fold', '--set', 'depth=-3'], /depth.*-3 mm.*40 mm/],
    [['compute', '--mechanism', 'v-fold', '--set', 'depth=so'], /depth.*not a length.*Allowed is 40 mm to 320 mm/],
    [['compute', '--mechanism', 'v-fold', '--set', 'depth=0'], /depth.*0 mm.*40 mm to 320 mm/],
    [['compute', '--mechanism', 'v-fold', '--set', 'depth=9000'], /depth.*9000 mm.*40 mm to 320 mm/],
    [['compute', '--mechanism', 'v-fold', '--set', 'girth=3'], /girth.*allowed/],
    [['compute', '--mechanism', 'v-fold', '--set', 'direction=up'], /direction.*toward, away/],
    [['compute', '--mechanism', 'v-fold', '--set', 'depth'], /NAME=VALUE/],
    [['compute', 'no-such-file.json'], /no-such-file\.json: cannot be read/],
    [['compute'], /card file/],
    [['export', cardFile, '--format', 'gif', '--out', 'x'], /gif.*allowed: svg/],
    [['export', cardFile, '--format', 'svg'], /--out/],
    [['export', cardFile, '--format', 'pdf', '--paper', 'papyrus', '--out', 'x'], /papyrus.*a4, a3, a5, letter, legal, tabloid/],
    [['fly'], /fly.*list, compute, steps, export/],
    [['list', '--loud'], /--loud.*allowed/],
  ])('answers %j with one clear line and exit code 2', async (argv, line) => {
    const { code, out, err } = await diptychon(...argv);
    expect(code).toBe(2);
    expect(out).toBe('');
    expect(err.trim().split('\n')).toHaveLength(1);
    expect(err).toMatch(line);
  });

  it('names the field of a broken card file', async () => {
    const broken = join(folder, 'broken.json');
    writeFileSync(broken, JSON.stringify({ ...DEMO_CARDS[0]!, board: 'gold' }));
    expect(await diptychon('compute', broken)).toMatchObject({ code: 2, err: expect.stringMatching(/board .*none of the boards/) });
  });
});

describe('lists and outlines of a card', () => {
  const layers = async (...sets: string[]) => {
    const argv = sets.flatMap((set) => ['--set', set]);
    const { code, out, err } = await diptychon('compute', '--mechanism', 'layered-stage', ...argv, '--json');
    return { code, err, report: out ? JSON.parse(out) : undefined };
  };

  it('have a length, and sizes of each entry by number', async () => {
    const { report } = await layers('layers=3', 'layers[2].width=112mm');
    expect(report.pieces.map((piece: { id: string }) => piece.id)).toEqual(['base', 'layer-1', 'layer-2', 'layer-3', 'front']);
    expect(report.findings[0]).toMatchObject({ id: 'equal-widths/layer-2', severity: 'fail', value: expect.closeTo(2, 9) });
  });

  it.each([
    ['layers=9', /layers.*9.*0 to 6/],
    ['layers=two', /layers.*two.*0 to 6/],
    ['layers[7].depth=3mm', /layers\[7\]\.depth.*there are 2 layers; allowed: layers\[1\] to layers\[2\]/],
    ['layers[1].colour=red', /there is no such size.*layers\[1\]\.depth/],
    ['layers[1].depth=400mm', /Layer 1, Behind the front: 400 mm does not work; allowed is 2 mm to/],
  ])('answer %s in one line', async (set, line) => {
    const { code, err } = await layers(set);
    expect(code).toBe(2);
    expect(err.trim().split('\n')).toHaveLength(1);
    expect(err).toMatch(line);
  });

  it('are listed with the sizes of an entry', async () => {
    const { out } = await diptychon('list');
    expect(out).toContain('layers = 2; 0 to 6 entries.');
    expect(out).toMatch(/layers\[1\]\.depth = 12 mm; 2 to 31 mm/);
    const stage = JSON.parse((await diptychon('list', '--json')).out).find((m: { id: string }) => m.id === 'layered-stage');
    expect(stage.sizes.find((s: { name: string }) => s.name === 'layers').each[0]).toMatchObject({ name: 'depth', unit: 'mm' });
  });

  it('take an outline from a drawing', async () => {
    const drawing = join(folder, 'leaf.svg');
    writeFileSync(drawing, '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L30 0L30 60L0 60Z"/></svg>');
    const argv = [
      'compute',
      '--mechanism',
      'easel-shape',
      '--outline',
      drawing,
      '--set',
      'outline=own-leaf',
      '--set',
      'size=100mm',
      '--json',
    ];
    const report = JSON.parse((await diptychon(...argv)).out);
    const cover = report.pieces.find((piece: { id: string }) => piece.id === 'cover');
    expect([cover.width, cover.height]).toEqual([expect.closeTo(50, 6), expect.closeTo(100, 6)]);
    writeFileSync(drawing, '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L30 0"/></svg>');
    expect(await diptychon(...argv)).toMatchObject({ code: 2, err: expect.stringMatching(/leaf\.svg holds .*closed path/) });
  });
});

describe('diptychon list and export', () => {
  it('lists every free size with unit, limits and default', async () => {
    const catalogue = JSON.parse((await diptychon('list', '--json')).out);
    const easel = catalogue.find((m: { id: string }) => m.id === 'easel-folded-front');
    expect(easel.sizes.find((s: { name: string }) => s.name === 'depth')).toMatchObject({ unit: 'mm', min: 40, max: 320 });
    const vFold = catalogue.find((m: { id: string }) => m.id === 'v-fold');
    expect(vFold.sizes.map((s: { name: string }) => s.name)).toEqual(
      expect.arrayContaining([
        'rayAngle',
        'wingAngle',
        'secondRayAngle',
        'secondWingAngle',
        'wingLength',
        'crestLength',
        'tabWidth',
        'direction',
        'apex',
      ]),
    );
    expect((await diptychon('list')).out).toContain('stopDistance = 75 mm; 13.0734 to 140.9539 mm');
  });

  it('writes an SVG', async () => {
    const out = join(folder, 'easel.svg');
    expect((await diptychon('export', cardFile, '--format', 'svg', '--out', out)).code).toBe(0);
    expect(readFileSync(out, 'utf8')).toContain('id="base-score-valley"');
  });

  it.each([
    ['dxf', 'SECTION'],
    ['csv', 'Top of the display,129.904,mm'],
    ['fold', '"file_spec": 1.2'],
    ['pdf', '%PDF-'],
    ['templates', '%PDF-'],
  ])('writes %s', async (format, holds) => {
    const out = join(folder, `easel.${format}`);
    expect(await diptychon('export', cardFile, '--format', format, '--paper', 'letter', '--out', out)).toMatchObject({ code: 0, err: '' });
    expect(readFileSync(out, 'latin1')).toContain(holds);
  });

  it('writes where the toppers go, and says so of a card that carries none', async () => {
    const out = join(folder, 'toppers.pdf');
    const none = await diptychon('export', cardFile, '--format', 'arrangement', '--out', out);
    expect(none).toMatchObject({ code: 2 });
    expect(none.err).toContain('this card carries none');
  });

  it('explains itself', async () => {
    expect((await diptychon()).out).toContain('diptychon compute');
  });
});

describe('diptychon compute with sizes that are odd', () => {
  const compute = (mechanism: string, ...sets: string[]) =>
    diptychon('compute', '--mechanism', mechanism, ...sets.flatMap((set) => ['--set', set]), '--json');

  it('gives a lean at the depth that is set with it, in whichever order', async () => {
    const [one, other] = await Promise.all([
      compute('easel-folded-front', 'lean=45deg', 'depth=200mm'),
      compute('easel-folded-front', 'depth=200mm', 'lean=45deg'),
    ]);
    expect(JSON.parse(one.out).open.lean).toBeCloseTo(45, 6);
    // Strut and foot part are half the depth: the foot stands 2 × 100 × cos 45° from the fold.
    const { out } = await compute('easel-folded-front', 'depth=200mm', `stopDistance=${200 * Math.SQRT1_2}mm`);
    expect(JSON.parse(one.out).measures).toEqual(
      JSON.parse(out).measures.map((m: { value: number }) => ({ ...m, value: expect.closeTo(m.value, 6) })),
    );
    expect(one.out).toBe(other.out);
  });

  it.each([
    ['easel-folded-front', 'lean=89deg', /^Lean from the table: 89° does not work; allowed is 20° to 85°/],
    ['easel-folded-front', 'lean=steep', /^lean: “steep” is not an angle.*Allowed is 20° to 85°/],
    ['layered-stage', 'layers=99', /^layers: how many layers\? “99” does not work; allowed is 0 to 6/],
    ['layered-stage', 'layers=two', /“two” does not work/],
    ['film-stand', 'tipWeight=heavy', /^tipWeight: “heavy” is not a weight.*Allowed is 0 g to 200 g/],
    ['bellows-box', 'bellows=-5mm', /-5 mm does not work; allowed is 8 mm to/],
    ['bellows-box', 'bellows', /“bellows” is not NAME=VALUE/],
    ['box-card', 'walls=5mm', /^walls: there is no such size; allowed: .*secondWall/],
    ['easel-strip', 'form=rolled', /“rolled” is not one of wrapped, zigzag/],
  ])('refuses %s with %s in a sentence, and prints no report', async (mechanism, set, says) => {
    const { code, out, err } = await compute(mechanism, set);
    expect(code).not.toBe(0);
    expect(out).toBe('');
    expect(err).toMatch(says);
  });

  it('takes a weight with or without its unit', async () => {
    const load = async (weight: string): Promise<string> => (await compute('film-stand', `tipWeight=${weight}`)).out;
    expect(await load('1.5 g')).toBe(await load('1,5'));
  });
});

describe('diptychon compute with parts', () => {
  const BUILT = [
    ...['--mechanism', 'folded-card', '--set', 'depth=100mm', '--set', 'length=150mm'],
    ...['--part', 'box=step', '--set', 'box.depth=20mm', '--set', 'box.height=30mm', '--set', 'box.width=60mm', '--set', 'box.offset=40mm'],
    ...['--part', 'cap=v-fold@box/front-edge'],
  ];
  const report = async (...more: string[]) => JSON.parse((await diptychon('compute', ...BUILT, ...more, '--json')).out);

  it('puts each where it is told, the base’s first free fold where it is not', async () => {
    const { parts, pieces } = await report();
    expect(parts).toMatchObject([
      { id: 'base', mechanism: 'folded-card' },
      { id: 'box', mechanism: 'step', on: { part: 'base', site: 'main-fold' } },
      { id: 'cap', mechanism: 'v-fold', on: { part: 'box', site: 'front-edge' } },
    ]);
    expect(pieces.map(({ id, part }: { id: string; part: string }) => [id, part])).toEqual([
      ['base', 'base'],
      ['cap', 'cap'],
    ]);
    // Leaf 100 deep, step 20 deep and 30 high: its folds lie at 80, 110 and 130 on the blank.
    const scores = pieces[0].scores.map(({ from }: { from: number[] }) => from[0]);
    expect(scores).toEqual(expect.arrayContaining([80, 110, 130]));
  });

  it('says of every finding whose it is and how far from right', async () => {
    const { findings } = await report('--set', 'cap.crestLength=20mm');
    expect(findings.length).toBeGreaterThan(5);
    for (const { owner, shortfall, severity } of findings) {
      expect(['base', 'box', 'cap']).toContain(owner);
      expect(severity === 'pass' ? shortfall === 0 : shortfall >= 0).toBe(true);
    }
  });

  it('takes stock, board, envelope and unit from the workshop', async () => {
    const found = await report('--stock', 'base=heavy-card-300', '--board', 'rule', '--envelope', 'c5', '--notation', 'cm');
    expect(found.pieces[0].stock).toBe('heavy-card-300');
    expect(found.pieces[1].stock).toBe('light-card-160');
  });

  it('takes them from a workshop of the maker’s own', async () => {
    const file = join(folder, 'workshop.json');
    const own = { ...METRIC_WORKSHOP.stocks[0]!, id: 'felted', name: 'Felted card', caliper: 0.5 };
    writeFileSync(file, writeWorkshopFile({ ...METRIC_WORKSHOP, stocks: [...METRIC_WORKSHOP.stocks, own] }));
    expect((await report('--workshop', file, '--stock', 'base=felted')).pieces[0].stock).toBe('felted');
    expect((await diptychon('compute', ...BUILT, '--stock', 'base=felted')).err).toMatch(/“felted” is none of my stocks/);
  });

  it.each([
    [['--part', 'step'], /is not NAME=MECHANISM@PART\/SITE/],
    [['--part', 'one=step@base/nowhere'], /“base” has no fold “nowhere”; allowed: main-fold/],
    [['--part', 'base=step'], /there is a part “base” already/],
    [['--part', 'one=carousel'], /carousel/],
    [['--board', 'plank'], /“plank” is none of my boards/],
    [['--envelope', 'c99'], /“c99” is none of my envelopes/],
    [['--set', 'nobody.depth=3mm'], /there is no part “nobody”; there are base/],
    [['--workshop', join(folder, 'nothing.json')], /nothing\.json/],
  ])('refuses %j in a sentence', async (more, says) => {
    const { code, err, out } = await diptychon('compute', '--mechanism', 'folded-card', ...more);
    expect([code, out]).toEqual([2, '']);
    expect(err).toMatch(says);
  });

  it('writes a file of them without a card file', async () => {
    const out = join(folder, 'built.svg');
    expect(await diptychon('export', ...BUILT, '--format', 'svg', '--out', out)).toMatchObject({ code: 0, err: '' });
    expect(readFileSync(out, 'utf8')).toContain('box-back-fold');
  });

  it('leaves every other easel its own default when one of a row is changed', async () => {
    const leans = async (...set: string[]) =>
      JSON.parse((await diptychon('compute', '--mechanism', 'easel-row', ...set, '--json')).out).open;
    const [all, one] = [await leans(), await leans('--set', 'easels[1].displayHeight=61mm')];
    expect([one.lean2, one.lean3]).toEqual([all.lean2, all.lean3]);
    expect(one.lean1).not.toBeCloseTo(all.lean1, 1);
  });

  it('lists the folds and sizes of everything', async () => {
    const list = JSON.parse((await diptychon('list', '--json')).out);
    const of = (id: string) => list.find((mechanism: { id: string }) => mechanism.id === id);
    expect(of('folded-card').sites.map(({ id }: { id: string }) => id)).toEqual(['main-fold']);
    expect(
      of('step')
        .sites.map(({ id }: { id: string }) => id)
        .sort(),
    ).toEqual(['back-fold', 'foot-fold', 'front-edge']);
    for (const { sizes } of list) expect(sizes.length).toBeGreaterThan(0);
  });
});

describe('a report in inches', () => {
  it('says sizes, places and measures as an inch ruler reads them', async () => {
    const { out } = await diptychon(
      'compute',
      '--mechanism',
      'folded-card',
      '--notation',
      'inch/16',
      '--set',
      'depth=4.5in',
      '--set',
      'length=6in',
    );
    expect(out).toContain('Card: 9 in × 6 in');
    expect(out).toContain('main fold (valley): 4 1/2 in, 0 in to 4 1/2 in, 6 in');
    expect(out).toContain('Closed  4 1/2 in × 6 in');
  });
});

describe('diptychon steps', () => {
  it('gives every line that a step makes, in mm from an edge', async () => {
    const { code, out } = await diptychon('steps', '--mechanism', 'tucked-display', '--json');
    expect(code).toBe(0);
    const { steps } = JSON.parse(out) as { steps: { title: string; says: string[]; readings: Record<string, unknown>[] }[] };
    expect(steps.length).toBeGreaterThan(8);
    for (const { title, says } of steps) expect([typeof title, Array.isArray(says)]).toEqual(['string', true]);
    const written = JSON.parse(out) as { steps: { blanks: object[]; joins: { glued: { piece: string } }[] }[] };
    expect(written.steps.flatMap(({ blanks }) => blanks)).toContainEqual({
      piece: 'base',
      width: expect.any(Number),
      height: expect.any(Number),
    });
    expect(written.steps.flatMap(({ joins }) => joins).length).toBeGreaterThan(0);
    const readings = steps.flatMap((step) => step.readings);
    // A wing of 60 either side, doors of 60: score at a = 60, right across the blank of 150; doors close over the inside.
    expect(readings).toContainEqual({
      piece: 'base',
      kind: 'score',
      line: 'left-door',
      edge: 'left edge',
      at: 60,
      from: 0,
      to: 150,
      fold: 'valley',
    });
    expect(readings.filter(({ kind }) => kind === 'notch')).toHaveLength(6);
  });

  it('reads a card file, and prints for people what it gives as JSON', async () => {
    const { code, out } = await diptychon('steps', cardFile);
    expect(code).toBe(0);
    expect(out).toMatch(/^1\. Put everything on the table\n/);
    expect(out).toContain('Cut it to 302 mm across × 150 mm along.');
  });

  it('works as the workshop’s school does', async () => {
    const file = join(folder, 'flip.json');
    writeFileSync(file, writeWorkshopFile({ ...METRIC_WORKSHOP, schools: { scoring: 'flip', cutting: 'knife' } }));
    const said = async (...more: string[]) => (await diptychon('steps', '--mechanism', 'bellows-box', ...more)).out;
    // Turned over like a page its left edge, the one with the L, comes to the right.
    expect(await said('--workshop', file)).toContain('Lay it outside down, the L at your right');
    expect(await said()).not.toContain('outside down');
  });
});

describe('exporting a card that does not work', () => {
  const wrong = ['export', '--mechanism', 'easel-folded-front', '--set', 'displayHeight=200mm', '--format', 'svg'];

  it('writes nothing and says why, with exit code 3', async () => {
    const out = join(folder, 'wrong.svg');
    const answer = await diptychon(...wrong, '--out', out);
    expect(answer).toMatchObject({ code: 3, out: '' });
    expect(answer.err).toContain('This card does not work yet: Closed, display sticks out');
    expect(existsSync(out)).toBe(false);
  });

  it('writes it with --anyway, and still says why', async () => {
    const out = join(folder, 'anyway.svg');
    const answer = await diptychon(...wrong, '--anyway', '--out', out);
    expect(answer.code).toBe(0);
    expect(answer.err).toContain('does not work yet');
    expect(readFileSync(out, 'utf8')).toContain('<svg');
  });
});

describe('exports in several files', () => {
  it('are one for each stock, the first under the name that was given', async () => {
    const out = join(folder, 'stocks.svg');
    // The card is 302 mm wide, the bed of the starter’s cutter 300: it lies alone.
    const answer = await diptychon('export', cardFile, '--format', 'svg', '--out', out);
    expect(answer.out.split('\n')).toEqual([
      `wrote ${out} (Card, 250 g, 1 of 2: Card; larger than the bed of my cutter)`,
      `wrote ${join(folder, 'stocks-card-250-2.svg')} (Card, 250 g, 2 of 2: Display)`,
      `wrote ${join(folder, 'stocks-foam.svg')} (Foam, or layers of card: Stop)`,
      '',
    ]);
    expect(readFileSync(out, 'utf8')).not.toContain('id="stop"');
    expect(readFileSync(join(folder, 'stocks-foam.svg'), 'utf8')).toContain('id="stop"');
  });

  it('write measures with a decimal comma where it is asked for', async () => {
    const out = join(folder, 'comma.csv');
    await diptychon('export', cardFile, '--format', 'csv', '--decimal', 'comma', '--out', out);
    expect(readFileSync(out, 'utf8')).toContain('Top of the display;129,904;mm');
  });
});
