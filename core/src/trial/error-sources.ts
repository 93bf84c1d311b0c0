import type { Drawing } from '../card/draw.js';
import type { Design } from '../card/join.js';
import { claimsOf } from '../card/draw.js';
import { inSentence } from '../card/part-titles.js';
import type { Mm } from '../measure/units.js';
import type { HandErrors } from '../supplies/workshop.js';
import { asMade } from './as-made.js';

/** Something that a hand makes, and is off by. */
export interface ErrorSource {
  /** `PIECE/SCORE`, `PIECE/width`, `PIECE/height`, `GLUE/across`, `GLUE/along`, `PART/edge`, `PART/opening` */
  id: string;
  kind: 'score' | 'cut' | 'glue';
  /** what a maker calls it */
  name: string;
  /** standard deviation, mm */
  sigma: Mm;
  /** a drawing in which it is off by so much; nothing where only clearances of a swinging part know of it */
  off?: (drawing: Drawing, by: Mm) => Drawing;
  /** the swinging part whose reach (−) or opening (+) it is */
  swing?: { id: string; sign: 1 | -1 };
}

/** Everything of a card that is scored, cut and glued by hand. What finds its place as the card closes onto its glue is off by nothing. */
export function errorSources(design: Design, hand: HandErrors): ErrorSource[] {
  return [...scoresOf(design, hand), ...cutsOf(design, hand), ...glueOf(design, hand), ...swingsOf(design, hand)];
}

function scoresOf({ pieces }: Design, { score }: HandErrors): ErrorSource[] {
  return pieces.flatMap((piece) => {
    const lines = new Map(piece.creases.map((crease) => [crease.stretchOf?.id ?? crease.id, crease.name]));
    return [...lines].map(([line, name]): ErrorSource => ({
      id: `${piece.id}/${line}`,
      kind: 'score',
      name: `${name} of the ${inSentence(piece.name)}`,
      sigma: score,
      off: (drawing, by) => asMade(drawing, [{ piece: piece.id, line, by }]),
    }));
  });
}

/** Blanks are measured from their left and lower edges: what is off is their width and height. */
function cutsOf({ pieces }: Design, { cut }: HandErrors): ErrorSource[] {
  return pieces.flatMap((piece) =>
    (['width', 'height'] as const).map((line): ErrorSource => ({
      id: `${piece.id}/${line}`,
      kind: 'cut',
      name: `${line} of the ${inSentence(piece.name)}`,
      sigma: cut,
      off: (drawing, by) => asMade(drawing, [{ piece: piece.id, line, by }]),
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
        off: (drawing, by) => ({
          ...drawing,
          bonds: drawing.bonds.map((bond) => {
            if (bond.id !== id) return bond;
            const [x, y] = bond.placement.to;
            return { ...bond, placement: { ...bond.placement, to: way === 'across' ? ([x + by, y] as const) : ([x, y + by] as const) } };
          }),
        }),
      })),
    );
}

/** An edge that swings, and the edge of the opening that it passes, where they are two cuts. */
function swingsOf(design: Design, { cut }: HandErrors): ErrorSource[] {
  return claimsOf(design, 'swing')
    .filter(({ reach, opening }) => opening - reach > ONE_CUT)
    .flatMap(({ id, name }) => [
      { id: `${id}/edge`, kind: 'cut' as const, name: `free edge of ${name}`, sigma: cut, swing: { id, sign: -1 as const } },
      { id: `${id}/opening`, kind: 'cut' as const, name: `opening of ${name}`, sigma: cut, swing: { id, sign: 1 as const } },
    ]);
}

/** Nearer than this an edge and its opening are made by one cut, and both are off by the same. */
export const ONE_CUT: Mm = 0.01;
