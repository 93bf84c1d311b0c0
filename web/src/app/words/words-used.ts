import { ChangeDetectionStrategy, Component, computed, input, linkedSignal } from '@angular/core';
import { wordsIn } from './glossary';
import { WordCard } from './word-card';

/** The words of the trade that some sentences use: each opens its drawing and what it means, right there. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-words-used',
  imports: [WordCard],
  template: `
    @if (words().length) {
      <details [open]="open()" (toggle)="open.set($any($event.target).open)">
        <summary>Words used here</summary>
        <ul>
          @for (word of words(); track word.id) {
            <li>
              <button
                type="button"
                [attr.aria-expanded]="shown() === word.id"
                (click)="shown.set(shown() === word.id ? undefined : word.id)"
              >
                {{ word.word }}
              </button>
              @if (shown() === word.id) {
                <dip-word-card [word]="word" />
              }
            </li>
          }
        </ul>
      </details>
    }
  `,
  styles: `
    summary {
      min-height: 2.2rem;
      font-weight: 500;
      cursor: pointer;
    }
    ul {
      display: flex;
      flex-wrap: wrap;
      gap: 0.3rem;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li:has(dip-word-card) {
      flex-basis: 100%;
    }
    button {
      min-height: 2rem;
      padding: 0 0.6rem;
      border: 1px solid var(--line);
      border-radius: 0.3rem;
      background: var(--sheet);
      cursor: pointer;
    }
    dip-word-card {
      margin: 0.4rem 0 0.6rem;
    }
  `,
})
export class WordsUsed {
  readonly sentences = input.required<readonly string[]>();
  protected readonly words = computed(() => wordsIn(this.sentences()));
  protected readonly open = linkedSignal(() => false);
  protected readonly shown = linkedSignal<string | undefined>(() => undefined);
}
