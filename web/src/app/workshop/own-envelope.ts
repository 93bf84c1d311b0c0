import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { envelopeByInside, parseLength, type Envelope, type Notation } from '@diptychon/core';
import { InputText } from 'primeng/inputtext';

/** An envelope that stands in no list, by its two inner sides. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-own-envelope',
  imports: [InputText],
  template: `
    <div class="sides" role="group" aria-label="Inside of the envelope">
      <label [for]="fieldId() + '-long'">Inside, one side</label>
      <input
        pInputText
        class="numerals"
        type="text"
        autocomplete="off"
        [id]="fieldId() + '-long'"
        [value]="one()"
        (input)="type(one, $any($event.target).value)"
      />
      <label [for]="fieldId() + '-short'">the other</label>
      <input
        pInputText
        class="numerals"
        type="text"
        autocomplete="off"
        [id]="fieldId() + '-short'"
        [value]="other()"
        (input)="type(other, $any($event.target).value)"
      />
    </div>
  `,
  styles: `
    .sides {
      display: flex;
      flex-wrap: wrap;
      gap: 0.3rem 0.5rem;
      align-items: center;
    }
    input {
      width: 6.5rem;
      text-align: right;
    }
  `,
})
export class OwnEnvelope {
  readonly fieldId = input.required<string>();
  readonly notation = input.required<Notation>();
  /** the envelope, or why what was typed is none */
  readonly given = output<Envelope | string>();
  protected readonly one = signal('');
  protected readonly other = signal('');
  private readonly reading = computed((): Envelope | string => {
    const [one, other] = [this.one, this.other].map((text) => parseLength(text(), this.notation(), 'Inside of the envelope'));
    if (!one!.ok) return one!.problem;
    if (!other!.ok) return other!.problem;
    return envelopeByInside(one!.value, other!.value, this.notation());
  });

  protected type(side: typeof this.one, text: string): void {
    side.set(text);
    // Nobody is told off for the side that is not typed yet.
    this.given.emit(this.one().trim() && this.other().trim() ? this.reading() : '');
  }
}
