import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { sayLength, type Notation } from '@diptychon/core';
import { LengthField } from './length-field';

/** A length that a row was given: as it was settled, or while it is still being typed. */
export interface GivenLength {
  mm: number;
  /** the field that it is typed into and not left yet */
  typed?: string;
}

/** A label and a length between two limits. Words for a value beyond them are its own. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-length-row',
  imports: [LengthField],
  template: `
    <label [for]="fieldId()">{{ label() }}</label>
    <dip-length-field
      kind="length"
      [fieldId]="fieldId()"
      [label]="label()"
      [value]="value()"
      [notation]="notation()"
      [refusal]="refusal"
      [allowed]="allowed"
      (changed)="given.emit({ mm: $event })"
      (typing)="given.emit({ mm: $event, typed: fieldId() })"
    />
    <ng-content />
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
  `,
})
export class LengthRow {
  readonly fieldId = input.required<string>();
  readonly label = input.required<string>();
  readonly value = input.required<number>();
  readonly notation = input.required<Notation>();
  readonly limits = input.required<{ min: number; max: number }>();
  readonly given = output<GivenLength>();

  private say(mm: number): string {
    return sayLength(mm, this.notation());
  }

  protected readonly allowed = (): string => `allowed is ${this.say(this.limits().min)} to ${this.say(this.limits().max)}`;
  protected readonly refusal = (_: unknown, value: number): string | undefined =>
    value >= this.limits().min && value <= this.limits().max ? undefined : `${this.say(value)} does not work; ${this.allowed()}.`;
}
