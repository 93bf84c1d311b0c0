import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { printAngle, readLength, sayLength, type Notation } from '@diptychon/core/records';

/** A number set for reading: real fractions, tabular figures, and what the mark leaves out. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-number',
  template: `
    @if (unit() === 'rad') {
      {{ angle() }}
    } @else {
      <span class="visually-hidden">{{ said() }}</span>
      @if (printed().off === 0) {
        <!-- prettier-ignore -->
        <span aria-hidden="true" [title]="said()"><span class="set">{{ printed().whole }}@if (printed().numerator) {<span class="fraction"><sup>{{ printed().numerator }}</sup>⁄<sub>{{ printed().denominator }}</sub></span>}<span class="unit">{{ printed().unit }}</span></span></span>
      } @else {
        <!-- prettier-ignore -->
        <span aria-hidden="true"><span class="set">{{ decimals() }}<span class="unit">{{ printed().unit }}</span></span></span>
      }
    }
  `,
  styles: `
    :host {
      font-variant-numeric: tabular-nums lining-nums;
    }
    .set {
      white-space: nowrap;
    }
    .fraction {
      margin-left: 0.1em;
    }
    sup,
    sub {
      font-size: 0.66em;
      line-height: 0;
      letter-spacing: -0.06em;
    }
    .unit {
      margin-left: 0.2em;
      color: var(--ink-soft);
      font-size: 0.85em;
    }
  `,
})
export class NumberText {
  readonly value = input.required<number>();
  readonly unit = input<'mm' | 'rad'>('mm');
  readonly notation = input.required<Notation>();
  protected readonly printed = computed(() => readLength(this.value(), this.notation()));
  protected readonly said = computed(() => sayLength(this.value(), this.notation()));
  protected readonly angle = computed(() => printAngle(this.value(), this.notation()));
  protected readonly decimals = computed(() => this.said().split(' ')[0]!);
}
