import { ChangeDetectionStrategy, Component, effect, inject, input, output, signal } from '@angular/core';
import { parseGrams } from '@diptychon/core';
import { InputText } from 'primeng/inputtext';
import { RefusedFields } from './refused-fields';

/** A label and a weight in grams between two limits; what cannot be is told under it and not taken. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-gram-row',
  imports: [InputText],
  template: `
    <label [for]="fieldId()">{{ label() }}</label>
    <input
      pInputText
      class="numerals"
      type="text"
      autocomplete="off"
      [id]="fieldId()"
      [value]="value()"
      [attr.aria-invalid]="problem() ? true : null"
      [attr.aria-describedby]="fieldId() + '-note'"
      (change)="read($any($event.target).value)"
    />
    <p class="note" [id]="fieldId() + '-note'">{{ problem() }}</p>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 9.5rem;
      gap: 0.1rem 0.6rem;
      align-items: start;
      margin-bottom: 0.55rem;
    }
    label {
      padding-top: 0.45rem;
      font-weight: 500;
      line-height: 1.25;
    }
    input {
      width: 100%;
      text-align: right;
    }
    .note {
      grid-column: 1 / -1;
      margin: 0;
      font-size: 0.85rem;
      font-weight: 600;
      color: var(--rust);
    }
    .note:empty {
      display: none;
    }
  `,
})
export class GramRow {
  readonly fieldId = input.required<string>();
  readonly label = input.required<string>();
  readonly value = input.required<number>();
  readonly limits = input.required<{ min: number; max: number }>();
  readonly given = output<number>();
  protected readonly problem = signal<string | undefined>(undefined);
  private readonly refused = inject(RefusedFields, { optional: true });

  constructor() {
    effect(() => this.refused?.set(this.fieldId(), this.problem() !== undefined));
  }

  protected read(text: string): void {
    const reading = parseGrams(text, this.label());
    const { min, max } = this.limits();
    const isWithin = reading.ok && reading.value >= min && reading.value <= max;
    this.problem.set(
      isWithin
        ? undefined
        : reading.ok
          ? `${this.label()}: “${text.trim()}” does not work; allowed is ${min} g to ${max} g.`
          : reading.problem,
    );
    if (isWithin) this.given.emit(reading.value);
  }
}
