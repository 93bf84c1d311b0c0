import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { StandingPicture } from '@diptychon/core';

/** A small picture of a card. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-thumbnail',
  template: `
    <svg [attr.viewBox]="box()" aria-hidden="true">
      @for (facet of picture().facets; track $index) {
        <path
          [attr.d]="facet.path"
          [attr.fill]="facet.fill"
          [attr.fill-opacity]="facet.opacity"
          [class.bent]="facet.bent"
          fill-rule="evenodd"
        />
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
    path.bent {
      stroke: none;
      shape-rendering: crispEdges;
    }
  `,
})
export class Thumbnail {
  readonly picture = input.required<StandingPicture>();
  protected readonly box = computed(() => {
    const { x, y, width, height } = this.picture().box;
    return [x, y, width, height].map((n) => n.toFixed(1)).join(' ');
  });
}
