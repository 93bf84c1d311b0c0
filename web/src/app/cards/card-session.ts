import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { CardDocument } from '@diptychon/core';
import { BehaviorSubject, debounceTime, Subject } from 'rxjs';
import { CardStore, SavedElsewhere, TakenOff, Unreadable, type OpenedCard } from './card-store';
import { changeBetween, UnsavedChanges, type UnsavedChange } from './unsaved-changes';

interface Step {
  card: CardDocument;
  /** what led to the next state, for the undo button */
  what: string;
}

/** `gone`: taken off the shelf elsewhere; `unreadable`: what was to be saved could not be read again. */
export type SaveState = 'saved' | 'saving' | 'conflict' | 'gone' | 'failed' | 'unreadable';

/** Changes of the same thing closer together than this are one step to undo. */
const SAME_STEP_MS = 800;
const SAVE_AFTER_MS = 150;
/** Room may be made, and storage may come back: a save that failed is tried again so often. */
const TRY_AGAIN_MS = 2000;
const MOST_STEPS = 200;

/** The card on the bench: its present state, what can be undone, and whether it is saved. */
@Injectable()
export class CardSession {
  private readonly store = inject(CardStore);
  private readonly unsaved = inject(UnsavedChanges);
  private readonly past = signal<Step[]>([]);
  private readonly future = signal<Step[]>([]);
  private readonly changes = new Subject<void>();
  private revision = 0;
  /** the state of that revision; nothing where it was never held here */
  private saved: CardDocument | undefined;
  private takes: readonly UnsavedChange[] = [];
  private count = 0;
  private saving: Promise<void> = Promise.resolve();
  private trying: ReturnType<typeof setTimeout> | undefined;
  private lastWhat = '';
  private lastChange = 0;
  private lastTyped: string | undefined;
  private readonly flushNow = (): void => void this.save();

  /** every state the card goes through, for the evaluation */
  readonly card$ = new BehaviorSubject<CardDocument | undefined>(undefined);
  readonly card = signal<CardDocument | undefined>(undefined);
  readonly saveState = signal<SaveState>('saved');
  /** why it could not be saved, where that can be said */
  readonly saveTrouble = signal('');
  readonly recovered = signal(false);
  /** the card as it was when it was opened, as far back as can be undone */
  readonly opened = computed(() => this.past()[0]?.card ?? this.card());
  readonly undoWhat = computed(() => this.past().at(-1)?.what);
  readonly redoWhat = computed(() => this.future().at(-1)?.what);

  constructor() {
    this.changes.pipe(debounceTime(SAVE_AFTER_MS)).subscribe(this.flushNow);
    addEventListener('pagehide', this.flushNow);
    inject(DestroyRef).onDestroy(() => {
      removeEventListener('pagehide', this.flushNow);
      clearTimeout(this.trying);
      this.flushNow();
    });
  }

  /** @returns false when there is no such card */
  async open(id: string): Promise<boolean> {
    await this.save();
    const kept = await this.store.get(id);
    if (!kept) return false;
    this.standOn(kept);
    this.past.set([]);
    this.future.set([]);
    this.saveState.set('saved');
    this.recovered.set(kept.recovered);
    this.show(kept.card);
    if (kept.takes.length > 0) this.saveSoon();
    return true;
  }

  /**
   * Changes the card. `what` names the change for undo: “Depth”. What is typed into one field (`typed`) without leaving it
   * is one step, however long it takes.
   */
  change(what: string, apply: (card: CardDocument) => CardDocument, typed?: string): void {
    const now = this.card();
    const next = now && apply(now);
    // What changes nothing is no step to undo: a field that was typed into says its value once more when it is left.
    if (!now || !next || next === now || JSON.stringify(next) === JSON.stringify(now)) return;
    const at = performance.now();
    const soon = what === this.lastWhat && at - this.lastChange < SAME_STEP_MS && this.lastTyped === undefined;
    const goesOn = (typed === undefined ? soon : typed === this.lastTyped) && this.past().length > 0;
    if (!goesOn) this.remember(now, what);
    this.lastWhat = what;
    this.lastChange = at;
    this.lastTyped = typed;
    this.future.set([]);
    this.show(next);
    this.saveSoon();
  }

  /** What is typed from here on is a step of its own. */
  leaveField(): void {
    this.lastTyped = undefined;
  }

  undo(): void {
    this.step(this.past, this.future);
  }

  redo(): void {
    this.step(this.future, this.past);
  }

  /** Saves over whatever another tab saved: only when the maker says so. Undo brings the other one back. */
  keepMine(): Promise<void> {
    return this.decide(async (mine) => {
      const theirs = await this.store.get(mine.id);
      if (theirs) {
        this.standOn(theirs);
        this.remember(theirs.card, 'Mine over the other tab’s');
      } else {
        this.revision = (await this.store.revisionOf(mine.id)) ?? 0;
        this.saved = undefined;
      }
    });
  }

  /** Takes what another tab saved. Undo brings this one back. */
  takeTheirs(): Promise<void> {
    return this.decide(async (mine) => {
      const theirs = await this.store.get(mine.id);
      if (!theirs) return;
      this.standOn(theirs);
      this.remember(mine, 'The other tab’s card');
      this.show(theirs.card);
    });
  }

  /** Puts the card back on the shelf that was taken off elsewhere. */
  putBack(): Promise<void> {
    return this.decide(async (mine) => {
      await this.store.addAll([mine]);
      this.revision = 1;
      this.saved = mine;
      this.takes = [];
    });
  }

  /** Saves once more, after a save that failed. */
  async saveAnew(): Promise<void> {
    this.saveState.set('saving');
    this.note();
    await this.save();
  }

  private tryAgain(): void {
    clearTimeout(this.trying);
    this.trying = setTimeout(() => {
      if (this.saveState() !== 'failed') return;
      this.note();
      void this.save();
    }, TRY_AGAIN_MS);
  }

  /** What the maker decided, and a save over what is there now. What cannot be done is said, and nothing is lost by it. */
  private async decide(work: (mine: CardDocument) => Promise<void>): Promise<void> {
    try {
      await work(this.card()!);
    } catch {
      this.saveState.set('failed');
      return;
    }
    await this.saveAnew();
  }

  /** From here on changes are made over this state of the card. */
  private standOn({ card, revision, takes }: OpenedCard): void {
    this.revision = revision;
    this.takes = takes;
    this.saved = takes.length > 0 ? undefined : card;
  }

  private remember(card: CardDocument, what: string): void {
    this.past.update((steps) => [...steps, { card, what }].slice(-MOST_STEPS));
  }

  private step(from: typeof this.past, to: typeof this.past): void {
    const last = from().at(-1);
    const now = this.card();
    if (!last || !now) return;
    from.update((steps) => steps.slice(0, -1));
    to.update((steps) => [...steps, { card: now, what: last.what }]);
    this.lastWhat = '';
    this.lastTyped = undefined;
    this.show(last.card);
    this.saveSoon();
  }

  private show(card: CardDocument): void {
    this.card.set(card);
    this.card$.next(card);
  }

  private saveSoon(): void {
    if (!this.stands()) this.saveState.set('saving');
    this.note();
    this.changes.next();
  }

  /** Whether another tab stands in the way: then what is drawn here is kept beside, whole, until the maker decides. */
  private stands(): boolean {
    return this.saveState() === 'conflict' || this.saveState() === 'gone';
  }

  private note(): void {
    const card = this.card()!;
    const { count, onDisk } = this.unsaved.write({
      id: card.id,
      over: this.revision,
      holds: this.takes.flatMap(({ tab, count, holds }) => [{ tab, count }, ...holds]),
      ...changeBetween(this.stands() ? undefined : this.saved, card),
    });
    this.count = count;
    // Where even that cannot be written the save itself will say so.
    onDisk.catch(() => undefined);
  }

  /** One save after the other: one that overtook another would find the card changed, and take itself for another tab. */
  private save(): Promise<void> {
    this.saving = this.saving.then(() => this.saveNow());
    return this.saving;
  }

  private async saveNow(): Promise<void> {
    const [card, count] = [this.card(), this.count];
    if (!card || this.saveState() === 'saved' || this.stands()) return;
    try {
      this.revision = await this.store.save({ card, over: this.revision, count, takes: this.takes });
      this.saved = card;
      this.takes = [];
      // A change made meanwhile is one over what was saved just now.
      if (this.card() === card) this.saveState.set('saved');
      else this.note();
    } catch (error) {
      this.saveTrouble.set(error instanceof Unreadable ? error.message : '');
      this.saveState.set(
        error instanceof SavedElsewhere
          ? 'conflict'
          : error instanceof TakenOff
            ? 'gone'
            : error instanceof Unreadable
              ? 'unreadable'
              : 'failed',
      );
      if (this.stands()) this.note();
      else if (this.saveState() === 'failed') this.tryAgain();
    }
  }
}
