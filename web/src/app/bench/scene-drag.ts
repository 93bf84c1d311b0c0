import type { Point } from '@diptychon/core';
import { Matrix4, Plane, Raycaster, Vector2, Vector3, type Camera, type Object3D } from 'three';

/** What a hand does with the toppers of a card that is drawn in the round. */
export interface SceneDrag {
  /** A topper is taken hold of. @returns whether it is one that may be moved */
  taken: (topper: string) => boolean;
  /** The hand has gone so far over its panel, in the axes of the panel as it is drawn on its piece. */
  moved: (by: Point) => void;
  let: () => void;
}

interface Held {
  pointer: number;
  /** where the hand took it, and how its panel lay then */
  from: Point;
  panel: Object3D;
  over: number;
}

/**
 * Lets toppers be dragged on their panels: a hand that goes down on one moves it over the plane of that panel, at the height
 * where it was taken, as long as it stays down. Anywhere else it turns the view, as without it.
 */
export class TopperDrag {
  drag: SceneDrag | undefined;
  private held: Held | undefined;
  private readonly ray = new Raycaster();

  /** @param holding is told whether one is held: meanwhile the view stays as it is */
  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly camera: Camera,
    private readonly card: Object3D,
    private readonly holding: (held: boolean) => void,
  ) {
    // Before the view is turned by it.
    canvas.addEventListener('pointerdown', (event) => this.down(event), { capture: true });
    canvas.addEventListener('pointermove', (event) => this.move(event), { capture: true });
    for (const kind of ['pointerup', 'pointercancel'] as const) canvas.addEventListener(kind, (event) => this.up(event), { capture: true });
  }

  private down(event: PointerEvent): void {
    if (!this.drag || this.held || event.button !== 0) return;
    const hit = this.topperUnder(event);
    if (!hit || !this.drag.taken(hit.topper)) return;
    const [x, y, over] = [...hit.panel.worldToLocal(hit.point.clone())] as [number, number, number];
    this.held = { pointer: event.pointerId, from: [x, y], panel: hit.panel, over };
    this.canvas.setPointerCapture(event.pointerId);
    this.holding(true);
    this.canvas.style.cursor = 'grabbing';
  }

  private move(event: PointerEvent): void {
    if (!this.drag) return;
    if (!this.held) {
      if (event.buttons === 0 && event.pointerType === 'mouse') this.canvas.style.cursor = this.topperUnder(event) ? 'grab' : '';
      return;
    }
    if (event.pointerId !== this.held.pointer) return;
    event.stopPropagation();
    const at = this.onPanel(event, this.held);
    if (at) this.drag.moved([at[0] - this.held.from[0], at[1] - this.held.from[1]]);
  }

  private up(event: PointerEvent): void {
    if (this.held && event.pointerId === this.held.pointer) this.release();
  }

  /** The drawing goes from its place: nothing is held any more, and nothing there is told of it. */
  leave(): void {
    if (this.held) this.release();
    this.drag = undefined;
  }

  private release(): void {
    this.held = undefined;
    this.canvas.style.cursor = '';
    this.holding(false);
    this.drag?.let();
  }

  /** The topper that is seen under the hand, its panel, and where it is met. */
  private topperUnder(event: PointerEvent): { topper: string; panel: Object3D; point: Vector3 } | undefined {
    this.aim(event);
    const [first] = this.ray.intersectObjects(this.card.children, true).filter(({ object }) => 'isMesh' in object && object.visible);
    const topper: unknown = first?.object.userData['topper'];
    const panel = first?.object.parent;
    return typeof topper === 'string' && panel ? { topper, panel, point: first!.point } : undefined;
  }

  /** Where the hand points to on the plane in which it took a topper; nothing where it looks along it or away from it. */
  private onPanel(event: PointerEvent, { panel, over }: Held): Point | undefined {
    this.aim(event);
    const plane = new Plane(new Vector3(0, 0, 1), -over).applyMatrix4(new Matrix4().copy(panel.matrixWorld));
    const met = this.ray.ray.intersectPlane(plane, new Vector3());
    if (!met) return undefined;
    const { x, y } = panel.worldToLocal(met);
    return [x, y];
  }

  private aim({ clientX, clientY }: PointerEvent): void {
    const { left, top, width, height } = this.canvas.getBoundingClientRect();
    this.ray.setFromCamera(new Vector2((2 * (clientX - left)) / width - 1, 1 - (2 * (clientY - top)) / height), this.camera);
  }
}
