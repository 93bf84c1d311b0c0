import { describe, expect, it } from 'vitest';
import { cardToTry } from '../card/try-out.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { placeIn } from '../plan/beds.js';
import { cutterMoves, USUAL_CUTTER, type CutterJob } from '../plan/cutter-job.js';
import { cutterReport } from '../plan/cutter-report.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { dice } from '../testing/any-tree.js';
import { evaluated } from '../testing/evaluated.js';
import { pictureOfCut, readCutterSvg } from './cutter-svg.js';
import { drawingsOf } from './layout.js';
import { writeSvg } from './svg.js';

const BIG = { ...USUAL_CUTTER, width: 2000, height: 2000 };
const svg = (inside: string, root = 'width="100mm" height="50mm" viewBox="0 0 100 50"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${root}>${inside}</svg>`;
function read(text: string): CutterJob {
  const reading = readCutterSvg(text, USUAL_CUTTER);
  if (!reading.ok) throw new Error(reading.says);
  return reading.job;
}

describe('a drawing as a cutter gets it', () => {
  it('has each line with the tool of its group, in mm, transforms applied, without what a printer gets', () => {
    const { width, height, lines } = read(
      svg(
        '<g class="score-valley"><path d="M 10 0 V 50"/></g><g class="cut" transform="translate(5 5) scale(2)"><rect x="0" y="0" width="10" height="5"/></g>' +
          '<g class="draw"><path d="M0 1 H9"/></g><g class="register"><path d="M0 0 H 5"/></g><path class="print" d="M1 1 H2 V2 Z"/>',
      ),
    );
    expect([width, height]).toEqual([100, 50]);
    expect(lines.map(({ tool, closed }) => [tool, closed])).toEqual([
      ['score', false],
      ['cut', true],
      ['draw', false],
    ]);
    expect(lines[1]!.points.slice(0, 4)).toEqual([
      [5, 5],
      [25, 5],
      [25, 15],
      [5, 15],
    ]);
  });

  it.each([
    // 1000 units are 100 mm; 96 pixels an inch.
    ['width="100mm" height="100mm" viewBox="0 0 1000 1000"', 10],
    ['width="4in" height="4in" viewBox="0 0 4 4"', 100 * 25.4],
    ['width="960" height="960"', (100 * 25.4) / 96],
    ['width="10cm" height="10cm" viewBox="50 0 100 100"', 50],
  ])('of %s lies where its true size says', (root, x) => {
    const { lines } = (() => {
      const reading = readCutterSvg(svg('<path d="M 100 0 V 1"/>', root), { ...BIG, width: 5000 });
      return reading.ok ? reading.job : { lines: [] };
    })();
    if (x > 2000) expect(lines).toEqual([]);
    else expect(lines[0]!.points[0]![0]).toBeCloseTo(x, 6);
  });

  it.each([
    ['', /is not an SVG drawing/],
    ['{"a": 1}', /is not an SVG drawing/],
    [svg(''), /holds no line/],
    [svg('<path d="M0 0 H9"/>', 'viewBox="0 0 100 50"'), /no true size/],
    [svg('<path d="M0 0 H9"/>', 'width="100%" height="50mm"'), /no true size/],
    [svg('<path d="M0 0 H9"/>', 'width="0mm" height="50mm"'), /no true size/],
    [svg('<path d="M0 0 H9"/>', 'width="100mm" height="50mm" viewBox="0 0 x 4"'), /viewBox/],
    [svg('<path d="M0 0 H9"/>', 'width="100mm" height="50mm" viewBox="0 0 100 100"'), /stretched/],
    [svg('<path d="M0 0 H9"/>', 'width="900mm" height="900mm" viewBox="0 0 900 900"'), /is 900 mm × 900 mm; the bed is 600 mm/],
    [svg('<path d="M0 0 H 180"/>'), /beside its sheet, at 180 mm/],
    [svg('<path d="M0 0 L 1e99 3"/>'), /no(t a)? usable number|beside/],
    [svg('<path d="M0 0 Q"/>'), /cannot be read/],
    [svg('<path d="M0 0H1"/>'.repeat(2001)), /more than 2000 lines/],
    [svg(`<path d="M0 0${' L9 9 L1 1'.repeat(25_001)}"/>`), /more than 50000 points/],
    [svg('<g>'.repeat(200) + '<path d="M0 0H1"/>' + '</g>'.repeat(200)), /nested/],
    [`<svg>${'x'.repeat(1024 * 1024)}</svg>`, /kB long/],
  ])('that is broken is refused in a sentence (%#)', (text, says) => {
    const reading = readCutterSvg(text, USUAL_CUTTER);
    expect(reading.ok ? '' : reading.says).toMatch(says);
  });

  it('that asks for a tool that the machine has not is refused', () => {
    const reading = readCutterSvg(svg('<g class="perforation"><path d="M0 0H9"/></g>'), { ...USUAL_CUTTER, tools: ['cut', 'score'] });
    expect(reading).toEqual({ ok: false, says: 'The drawing asks for perforate; this machine can cut, score.' });
  });

  it('that was damaged somewhere is refused in a sentence, or lies wholly on its sheet', () => {
    const next = dice(8);
    const whole = writeSvg(drawingsOf(evaluated(cardToTry(CATALOGUE[0]!)), starterFor('mm'))[0]!, 'x');
    let refused = 0;
    for (let i = 0; i < 200; i++) {
      const at = Math.floor(next() * whole.length);
      const cut = Math.floor(next() * 12);
      const broken = whole.slice(0, at) + '<>"&\u0000M9e9-'.slice(0, Math.floor(next() * 9)) + whole.slice(at + cut);
      const reading = readCutterSvg(broken, USUAL_CUTTER);
      if (!reading.ok) {
        refused++;
        expect(reading.says).toMatch(/^The drawing .*\.$/);
        continue;
      }
      const { width, height, lines } = reading.job;
      const points = lines.flatMap((line) => line.points);
      expect(points.every(([x, y]) => x > -0.1 && y > -0.1 && x < width + 0.1 && y < height + 0.1)).toBe(true);
    }
    expect(refused).toBeGreaterThan(20);
  });
});

describe('what a cutter makes of the drawing of a card', () => {
  it.each(CATALOGUE.map(({ id }) => [id] as const))(
    'of %s: every piece comes free, and the picture agrees with the pieces within 0.1 mm',
    (id) => {
      const evaluation = evaluated(cardToTry(CATALOGUE.find((mechanism) => mechanism.id === id)!));
      for (const drawing of drawingsOf(evaluation, starterFor('mm'))) {
        const reading = readCutterSvg(writeSvg(drawing, id), BIG);
        if (!reading.ok) throw new Error(reading.says);
        const { job } = reading;
        const report = cutterReport(job, BIG);
        expect(report.piecesFree).toBeGreaterThanOrEqual(drawing.placed.length);
        expect(report.scoresMissed).toEqual([]);
        // The picture, read back, against the outlines of the pieces as they lie: another way to the same lines.
        const picture = readCutterSvg(pictureOfCut(job, cutterMoves(job, BIG), BIG), BIG);
        if (!picture.ok) throw new Error(picture.says);
        const cut = picture.job.lines.filter(({ tool }) => tool === 'cut');
        for (const own of drawing.placed) {
          const at = (point: Point): Point => {
            const [x, y] = placeIn(own, point);
            return [x, drawing.height - y];
          };
          const corners = [own.sheet.outline, ...own.sheet.windows.map(({ outline }) => outline)].flat().map(at);
          for (const corner of corners) {
            const off = Math.min(
              ...cut.flatMap(({ points }) => points.slice(1).map((point, i) => distanceToSegment(corner, points[i]!, point))),
            );
            expect(off).toBeLessThan(0.1);
          }
        }
      }
    },
  );
});
