import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { CardPictures, Mechanism, Notation } from '@diptychon/core';
import { MovingPicture } from '../drawings/moving-picture';
import { NumberText } from '../fields/number-text';

const EFFORT = { easy: 1, medium: 2, hard: 3 } as const;

/** One movement as a little card: it opens while it is pointed at or focused. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-live-card',
  imports: [MovingPicture, NumberText],
  template: `
    <article [attr.aria-label]="mechanism().name">
      <button
        type="button"
        class="picture"
        [attr.aria-label]="'Start ' + mechanism().name"
        (click)="begin.emit()"
        (pointerenter)="playing.set(true)"
        (pointerleave)="playing.set(false)"
        (focus)="playing.set(true)"
        (blur)="playing.set(false)"
      >
        <dip-moving-picture [pictures]="drawn()?.pictures ?? []" [playing]="playing()" />
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
export class LiveCard {
  readonly mechanism = input.required<Mechanism>();
  readonly drawn = input<CardPictures>();
  readonly notation = input.required<Notation>();
  readonly begin = output<void>();
  protected readonly playing = signal(false);
  protected readonly effort = computed(() => EFFORT[this.mechanism().difficulty]);

  protected round(mm: number): number {
    return Math.round(mm);
  }
}
