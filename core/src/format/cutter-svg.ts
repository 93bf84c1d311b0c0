import { MM_PER_INCH, type Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import type { CutterJob, CutterLine, CutterMachine, CutterTool } from '../plan/cutter-job.js';
import { drawnIn, linesOfShape, type SvgShape } from './svg-lines.js';

export type CutterReading = { ok: true; job: CutterJob } | { ok: false; says: string };

/** Groups of a drawing for a cutter, and the tools that they are made with; what only a printer gets is passed over. */
const TOOL_OF: Readonly<Record<string, CutterTool>> = {
  cut: 'cut',
  score: 'score',
  'score-valley': 'score',
  'score-mountain': 'score',
  perforation: 'perforate',
  draw: 'draw',
};
const FOR_THE_PRINTER = new Set(['print', 'register']);
const MOST_LINES = 2000;
const MOST_POINTS = 50_000;
/** CSS pixels in an inch: a drawing without a unit is in them. */
const PIXELS = 96;
const MM_PER: Readonly<Record<string, Mm>> = {
  mm: 1,
  cm: 10,
  in: MM_PER_INCH,
  pt: MM_PER_INCH / 72,
  px: MM_PER_INCH / PIXELS,
  '': MM_PER_INCH / PIXELS,
};

/**
 * Reads a drawing as a machine gets it: every line with the tool of the group that it stands in, as these drawings name them, and cut
 * where no group says anything. Checked against the bed and the tools of the machine.
 */
export function readCutterSvg(text: string, machine: CutterMachine): CutterReading {
  const read = drawnIn(text);
  if (!read.ok) return refuse(read.why);
  const size = sizeOf(read.root);
  if (typeof size === 'string') return refuse(size);
  const lines: CutterLine[] = [];
  let points = 0;
  try {
    for (const shape of read.shapes) {
      if (shape.classes.some((name) => FOR_THE_PRINTER.has(name))) continue;
      const tool = toolOf(shape);
      for (const line of linesOfShape(shape)) {
        points += line.points.length;
        lines.push({ tool, closed: line.closed, points: line.points.map(size.place) });
        if (lines.length > MOST_LINES) return refuse(`holds more than ${MOST_LINES} lines`);
        if (points > MOST_POINTS) return refuse(`follows its lines with more than ${MOST_POINTS} points`);
      }
    }
  } catch (error) {
    return refuse(error instanceof Error ? error.message : 'cannot be read');
  }
  if (lines.length === 0) return refuse('holds no line to follow');
  const { width, height } = size;
  if (width > machine.width + ON_BED || height > machine.height + ON_BED)
    return refuse(`is ${said(width)} × ${said(height)}; the bed is ${said(machine.width)} × ${said(machine.height)}`);
  const off = lines
    .flatMap((line) => line.points)
    .find(([x, y]) => x < -ON_BED || y < -ON_BED || x > width + ON_BED || y > height + ON_BED);
  if (off) return refuse(`has a line beside its sheet, at ${said(off[0])}, ${said(off[1])}`);
  const missing = lines.find(({ tool }) => !machine.tools.includes(tool));
  if (missing) return refuse(`asks for ${missing.tool}; this machine can ${machine.tools.join(', ')}`);
  return { ok: true, job: { width, height, lines } };
}

const ON_BED: Mm = 0.05;
const said = (mm: Mm): string => `${Number(mm.toFixed(1))} mm`;
const refuse = (why: string): CutterReading => ({ ok: false, says: `The drawing ${why}.` });

/** The innermost group that says with what. */
const toolOf = ({ classes }: SvgShape): CutterTool => TOOL_OF[classes.find((name) => name in TOOL_OF) ?? 'cut']!;

/** The true size of a drawing and where its points lie on it; or what is wrong with it. */
function sizeOf(root: Readonly<Record<string, string>>): { width: Mm; height: Mm; place: (point: Point) => Point } | string {
  const [width, height] = [lengthOf(root['width']), lengthOf(root['height'])];
  if (width === undefined || height === undefined) return 'has no true size: its width and height must be lengths, as in width="210mm"';
  if (!(width > 0 && height > 0)) return 'has no true size: its width and height must be more than nothing';
  const box = (root['viewBox'] ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (root['viewBox'] !== undefined && (box.length !== 4 || box.some((n) => !Number.isFinite(n)) || !(box[2]! > 0 && box[3]! > 0)))
    return 'has a viewBox that is no four numbers, the last two more than nothing';
  const [x0, y0, wide, high] =
    root['viewBox'] === undefined
      ? [0, 0, width * (PIXELS / MM_PER_INCH), height * (PIXELS / MM_PER_INCH)]
      : (box as [number, number, number, number]);
  const [perX, perY] = [width / wide, height / high];
  if (Math.abs(perX - perY) > 1e-3 * perX) return 'is stretched: its viewBox has other proportions than its width and height';
  return { width, height, place: ([x, y]) => [(x - x0) * perX, (y - y0) * perY] };
}

function lengthOf(typed: string | undefined): Mm | undefined {
  const match = /^\s*(\d+(?:\.\d+)?|\.\d+)\s*(mm|cm|in|pt|px|)\s*$/i.exec(typed ?? '');
  return match ? Number(match[1]) * MM_PER[match[2]!.toLowerCase()]! : undefined;
}

/** How each tool is told apart in the picture: what is cut through darkest. */
const INKS: Readonly<Record<CutterTool, string>> = { cut: '#1d2327', perforate: '#5b4a3a', score: '#9a7b45', draw: '#5f7f8f' };

/** The sheet as the machine leaves it: every line along which a tool went, as wide as the blade is, y down. */
export function pictureOfCut(
  job: CutterJob,
  moves: readonly { tool: CutterTool | 'travel'; points: readonly Point[] }[],
  { kerf }: CutterMachine,
): string {
  const number = (mm: Mm): string => String(Number(mm.toFixed(3)));
  const paths = moves
    .filter(({ tool }) => tool !== 'travel')
    .map(
      ({ tool, points }) =>
        `  <path class="${tool}" stroke="${INKS[tool as CutterTool]}" d="M${points.map(([x, y]) => `${number(x)} ${number(y)}`).join('L')}"/>`,
    );
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${number(job.width)}mm" height="${number(job.height)}mm" viewBox="0 0 ${number(job.width)} ${number(job.height)}" fill="none" stroke="#1d2327" stroke-width="${number(kerf)}">`,
    ...paths,
    '</svg>',
    '',
  ].join('\n');
}
