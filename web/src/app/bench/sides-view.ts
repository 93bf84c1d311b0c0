import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import type { Evaluation, SeenFace, StandingPicture } from '@diptychon/core';
import type { Sides } from '../evaluation/evaluation-api';
import { Evaluator } from '../evaluation/evaluator';

/** Which face of the sheet is seen where: closed, half open and open. Two-sided card is laid by this. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-sides-view',
  template: `
    <div class="moments" [attr.aria-busy]="!moments().length">
      @for (moment of moments(); track moment.title) {
        <figure>
          <svg [attr.viewBox]="moment.box" aria-hidden="true">
            @for (facet of moment.facets; track $index) {
              <path
                [attr.d]="facet.path"
                [class]="facet.face"
                [class.bent]="facet.bent"
                [attr.fill-opacity]="facet.opacity"
                fill-rule="evenodd"
              />
            }
          </svg>
          <figcaption>
            <strong>{{ moment.title }}</strong>
            @for (line of moment.lines; track $index) {
              <span>{{ line }}</span>
            }
          </figcaption>
        </figure>
      } @empty {
        <p role="status">Looking from all sides…</p>
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
  private readonly evaluator = inject(Evaluator);
  private readonly sides = signal<Sides | undefined>(undefined);

  protected readonly moments = computed(() => {
    const known = this.sides();
    if (!known) return [];
    const { shows, closed, half, open } = known;
    return [
      momentOf('Closed, from the front', closed, shows.closed.front),
      momentOf('Half open', half, shows.half.front),
      momentOf('Open', open, shows.open.front),
    ];
  });

  constructor() {
    effect(() => {
      const { card } = this.evaluation().design;
      void this.evaluator.sides(card).then((sides) => {
        if (sides && this.evaluation().design.card === card) this.sides.set(sides);
      });
    });
  }
}

function momentOf(title: string, { facets, box }: StandingPicture, seen: readonly SeenFace[]) {
  const lines = seen
    .filter(({ share }) => share >= 0.1)
    .map(
      ({ name, face, share }) =>
        `${name}: ${face === 'up' ? 'upper' : 'other'} face${share < 0.95 ? `, ${Math.round(share * 100)} % of it` : ''}`,
    );
  return { title, facets, lines, box: [box.x, box.y, box.width, box.height].map((n) => n.toFixed(1)).join(' ') };
}
