import { computed, Injectable, signal } from '@angular/core';

/**
 * Fields of a screen that hold what cannot be used. A card is never called ready while there is one: what the maker typed is
 * not in it.
 */
@Injectable()
export class RefusedFields {
  private readonly ids = signal<ReadonlySet<string>>(new Set());
  readonly any = computed(() => this.ids().size > 0);
  /** counts up each time that all are asked to show again what the card holds */
  readonly cleared = signal(0);

  set(id: string, refused: boolean): void {
    if (this.ids().has(id) === refused) return;
    this.ids.update((before) => new Set(refused ? [...before, id] : [...before].filter((other) => other !== id)));
  }

  clear(): void {
    this.cleared.update((times) => times + 1);
  }
}
