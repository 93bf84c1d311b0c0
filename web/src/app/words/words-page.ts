import { ChangeDetectionStrategy, Component } from '@angular/core';
import { ScreenBar } from '../frame/screen-bar';
import { GLOSSARY } from './glossary';
import { WordCard } from './word-card';

/** Every word of the trade that the program uses, each with a small drawing. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-words-page',
  imports: [ScreenBar, WordCard],
  template: `
    <dip-screen-bar at="words" />
    <main>
      <h1 tabindex="-1">Words</h1>
      <p>One word for one thing, on every screen, in every step and in print.</p>
      <ul>
        @for (word of words; track word.id) {
          <li [id]="word.id"><dip-word-card [word]="word" /></li>
        }
      </ul>
    </main>
  `,
  styles: `
    :host {
      display: block;
      max-width: 1280px;
      margin: 0 auto;
      padding: 1rem 3.5rem 3rem;
    }
    h1 {
      margin-top: 1rem;
    }
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(20rem, 1fr));
      gap: 1rem 2rem;
      padding: 0;
      list-style: none;
    }
    li {
      padding: 0.7rem;
      border: 1px solid var(--line);
      border-radius: 0.4rem;
      background: var(--sheet);
    }
    @media (max-width: 700px) {
      :host {
        padding: 0.5rem 1rem 2rem;
      }
      ul {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class WordsPage {
  protected readonly words = GLOSSARY;
}
