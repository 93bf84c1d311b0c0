import { intersect, totalArea } from '../plane/boolean.js';
import { signedArea } from '../plane/outline.js';
import { between, distance, type Point } from '../plane/point.js';

/** One line of the written steps. */
interface WrittenReading {
  piece: string;
  kind: string;
  line: string;
  edge: 'left edge' | 'right edge' | 'lower edge' | 'upper edge';
  at: number;
  atEnd?: number;
  from: number;
  to: number;
  fold?: 'valley' | 'mountain';
  points?: Point[];
}

interface WrittenFace {
  piece: string;
  face: 'up' | 'down';
  outline: Point[];
  holes: Point[][];
}

interface WrittenJoin {
  id: string;
  glued: WrittenFace;
  onto: WrittenFace;
}

interface WrittenSteps {
  steps: {
    title: string;
    blanks: { piece: string; width: number; height: number }[];
    readings: WrittenReading[];
    joins: WrittenJoin[];
  }[];
}

/** Paper on the table: what has been done to it, from its lower left corner, upper face up. */
export interface PaperPiece {
  width: number;
  height: number;
  cuts: Point[][];
  scores: { from: Point; to: Point; fold: string }[];
}

/** What came of following the steps. */
export interface MadeCard {
  pieces: Map<string, PaperPiece>;
  joins: WrittenJoin[];
  /** what a maker could not do as it is written */
  troubles: string[];
}

/** Less than this is as exact as paper is. */
const EXACT = 0.01;

/**
 * A maker who has nothing but the steps as they are written, and knows nothing of the card: trims blanks, measures from edges,
 * traces, and glues areas onto areas. Whoever glues looks first whether both areas are bare, of one size and the right way round.
 */
export function madeFrom(written: string): MadeCard {
  const { steps } = JSON.parse(written) as WrittenSteps;
  const pieces = new Map<string, PaperPiece>();
  const joins: WrittenJoin[] = [];
  const troubles: string[] = [];
  const covered: WrittenFace[] = [];
  for (const { title, blanks, readings, joins: joined } of steps) {
    const trouble = (says: string): unknown => troubles.push(`${title}: ${says}`);
    for (const { piece, width, height } of blanks) {
      if (pieces.has(piece)) trouble(`${piece} is trimmed twice`);
      pieces.set(piece, { width, height, cuts: [], scores: [] });
    }
    for (const reading of readings) {
      const paper = pieces.get(reading.piece);
      if (!paper) trouble(`there is no ${reading.piece} yet`);
      else if (covered.some(({ piece }) => piece === reading.piece)) trouble(`${reading.piece} is glued already`);
      else make(reading, paper);
    }
    for (const join of joined) {
      for (const { piece } of [join.glued, join.onto]) if (!pieces.has(piece)) trouble(`there is no ${piece} yet`);
      for (const face of [join.glued, join.onto]) {
        const hidden = covered.filter((other) => other.piece === face.piece && other.face === face.face && overlap(other, face) > EXACT);
        if (hidden.length > 0) trouble(`${join.id}: something is glued on ${face.piece} there already`);
      }
      if (!lieOnEachOther(join)) trouble(`${join.id}: the areas are not alike`);
      covered.push(join.glued, join.onto);
      joins.push(join);
    }
  }
  return { pieces, joins, troubles };
}

function make({ kind, edge, at, atEnd = at, from, to, fold, points }: WrittenReading, paper: PaperPiece): void {
  const { width, height } = paper;
  const onPaper = (off: number, along: number): Point => {
    if (edge === 'left edge') return [off, along];
    if (edge === 'right edge') return [width - off, along];
    return edge === 'lower edge' ? [along, off] : [along, height - off];
  };
  const line = points ?? [onPaper(at, from), onPaper(atEnd, to)];
  if (kind === 'score') paper.scores.push({ from: line[0]!, to: line[1]!, fold: fold ?? '' });
  else paper.cuts.push(line);
}

const overlap = (a: WrittenFace, b: WrittenFace): number =>
  Math.abs(totalArea(intersect([{ outer: a.outline, holes: a.holes }], [{ outer: b.outline, holes: b.holes }])));

/** Laid face on face, one is the mirror of the other where both are the same face of their paper. */
function lieOnEachOther({ glued, onto }: WrittenJoin): boolean {
  const count = glued.outline.length;
  if (count !== onto.outline.length) return false;
  const alike = glued.outline.every((a, i) => {
    const next = (i + 1) % count;
    const across = (i + Math.floor(count / 2)) % count;
    const gap = (j: number): number => Math.abs(distance(a, glued.outline[j]!) - distance(onto.outline[i]!, onto.outline[j]!));
    return gap(next) < EXACT && gap(across) < EXACT;
  });
  const turnedOver = glued.face === onto.face;
  return alike && signedArea(glued.outline) * signedArea(onto.outline) > 0 !== turnedOver;
}

/** Points along a line, no farther apart than half a millimetre. */
export function alongLine(points: readonly Point[]): Point[] {
  return points.flatMap((a, i): Point[] => {
    const b = points[i + 1];
    if (!b) return [a];
    const parts = Math.max(1, Math.ceil(distance(a, b) / 0.5));
    return Array.from({ length: parts }, (_, k) => between(a, b, k / parts));
  });
}
