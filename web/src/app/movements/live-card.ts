import { Component, computed, inject, input, OnDestroy, output, signal } from '@angular/core';
import type { Mechanism, Notation } from '@diptychon/core';
import { NumberText } from '../bench/number-text';
import type { CardPictures } from '../evaluation/evaluation.worker';
import { Preferences } from '../frame/preferences';

/** A card opens in this time, rests, and closes again. */
const OPEN_MS = 1600;
const REST_MS = 900;
const EFFORT = { easy: 1, medium: 2, hard: 3 } as const;

/** One movement as a little card: it opens while it is pointed at or focused. */
@Component({
  selector: 'dip-live-card',
  imports: [NumberText],
  template: `
    <article [attr.aria-label]="mechanism().name">
      <button
        type="button"
        class="picture"
        [attr.aria-label]="'Start ' + mechanism().name"
        (click)="begin.emit()"
        (pointerenter)="open()"
        (pointerleave)="close()"
        (focus)="open()"
        (blur)="close()"
      >
        @if (picture(); as shown) {
          <svg [attr.viewBox]="box()" aria-hidden="true">
            @for (facet of shown.facets; track facet.panel) {
              <path [attr.d]="facet.path" [attr.fill]="facet.fill" [attr.fill-opacity]="facet.opacity" fill-rule="evenodd" />
            }
          </svg>
        } @else {
          <span class="wait">Setting it up…</span>
        }
      </button>
      <h3>{{ mechanism().name }}</h3>
      <p class="facts">
        <span class="effort" role="img" [attr.aria-label]="mechanism().difficulty">
          @for (step of [1, 2, 3]; track step) {
            <i [class.filled]="step <= effort()"></i>
          }
        </span>
        {{ mechanism().difficulty }}
        @if (drawn()?.size; as size) {
          <span class="size numerals">
            closed <dip-number [value]="round(size.depth)" [notation]="notation()" /> ×
            <dip-number [value]="round(size.length)" [notation]="notation()" />
          </span>
        }
      </p>
      <p class="says">{{ mechanism().summary }}</p>
      <p class="more"><strong>Needs</strong> {{ mechanism().needs.join(', ') }}.</p>
      <p class="more"><strong>May go wrong</strong> {{ mechanism().mayGoWrong.join('; ') }}.</p>
    </article>
  `,
  styleUrl: './live-card.scss',
})
export class LiveCard implements OnDestroy {
  readonly mechanism = input.required<Mechanism>();
  readonly drawn = input<CardPictures>();
  readonly notation = input.required<Notation>();
  readonly begin = output<void>();
  private readonly preferences = inject(Preferences);
  private handle = 0;
  /** which of the pictures is shown, 0 closed; nothing until it is pointed at: then as it is put down */
  private readonly at = signal<number | undefined>(undefined);

  protected readonly effort = computed(() => EFFORT[this.mechanism().difficulty]);
  protected readonly picture = computed(() => {
    const pictures = this.drawn()?.pictures;
    return pictures?.[this.at() ?? pictures.length - 1];
  });
  /** One frame round all pictures, so that the card does not jump as it opens. */
  protected readonly box = computed(() => {
    const boxes = this.drawn()?.pictures.map((picture) => picture.box) ?? [];
    const [x, y] = [Math.min(...boxes.map((b) => b.x)), Math.min(...boxes.map((b) => b.y))];
    const [right, bottom] = [Math.max(...boxes.map((b) => b.x + b.width)), Math.max(...boxes.map((b) => b.y + b.height))];
    return [x, y, right - x, bottom - y].map((n) => n.toFixed(1)).join(' ');
  });

  ngOnDestroy(): void {
    cancelAnimationFrame(this.handle);
  }

  protected round(mm: number): number {
    return Math.round(mm);
  }

  protected open(): void {
    const count = this.drawn()?.pictures.length ?? 0;
    cancelAnimationFrame(this.handle);
    if (count === 0) return;
    // Without motion the card shows itself half open, which tells the movement best.
    if (this.preferences.reducedMotion) {
      this.at.set(Math.floor(count / 2));
      return;
    }
    const began = performance.now();
    const tick = (now: number): void => {
      this.at.set(pictureAt(now - began, count));
      this.handle = requestAnimationFrame(tick);
    };
    this.handle = requestAnimationFrame(tick);
  }

  protected close(): void {
    cancelAnimationFrame(this.handle);
    this.at.set(undefined);
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
