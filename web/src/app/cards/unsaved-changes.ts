import { inject, Injectable } from '@angular/core';
import { readCard, type CardDocument } from '@diptychon/core/records';
import * as v from 'valibot';
import { Database } from './database';
import { Tabs } from './tabs';

/** What one tab has changed in a card and not saved yet: only the fields that differ from what is saved. */
export interface UnsavedChange {
  tab: string;
  id: string;
  /** the saved state that it was made over */
  over: number;
  /** counts up, so that of two copies the newer one is known */
  count: number;
  /** the whole card rather than some fields: the saved state that it was made over is no more */
  whole: boolean;
  fields: Record<string, unknown>;
  /** fields that were taken away */
  gone: string[];
  /** changes of tabs that are gone, which this one took up: it stands for them too */
  holds: { tab: string; count: number }[];
}

const text = v.pipe(v.string(), v.maxLength(100));
const schema = v.object({
  tab: text,
  id: text,
  over: v.number(),
  count: v.number(),
  whole: v.boolean(),
  fields: v.record(v.string(), v.unknown()),
  gone: v.array(text),
  holds: v.optional(v.array(v.object({ tab: text, count: v.number() })), []),
});

/** A kept change, where it is one. */
export function readChange(raw: unknown): UnsavedChange | undefined {
  const reading = v.safeParse(schema, raw);
  return reading.success ? reading.output : undefined;
}

const PREFIX = 'diptychon-unsaved:';
export const keyOf = ({ tab, id }: Pick<UnsavedChange, 'tab' | 'id'>): string => `${tab}/${id}`;

/** The fields in which a card differs from its saved state. Parts of a card are never written into, so the same one is the same. */
export function changeBetween(saved: CardDocument | undefined, card: CardDocument): Pick<UnsavedChange, 'whole' | 'fields' | 'gone'> {
  if (!saved) return { whole: true, fields: { ...card }, gone: [] };
  const [before, now] = [saved, card] as unknown as Record<string, unknown>[];
  return {
    whole: false,
    fields: Object.fromEntries(Object.entries(now!).filter(([name, value]) => value !== before![name])),
    gone: Object.keys(before!).filter((name) => !(name in now!)),
  };
}

/** A card with a change made to it. Nothing when what comes out is no card. */
export function changed(saved: unknown, { whole, fields, gone, id }: UnsavedChange): CardDocument | undefined {
  const kept = typeof saved === 'object' && saved !== null && !whole ? Object.entries(saved) : [];
  const reading = readCard({ ...Object.fromEntries(kept.filter(([name]) => !gone.includes(name))), ...fields });
  return reading.ok && reading.card.id === id ? reading.card : undefined;
}

/**
 * Changes that are drawn and not yet saved. Each is written twice in the turn in which it is made: at once where a page
 * that is closed leaves it behind, and to the disk, where a browser that is killed does. Each tab and card has an entry of
 * its own; it goes only when just that has been saved, and a save that is under way does not keep the next one waiting.
 */
@Injectable({ providedIn: 'root' })
export class UnsavedChanges {
  private readonly database = inject(Database);
  private readonly tabs = inject(Tabs);
  private count = 0;
  private readonly next = new Map<string, UnsavedChange>();
  /** count of the latest change of each card */
  private readonly latest = new Map<string, number>();
  private writing: Promise<void> = Promise.resolve();

  /**
   * Writes what this tab changed in a card. A newer one of the same card takes the place of one that still waits.
   * @returns its count, and when it is on the disk
   */
  write(given: Omit<UnsavedChange, 'tab' | 'count'>): { count: number; onDisk: Promise<void> } {
    const change = { ...given, tab: this.tabs.own, count: ++this.count };
    const key = keyOf(change);
    try {
      localStorage.setItem(PREFIX + key, JSON.stringify(change));
    } catch {
      // Where there is no room for it the disk still has it.
    }
    this.next.set(key, change);
    this.latest.set(key, change.count);
    this.writing = this.writing.catch(() => undefined).then(() => this.writeNext(key));
    return { count: change.count, onDisk: this.writing };
  }

  /**
   * All that were left, by this tab or by tabs that are no more; one that may still be saving keeps its own. Where this page
   * alone keeps anything, what others left waits for one that has its card.
   */
  async left(): Promise<UnsavedChange[]> {
    const [kept, living] = await Promise.all([this.database.look(['unsaved'], (tray) => tray.all('unsaved')), this.tabs.living()]);
    const newest = new Map<string, UnsavedChange>();
    for (const raw of [...kept, ...this.fromPage()]) {
      const change = readChange(raw);
      if (change && (newest.get(keyOf(change))?.count ?? -1) < change.count) newest.set(keyOf(change), change);
    }
    const all = [...newest.values()];
    const held = (one: UnsavedChange): boolean =>
      all.some(({ id, holds }) => id === one.id && holds.some(({ tab, count }) => tab === one.tab && count >= one.count));
    const alone = this.database.notKept() !== undefined;
    const mayBe = (tab: string): boolean => tab === this.tabs.own || (!alone && !living?.has(tab));
    return all.filter((one) => mayBe(one.tab) && !held(one));
  }

  /** Forgets what stands at once in the page’s own storage. */
  forget(key: string, upTo: number): void {
    if ((readChange(this.parsed(PREFIX + key))?.count ?? 0) > upTo) return;
    if ((this.next.get(key)?.count ?? 0) <= upTo) this.next.delete(key);
    try {
      localStorage.removeItem(PREFIX + key);
    } catch {
      // Nothing was kept, so there is nothing to wipe.
    }
  }

  /** Whether other tabs, living or not, may have changes of a card that are not saved. */
  mayHaveOthers(id: string): boolean {
    try {
      return Object.keys(localStorage).some(
        (name) => name.startsWith(PREFIX) && name.endsWith(`/${id}`) && name !== PREFIX + keyOf({ tab: this.tabs.own, id }),
      );
    } catch {
      return true;
    }
  }

  /**
   * Takes what this tab saved off the disk, unless a newer one is there or on its way: that takes its place. Left there it does no
   * harm: it is known to be saved.
   */
  async clear(key: string, upTo: number): Promise<void> {
    if ((this.latest.get(key) ?? 0) > upTo) return;
    // Without a look first: a transaction that waits for an answer would keep the next change waiting.
    await this.database.remove('unsaved', key).catch(() => undefined);
  }

  private async writeNext(key: string): Promise<void> {
    const change = this.next.get(key);
    if (!change) return;
    this.next.delete(key);
    await this.database.put('unsaved', change, key);
  }

  private fromPage(): unknown[] {
    try {
      return Object.keys(localStorage)
        .filter((name) => name.startsWith(PREFIX))
        .map((name) => this.parsed(name));
    } catch {
      return [];
    }
  }

  private parsed(name: string): unknown {
    try {
      return JSON.parse(localStorage.getItem(name) ?? 'null') as unknown;
    } catch {
      return undefined;
    }
  }
}
