import { pathOf, type Segment } from '../plane/curves.js';
import type { Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { pieceDrawing } from '../sheet/piece-drawing.js';
import { placeIn } from '../plan/beds.js';
import type { Drawing } from './layout.js';
import { LAYERS, linesOf, type CutterOptions, type DrawnLine, type LayerName } from './lines.js';
import { escaped } from './xml.js';
import type { OwnImage } from '../card/document.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { imageCorners } from '../sheet/image-corners.js';

/** Solid strokes: a cutter may take a dash for a perforation. It reads the group; the colour is for people. */
const STROKES: Record<LayerName, string> = {
  cut: '#1d2327',
  'score-mountain': '#8a4b12',
  'score-valley': '#2c5a3a',
  perforation: '#7a1f4b',
  draw: '#7d8790',
};

/** Marks stand so far outside the drawing, and are so long; the one at the upper left is a square, so that no side is mistaken. */
const MARKS_OUT: Mm = 6;
const MARK_LONG: Mm = 8;
const MARK_SQUARE: Mm = 5;

/**
 * A drawing for an electronic cutter: true size in mm, each piece one group, in it one group for each kind of line, in the
 * order in which they are made, the outline last. Of one that is printed first, the groups `register` and `print` are what the
 * printer gets; a machine then finds the marks, which lie outside the drawing, and cuts the rest.
 * No transforms but of pictures: coordinates are final. y runs down as SVG has it, so a piece
 * is seen as on the table, upper face up. Curves are arcs and cubic curves.
 */
export function writeSvg(
  drawing: Drawing,
  title: string,
  options: CutterOptions = { folds: 'score' },
  images: readonly OwnImage[] = [],
): string {
  const { placed, width, height } = drawing;
  const groups = placed.map((own, nth) => {
    const at = (point: Point): Point => {
      const [x, y] = placeIn(own, point);
      return [x, height - y];
    };
    const letters = options.printed ? pieceDrawing(own.sheet).filter(({ role }) => role === 'lettering') : [];
    const lines = linesOf(own.sheet, options).filter(({ id }) => !letters.some((letter) => letter.id === id));
    const { id, name, faceUp } = own.sheet.piece;
    const layers = LAYERS.flatMap((layer) => {
      const paths = lines
        .filter((line) => line.layer === layer)
        .map((line) => `      <path data-id="${escaped(line.id)}" d="${pathData(line, at)}"/>`);
      if (paths.length === 0) return [];
      return [`    <g id="${id}-${layer}" class="${layer}" stroke="${STROKES[layer]}">`, ...paths, '    </g>'];
    });
    const ink = letters.map((letter) => pathData(letter, at)).join(' ');
    const print = ink ? [`    <path id="${id}-print" class="print" fill="#1d2327" fill-rule="evenodd" stroke="none" d="${ink}"/>`] : [];
    const picture = options.printed ? printedPicture(own.sheet, `${own.sheet.piece.id}-edge-${nth}`, at, images) : [];
    return [
      `  <g id="${id}" class="piece">`,
      `    <title>${escaped(`${name}, ${faceUp}`)}</title>`,
      ...picture,
      ...print,
      ...layers,
      '  </g>',
    ].join('\n');
  });
  const room = options.printed ? MARKS_OUT + 1 : 0;
  const [wide, high] = [width + 2 * room, height + 2 * room];
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(wide)}mm" height="${mm(high)}mm" viewBox="${mm(room === 0 ? 0 : -room)} ${mm(room === 0 ? 0 : -room)} ${mm(wide)} ${mm(high)}" fill="none" stroke-width="0.25">`,
    `  <title>${escaped(`${title}: ${drawing.name}`)}</title>`,
    ...(options.printed ? [marksRound(width, height)] : []),
    ...groups,
    '</svg>',
    '',
  ].join('\n');
}

/** The picture of a piece, as far as its outline: laid by a matrix, as it may be turned with its piece. */
function printedPicture({ piece, outline }: CutSheet, edge: string, at: (point: Point) => Point, images: readonly OwnImage[]): string[] {
  const { image, id } = piece;
  const found = images.find((each) => each.id === image?.of);
  if (!image || !found) return [];
  const [lowLeft, [right], upLeft] = imageCorners(image);
  const [origin, across, down] = [at(upLeft), at([right, upLeft[1]]), at(lowLeft)];
  const matrix = [...[across, down].flatMap(([x, y]) => [x - origin[0], y - origin[1]]), ...origin].map((value) =>
    String(Number(value.toFixed(6))),
  );
  return [
    `    <clipPath id="${edge}"><path d="${pathData({ points: outline, closed: true }, at)}"/></clipPath>`,
    `    <g clip-path="url(#${edge})"><image id="${id}-picture" class="print" width="1" height="1" preserveAspectRatio="none" transform="matrix(${matrix.join(' ')})" href="data:${found.type};base64,${found.data}"/></g>`,
  ];
}

/** A square at the upper left, brackets at the other corners: none of a sheet's turns is like another. */
function marksRound(width: Mm, height: Mm): string {
  const [left, top, right, foot] = [-MARKS_OUT, -MARKS_OUT, width + MARKS_OUT, height + MARKS_OUT];
  const bracket = (x: Mm, y: Mm): string =>
    `M ${mm(x - Math.sign(x) * MARK_LONG)} ${mm(y)} L ${mm(x)} ${mm(y)} L ${mm(x)} ${mm(y - Math.sign(y) * MARK_LONG)}`;
  return [
    '  <g id="register" class="register" stroke="#000000" stroke-width="1">',
    `    <path fill="#000000" stroke="none" d="M ${mm(left)} ${mm(top)} H ${mm(left + MARK_SQUARE)} V ${mm(top + MARK_SQUARE)} H ${mm(left)} Z"/>`,
    ...[bracket(right, top), bracket(right, foot), bracket(left, foot)].map((d) => `    <path d="${d}"/>`),
    '  </g>',
  ].join('\n');
}

/** @param at where a point of the piece lies in the drawing, y down */
function pathData({ points, closed }: Pick<DrawnLine, 'points' | 'closed'>, at: (point: Point) => Point): string {
  const said = (point: Point): string => at(point).map(mm).join(' ');
  const path = pathOf(points, closed);
  const segments = closed && path.segments.at(-1)?.kind === 'line' ? path.segments.slice(0, -1) : path.segments;
  return `M ${said(path.from)}${segments.map((segment) => segmentData(segment, said)).join('')}${closed ? ' Z' : ''}`;
}

function segmentData(segment: Segment, said: (point: Point) => string): string {
  if (segment.kind === 'line') return ` L ${said(segment.to)}`;
  if (segment.kind === 'cubic') return ` C ${said(segment.handles[0])} ${said(segment.handles[1])} ${said(segment.to)}`;
  // Turned the other way by y running down: counter-clockwise on the table is sweep 0.
  return ` A ${mm(segment.radius)} ${mm(segment.radius)} 0 0 ${segment.angle > 0 ? 0 : 1} ${said(segment.to)}`;
}

/** Four decimals of a mm, without trailing zeros. */
function mm(value: number): string {
  return String(Number(value.toFixed(4)));
}
