import { type DressedLayer } from '@diptychon/core';
import {
  CanvasTexture,
  ExtrudeGeometry,
  Mesh,
  MeshLambertMaterial,
  Path,
  RepeatWrapping,
  Shape,
  SRGBColorSpace,
  type Object3D,
} from 'three';

/** Papers of layers by how many lie under one, the motif printed on them a little darker. */
const LAYER_PAPERS = [
  { paper: '#8a9a6a', motif: '#6f8052' },
  { paper: '#e8d6a6', motif: '#d3b978' },
  { paper: '#76868f', motif: '#5d6c75' },
] as const;
const MARKED = '#c2492c';
/** A motif is so large on the paper (mm), and so large in its picture (dots). */
const MOTIF = 13;
const DOTS = 96;
/** Layers drawn thinner than this vanish at arm's length. */
const LEAST_DRAWN = 0.3;

type Up = DressedLayer['upWhenOpen'];
const TURN: Readonly<Record<Up, number>> = { top: 0, left: Math.PI / 2, bottom: Math.PI, right: -Math.PI / 2 };

interface WornMesh {
  mesh: Mesh<ExtrudeGeometry, MeshLambertMaterial>;
  layer: DressedLayer;
}

/** What panels wear, drawn on their sheets: each goes where its panel goes. */
export class WornSheets {
  private readonly materials = new Map<string, MeshLambertMaterial>();
  private readonly worn = new Map<string, { key: string; meshes: WornMesh[] }>();

  /**
   * Lays what a panel wears on its sheet; what is as before stays.
   * @param half of the sheet's drawn thickness  @returns how thick all of it is drawn
   */
  dress(panel: string, sheet: Object3D, half: number, layers: readonly DressedLayer[]): number {
    const thick = layers.map(({ stock }) => Math.max(LEAST_DRAWN, stock.caliper));
    const key = JSON.stringify([half, layers.map(({ area, step, face, upWhenOpen, stock }) => [area, step, face, upWhenOpen, stock.id])]);
    const known = this.worn.get(panel);
    if (known?.key !== key || known.meshes.some(({ mesh }) => mesh.parent !== sheet)) {
      this.strip(panel);
      const meshes = layers.map((layer, i): WornMesh => {
        const under = layers.reduce((sum, other, k) => sum + (other.face === layer.face && other.step < layer.step ? thick[k]! : 0), 0);
        const geometry = new ExtrudeGeometry(shapeOf(layer), { depth: thick[i]!, bevelEnabled: false });
        geometry.translate(0, 0, layer.face === 'up' ? half + under : -half - under - thick[i]!);
        const mesh = new Mesh(geometry, this.material(layer, false));
        mesh.receiveShadow = true;
        sheet.add(mesh);
        return { mesh, layer };
      });
      if (meshes.length > 0) this.worn.set(panel, { key, meshes });
    }
    return thick.reduce((sum, t) => sum + t, 0);
  }

  /** Takes off what a panel wears. */
  strip(panel: string): void {
    for (const { mesh } of this.worn.get(panel)?.meshes ?? []) {
      mesh.removeFromParent();
      mesh.geometry.dispose();
    }
    this.worn.delete(panel);
  }

  highlight(panels: readonly string[]): void {
    for (const [panel, { meshes }] of this.worn) {
      for (const { mesh, layer } of meshes) mesh.material = this.material(layer, panels.includes(panel));
    }
  }

  /** Matt paper; what is bought for its pattern shows which way that runs. */
  private material({ step, stock, upWhenOpen }: DressedLayer, marked: boolean): MeshLambertMaterial {
    const patterned = stock.kind === 'paper' && stock.goodSides === 1;
    const key = `${step}/${patterned ? upWhenOpen : ''}/${marked}`;
    const known = this.materials.get(key);
    if (known) return known;
    const { paper, motif } = LAYER_PAPERS[(step - 1) % LAYER_PAPERS.length]!;
    const material = new MeshLambertMaterial(patterned ? { map: patternOf(paper, motif, upWhenOpen) } : { color: paper });
    if (marked) material.emissive.set(MARKED);
    material.emissiveIntensity = 0.55;
    this.materials.set(key, material);
    return material;
  }
}

/** Small caps on their stalks, standing the way that is up. */
function patternOf(paper: string, motif: string, up: Up): CanvasTexture {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = DOTS;
  const pen = canvas.getContext('2d');
  if (pen) {
    pen.fillStyle = paper;
    pen.fillRect(0, 0, DOTS, DOTS);
    pen.fillStyle = motif;
    for (const [x, y] of [
      [0.28, 0.36],
      [0.78, 0.86],
    ] as const) {
      pen.beginPath();
      pen.arc(x * DOTS, y * DOTS, 0.15 * DOTS, Math.PI, 0);
      pen.closePath();
      pen.fill();
      pen.fillRect((x - 0.035) * DOTS, y * DOTS, 0.07 * DOTS, 0.13 * DOTS);
    }
  }
  const texture = new CanvasTexture(canvas);
  texture.wrapS = texture.wrapT = RepeatWrapping;
  texture.colorSpace = SRGBColorSpace;
  texture.repeat.set(1 / MOTIF, 1 / MOTIF);
  texture.rotation = -TURN[up];
  return texture;
}

function shapeOf({ area }: DressedLayer): Shape {
  const draw = <P extends Path>(path: P, [first, ...rest]: readonly (readonly [number, number])[]): P => {
    path.moveTo(first![0], first![1]);
    for (const [x, y] of rest) path.lineTo(x, y);
    path.closePath();
    return path;
  };
  const shape = draw(new Shape(), area.outer);
  shape.holes = area.holes.map((hole) => draw(new Path(), hole));
  return shape;
}
