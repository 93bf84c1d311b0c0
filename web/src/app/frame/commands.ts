import { Injectable, signal } from '@angular/core';

/** Something that can be done from where the maker is, found by its words. */
export interface Command {
  words: string;
  keys?: string;
  run: () => void;
}

/** What the present screen offers to the command search. Each screen sets its own and takes them away again. */
@Injectable({ providedIn: 'root' })
export class Commands {
  readonly offered = signal<readonly Command[]>([]);
  /** what is open of it: the search, or the list of keys */
  readonly shown = signal<'search' | 'keys' | undefined>(undefined);

  /** Opens what a key stands for, wherever it is pressed. */
  shortcut(event: KeyboardEvent): void {
    const typing = (event.target as HTMLElement).closest('input:not([type=range]), textarea, select');
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
      event.preventDefault();
      this.shown.set('search');
    } else if (event.key === '?' && !typing) this.shown.set('keys');
  }
}
