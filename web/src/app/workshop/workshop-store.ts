import { computed, inject, Injectable, signal } from '@angular/core';
import { METRIC_WORKSHOP, readWorkshop, starterFor, type Envelope, type Notation, type Workshop } from '@diptychon/core/records';
import { Database, type KeptWorkshop } from '../cards/database';

interface Step {
  workshop: Workshop;
  what: string;
}

const KEY = 'mine';
const JOURNAL = 'diptychon-workshop-unsaved';
const MOST_STEPS = 200;

/**
 * What the maker has and how the maker works: kept in this browser as safely as cards are, every change one step to
 * undo. Until the two first questions are answered it is a starter workshop that is not kept.
 */
@Injectable({ providedIn: 'root' })
export class WorkshopStore {
  private readonly database = inject(Database);
  private readonly channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('diptychon-workshop');
  private readonly past = signal<Step[]>([]);
  private readonly future = signal<Step[]>([]);
  private revision = 0;
  private saving: Promise<void> = Promise.resolve();

  readonly workshop = signal<Workshop>(METRIC_WORKSHOP);
  /** whether the maker has said what there is; nothing until that is known */
  readonly begun = signal<boolean | undefined>(undefined);
  readonly saveState = signal<'saved' | 'saving' | 'failed'>('saved');
  readonly recovered = signal(false);
  /** what was kept and could not be read, to be taken away as a file; nothing when all can be read */
  readonly damaged = signal<unknown>(undefined);
  readonly undoWhat = computed(() => this.past().at(-1)?.what);
  readonly redoWhat = computed(() => this.future().at(-1)?.what);
  /** resolves once what is kept has been read, or cannot be */
  readonly ready: Promise<void> = this.load();

  constructor() {
    this.channel?.addEventListener('message', () => void this.load());
  }

  /** Answers the two questions: a starter workshop for this unit, with this board. */
  begin(notation: Notation, board: string): void {
    const starter = starterFor(notation);
    const usual = { ...starter.usual, ...(starter.boards.some(({ id }) => id === board) && { board }) };
    this.replace('Starter workshop', { ...starter, notation, usual });
  }

  /** Changes the workshop. `what` names the change for undo. */
  change(what: string, apply: (workshop: Workshop) => Workshop): void {
    this.replace(what, apply(this.workshop()));
  }

  /** Puts an envelope into the list, unless it is there. */
  addEnvelope(envelope: Envelope): void {
    if (this.workshop().envelopes.some(({ id }) => id === envelope.id)) return;
    this.change(envelope.name, (workshop) => ({ ...workshop, envelopes: [...workshop.envelopes, envelope] }));
  }

  replace(what: string, next: Workshop): void {
    const now = this.workshop();
    if (next === now) return;
    this.past.update((steps) => [...steps, { workshop: now, what }].slice(-MOST_STEPS));
    this.future.set([]);
    this.put(next);
  }

  undo(): void {
    this.step(this.past, this.future);
  }

  redo(): void {
    this.step(this.future, this.past);
  }

  private step(from: typeof this.past, to: typeof this.past): void {
    const last = from().at(-1);
    if (!last) return;
    const now = this.workshop();
    from.update((steps) => steps.slice(0, -1));
    to.update((steps) => [...steps, { workshop: now, what: last.what }]);
    this.put(last.workshop);
  }

  private put(workshop: Workshop): void {
    this.workshop.set(workshop);
    this.begun.set(true);
    this.saveState.set('saving');
    journal(workshop);
    // One after the other: a save never overtakes the one before it.
    this.saving = this.saving.then(() => this.save(workshop));
  }

  private async save(workshop: Workshop): Promise<void> {
    if (this.workshop() !== workshop) return;
    try {
      const reading = readWorkshop(workshop);
      if (!reading.ok) throw new Error(reading.problems.map(({ path, says }) => `${path} ${says}.`).join(' '));
      const revision = await this.database.change(['workshop'], async (tray) => {
        const before = await tray.get('workshop', KEY);
        const next = Math.max(this.revision, before?.revision ?? 0) + 1;
        await tray.put('workshop', { ...savedOver(before, workshop), revision: next }, KEY);
        return next;
      });
      this.revision = revision;
      if (this.workshop() === workshop) {
        clearJournal();
        this.saveState.set('saved');
      }
      this.channel?.postMessage(revision);
    } catch {
      this.saveState.set('failed');
    }
  }

  private async load(): Promise<void> {
    const unsaved = readJournal();
    try {
      const kept = await this.database.look(['workshop'], (tray) => tray.get('workshop', KEY));
      if (kept && kept.revision <= this.revision) return;
      const now = readWorkshop(kept?.workshop);
      const reading = now.ok || !kept ? now : readWorkshop(kept.previous);
      this.revision = kept?.revision ?? 0;
      this.recovered.set(kept !== undefined && !now.ok && reading.ok);
      this.damaged.set(now.ok ? kept?.damaged : kept?.workshop);
      if (unsaved) this.put(unsaved);
      else if (reading.ok) this.workshop.set(reading.workshop);
      this.begun.set(unsaved !== undefined || reading.ok);
    } catch {
      if (unsaved) this.workshop.set(unsaved);
      this.begun.set(unsaved !== undefined);
    }
  }
}

/** What is kept beside a workshop that is saved: the last state that can be read, and what cannot be read. */
function savedOver(before: KeptWorkshop | undefined, workshop: Workshop): Omit<KeptWorkshop, 'revision'> {
  if (!before) return { workshop, previous: null };
  if (readWorkshop(before.workshop).ok) {
    return { workshop, previous: before.workshop, ...(before.damaged !== undefined && { damaged: before.damaged }) };
  }
  return { workshop, previous: before.previous, damaged: before.workshop };
}

/** Written in the same turn as the change: a page may be closed before the save is done. */
function journal(workshop: Workshop): void {
  try {
    localStorage.setItem(JOURNAL, JSON.stringify(workshop));
  } catch {
    // Without it the ordinary save still runs.
  }
}

function clearJournal(): void {
  try {
    localStorage.removeItem(JOURNAL);
  } catch {
    // Nothing was kept, so there is nothing to wipe.
  }
}

function readJournal(): Workshop | undefined {
  try {
    const reading = readWorkshop(JSON.parse(localStorage.getItem(JOURNAL) ?? 'null'));
    return reading.ok ? reading.workshop : undefined;
  } catch {
    return undefined;
  }
}
