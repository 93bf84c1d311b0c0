import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Select } from 'primeng/select';

/** A label and one choice of several. How the two stand beside each other is the screen's. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-choice-row',
  imports: [FormsModule, Select],
  template: `
    <label [for]="fieldId()">{{ label() }}</label>
    <p-select
      optionLabel="label"
      optionValue="value"
      [inputId]="fieldId()"
      [appendTo]="inDialog() ? 'body' : 'self'"
      [ariaLabel]="spoken() ?? label()"
      [options]="$any(shown())"
      [ngModel]="value()"
      (ngModelChange)="chosen.emit($event)"
    />
  `,
  styles: `
    label {
      padding-top: 0.45rem;
      line-height: 1.25;
    }
    p-select {
      width: 100%;
      min-width: 0;
    }
  `,
})
export class ChoiceRow<T extends string | number> {
  readonly fieldId = input.required<string>();
  readonly label = input.required<string>();
  /** what a screen reader says, where the label alone could mean another choice on the page */
  readonly spoken = input<string>();
  /** the list opens over the dialog that the row stands in, not inside it */
  readonly inDialog = input(false);
  readonly options = input.required<readonly { value: T; label: string }[]>();
  /** the same entries in another list are no reason to draw them anew */
  protected readonly shown = computed(() => this.options(), { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) });
  readonly value = input.required<T>();
  readonly chosen = output<T>();
}
