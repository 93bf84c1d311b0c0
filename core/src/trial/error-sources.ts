import type { Drawing } from '../card/draw.js';
import type { Design } from '../card/join.js';
import { claimsOf } from '../card/draw.js';
import { inSentence } from '../card/part-titles.js';
import type { Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import type { HandErrors } from '../supplies/workshop.js';
import { asMade, gluedBeside } from './as-made.js';

/** Something that a hand makes, and is off by. */
export interface ErrorSource {
  /** `PIECE/SCORE`, `PIECE/width`, `PIECE/height`, `GLUE/across`, `GLUE/along`, `PART/edge`, `PART/opening` */
  id: string;
  kind: 'score' | 'cut' | 'glue';
  /** what a maker calls it */
  name: string;
  /** standard deviation, mm */
  sigma: Mm;
  /** what it is off in: a line of the design, the drawing, or nothing but the clearance of a swinging part */
  in: InDesign | InDrawing | InSwing;
}

/** The design with a score off by so much: its panels fold about another line, and nothing is split anew. */
interface InDesign {
  kind: 'design';
  off: (design: Design, by: Mm) => Design;
}

/** The drawing with an edge or a glued place off by so much. */
interface InDrawing {
  kind: 'drawing';
  off: (drawing: Drawing, by: Mm) => Drawing;
}

/** The swinging part whose reach (−) or opening (+) it is. */
interface InSwing {
  kind: 'swing';
  id: string;
  sign: 1 | -1;
}

/** Everything of a card that is scored, cut and glued by hand. What finds its place as the card closes onto its glue is off by nothing. */
export function errorSources(design: Design, hand: HandErrors): ErrorSource[] {
  return [...scoresOf(design, hand), ...cutsOf(design, hand), ...glueOf(design, hand), ...swingsOf(design, hand)];
}

function scoresOf({ pieces, panels, linkage }: Design, { score }: HandErrors): ErrorSource[] {
  return pieces.flatMap((piece) => {
    // Stretches in one line between two panels are one fold: they are scored in one go.
    const folds = linkage.hinges.filter(({ left }) => panels[left]!.piece === piece).map(({ source }) => source.crease);
    const lines = new Map(folds.map((crease) => [crease.stretchOf?.id ?? crease.id, crease.name]));
    return [...lines].map(([line, name]): ErrorSource => ({
      id: `${piece.id}/${line}`,
      kind: 'score',
      name: `${name} of the ${inSentence(piece.name)}`,
      sigma: score,
      in: { kind: 'design', off: (design, by) => foldedBeside(design, piece.id, line, by) },
    }));
  });
}

/** A design whose panels fold about a line so far beside the one that is drawn, square to it; all stretches of a score alike. */
function foldedBeside(design: Design, piece: string, line: string, by: Mm): Design {
  const hinges = design.linkage.hinges.map((hinge) => {
    const { source, px, py, ux, uy, left } = hinge;
    const isIt = design.panels[left]!.piece.id === piece && (source.crease.stretchOf?.id ?? source.crease.id) === line;
    if (!isIt) return hinge;
    // To the right of an upright score, whichever way it is drawn.
    const sign = uy < 0 || (uy === 0 && ux > 0) ? -1 : 1;
    const [dx, dy] = [sign * uy * by, -sign * ux * by];
    const moved = ([x, y]: Point): Point => [x + dx, y + dy];
    return { ...hinge, px: px + dx, py: py + dy, source: { ...source, from: moved(source.from), to: moved(source.to) } };
  });
  return { ...design, linkage: { ...design.linkage, hinges } };
}

/** Blanks are measured from their left and lower edges: what is off is their width and height. */
function cutsOf({ pieces }: Design, { cut }: HandErrors): ErrorSource[] {
  return pieces.flatMap((piece) =>
    (['width', 'height'] as const).map((line): ErrorSource => ({
      id: `${piece.id}/${line}`,
      kind: 'cut',
      name: `${line} of the ${inSentence(piece.name)}`,
      sigma: cut,
      in: { kind: 'drawing', off: (drawing, by) => asMade(drawing, [{ piece: piece.id, line, by }]) },
    })),
  );
}

function glueOf({ bonds }: Design, { glue }: HandErrors): ErrorSource[] {
  return bonds
    .filter(({ placedBy, slides }) => placedBy !== 'closing' && !slides)
    .flatMap(({ id, name }) =>
      (['across', 'along'] as const).map((way): ErrorSource => ({
        id: `${id}/${way}`,
        kind: 'glue',
        name: `${inSentence(name)}, ${way}`,
        sigma: glue,
        in: {
          kind: 'drawing',
          off: (drawing, by) => gluedBeside(drawing, { joint: id, right: way === 'across' ? by : 0, up: way === 'along' ? by : 0 }),
        },
      })),
    );
}

/** An edge that swings, and the edge of the opening that it passes, where they are two cuts. */
function swingsOf(design: Design, { cut }: HandErrors): ErrorSource[] {
  return claimsOf(design, 'swing')
    .filter(({ reach, opening }) => opening - reach > ONE_CUT)
    .flatMap(({ id, name }) => [
      {
        id: `${id}/edge`,
        kind: 'cut' as const,
        name: `free edge of ${name}`,
        sigma: cut,
        in: { kind: 'swing' as const, id, sign: -1 as const },
      },
      {
        id: `${id}/opening`,
        kind: 'cut' as const,
        name: `opening of ${name}`,
        sigma: cut,
        in: { kind: 'swing' as const, id, sign: 1 as const },
      },
    ]);
}

/** Nearer than this an edge and its opening are made by one cut, and both are off by the same. */
export const ONE_CUT: Mm = 0.01;
