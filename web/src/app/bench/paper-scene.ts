import {
  caliperOf,
  claimsOf,
  frameBetween,
  isClear,
  poseOf,
  stackOpen,
  stockOf,
  type Evaluation,
  type Panel,
  type Pose,
  type Rigid,
  type BentRow,
  type Dressed,
  type StepMotion,
} from '@diptychon/core';
import {
  AmbientLight,
  Box3,
  BufferGeometry,
  DirectionalLight,
  EdgesGeometry,
  ExtrudeGeometry,
  Group,
  HemisphereLight,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Mesh,
  PCFShadowMap,
  PerspectiveCamera,
  PlaneGeometry,
  Quaternion,
  Scene,
  ShadowMaterial,
  Vector3,
  WebGLRenderer,
} from 'three';
import { BentSheets } from './bent-sheets';
import { drawingPlace } from './drawing-place';
import { Papers, paperOf, type PaperMaterial } from './papers';
import { LayerGaps } from './layer-gaps';
import { TopperDrag, type SceneDrag } from './scene-drag';
import { shapeOf } from './shape-of';
import { WornSheets, type WornByPanels } from './worn-sheets';
import { Wraps } from './wraps';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';

export type ViewName = 'stand' | 'side' | 'above';

/** Sheets drawn thinner than this vanish at arm's length. */
const LEAST_DRAWN = 0.45;

/** How much higher than the card’s middle the view is aimed, as a share of its size. */
const HEADROOM = 0.06;
/** Dots drawn across for each dot of the page where the processor draws: while a card moves, and once it stands still. */
const COARSE = 0.5;
const SMOOTH = 1.5;
/** A card that was not changed for this long (ms) stands still. */
const STILL_AFTER = 400;
/** What is wrapped round the closed card is on it below this point of the drive. */
const CLOSED_BELOW = 1e-3;
const NOT_WRAPPED = { bands: [], ribbons: [] };
/** Below this opening (radians) a stop is drawn flatter than it is. */
const PRESSED_BELOW = 0.2;

let shared: PaperScene | undefined;

/**
 * The one scene of this page, which goes from screen to screen: a browser gives a page only so many drawing contexts, and
 * making ready for one takes longer than drawing.
 * @throws Error when the browser has no WebGL
 */
export const sharedScene = (): PaperScene => (shared ??= new PaperScene());

/** Draws a card as paper on a table. Draws only when something changed. */
export class PaperScene {
  private readonly canvas: HTMLCanvasElement;
  private readonly renderer: WebGLRenderer;
  private host: HTMLElement | undefined;
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(32, 1, 1, 5000);
  private readonly controls: OrbitControls;
  private readonly toppers: TopperDrag;
  private readonly card = new Group();
  private readonly table: Mesh<BufferGeometry, ShadowMaterial>;
  private readonly sun = new DirectionalLight('#fff6e6', 2.1);
  /** one for each panel of the card */
  private sheets: Sheet[] = [];
  private readonly papers = new Papers();
  private readonly bentSheets: BentSheets;
  private readonly worn = new WornSheets(() => this.repaint());
  private readonly wraps = new Wraps(this.card);
  private gaps: { closed: LayerGaps; open: LayerGaps } | undefined;
  private thickness: number[] = [];
  private evaluation: Evaluation | undefined;
  private framed = '';
  private partly: Partly | undefined;
  private queued = false;
  /** dots drawn for each dot of the page: once the card stands still, and while it moves */
  private readonly fine: number;
  private readonly inMotion: number;
  private still: ReturnType<typeof setTimeout> | undefined;

  /** @throws Error when the browser has no WebGL */
  constructor() {
    const { canvas, context, slow } = drawingPlace();
    this.canvas = canvas;
    canvas.className = 'paper-scene';
    canvas.tabIndex = -1;
    canvas.setAttribute('aria-hidden', 'true');
    this.fine = slow ? SMOOTH : Math.min(2, devicePixelRatio);
    this.inMotion = slow ? COARSE : this.fine;
    this.renderer = new WebGLRenderer({ canvas, context, alpha: true });
    this.renderer.setPixelRatio(this.fine);
    this.renderer.shadowMap.enabled = true;
    this.renderer.shadowMap.type = PCFShadowMap;
    // A shadow changes with the card, not with where it is looked at from.
    this.renderer.shadowMap.autoUpdate = false;
    canvas.addEventListener('webglcontextrestored', () => this.repaint(true));
    this.table = new Mesh(new PlaneGeometry(1, 1), new ShadowMaterial({ opacity: 0.22 }));
    this.table.receiveShadow = true;
    this.table.rotation.x = -Math.PI / 2;
    this.sun.castShadow = true;
    this.sun.shadow.mapSize.set(slow ? 512 : 1024, slow ? 512 : 1024);
    // In dots of the map: as soft in mm either way, and no softer than the paper is kept off its own shadow.
    this.sun.shadow.radius = slow ? 3 : 6;
    this.sun.shadow.bias = -0.0008;
    this.sun.shadow.normalBias = 2.5;
    this.scene.add(
      new AmbientLight('#ffffff', 0.7),
      new HemisphereLight('#ffffff', '#c9b795', 1.1),
      this.sun,
      this.sun.target,
      this.table,
      this.card,
    );
    this.card.matrixAutoUpdate = false;
    this.bentSheets = new BentSheets(this.card);
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.enablePan = false;
    this.controls.addEventListener('change', () => this.repaint());
    this.toppers = new TopperDrag(canvas, this.camera, this.card, (held) => (this.controls.enabled = !held));
  }

  /** Goes to another place on the page. */
  moveTo(host: HTMLElement): void {
    this.host = host;
    host.prepend(this.canvas);
    this.framed = '';
  }

  /** Leaves a place, unless it went elsewhere already; what was drawn there is given back. */
  leave(host: HTMLElement): void {
    if (this.host !== host) return;
    this.host = undefined;
    this.toppers.leave();
    this.canvas.remove();
    for (const sheet of this.sheets) this.remove(sheet);
    this.sheets = [];
    this.wraps.clear();
    this.bentSheets.clear();
    this.evaluation = undefined;
    this.renderer.renderLists.dispose();
  }

  /** What toppers do that are dragged; they stay where they are where nothing is given. */
  dragged(drag: SceneDrag | undefined): void {
    this.toppers.drag = drag;
  }

  resize(width: number, height: number): void {
    if (width === 0 || height === 0) return;
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.repaint();
  }

  /** Lays out the panels of a card; those that are as before stay. The view is kept unless it is another card. */
  build(evaluation: Evaluation): void {
    this.evaluation = evaluation;
    const { design } = evaluation;
    this.gaps = gapsOf(evaluation);
    this.thickness = design.panels.map((panel) => Math.max(LEAST_DRAWN, caliperOf(design, panel.piece)));
    const before = new Map(this.sheets.map((sheet) => [sheet.panel, sheet]));
    this.sheets = design.panels.map((panel, body) => {
      const known = before.get(panel.id);
      before.delete(panel.id);
      const paper = paperOf(panel.piece.stock, stockOf(design, panel.piece));
      return this.laid(known, panel, this.thickness[body]!, paper, isClear(stockOf(design, panel.piece)));
    });
    for (const sheet of before.values()) this.remove(sheet);
    this.sheets.forEach(({ mesh, panel }, body) => {
      this.thickness[body]! += this.worn.dress(panel, mesh, this.thickness[body]! / 2, {
        ...wornBy(evaluation.dressed, this.partly?.wears),
        images: design.card.images,
      });
    });
    this.wraps.take(this.partly ? NOT_WRAPPED : evaluation.dressed);
    this.placeShown();
    this.standUp();
    const { minX, maxX, minY, maxY } = evaluation.closed.box;
    const kind = `${design.card.id}/${Math.round(maxX - minX)}×${Math.round(maxY - minY)}`;
    if (this.framed !== kind) {
      this.framed = kind;
      this.pose(design.base.rest.at);
      this.look('stand');
    }
  }

  /** Shows only some panels of the card, or stands it another way; all of it as it rests where nothing is given. */
  only(partly: Partly | undefined): void {
    if (!this.evaluation) return;
    if (partly === this.partly) return;
    this.partly = partly;
    this.build(this.evaluation);
    this.placeShown();
    this.standUp();
    this.look('stand');
  }

  /** What is not shown is not in the way of looking at the rest either. */
  private placeShown(): void {
    const shown = this.partly?.panels;
    for (const { mesh, panel } of this.sheets) {
      if (!shown || shown.includes(panel)) this.card.add(mesh);
      else this.card.remove(mesh);
    }
  }

  private get stand(): Pick<Evaluation['design']['base']['rest'], 'up' | 'viewFrom'> {
    return this.partly?.stands ?? this.evaluation!.design.base.rest;
  }

  /** How the panels lie that bend; until it is known they are not drawn on the way. */
  bend(rows: readonly BentRow[] | undefined, closing: boolean): void {
    if (!this.evaluation) return;
    const { design } = this.evaluation;
    this.bentSheets.take(
      (rows ?? []).map((row) => {
        const { piece } = design.panels[design.linkage.bodyOf.get(row.claim.panels[0]!)!]!;
        return { row, colour: paperOf(piece.stock, stockOf(design, piece)) };
      }),
      closing,
    );
  }

  /** The point of the drive that it is opened to. */
  at = 0;

  /** The drawing as it is now, finely drawn: its dots are there until this turn ends. Nothing while it is on no page. */
  shown(): HTMLCanvasElement | undefined {
    if (!this.host || !this.evaluation) return undefined;
    this.draw(this.fine);
    return this.canvas;
  }

  /** Opens the card to a point of its drive. @param placed where its panels are instead, near the open card */
  pose(s: number, placed?: Pose): void {
    if (!this.evaluation) return;
    this.at = s;
    // At both ends what bends lies flat, like any other panel.
    const onTheWay = s > 0 && s < 1;
    const bending = new Set(claimsOf(this.evaluation.design, 'bends').flatMap(({ panels }) => panels));
    for (const { mesh, panel } of this.sheets) mesh.visible = !(onTheWay && bending.has(panel));
    this.bentSheets.pose(s, onTheWay);
    const { motion, design } = this.evaluation;
    const frame = frameBetween(motion, s);
    // The drawing leaves no room between closing leaves: a raised stop is drawn pressed flat as they meet.
    const pressed = Math.min(1, Math.max(0.05, frame.opening / PRESSED_BELOW));
    const pose = placed ?? poseOf(motion, frame);
    const squeeze = design.panels.map(({ piece }) => (piece.thickness !== undefined ? pressed : 1));
    const offsets = (s > 0.5 ? this.gaps!.open : this.gaps!.closed).offsets(
      pose,
      this.thickness.map((t, body) => t * squeeze[body]!),
    );
    pose.forEach((rigid, body) => {
      const matrix = matrixOf(rigid).multiply(new Matrix4().makeTranslation(0, 0, offsets[body]!));
      matrix.scale(new Vector3(1, 1, squeeze[body]));
      this.sheets[body]?.mesh.matrix.copy(matrix);
    });
    this.wraps.show(
      s < CLOSED_BELOW && !placed,
      this.sheets.map(({ mesh }) => mesh),
    );
    this.card.updateMatrixWorld(true);
    this.repaint(true);
  }

  highlight(panels: readonly string[]): void {
    for (const { mesh, panel, paper, clear } of this.sheets) mesh.material = this.papers.of(paper, clear, panels.includes(panel));
    this.worn.highlight(panels);
    this.repaint();
  }

  look(view: ViewName): void {
    if (!this.evaluation) return;
    const { up, viewFrom } = this.stand;
    const toTable = standing(up);
    const front = new Vector3(...viewFrom).applyQuaternion(toTable).normalize();
    const flat = new Vector3(front.x, 0, front.z).normalize();
    const from =
      view === 'stand'
        ? front
        : view === 'above'
          ? flat
              .clone()
              .multiplyScalar(0.12)
              .add(new Vector3(0, 1, 0))
          : new Vector3(flat.z, 0.12, -flat.x);
    const box = new Box3().setFromObject(this.card, true);
    const size = box.getSize(new Vector3()).length();
    const centre = box.getCenter(new Vector3());
    const distance = (size * 0.5) / Math.tan((this.camera.fov * Math.PI) / 360) / Math.min(1, this.camera.aspect);
    // Above the card there is room for the buttons and words that lie over the drawing.
    const middle = centre.clone().add(new Vector3(0, size * HEADROOM, 0));
    this.controls.target.copy(middle);
    this.camera.position.copy(middle).addScaledVector(from.normalize(), distance * 1.12);
    this.sun.target.position.copy(centre);
    this.sun.position.copy(centre).add(new Vector3(-0.5, 1.4, 0.7).multiplyScalar(size));
    const shadow = this.sun.shadow.camera;
    Object.assign(shadow, { left: -size, right: size, top: size, bottom: -size, near: size * 0.2, far: size * 4 });
    shadow.updateProjectionMatrix();
    // No further than its shadow can fall: every dot of the table is looked up in the shadow's map.
    this.table.scale.setScalar(size * 3);
    this.table.position.x = centre.x;
    this.table.position.z = centre.z;
    this.controls.update();
    this.repaint();
  }

  /**
   * Draws at the end of the turn: whatever changed in it is one picture.
   * @param shadows whether the card itself has changed, and its shadow with it
   */
  repaint(shadows = false): void {
    if (shadows) this.renderer.shadowMap.needsUpdate = true;
    if (this.queued) return;
    this.queued = true;
    queueMicrotask(() => {
      this.queued = false;
      this.draw(this.inMotion);
      if (this.inMotion === this.fine) return;
      clearTimeout(this.still);
      this.still = setTimeout(() => this.draw(this.fine), STILL_AFTER);
    });
  }

  /** @param dots drawn for each dot of the page */
  private draw(dots: number): void {
    if (!this.host) return;
    if (this.renderer.getPixelRatio() !== dots) this.renderer.setPixelRatio(dots);
    const dark = document.documentElement.classList.contains('dark');
    this.table.material.opacity = dark ? 0.5 : 0.22;
    this.renderer.render(this.scene, this.camera);
  }

  /** Turns the card so that its resting pose has up at +y, and lays the table under it. */
  private standUp(): void {
    this.card.matrix.makeRotationFromQuaternion(standing(this.stand.up));
    if (this.partly?.start) this.pose(1, this.partly.start);
    else this.pose(this.partly?.at ?? this.evaluation!.design.base.rest.at);
    const box = new Box3().setFromObject(this.card, true);
    this.table.position.y = box.min.y - 0.2;
  }

  /** The sheet of a panel, kept where it is as it was. */
  private laid(known: Sheet | undefined, panel: Panel, thickness: number, paper: string, clear: boolean): Sheet {
    const shape = JSON.stringify([panel.area, thickness]);
    const look = { panel: panel.id, shape, paper, clear };
    if (known?.shape === shape) {
      known.mesh.material = this.papers.of(paper, clear, false);
      known.mesh.castShadow = !clear;
      return { ...known, ...look };
    }
    const geometry = new ExtrudeGeometry(shapeOf(panel.area), { depth: thickness, bevelEnabled: false });
    geometry.translate(0, 0, -thickness / 2);
    partFaces(geometry);
    const edges = new EdgesGeometry(geometry, 30);
    if (known) {
      known.mesh.geometry.dispose();
      known.line.geometry.dispose();
      known.mesh.geometry = geometry;
      known.line.geometry = edges;
      known.mesh.material = this.papers.of(paper, clear, false);
      known.mesh.castShadow = !clear;
      return { ...known, ...look };
    }
    const mesh = new Mesh(geometry, this.papers.of(paper, clear, false));
    const line = new LineSegments(edges, this.papers.line);
    mesh.castShadow = !clear;
    mesh.receiveShadow = true;
    mesh.matrixAutoUpdate = false;
    mesh.add(line);
    this.card.add(mesh);
    return { mesh, line, ...look };
  }

  private remove({ mesh, line, panel }: Sheet): void {
    this.worn.strip(panel);
    this.card.remove(mesh);
    mesh.geometry.dispose();
    line.geometry.dispose();
  }
}

/** What of it is on the card by then. */
function wornBy(dressed: Dressed, wears: StepMotion['wears'] = 'all'): WornByPanels {
  if (wears === 'all') return dressed;
  const { layers, magnets, sides } = dressed;
  const nothing = { layers: [], magnets: [], toppers: [], ribbons: [], sides };
  return wears === 'layers' ? { ...nothing, layers, magnets } : nothing;
}

/** Some panels of a card, as they are looked at first. */
export interface Partly {
  /** all where left out */
  panels?: readonly string[];
  wears: StepMotion['wears'];
  stands?: Pick<Evaluation['design']['base']['rest'], 'up' | 'viewFrom'>;
  /** where they are, or where the card stands on its drive, when it takes most room */
  start?: Pose;
  at?: number;
}

/** A panel as it is drawn. */
interface Sheet {
  panel: string;
  /** outline and thickness, to know it again */
  shape: string;
  paper: string;
  clear: boolean;
  mesh: Mesh<ExtrudeGeometry, PaperMaterial[]>;
  line: LineSegments<EdgesGeometry, LineBasicMaterial>;
}

/** Divides what is drawn of a sheet: its lower face, its edges, its upper face. They come as lower, upper, edges. */
function partFaces(geometry: ExtrudeGeometry): void {
  const [faces, edges] = geometry.groups;
  const one = faces!.count / 2;
  geometry.clearGroups();
  geometry.addGroup(faces!.start, one, 0);
  geometry.addGroup(faces!.start + one, one, 1);
  geometry.addGroup(edges!.start, edges!.count, 1);
}

/** Room between layers: as they lie closed, and on the way to a card that lies flat open as they lie there. */
function gapsOf(evaluation: Evaluation): { closed: LayerGaps; open: LayerGaps } {
  const { motion } = evaluation;
  const { frames } = motion;
  const closed = new LayerGaps(evaluation, poseOf(motion, frames[0]!), evaluation.closed.stack);
  const stack = stackOpen(motion);
  return { closed, open: stack ? new LayerGaps(evaluation, poseOf(motion, frames[frames.length - 1]!), stack) : closed };
}

function standing(up: readonly [number, number, number]): Quaternion {
  return new Quaternion().setFromUnitVectors(new Vector3(...up).normalize(), new Vector3(0, 1, 0));
}

function matrixOf(m: Rigid): Matrix4 {
  return new Matrix4().set(m[0]!, m[1]!, m[2]!, m[3]!, m[4]!, m[5]!, m[6]!, m[7]!, m[8]!, m[9]!, m[10]!, m[11]!, 0, 0, 0, 1);
}
