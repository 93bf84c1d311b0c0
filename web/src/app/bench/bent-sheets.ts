import { nodesBetween, type BentRow } from '@diptychon/core';
import {
  BackSide,
  BufferAttribute,
  BufferGeometry,
  FrontSide,
  LineBasicMaterial,
  LineLoop,
  Mesh,
  MeshLambertMaterial,
  type Group,
  type Side,
} from 'three';
import { edgeLine, OTHER_FACE } from './papers';

/** One row as it is drawn: both faces of a surface, and a line round it. */
interface BentSheet {
  row: BentRow;
  surface: BufferGeometry;
  rim: BufferGeometry;
  /** nodes along the rim, in order */
  round: number[];
  drawn: (Mesh | LineLoop)[];
}

/** Draws panels that bend as the curved sheets that they are on the way. */
export class BentSheets {
  private sheets: BentSheet[] = [];
  private closing = false;

  constructor(private readonly card: Group) {}

  /** Takes other rows; the same ones stay. */
  take(rows: readonly { row: BentRow; colour: string }[], closing: boolean): void {
    this.closing = closing;
    if (rows.length === this.sheets.length && rows.every(({ row }, i) => row === this.sheets[i]!.row)) return;
    this.clear();
    this.sheets = rows.map(({ row, colour }) => this.made(row, colour));
  }

  pose(s: number, shown: boolean): void {
    for (const { row, surface, rim, round, drawn } of this.sheets) {
      for (const object of drawn) object.visible = shown;
      if (!shown) continue;
      const nodes = nodesBetween(this.closing ? row.closing : row.opening, s);
      (surface.getAttribute('position') as BufferAttribute).copyArray(nodes).needsUpdate = true;
      surface.computeVertexNormals();
      surface.computeBoundingSphere();
      const edge = rim.getAttribute('position') as BufferAttribute;
      round.forEach((node, i) => edge.setXYZ(i, nodes[3 * node]!, nodes[3 * node + 1]!, nodes[3 * node + 2]!));
      edge.needsUpdate = true;
      rim.computeBoundingSphere();
    }
  }

  clear(): void {
    for (const { surface, rim, drawn } of this.sheets) {
      for (const object of drawn) {
        this.card.remove(object);
        (object.material as MeshLambertMaterial | LineBasicMaterial).dispose();
      }
      surface.dispose();
      rim.dispose();
    }
    this.sheets = [];
  }

  private made(row: BentRow, colour: string): BentSheet {
    const { along, across } = row.sheet.cells;
    const rows = along * row.sheet.lengths.length;
    const node = (i: number, j: number): number => i * (across + 1) + j;
    const surface = new BufferGeometry();
    surface.setAttribute('position', new BufferAttribute(new Float32Array(3 * (rows + 1) * (across + 1)), 3));
    const corners: number[] = [];
    for (let i = 0; i < rows; i++) {
      for (let j = 0; j < across; j++) {
        const [a, b, c, d] = [node(i, j), node(i, j + 1), node(i + 1, j), node(i + 1, j + 1)];
        corners.push(...(row.handed > 0 ? [a, c, b, b, c, d] : [a, b, c, b, d, c]));
      }
    }
    surface.setIndex(corners);
    const up = Array.from({ length: rows }, (_, i) => i);
    const over = Array.from({ length: across }, (_, j) => j);
    const round = [
      ...over.map((j) => node(0, j)),
      ...up.map((i) => node(i, across)),
      ...over.map((j) => node(rows, across - j)),
      ...up.map((i) => node(rows - i, 0)),
    ];
    const rim = new BufferGeometry();
    rim.setAttribute('position', new BufferAttribute(new Float32Array(3 * round.length), 3));
    const line = new LineLoop(rim, edgeLine());
    const drawn = [face(surface, colour, FrontSide, 1), face(surface, colour, BackSide, OTHER_FACE), line];
    for (const object of drawn) this.card.add(object);
    return { row, surface, rim, round, drawn };
  }
}

function face(surface: BufferGeometry, colour: string, side: Side, dimmed: number): Mesh {
  const material = new MeshLambertMaterial({ color: colour, side, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 });
  material.color.multiplyScalar(dimmed);
  const mesh = new Mesh(surface, material);
  mesh.castShadow = side === FrontSide;
  mesh.receiveShadow = true;
  return mesh;
}
