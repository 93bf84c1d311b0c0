import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** How a line of a small drawing is drawn: what is made of paper, how it is folded or cut, what is measured, what is meant. */
export type Stroke = 'paper' | 'valley' | 'mountain' | 'cut' | 'measure' | 'meant' | 'glue';

/** Lines on 96 × 56 units, y down. */
export type SmallDrawing = readonly { as: Stroke; d: string }[];

/** A drawing no larger than a thumb, for what is told beside it in words. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-small-drawing',
  template: `
    <svg viewBox="0 0 96 56" aria-hidden="true">
      @for (line of drawing(); track $index) {
        <path [attr.d]="line.d" [class]="line.as" />
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
    }
    path {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1.4;
    }
    .valley {
      stroke: var(--slate);
      stroke-width: 2;
      stroke-dasharray: 5 3;
    }
    .mountain {
      stroke: var(--chanterelle);
      stroke-width: 2;
      stroke-dasharray: 7 2 1.5 2;
    }
    .cut {
      stroke: var(--rust);
      stroke-width: 2.4;
    }
    .measure {
      stroke: var(--moss);
      stroke-width: 3.2;
    }
    .meant {
      stroke: var(--chanterelle);
      stroke-width: 3.2;
    }
    .glue {
      fill: var(--chanterelle-wash);
      stroke-dasharray: 2 2;
    }
  `,
})
export class DrawnSmall {
  readonly drawing = input.required<SmallDrawing>();
}
