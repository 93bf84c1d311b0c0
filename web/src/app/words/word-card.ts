import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Word } from './glossary';
import { DrawnSmall } from './small-drawing';

/** One word with its small drawing. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-word-card',
  imports: [DrawnSmall],
  template: `
    <dip-small-drawing [drawing]="word().drawing" />
    <div>
      <strong>{{ word().word }}</strong>
      <p>{{ word().says }}</p>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 6rem minmax(0, 1fr);
      gap: 0.8rem;
      align-items: center;
    }
    p {
      margin: 0.1rem 0 0;
    }
  `,
})
export class WordCard {
  readonly word = input.required<Word>();
}
