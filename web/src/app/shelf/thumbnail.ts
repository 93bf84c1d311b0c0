import { Component, computed, input } from '@angular/core';
import { carry, frameBetween, poseOf, type Evaluation, type Vec3 } from '@diptychon/core';
import { paintingOrder } from './painting-order';

const PAPER: Record<string, [number, number, number]> = {
  base: [239, 228, 203],
  mechanism: [226, 165, 68],
  display: [172, 188, 136],
  stop: [140, 111, 86],
};
const LIGHT: Vec3 = [0.35, 0.45, 0.82];

interface Facet {
  path: string;
  fill: string;
}

const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const unit = (a: Vec3): Vec3 => {
  const length = Math.hypot(...a);
  return [a[0] / length, a[1] / length, a[2] / length];
};
const cross = (a: Vec3, b: Vec3): Vec3 => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];

/** The standing card as flat facets seen from where a person stands, far ones first; and the box round them. */
export function facetsOf(evaluation: Evaluation): { facets: Facet[]; box: string } {
  const { design, motion } = evaluation;
  const { up, viewFrom, at } = design.base.rest;
  const pose = poseOf(motion, frameBetween(motion, at));
  const toward = unit(viewFrom as Vec3);
  const right = unit(cross(up as Vec3, toward));
  const above = cross(toward, right);
  const box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  const facets = design.panels.map((panel, body): Facet => {
    const m = pose[body]!;
    const corners = panel.area.outer.map(([x, y]) => carry(m, x, y, 0));
    const flat = corners.map((p): [number, number] => [dot(p, right), -dot(p, above)]);
    for (const [x, y] of flat) {
      box.minX = Math.min(box.minX, x);
      box.minY = Math.min(box.minY, y);
      box.maxX = Math.max(box.maxX, x);
      box.maxY = Math.max(box.maxY, y);
    }
    const shade = 0.72 + 0.28 * Math.abs(dot(unit([m[2]!, m[6]!, m[10]!]), unit(LIGHT)));
    const colour = PAPER[panel.piece.stock]!.map((c) => Math.round(c * shade));
    return {
      path: `M${flat.map((p) => p.map((n) => n.toFixed(1)).join(' ')).join('L')}Z`,
      fill: `rgb(${colour.join(' ')})`,
    };
  });
  const margin = 6;
  return {
    facets: paintingOrder(evaluation, pose, toward).map((body) => facets[body]!),
    box: [box.minX - margin, box.minY - margin, box.maxX - box.minX + 2 * margin, box.maxY - box.minY + 2 * margin]
      .map((n) => n.toFixed(1))
      .join(' '),
  };
}

/** A small picture of the standing card. */
@Component({
  selector: 'dip-thumbnail',
  template: `
    <svg [attr.viewBox]="drawn().box" aria-hidden="true">
      @for (facet of drawn().facets; track $index) {
        <path [attr.d]="facet.path" [attr.fill]="facet.fill" />
      }
    </svg>
  `,
  styles: `
    :host,
    svg {
      display: block;
      width: 100%;
      height: 100%;
    }
    path {
      stroke: #6b5f49;
      stroke-width: 0.5;
      stroke-linejoin: round;
    }
  `,
})
export class Thumbnail {
  readonly evaluation = input.required<Evaluation>();
  protected readonly drawn = computed(() => facetsOf(this.evaluation()));
}
