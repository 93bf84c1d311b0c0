import { describe, expect, it } from 'vitest';
import { areaOf, boxOf, loopContains, signedArea, type Loop } from '../plane/outline.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { writeFold, type FoldFile, type FoldFrame } from './fold.js';

const BASES = CATALOGUE.filter((m) => m.kind === 'base').map((m) => m.id);

const distance = (a: readonly number[], b: readonly number[]): number => Math.hypot(...a.map((n, i) => n - b[i]!));
const framesOf = (file: FoldFile): FoldFrame[] => [file, ...file.file_frames];
const key = ([a, b]: readonly number[]): string => (a! < b! ? `${a} ${b}` : `${b} ${a}`);

/** Slivers along an edge do not count. */
const farFromEdge = (loop: Loop, p: Point): boolean => loop.every((a, i) => distanceToSegment(p, a, loop[(i + 1) % loop.length]!) > 0.2);

/** Reads a file back as another program would: from its text, by the published meaning of its fields. */
function readBack(text: string): FoldFile {
  return JSON.parse(text) as FoldFile;
}

describe.each(BASES)('the crease patterns of %s', (mechanism) => {
  const card = evaluated(cardOn(mechanism));
  const file = readBack(writeFold(card));
  const flat = framesOf(file).filter((frame) => frame.frame_classes.includes('creasePattern'));
  const folded = framesOf(file).filter((frame) => frame.frame_classes.includes('foldedForm'));

  it('hold every piece, flat, with as many faces and edges as they name', () => {
    expect(flat.map((frame) => frame.frame_title)).toEqual(card.design.pieces.map((piece) => piece.name));
    for (const frame of [...flat, ...folded]) {
      expect(frame.frame_unit).toBe('mm');
      expect(frame.edges_assignment).toHaveLength(frame.edges_vertices.length);
      expect(frame.edges_foldAngle).toHaveLength(frame.edges_vertices.length);
      const known = new Set(frame.edges_vertices.map(key));
      expect(known.size).toBe(frame.edges_vertices.length);
      const uses = new Map<string, number>();
      for (const face of frame.faces_vertices) {
        expect(new Set(face).size).toBe(face.length);
        face.forEach((v, i) => {
          expect(v).toBeLessThan(frame.vertices_coords.length);
          const edge = key([v, face[(i + 1) % face.length]!]);
          expect(known.has(edge)).toBe(true);
          uses.set(edge, (uses.get(edge) ?? 0) + 1);
        });
      }
      // A boundary has one face, everything that folds two, and nothing more.
      frame.edges_vertices.forEach((edge, i) => {
        const faces = uses.get(key(edge));
        if (frame.edges_assignment[i] === 'B') expect(faces).toBe(1);
        else if (frame.edges_assignment[i] !== 'C') expect(faces).toBe(2);
      });
    }
  });

  it('cover each piece: faces counter-clockwise, their areas adding up to the piece’s', () => {
    flat.forEach((frame, i) => {
      const { id } = card.design.pieces[i]!;
      const areas = frame.faces_vertices.map((face) => signedArea(face.map((v) => frame.vertices_coords[v]!) as unknown as Loop));
      expect(Math.min(...areas)).toBeGreaterThan(0);
      const paper = card.design.panels.filter((panel) => panel.piece.id === id).reduce((sum, panel) => sum + areaOf(panel.area), 0);
      expect(areas.reduce((sum, area) => sum + area, 0)).toBeCloseTo(paper, 2);
    });
  });

  it('have every score as mountain or valley, as long as it is drawn', () => {
    flat.forEach((frame, i) => {
      for (const [fold, letter] of [
        ['mountain', 'M'],
        ['valley', 'V'],
      ] as const) {
        const hinges = card.design.linkage.hinges.filter(
          ({ source }) => source.crease.fold === fold && source.left.startsWith(`${card.design.pieces[i]!.id}/`),
        );
        const drawn = frame.edges_vertices
          .filter((_, e) => frame.edges_assignment[e] === letter)
          .reduce((sum, [a, b]) => sum + distance(frame.vertices_coords[a]!, frame.vertices_coords[b]!), 0);
        expect(drawn > 0).toBe(hinges.length > 0);
      }
    });
  });

  it('fold without stretching: every edge keeps its length closed, half open and put down', () => {
    expect(folded.map((frame) => frame.frame_title)).toEqual(['closed', 'half open', 'as it is put down']);
    const lengths = (frames: readonly FoldFrame[]): number[] =>
      frames.flatMap((frame) =>
        frame.faces_vertices.flatMap((face) =>
          face.map((v, i) => distance(frame.vertices_coords[v]!, frame.vertices_coords[face[(i + 1) % face.length]!]!)),
        ),
      );
    const paper = lengths(flat);
    for (const frame of folded) lengths([frame]).forEach((length, i) => expect(length).toBeCloseTo(paper[i]!, 4));
  });

  it('lie flat when closed, with fold angles of 0 or half a turn and layers that do not contradict each other', () => {
    const closed = folded[0]!;
    for (const p of closed.vertices_coords) expect(p[2]).toBeCloseTo(0, 5);
    closed.edges_foldAngle.forEach((angle) => expect([0, 180]).toContain(Math.round(Math.abs(angle) * 1e4) / 1e4));
    const orders = new Map(closed.faceOrders!.map(([f, g, s]) => [`${f} ${g}`, s]));
    expect(orders.size).toBe(closed.faceOrders!.length);
    for (const [f, g] of closed.faceOrders!) expect(orders.has(`${g} ${f}`)).toBe(false);
  });

  it('say of any two faces that cover a place of the closed card which lies on top', () => {
    const [closed] = folded;
    const loops = closed!.faces_vertices.map((face) => face.map((v) => closed!.vertices_coords[v]!.slice(0, 2)) as unknown as Loop);
    const known = new Set(closed!.faceOrders!.map(([f, g]) => key([f, g])));
    const { minX, maxX, minY, maxY } = boxOf(loops.flat());
    // Places off any line that a card is likely to have.
    for (let i = 0; i < 23; i++) {
      for (let k = 0; k < 23; k++) {
        const p = [minX + ((i + 0.4142) / 23) * (maxX - minX), minY + ((k + 0.2718) / 23) * (maxY - minY)] as const;
        const there = loops.flatMap((loop, f) => (loopContains(loop, p) && farFromEdge(loop, p) ? [f] : []));
        there.forEach((f, n) => {
          for (const g of there.slice(n + 1)) expect([f, g, known.has(key([f, g]))]).toEqual([f, g, true]);
        });
      }
    }
  });
});
