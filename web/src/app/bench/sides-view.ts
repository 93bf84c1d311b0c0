import { Component, computed, input } from '@angular/core';
import { standingPicture, whatShows, type Evaluation, type SeenFace } from '@diptychon/core';

/** Which face of the sheet is seen where: closed, half open and open. Two-sided card is laid by this. */
@Component({
  selector: 'dip-sides-view',
  template: `
    <div class="moments">
      @for (moment of moments(); track moment.title) {
        <figure>
          <svg [attr.viewBox]="moment.box" aria-hidden="true">
            @for (facet of moment.facets; track facet.panel) {
              <path [attr.d]="facet.path" [class]="facet.face" [attr.fill-opacity]="facet.opacity" fill-rule="evenodd" />
            }
          </svg>
          <figcaption>
            <strong>{{ moment.title }}</strong>
            @for (line of moment.lines; track $index) {
              <span>{{ line }}</span>
            }
          </figcaption>
        </figure>
      }
    </div>
    <p class="key">
      <i class="up"></i>the face drawn up <i class="down"></i>its other face. What is seen less than a tenth is left out of the list.
    </p>
  `,
  styleUrl: './sides-view.scss',
})
export class SidesView {
  readonly evaluation = input.required<Evaluation>();

  protected readonly moments = computed(() => {
    const known = this.evaluation();
    const shows = whatShows(known.design, known.motion, known.closed);
    const { at } = known.design.base.rest;
    return [
      this.moment('Closed, from the front', 0, shows.closed.front),
      this.moment('Half open', at / 2, shows.half.front),
      this.moment('Open', at, shows.open.front),
    ];
  });

  private moment(title: string, s: number, seen: readonly SeenFace[]) {
    const { facets, box } = standingPicture(this.evaluation(), s);
    const lines = seen
      .filter(({ share }) => share >= 0.1)
      .map(
        ({ name, face, share }) =>
          `${name}: ${face === 'up' ? 'upper' : 'other'} face${share < 0.95 ? `, ${Math.round(share * 100)} % of it` : ''}`,
      );
    return { title, facets, lines, box: [box.x, box.y, box.width, box.height].map((n) => n.toFixed(1)).join(' ') };
  }
}
