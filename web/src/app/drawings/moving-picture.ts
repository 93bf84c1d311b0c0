import { ChangeDetectionStrategy, Component, computed, effect, inject, input, OnDestroy, signal } from '@angular/core';
import type { StandingPicture } from '@diptychon/core';
import { Preferences } from '../frame/preferences';

/** A card opens in this time, rests, and closes again. */
const OPEN_MS = 1600;
const REST_MS = 900;

/** A small picture of a card that opens and closes while it plays. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-moving-picture',
  template: `
    @if (picture(); as shown) {
      <svg [attr.viewBox]="box()" aria-hidden="true">
        @for (facet of shown.facets; track $index) {
          <path
            [attr.d]="facet.path"
            [attr.fill]="facet.fill"
            [attr.fill-opacity]="facet.opacity"
            [class.bent]="facet.bent"
            fill-rule="evenodd"
          />
        }
      </svg>
    } @else {
      <span class="wait">Setting it up…</span>
    }
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
    .wait {
      color: var(--ink-soft);
    }
  `,
})
export class MovingPicture implements OnDestroy {
  /** from closed to open; the last one is shown at rest */
  readonly pictures = input<readonly StandingPicture[]>([]);
  readonly playing = input(false);
  private readonly preferences = inject(Preferences);
  private handle = 0;
  private readonly at = signal<number | undefined>(undefined);

  protected readonly picture = computed(() => this.pictures()[this.at() ?? this.pictures().length - 1]);
  /** One frame round all pictures, so that the card does not jump as it opens. */
  protected readonly box = computed(() => {
    const boxes = this.pictures().map((picture) => picture.box);
    const [x, y] = [Math.min(...boxes.map((b) => b.x)), Math.min(...boxes.map((b) => b.y))];
    const [right, bottom] = [Math.max(...boxes.map((b) => b.x + b.width)), Math.max(...boxes.map((b) => b.y + b.height))];
    return [x, y, right - x, bottom - y].map((n) => n.toFixed(1)).join(' ');
  });

  constructor() {
    effect(() => {
      const count = this.pictures().length;
      cancelAnimationFrame(this.handle);
      if (!this.playing() || count === 0) this.at.set(undefined);
      // Without motion the card shows itself half open, which tells the movement best.
      else if (this.preferences.reducedMotion) this.at.set(Math.floor(count / 2));
      else this.play(count);
    });
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.handle);
  }

  private play(count: number): void {
    const began = performance.now();
    const tick = (now: number): void => {
      this.at.set(pictureAt(now - began, count));
      this.handle = requestAnimationFrame(tick);
    };
    this.handle = requestAnimationFrame(tick);
  }
}

/** Which picture is shown after a time: closed to open, a rest, and back, over and over. */
export function pictureAt(ms: number, count: number): number {
  const round = 2 * (OPEN_MS + REST_MS);
  const t = ms % round;
  const share =
    t < OPEN_MS ? t / OPEN_MS : t < OPEN_MS + REST_MS ? 1 : t < 2 * OPEN_MS + REST_MS ? 1 - (t - OPEN_MS - REST_MS) / OPEN_MS : 0;
  return Math.round(share * (count - 1));
}
