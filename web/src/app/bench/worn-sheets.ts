import {
  imageCorners,
  areasOf as lettersWithHoles,
  boxOf,
  inkOn,
  isClear,
  place,
  shadeHex,
  type Area,
  type Box,
  type Dressed,
  type Loop,
  type DressedLayer,
  type OwnImage,
  type PlacedTopper,
  type TopperSheet,
} from '@diptychon/core';
import {
  CanvasTexture,
  DoubleSide,
  ExtrudeGeometry,
  Mesh,
  MeshLambertMaterial,
  RepeatWrapping,
  ShapeGeometry,
  SRGBColorSpace,
  TextureLoader,
  type BufferGeometry,
  type Object3D,
  type Texture,
} from 'three';
import { imageAddress } from '../fields/image-address';
import { bowOf } from './bow';
import { shapeOf } from './shape-of';
import { RIBBON } from './wraps';

/** Papers of layers by how many lie under one, the motif printed on them a little darker. */
const LAYER_PAPERS = [
  { paper: '#8a9a6a', motif: '#6f8052' },
  { paper: '#e8d6a6', motif: '#d3b978' },
  { paper: '#76868f', motif: '#5d6c75' },
] as const;
/** Papers of toppers, one after the other. */
const TOPPER_PAPERS = ['#d9903a', '#f1e6cc', '#8c6f56', '#6a7a86'] as const;
const FOAM = '#f6f2e8';
/** How thick ink is drawn. */
const INK = 0.04;
const RIBBON_DRAWN = 0.4;
const BLANK = '#e9e2d2';
const FILM = '#cfe0e6';
const CLEAR = 0.4;
/** Papers behind a topper are called a, b, c. */
const BEFORE_A = 'a'.charCodeAt(0) - 1;
const MARKED = '#c2492c';
/** A motif is so large on the paper (mm), and so large in its picture (dots). */
const MOTIF = 13;
const DOTS = 96;
/** What is drawn thinner than this vanishes at arm's length. */
const LEAST_DRAWN = 0.3;

type Up = DressedLayer['upWhenOpen'];
const TURN: Readonly<Record<Up, number>> = { top: 0, left: Math.PI / 2, bottom: Math.PI, right: -Math.PI / 2 };

/** A flat thing as it is drawn: its outline, and from where to where it reaches over the middle of its panel's sheet. */
interface Slab {
  outer: readonly (readonly [number, number])[];
  holes: readonly (readonly (readonly [number, number])[])[];
  from: number;
  thick: number;
  paper: string;
  motif?: string;
  up?: Up;
  /** the picture that is printed on it, and what carries places of the panel to shares of that: a, b, c and d, e, f */
  image?: { address: string; matrix: readonly number[] };
  /** what is behind shows through */
  clear?: true;
  /** the topper that it is */
  topper?: string;
}

/** What of a card's dressing goes where its panels go. */
export type WornByPanels = Pick<Dressed, 'layers' | 'toppers' | 'magnets' | 'ribbons' | 'sides'> & {
  /** pictures that may be printed on toppers */
  images?: readonly OwnImage[] | undefined;
};

interface WornMesh {
  mesh: Mesh<BufferGeometry, MeshLambertMaterial>;
  slab: Slab;
}

/** What panels wear, drawn on their sheets: each goes where its panel goes. */
export class WornSheets {
  /** @param loaded what to do when a picture has come that is to be seen */
  constructor(private readonly loaded: () => void = () => undefined) {}

  private readonly materials = new Map<string, MeshLambertMaterial>();
  private readonly worn = new Map<string, { key: string; meshes: WornMesh[] }>();

  /**
   * Lays what a panel wears on its sheet; what is as before stays.
   * @param half of the sheet's drawn thickness  @returns how thick all of it is drawn, both faces together
   */
  dress(panel: string, sheet: Object3D, half: number, dressed: WornByPanels): number {
    const { slabs, thick } = slabsOn(panel, half, dressed);
    const key = JSON.stringify(slabs);
    const known = this.worn.get(panel);
    if (known?.key === key && known.meshes.every(({ mesh }) => mesh.parent === sheet)) return thick;
    this.strip(panel);
    const meshes = slabs.map((slab): WornMesh => {
      const geometry = geometryOf(slab);
      const mesh = new Mesh(geometry, this.material(slab, false));
      mesh.castShadow = mesh.receiveShadow = true;
      if (slab.topper !== undefined) mesh.userData = { topper: slab.topper };
      sheet.add(mesh);
      return { mesh, slab };
    });
    if (meshes.length > 0) this.worn.set(panel, { key, meshes });
    return thick;
  }

  /** A picture as it lies on its panel: what is drawn of it is read off in places of that. */
  private pictureOf({ address, matrix }: NonNullable<Slab['image']>): Texture {
    const texture = new TextureLoader().load(address, this.loaded);
    texture.colorSpace = SRGBColorSpace;
    texture.anisotropy = 4;
    texture.matrixAutoUpdate = false;
    const [a, b, c, d, e, f] = matrix as [number, number, number, number, number, number];
    texture.matrix.set(a, b, c, d, e, f, 0, 0, 1);
    return texture;
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
      for (const { mesh, slab } of meshes) mesh.material = this.material(slab, panels.includes(panel));
    }
  }

  /** Matt paper; what is bought for its pattern shows which way that runs. */
  private material({ paper, motif, up, clear, image }: Slab, marked: boolean): MeshLambertMaterial {
    const key = `${paper}/${motif ?? ''}/${motif ? up! : ''}/${clear ?? false}/${image ? JSON.stringify(image) : ''}/${marked}`;
    const known = this.materials.get(key);
    if (known) return known;
    const material = new MeshLambertMaterial(
      image
        ? { map: this.pictureOf(image), transparent: true, side: DoubleSide, polygonOffset: true, polygonOffsetFactor: -1 }
        : motif && up
          ? { map: patternOf(paper, motif, up) }
          : { color: paper },
    );
    if (clear) Object.assign(material, { transparent: true, opacity: CLEAR, depthWrite: false });
    if (marked) material.emissive.set(MARKED);
    material.emissiveIntensity = 0.55;
    this.materials.set(key, material);
    return material;
  }
}

/** A sheet with its edge; a picture is only its face, outermost: an edge has nothing of it. */
function geometryOf(slab: Slab): BufferGeometry {
  const { from, thick, image } = slab;
  if (image) return new ShapeGeometry(shapeOf(slab)).translate(0, 0, from < 0 ? from : from + thick);
  return new ExtrudeGeometry(shapeOf(slab), { depth: thick, bevelEnabled: false }).translate(0, 0, from);
}

/** The face of a panel that is seen first: there a ribbon round it is tied. */
const tiedOn = (panel: string, sides: Dressed['sides']): 'up' | 'down' =>
  (sides.find((side) => side.panel === panel && side.shows.includes('closed')) ?? sides.find((side) => side.panel === panel))?.face ?? 'up';

/** Everything on both faces of a panel, from its sheet outward. */
function slabsOn(
  panel: string,
  half: number,
  { layers, toppers, magnets, ribbons, sides, images = [] }: WornByPanels,
): { slabs: Slab[]; thick: number } {
  const slabs: Slab[] = [];
  let thick = 0;
  for (const face of ['up', 'down'] as const) {
    // On the lower face everything grows the other way.
    const at = (over: number, height: number): number => (face === 'up' ? half + over : -half - over - height);
    let over = 0;
    // Blank layers under everything lift what lies on them; what hides a magnet is drawn as high as they are.
    for (const { blanks, covers, stock } of magnets) {
      for (const each of [...blanks, ...covers].filter((worn) => worn.panel === panel && worn.face === face)) {
        slabs.push({
          ...each.area,
          from: at(over, each.thickness),
          thick: each.thickness,
          paper: stock.shade ? shadeHex(stock.shade) : BLANK,
        });
        over += each.thickness;
      }
    }
    for (const step of [1, 2, 3, 4]) {
      const own = layers.filter((layer) => layer.panel === panel && layer.face === face && layer.step === step);
      for (const layer of own) slabs.push(layerSlab(layer, at(over, drawn(layer))));
      over += Math.max(0, ...own.map(drawn));
    }
    // Toppers glued on others lie on them.
    const below: { box: Box; top: number }[] = [];
    const highest = toppers.reduce((most, placed, i) => {
      if (placed.panel !== panel || placed.face !== face) return most;
      const box = boxOf(placed.whole.flatMap(({ outer }) => outer));
      const lies = Math.max(0, ...below.filter((other) => meet(box, other.box)).map(({ top }) => top));
      const foam = placed.pads.length > 0 ? placed.topper.foam! : 0;
      for (const pad of placed.pads) slabs.push({ outer: pad, holes: [], from: at(over + lies, foam), thick: foam, paper: FOAM });
      const height = placed.times * drawn(placed);
      let lift = over + lies + foam;
      for (const sheet of placed.under.filter((each) => each.face === face)) {
        // A twin lies behind the rest where nothing else does; all others lift what is on them.
        const thick = drawn(sheet);
        slabs.push(sheetSlab(sheet, at(sheet.as === 'twin' ? lift - thick : lift, thick), thick, placed.topper.id, i));
        const printed = sheet.as === 'twin' && pictureOn(sheet, images);
        if (printed)
          slabs.push({ ...sheet.area, from: at(lift - thick - INK, INK), thick: INK, paper: '', image: printed, topper: placed.topper.id });
        if (sheet.as !== 'twin') lift += thick;
      }
      below.push({ box, top: lift - over + height });
      slabs.push({
        ...placed.area,
        from: at(lift, height),
        thick: height,
        paper: placed.stock.shade ? shadeHex(placed.stock.shade) : TOPPER_PAPERS[i % TOPPER_PAPERS.length]!,
        topper: placed.topper.id,
      });
      const picture = pictureOn(placed, images);
      if (picture)
        slabs.push({ ...placed.area, from: at(lift + height, INK), thick: INK, paper: '', image: picture, topper: placed.topper.id });
      // Letters are a breath of ink on top.
      for (const letter of areasOf(placed.greeting?.onPanel ?? [], placed.face))
        slabs.push({
          ...letter,
          from: at(lift + height + (picture ? INK : 0), INK),
          thick: INK,
          paper: inkOn(placed.stock),
          topper: placed.topper.id,
        });
      return Math.max(most, lift - over + height);
    }, 0);
    // Through clear film a twin of what is on the other face is seen on this one.
    for (const [i, { topper, under, face: seen }] of toppers.entries()) {
      for (const twin of under.filter((each) => each.panel === panel && each.face === face && seen !== face)) {
        slabs.push(sheetSlab(twin, at(over, drawn(twin)), drawn(twin), topper.id, i));
        const printed = pictureOn(twin, images);
        if (printed)
          slabs.push({ ...twin.area, from: at(over + drawn(twin), INK), thick: INK, paper: '', image: printed, topper: topper.id });
      }
    }
    // A ribbon round this panel lies over all of it, on both faces; its bow on what is seen first.
    const tied = ribbons.filter((ribbon) => ribbon.panel?.id === panel);
    for (const ribbon of tied) {
      const { minX, maxX, minY, maxY } = ribbon.panel!.lies;
      const strip = [
        [minX, minY],
        [maxX, minY],
        [maxX, maxY],
        [minX, maxY],
      ] as const;
      slabs.push({ outer: strip, holes: [], from: at(over + highest, RIBBON_DRAWN), thick: RIBBON_DRAWN, paper: RIBBON });
      if (face !== tiedOn(panel, sides)) continue;
      const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2];
      const moved = (points: Slab['outer']): Slab['outer'] => points.map(([px, py]) => [px + x, py + y] as const);
      for (const part of bowOf(ribbon))
        slabs.push({
          outer: moved(part.outer),
          holes: part.holes.map(moved),
          from: at(over + highest + RIBBON_DRAWN, part.thick),
          thick: part.thick,
          paper: RIBBON,
        });
    }
    thick += over + highest + (tied.length > 0 ? RIBBON_DRAWN : 0);
  }
  return { slabs, thick };
}

/** Letters with the holes in them; on the lower face they are seen from behind, and run the other way. */
function areasOf(loops: readonly Loop[], face: 'up' | 'down'): Area[] {
  return lettersWithHoles(face === 'up' ? loops : loops.map((loop) => [...loop].reverse()));
}

const meet = (a: Box, b: Box): boolean => a.minX < b.maxX && b.minX < a.maxX && a.minY < b.maxY && b.minY < a.maxY;

/** The picture of a topper, or of its twin, and what carries places of its panel to shares of that picture, from its lower left corner. */
function pictureOn({ sheet, placement }: PlacedTopper | TopperSheet, images: readonly OwnImage[]): Slab['image'] {
  const { image } = sheet.piece;
  const own = images.find(({ id }) => id === image?.of);
  if (!image || !own) return undefined;
  const [lowLeft, lowRight, upLeft] = imageCorners(image);
  const [[ox, oy], [rx, ry], [ux, uy]] = [place(lowLeft, placement), place(lowRight, placement), place(upLeft, placement)];
  const [ax, ay, bx, by] = [rx - ox, ry - oy, ux - ox, uy - oy];
  const whole = ax * by - bx * ay;
  const [a, b, d, e] = [by / whole, -bx / whole, -ay / whole, ax / whole];
  return { address: imageAddress(own), matrix: [a, b, -(a * ox + b * oy), d, e, -(d * ox + e * oy)] };
}

/** A paper behind a topper, its film or its twin. @param nth of the topper */
function sheetSlab(sheet: TopperSheet, from: number, thick: number, topper: string, nth: number): Slab {
  const { area, stock, as, number } = sheet;
  if (isClear(stock)) return { ...area, from, thick, paper: FILM, clear: true, topper };
  // Papers behind it are seen as other papers, its twin as the same.
  const paper = as === 'backing' ? nth + number.charCodeAt(number.length - 1) - BEFORE_A : nth;
  return { ...area, from, thick, paper: stock.shade ? shadeHex(stock.shade) : TOPPER_PAPERS[paper % TOPPER_PAPERS.length]!, topper };
}

const drawn = ({ stock }: DressedLayer | PlacedTopper | TopperSheet): number => Math.max(LEAST_DRAWN, stock.caliper);

function layerSlab({ area, step, stock, upWhenOpen }: DressedLayer, from: number): Slab {
  const { paper, motif } = LAYER_PAPERS[(step - 1) % LAYER_PAPERS.length]!;
  const patterned = stock.kind === 'paper' && stock.goodSides === 1;
  return {
    ...area,
    from,
    thick: Math.max(LEAST_DRAWN, stock.caliper),
    paper: stock.shade ? shadeHex(stock.shade) : paper,
    ...(patterned && { motif, up: upWhenOpen }),
  };
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
