import { computed, inject, Injectable, signal } from '@angular/core';
import type { CardDocument } from '@diptychon/core';
import { BehaviorSubject, debounceTime, Subject } from 'rxjs';
import { CardStore, SavedElsewhere } from './card-store';
import { UnsavedJournal } from './unsaved-journal';

interface Step {
  card: CardDocument;
  /** what led to the next state, for the undo button */
  what: string;
}

export type SaveState = 'saved' | 'saving' | 'conflict' | 'failed';

/** Changes of the same thing closer together than this are one step to undo. */
const SAME_STEP_MS = 800;
const SAVE_AFTER_MS = 150;
const MOST_STEPS = 200;

/** The card on the bench: its present state, what can be undone, and whether it is saved. */
@Injectable()
export class CardSession {
  private readonly store = inject(CardStore);
  private readonly journal = inject(UnsavedJournal);
  private readonly past = signal<Step[]>([]);
  private readonly future = signal<Step[]>([]);
  private readonly changes = new Subject<void>();
  private revision = 0;
  private saving: Promise<void> = Promise.resolve();
  private kept: CardDocument | undefined;
  private lastWhat = '';
  private lastChange = 0;

  /** every state the card goes through, for the evaluation */
  readonly card$ = new BehaviorSubject<CardDocument | undefined>(undefined);
  readonly card = signal<CardDocument | undefined>(undefined);
  readonly saveState = signal<SaveState>('saved');
  readonly recovered = signal(false);
  readonly undoWhat = computed(() => this.past().at(-1)?.what);
  readonly redoWhat = computed(() => this.future().at(-1)?.what);

  constructor() {
    this.changes.pipe(debounceTime(SAVE_AFTER_MS)).subscribe(() => void this.save());
  }

  /** @returns false when there is no such card */
  async open(id: string): Promise<boolean> {
    const kept = await this.store.get(id);
    if (!kept) return false;
    this.revision = kept.revision;
    this.past.set([]);
    this.future.set([]);
    this.saveState.set('saved');
    this.recovered.set(kept.recovered);
    const unsaved = this.journal.read(id, kept.revision);
    this.show(unsaved ?? kept.card);
    if (unsaved) this.saveSoon();
    return true;
  }

  /** Changes the card. `what` names the change for undo: “Depth”. */
  change(what: string, apply: (card: CardDocument) => CardDocument): void {
    const now = this.card();
    const next = now && apply(now);
    if (!now || !next || next === now) return;
    const at = performance.now();
    const goesOn = what === this.lastWhat && at - this.lastChange < SAME_STEP_MS && this.past().length > 0;
    if (!goesOn) this.past.update((steps) => [...steps, { card: now, what }].slice(-MOST_STEPS));
    this.lastWhat = what;
    this.lastChange = at;
    this.future.set([]);
    this.show(next);
    this.saveSoon();
  }

  undo(): void {
    this.step(this.past, this.future);
  }

  redo(): void {
    this.step(this.future, this.past);
  }

  /** Saves over whatever another tab saved: only when the maker says so. */
  async keepMine(): Promise<void> {
    const kept = await this.store.get(this.card()!.id);
    this.revision = kept?.revision ?? 0;
    await this.save();
  }

  private step(from: typeof this.past, to: typeof this.past): void {
    const last = from().at(-1);
    const now = this.card();
    if (!last || !now) return;
    from.update((steps) => steps.slice(0, -1));
    to.update((steps) => [...steps, { card: now, what: last.what }]);
    this.lastWhat = '';
    this.show(last.card);
    this.saveSoon();
  }

  private show(card: CardDocument): void {
    this.card.set(card);
    this.card$.next(card);
  }

  private saveSoon(): void {
    if (this.saveState() !== 'conflict') this.saveState.set('saving');
    this.journal.write(this.card()!, this.revision);
    this.changes.next();
  }

  /** One save after the other: one that overtook another would find the card changed, and take itself for another tab. */
  private save(): Promise<void> {
    this.saving = this.saving.then(() => this.saveNow());
    return this.saving;
  }

  private async saveNow(): Promise<void> {
    const card = this.card();
    if (!card || (card === this.kept && this.saveState() === 'saved')) return;
    try {
      this.revision = await this.store.save(card, this.revision);
      this.kept = card;
      // A change made meanwhile stands over what was saved just now.
      if (this.card() === card) this.journal.clear();
      else this.journal.write(this.card()!, this.revision);
      this.saveState.set(this.card() === card ? 'saved' : 'saving');
    } catch (error) {
      this.saveState.set(error instanceof SavedElsewhere ? 'conflict' : 'failed');
    }
  }
}
