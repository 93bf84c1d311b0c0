import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { envelopeByInside, parseLength, type Envelope, type Notation } from '@diptychon/core/records';
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
      @if (problem(); as says) {
        <p class="problem" role="alert">{{ says }}</p>
      }
    </div>
  `,
  styles: `
    .sides {
      display: flex;
      flex-wrap: wrap;
      gap: 0.3rem 0.5rem;
      align-items: center;
    }
    .problem {
      flex-basis: 100%;
      margin: 0;
      font-weight: 600;
      color: var(--rust);
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
  /** the envelope, once both sides read and may be */
  readonly given = output<Envelope | undefined>();
  protected readonly one = signal('');
  protected readonly other = signal('');
  private readonly reading = computed((): Envelope | string => {
    const [one, other] = [this.one(), this.other()].map((text) => parseLength(text, this.notation(), 'Inside of the envelope'));
    if (!one!.ok) return one!.problem;
    if (!other!.ok) return other!.problem;
    return envelopeByInside(one!.value, other!.value, this.notation());
  });
  /** Nobody is told off for the side that is not typed yet. */
  protected readonly problem = computed(() => {
    const reading = this.reading();
    return typeof reading === 'string' && this.one().trim() && this.other().trim() ? reading : undefined;
  });

  protected type(side: typeof this.one, text: string): void {
    side.set(text);
    const reading = this.reading();
    this.given.emit(typeof reading === 'string' ? undefined : reading);
  }
}
