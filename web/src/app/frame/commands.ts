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
}
