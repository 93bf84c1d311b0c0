import { effect, Injectable, signal } from '@angular/core';
import { BOARDS, NOTATIONS, type Notation } from '@diptychon/core';
import * as v from 'valibot';

export type ThemeChoice = 'light' | 'dark' | 'system';

const stored = v.object({
  theme: v.optional(v.picklist(['light', 'dark', 'system']), 'system'),
  notation: v.optional(v.picklist(NOTATIONS.map((n) => n.id))),
  board: v.optional(v.picklist(BOARDS.map((b) => b.id))),
});

const KEY = 'diptychon-preferences';

/** What holds for every card of this maker: theme, unit and board. Kept in this browser. */
@Injectable({ providedIn: 'root' })
export class Preferences {
  readonly theme = signal<ThemeChoice>('system');
  readonly notation = signal<Notation | undefined>(undefined);
  readonly board = signal<string | undefined>(undefined);

  constructor() {
    const found = v.safeParse(stored, this.read());
    if (found.success) {
      this.theme.set(found.output.theme);
      this.notation.set(found.output.notation);
      this.board.set(found.output.board);
    }
    const system = matchMedia('(prefers-color-scheme: dark)');
    const systemDark = signal(system.matches);
    system.addEventListener('change', (change) => systemDark.set(change.matches));
    effect(() => {
      const dark = this.theme() === 'dark' || (this.theme() === 'system' && systemDark());
      document.documentElement.classList.toggle('dark', dark);
    });
    effect(() => this.write({ theme: this.theme(), notation: this.notation(), board: this.board() }));
  }

  /** Motion that plays by itself is left out when the maker's system asks for that. */
  get reducedMotion(): boolean {
    return matchMedia('(prefers-reduced-motion: reduce)').matches;
  }

  private read(): unknown {
    try {
      return JSON.parse(localStorage.getItem(KEY) ?? '{}') as unknown;
    } catch {
      return {};
    }
  }

  private write(value: object): void {
    try {
      localStorage.setItem(KEY, JSON.stringify(value));
    } catch {
      // A browser that keeps nothing still runs; the choices last until the page is left.
    }
  }
}
