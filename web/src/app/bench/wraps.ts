import { shadeHex, type Dressed, type PlacedRibbon } from '@diptychon/core';
import { Box3, BoxGeometry, ExtrudeGeometry, Group, Mesh, MeshLambertMaterial, Vector3, type Material, type Object3D } from 'three';
import { bowOf } from './bow';
import { shapeOf } from './shape-of';

/** What is wrapped round a card is drawn so thick: thinner it would vanish at arm's length. */
const DRAWN = 0.5;
const BAND = '#d8c9a6';
export const RIBBON = '#8f4438';

/** A strip of the closed card that something goes round: the way that it runs, and from where to where it lies along the other. */
interface Ring {
  runs: 'x' | 'y';
  from: number;
  to: number;
  paper: string;
  /** its bow: on the front, or at the free edge */
  bow?: { ribbon: PlacedRibbon; at: 'front' | 'free edge' };
}

/** Bands and ribbons round the closed card; off it as soon as it is opened. */
export class Wraps {
  private readonly group = new Group();
  private rings: Ring[] = [];

  /** @param card what is drawn of the card, in which everything lies as on its ground */
  constructor(private readonly card: Object3D) {}

  take({ bands, ribbons }: Pick<Dressed, 'bands' | 'ribbons'>): void {
    this.rings = [
      ...bands.map(({ closure, over, stock }): Ring => ringOver(closure.around, over, stock.shade ? shadeHex(stock.shade) : BAND)),
      ...ribbons.flatMap((ribbon): Ring[] => {
        const { closure, over } = ribbon;
        if (!over) return [];
        const bySlits = closure.way === 'slits';
        const ring = ringOver(bySlits ? 'across' : closure.around, over, RIBBON);
        return [{ ...ring, bow: { ribbon, at: bySlits ? 'free edge' : 'front' } }];
      }),
    ];
  }

  /** Lays them round what is drawn, or takes them off. @param drawn everything that is drawn of the card, in its own axes */
  show(isClosed: boolean, drawn: readonly Object3D[]): void {
    this.clear();
    if (!isClosed || this.rings.length === 0) return;
    const box = new Box3();
    for (const sheet of drawn) sheet.traverse((part) => part instanceof Mesh && part.visible && box.union(within(part, sheet)));
    if (box.isEmpty()) return;
    for (const ring of this.rings) {
      for (const mesh of meshesOf(ring, box)) this.group.add(mesh);
      // The next goes over it.
      box.expandByScalar(DRAWN);
    }
    this.card.add(this.group);
  }

  clear(): void {
    for (const mesh of this.group.children as Mesh[]) {
      mesh.geometry.dispose();
      (mesh.material as Material).dispose();
    }
    this.group.clear();
    this.group.removeFromParent();
  }
}

const ringOver = (
  around: 'across' | 'along',
  { minX, maxX, minY, maxY }: { minX: number; maxX: number; minY: number; maxY: number },
  paper: string,
): Ring => (around === 'across' ? { runs: 'x', from: minY, to: maxY, paper } : { runs: 'y', from: minX, to: maxX, paper });

/** The room that a part of a sheet takes in the axes of the card. */
function within(part: Mesh, sheet: Object3D): Box3 {
  part.geometry.computeBoundingBox();
  const box = part.geometry.boundingBox!.clone();
  if (part !== sheet) {
    part.updateMatrix();
    box.applyMatrix4(part.matrix);
  }
  return box.applyMatrix4(sheet.matrix);
}

function meshesOf({ runs, from, to, paper, bow }: Ring, { min, max }: Box3): Mesh[] {
  const [low, high] = runs === 'x' ? [min.x, max.x] : [min.y, max.y];
  const block = (a: number, b: number, bottom: number, top: number): Mesh => {
    const [long, wide, thick] = [b - a, to - from, top - bottom];
    const geometry = runs === 'x' ? new BoxGeometry(long, wide, thick) : new BoxGeometry(wide, long, thick);
    const middle = [(a + b) / 2, (from + to) / 2] as const;
    geometry.translate(...(runs === 'x' ? middle : ([middle[1], middle[0]] as const)), (bottom + top) / 2);
    return painted(geometry, paper);
  };
  const [under, over] = [min.z - DRAWN, max.z + DRAWN];
  const ring = [
    block(low - DRAWN, high + DRAWN, under, min.z),
    block(low - DRAWN, high + DRAWN, max.z, over),
    block(low - DRAWN, low, min.z, max.z),
    block(high, high + DRAWN, min.z, max.z),
  ];
  if (!bow) return ring;
  const across = (from + to) / 2;
  const place =
    bow.at === 'front'
      ? new Vector3(runs === 'x' ? (low + high) / 2 : across, runs === 'x' ? across : (low + high) / 2, over)
      : new Vector3(high + DRAWN, across, (min.z + max.z) / 2);
  return [
    ...ring,
    ...bowOf(bow.ribbon).map((part) => {
      const geometry = new ExtrudeGeometry(shapeOf(part), { depth: part.thick, bevelEnabled: false });
      // At the free edge it is looked at from there, its loops along the edge.
      if (bow.at === 'free edge') geometry.rotateX(Math.PI / 2).rotateZ(Math.PI / 2);
      return painted(geometry.translate(place.x, place.y, place.z), paper);
    }),
  ];
}

function painted(geometry: BoxGeometry | ExtrudeGeometry, paper: string): Mesh {
  const mesh = new Mesh(geometry, new MeshLambertMaterial({ color: paper }));
  mesh.castShadow = mesh.receiveShadow = true;
  return mesh;
}
