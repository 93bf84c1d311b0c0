import { shadeHex, type Stock } from '@diptychon/core';
import { DoubleSide, LineBasicMaterial, MeshLambertMaterial, MeshStandardMaterial } from 'three';

/** Paper colours by what a piece is for. */
const PAPER: Record<string, string> = { base: '#efe4cb', mechanism: '#e2a544', display: '#b9c79a', film: '#cfe0e6', stop: '#8c6f56' };
/** The other face of a sheet is told apart by how dark it is, not by its hue. */
export const OTHER_FACE = 0.74;
const MARKED = '#c2492c';

/** The colour of a piece: of its stock where that has one, else by what it is for. */
export const paperOf = (role: string, { shade }: Pick<Stock, 'shade'>): string =>
  shade ? shadeHex(shade) : (PAPER[role] ?? PAPER['base']!);

/** The line along the edges of a sheet. */
export const edgeLine = (): LineBasicMaterial => new LineBasicMaterial({ color: '#6b5f49', transparent: true, opacity: 0.45 });

export type PaperMaterial = MeshLambertMaterial | MeshStandardMaterial;

/** Papers of all colours, made once: a material that is thrown away takes its drawing program with it, and the next one waits. */
export class Papers {
  readonly line = edgeLine();
  private readonly made = new Map<string, PaperMaterial[]>();

  of(paper: string, clear: boolean, marked: boolean): PaperMaterial[] {
    const key = `${paper}/${clear}/${marked}`;
    const known = this.made.get(key);
    if (known) return known;
    const materials = materialsOf(paper, clear);
    if (marked) for (const material of materials) material.emissive.set(MARKED);
    for (const material of materials) material.emissiveIntensity = 0.55;
    this.made.set(key, materials);
    return materials;
  }
}

/** Of the lower face, and of the upper face with the edges. Paper is matt; only what is clear shines. */
function materialsOf(paper: string, clear: boolean): PaperMaterial[] {
  const upper = clear
    ? new MeshStandardMaterial({
        color: paper,
        roughness: 0.2,
        metalness: 0,
        side: DoubleSide,
        transparent: true,
        opacity: 0.3,
        depthWrite: false,
      })
    : // Pushed back a little, so that the lines along its edges are drawn whole.
      new MeshLambertMaterial({ color: paper, side: DoubleSide, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 });
  const lower = upper.clone();
  if (!clear) lower.color.multiplyScalar(OTHER_FACE);
  return [lower, upper];
}
