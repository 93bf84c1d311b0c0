import { inject, Injectable } from '@angular/core';
import { proxy } from 'comlink';
import {
  together,
  type CardDocument,
  type Made,
  type Reconciled,
  type Repair,
  type Rescue,
  type Resized,
  type SaidNumber,
  type SampleCounts,
  type ToleranceStudy,
  type Wanted,
} from '@diptychon/core';
import { Evaluator } from '../evaluation/evaluator';
import { WorkshopStore } from '../workshop/workshop-store';

/** A search for what mends a card tries some two hundred (ms). */
const SEARCH_LIMIT = 60_000;
/** Where there is no way, every two sizes are looked at before that is said. */
const REPAIR_LIMIT = 240_000;
/** So many samples are worked out at once: between them progress is told, and it can be stopped. */
const SAMPLES_AT_ONCE = 500;

/** Hands cards to the workers to be tried out. */
@Injectable({ providedIn: 'root' })
export class TrialWork {
  private readonly evaluator = inject(Evaluator);
  private readonly workshop = inject(WorkshopStore).workshop;

  /**
   * The least changes of sizes that put a card right; nothing when that was overtaken, called off or broke.
   * @param told how much of the search is done at the most, 0 … 1
   */
  repair(card: CardDocument, told: (share: number) => void, signal: AbortSignal): Promise<Repair | undefined> {
    return this.evaluator.quietly((api) => api.repair(card, this.workshop(), proxy(told)), 'repair', REPAIR_LIMIT, signal);
  }

  /** Ways to go on from what was really made, or why there are none. */
  rescue(card: CardDocument, made: readonly Made[]): Promise<Rescue | { says: string } | undefined> {
    return this.evaluator.quietly(
      async (api): Promise<Rescue | { says: string }> => api.rescue(card, this.workshop(), made),
      'rescue',
      SEARCH_LIMIT,
    );
  }

  /** The same card for another size or envelope, or why there is none. */
  resized(card: CardDocument, wanted: Wanted): Promise<Resized | { says: string } | undefined> {
    return this.evaluator.quietly(
      async (api): Promise<Resized | { says: string }> => api.resized(card, this.workshop(), wanted),
      'resized',
      SEARCH_LIMIT,
    );
  }

  /** A list held against a mechanism, or against all; nothing when that was overtaken or broke. */
  reconcile(mechanism: string | undefined, said: readonly SaidNumber[]): Promise<Reconciled[] | undefined> {
    return this.evaluator.quietly((api) => api.reconcile(mechanism, said, this.workshop()), 'reconcile', SEARCH_LIMIT);
  }

  /**
   * How many of such cards work, made by this hand: samples shared out among the threads, the same whatever their number.
   * @param told how much of it is done, 0 … 1; false stops it
   */
  async tolerance(
    card: CardDocument,
    samples: number,
    seed: number,
    told: (share: number) => boolean,
  ): Promise<ToleranceStudy | { says: string } | undefined> {
    const workshop = this.workshop();
    let counts: SampleCounts | undefined;
    let next = 0;
    let trouble: { says: string } | undefined;
    const line = async (): Promise<void> => {
      while (next < samples && !trouble) {
        const [from, to] = [next, Math.min(samples, next + SAMPLES_AT_ONCE)];
        next = to;
        const done = await this.evaluator.piece(
          async (api): Promise<SampleCounts | { says: string }> => api.samples(card, workshop, seed, from, to),
          SEARCH_LIMIT,
        );
        if ('says' in done) trouble = done;
        else counts = counts ? together(counts, done) : done;
        if (!told((counts?.samples ?? 0) / samples)) next = Infinity;
      }
    };
    try {
      await Promise.all([line(), line()]);
      if (trouble) return trouble;
      if (!counts || counts.samples < samples) return undefined;
      const all = counts;
      return await this.evaluator.piece(
        async (api): Promise<ToleranceStudy | { says: string }> => api.study(card, workshop, seed, all),
        SEARCH_LIMIT,
      );
    } catch (error) {
      return { says: error instanceof Error ? error.message : 'The calculation stopped.' };
    }
  }
}
