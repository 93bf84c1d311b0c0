import { effect, Injectable, signal } from '@angular/core';
import * as v from 'valibot';

export type ThemeChoice = 'light' | 'dark' | 'system';

const stored = v.object({
  theme: v.fallback(v.picklist(['light', 'dark', 'system']), 'system'),
  paper: v.fallback(v.optional(v.pipe(v.string(), v.maxLength(20))), undefined),
});

const KEY = 'diptychon-preferences';

/** How the page looks to this maker. Kept in this browser; what the maker has is in the workshop. */
@Injectable({ providedIn: 'root' })
export class Preferences {
  readonly theme = signal<ThemeChoice>('system');
  /** id of what the maker prints on; nothing until it was chosen. Which there are is known where it is chosen: here it is loaded first. */
  readonly paper = signal<string | undefined>(undefined);

  constructor() {
    const found = v.safeParse(stored, this.read());
    if (found.success) {
      this.theme.set(found.output.theme);
      this.paper.set(found.output.paper);
    }
    const system = matchMedia('(prefers-color-scheme: dark)');
    const systemDark = signal(system.matches);
    system.addEventListener('change', (change) => systemDark.set(change.matches));
    effect(() => {
      const dark = this.theme() === 'dark' || (this.theme() === 'system' && systemDark());
      document.documentElement.classList.toggle('dark', dark);
    });
    effect(() => this.write({ theme: this.theme(), paper: this.paper() }));
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
