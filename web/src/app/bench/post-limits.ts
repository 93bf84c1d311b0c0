import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal } from '@angular/core';
import { parseGrams, parseLength, printLength, type CardDocument } from '@diptychon/core';
import { InputText } from 'primeng/inputtext';
import { RefusedFields } from '../fields/refused-fields';
import type { CardChange } from './card-change';

type Limit = keyof NonNullable<CardDocument['post']>;

const LIMITS: readonly { name: Limit; label: string; unit: 'length' | 'g' }[] = [
  { name: 'thickness', label: 'Thickness up to', unit: 'length' },
  { name: 'long', label: 'Longer side up to', unit: 'length' },
  { name: 'short', label: 'Shorter side up to', unit: 'length' },
  { name: 'weight', label: 'Weight up to, g', unit: 'g' },
];

/** What the maker's post allows, as the maker was told it. Nothing is assumed: an empty field is no limit. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-post-limits',
  imports: [InputText],
  template: `
    <details [open]="card().post !== undefined">
      <summary>Limits of my post</summary>
      <p class="help">Ask your post and enter what it says. Empty fields are not checked.</p>
      @for (limit of limits; track limit.name) {
        <div class="row">
          <label [for]="'post-' + limit.name">{{ limit.label }}</label>
          <input
            pInputText
            class="numerals"
            type="text"
            autocomplete="off"
            [id]="'post-' + limit.name"
            [value]="shown()[limit.name]"
            [attr.aria-invalid]="problems()[limit.name] ? true : null"
            [attr.aria-describedby]="'post-' + limit.name + '-note'"
            (change)="set(limit, $any($event.target).value)"
          />
          <p class="note" [id]="'post-' + limit.name + '-note'">{{ problems()[limit.name] }}</p>
        </div>
      }
    </details>
  `,
  styles: `
    summary {
      min-height: 28px;
      font-weight: 500;
      cursor: pointer;
    }
    .help {
      margin: 0.2rem 0 0.5rem;
      font-size: 0.82rem;
      color: var(--ink-soft);
    }
    .row {
      display: grid;
      grid-template-columns: 1fr 8rem;
      gap: 0.1rem 0.6rem;
      margin-bottom: 0.45rem;
    }
    label {
      padding-top: 0.4rem;
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
export class PostLimits {
  readonly card = input.required<CardDocument>();
  readonly changed = output<CardChange>();
  protected readonly limits = LIMITS;
  protected readonly problems = signal<Partial<Record<Limit, string>>>({});
  private readonly refusedFields = inject(RefusedFields, { optional: true });
  protected readonly shown = computed((): Record<Limit, string> => {
    const { post, notation } = this.card();
    const length = (mm: number | undefined): string => (mm === undefined ? '' : printLength(mm, notation).text);
    return {
      thickness: post?.thickness === undefined ? '' : `${post.thickness} mm`,
      long: length(post?.long),
      short: length(post?.short),
      weight: post?.weight === undefined ? '' : String(post.weight),
    };
  });

  constructor() {
    effect(() => {
      for (const { name } of LIMITS) this.refusedFields?.set(`post-${name}`, this.problems()[name] !== undefined);
    });
  }

  protected set({ name, label, unit }: (typeof LIMITS)[number], text: string): void {
    const trimmed = text.trim();
    const value = trimmed === '' ? undefined : this.read(trimmed, label, unit);
    if (typeof value === 'string') {
      this.problems.update((all) => ({ ...all, [name]: value }));
      return;
    }
    this.problems.update((all) => ({ ...all, [name]: undefined }));
    this.changed.emit({
      what: label,
      apply: (card) => {
        const others = Object.entries(card.post ?? {}).filter(([key]) => key !== name);
        const post = value === undefined ? others : [...others, [name, value]];
        return { ...card, post: post.length > 0 ? Object.fromEntries(post) : undefined };
      },
    });
  }

  /** The number that was typed, or what is wrong with it. */
  private read(text: string, label: string, unit: 'length' | 'g'): number | string {
    const reading = unit === 'g' ? parseGrams(text, label) : parseLength(text, this.card().notation, label);
    if (!reading.ok) return reading.problem;
    const within = reading.value >= 0.1 && reading.value <= 1e5;
    return within
      ? reading.value
      : `${label}: “${text}” does not work; allowed is ${unit === 'g' ? '0.1 g to 100 kg' : '0.1 mm to 100 m'}.`;
  }
}
