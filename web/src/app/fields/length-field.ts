import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, input, output, signal, untracked } from '@angular/core';
import {
  parseAngle,
  parseCount,
  parseGrams,
  parseLength,
  printAngle,
  printGrams,
  printLength,
  rulerStep,
  sayLength,
  toRadians,
  type Notation,
  type Reading,
} from '@diptychon/core';
import { InputText } from 'primeng/inputtext';
import { RefusedFields } from './refused-fields';

/**
 * One length or angle, typed the way makers write it. Arrow keys go in ruler steps (degrees for an
 * angle), with Shift in tens. What cannot be read or lies outside the limits stays in the field with a
 * sentence, and the card stays as it was.
 */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-length-field',
  imports: [InputText],
  template: `
    <input
      pInputText
      class="numerals"
      type="text"
      autocomplete="off"
      [id]="fieldId()"
      [value]="shown()"
      [attr.aria-invalid]="problem() ? true : null"
      [attr.aria-describedby]="fieldId() + '-note'"
      (input)="typed($any($event.target).value)"
      (change)="settle($any($event.target).value)"
      (keydown)="key($event)"
    />
    <p class="note" [id]="fieldId() + '-note'" [class.bad]="problem()">
      @if (problem(); as says) {
        {{ says }}
      } @else if (off(); as says) {
        {{ says }}
      }
    </p>
  `,
  styles: `
    :host {
      display: block;
    }
    input {
      width: 100%;
      font-size: 1.05rem;
      padding: 0.4rem 0.6rem;
      text-align: right;
    }
    .note {
      margin: 0.15rem 0 0;
      font-size: 0.85rem;
      color: var(--ink-soft);
    }
    .note:empty {
      display: none;
    }
    .bad {
      color: var(--rust);
      font-weight: 600;
    }
  `,
})
export class LengthField<T = undefined> {
  readonly fieldId = input.required<string>();
  readonly label = input.required<string>();
  readonly kind = input.required<'length' | 'angle' | 'count' | 'weight'>();
  readonly value = input.required<number>();
  readonly notation = input.required<Notation>();
  /** what the field is about, handed to the two below */
  readonly of = input<T>();
  /** why a value cannot be taken, or nothing */
  readonly refusal = input<(of: T, value: number) => string | undefined>(() => undefined);
  /** what is allowed, for a field that holds nonsense: asked for only then */
  readonly allowed = input<(of: T) => string>(() => '');
  /** what the evaluation says against the present value */
  readonly refused = input<string>();
  readonly changed = output<number>();
  /** a value that reads and may be taken, while it is still being typed */
  readonly typing = output<number>();

  /** what was typed, shown as it was typed for as long as the field holds what it says */
  protected readonly draft = signal<string | undefined>(undefined);
  private draftValue: number | undefined;
  private draftNotation: Notation | undefined;
  private readonly refusedFields = inject(RefusedFields, { optional: true });
  private readonly draftProblem = signal<string | undefined>(undefined);
  protected readonly problem = computed(() => this.draftProblem() ?? this.refused());
  protected readonly shown = computed(() => this.draft() ?? this.print(this.value()));
  /** A length between two marks says so. */
  protected readonly off = computed(() => {
    if (this.kind() !== 'length' || printLength(this.value(), this.notation()).off === 0) return undefined;
    return `Not on a mark; the nearest is ${printLength(this.value(), this.notation()).text}.`;
  });

  constructor() {
    effect(() => this.refusedFields?.set(this.fieldId(), this.draftProblem() !== undefined));
    effect(() => {
      if (this.refusedFields?.cleared() && untracked(this.draftProblem)) this.forget();
    });
    inject(DestroyRef).onDestroy(() => this.refusedFields?.set(this.fieldId(), false));
    // A value that changed from outside (undo, a drag, another unit) replaces what was typed.
    effect(() => {
      const [value, notation] = [this.value(), this.notation()];
      if (this.draftNotation === notation && this.draftValue !== undefined && same(value, this.draftValue)) return;
      this.forget();
    });
  }

  private forget(): void {
    this.draft.set(undefined);
    this.draftProblem.set(undefined);
  }

  /** What reads and may be taken is taken at once; what does not may be half of something, and is not held against anyone yet. */
  protected typed(text: string): void {
    this.draft.set(text);
    const reading = this.read(text);
    const value = reading.ok && !this.refusal()(this.of()!, reading.value) ? reading.value : undefined;
    this.draftValue = value;
    this.draftNotation = this.notation();
    if (value === undefined || (same(value, this.value()) && !this.refused())) return;
    this.draftProblem.set(undefined);
    this.typing.emit(value);
  }

  protected settle(text: string): void {
    if (text === undefined || this.draft() === undefined) return;
    const reading = this.read(text);
    if (!reading.ok) this.draftProblem.set(`${reading.problem} ${this.allowed()(this.of()!)}`.trim());
    else this.take(reading.value, text);
  }

  protected key(event: KeyboardEvent): void {
    const direction = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (direction === 0) return;
    event.preventDefault();
    const one = { angle: toRadians(1), count: 1, weight: 1, length: rulerStep(this.notation()) }[this.kind()];
    const step = one * (event.shiftKey ? 10 : 1);
    // Steps land on marks: from between two marks, the next one in that direction.
    this.take(nextMark(this.value(), step, direction));
  }

  private print(value: number): string {
    if (this.kind() === 'count') return String(value);
    if (this.kind() === 'weight') return printGrams(value, this.notation());
    return this.kind() === 'angle' ? printAngle(value, this.notation()) : sayLength(value, this.notation());
  }

  private read(text: string): Reading<number> {
    if (this.kind() === 'angle') return parseAngle(text, this.label());
    if (this.kind() === 'length') return parseLength(text, this.notation(), this.label());
    if (this.kind() === 'weight') return parseGrams(text, this.label());
    return parseCount(text, this.label());
  }

  private take(value: number, text?: string): void {
    const refused = this.refusal()(this.of()!, value);
    if (refused) {
      this.draftProblem.set(refused);
      return;
    }
    // What was typed stays where printing the value in the card's unit would say something else.
    const printed = this.read(this.print(value));
    this.draft.set(printed.ok && same(printed.value, value) ? undefined : text);
    this.draftValue = value;
    this.draftNotation = this.notation();
    this.draftProblem.set(undefined);
    // Where what the card holds is refused, the field shows another value in its place: typing that one sets it too.
    if (!same(value, this.value()) || this.refused()) this.changed.emit(value);
  }
}

const same = (a: number, b: number): boolean => Math.abs(a - b) <= 1e-9;

/** The next multiple of `step` beyond a value in a direction. */
export function nextMark(value: number, step: number, direction: number): number {
  const marks = value / step;
  const next = direction > 0 ? Math.floor(marks + 1e-6) + 1 : Math.ceil(marks - 1e-6) - 1;
  return next * step;
}
