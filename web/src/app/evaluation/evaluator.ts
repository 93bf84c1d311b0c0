import { inject, Injectable, OnDestroy } from '@angular/core';
import type { CardDocument, Finding, Outcome, ThicknessMap } from '@diptychon/core';
import { releaseProxy, wrap, type Remote } from 'comlink';
import { catchError, defer, EMPTY, map, of, switchMap, type Observable } from 'rxjs';
import { WorkshopStore } from '../workshop/workshop-store';
import type { CardPictures, EvaluationApi, HeavyFile, Sides, WrittenFile } from './evaluation-api';
import { Overtaken, WorkerPool } from './worker-pool';

/** An outcome, or a sentence when the calculation itself broke. */
export type Answer = Outcome | { ok: 'broken'; says: string };

/** One thread is left to the page itself. */
const MOST_THREADS = 3;

/** Hands cards to the workers, together with the workshop that they are worked out with. */
@Injectable({ providedIn: 'root' })
export class Evaluator implements OnDestroy {
  private readonly workshop = inject(WorkshopStore).workshop;
  private readonly pool = new WorkerPool<Remote<EvaluationApi>>(
    Math.max(1, Math.min(MOST_THREADS, (navigator.hardwareConcurrency || 2) - 1)),
    () => {
      const worker = new Worker(new URL('./evaluation.worker', import.meta.url), { type: 'module' });
      const api = wrap<EvaluationApi>(worker);
      return {
        api,
        stop: () => {
          api[releaseProxy]();
          worker.terminate();
        },
      };
    },
  );

  ngOnDestroy(): void {
    this.pool.close();
  }

  /** The outcome for each card; one that is overtaken by a newer card is never begun, or dropped. */
  follow(cards: Observable<CardDocument>): Observable<{ card: CardDocument; answer: Answer }> {
    return cards.pipe(switchMap((card) => this.once(card, 'bench').pipe(map((answer) => ({ card, answer })))));
  }

  once(card: CardDocument, channel?: string): Observable<Answer> {
    const work = async (api: Remote<EvaluationApi>): Promise<Answer> => api.evaluate(card, this.workshop());
    return defer(() => this.pool.run('hand', work, channel)).pipe(
      catchError((error: unknown) => {
        if (error instanceof Overtaken) return EMPTY;
        return of({ ok: 'broken' as const, says: error instanceof Error ? error.message : 'The calculation stopped.' });
      }),
    );
  }

  /** Findings with fixes that were searched for; nothing when that was overtaken or broke. */
  offers(card: CardDocument): Promise<Finding[] | undefined> {
    return this.quietly((api) => api.offers(card, this.workshop()), 'offers');
  }

  /** Which faces are seen, closed, half open and open. */
  sides(card: CardDocument): Promise<Sides | undefined> {
    return this.quietly((api) => api.sides(card, this.workshop()), 'sides');
  }

  /** How thick the closed card is, over a grid of cells that wide (mm). */
  thickness(card: CardDocument, cell: number): Promise<ThicknessMap | undefined> {
    return this.quietly((api) => api.thickness(card, this.workshop(), cell), 'thickness');
  }

  /** A PDF or DXF of a card. */
  write(card: CardDocument, file: HeavyFile): Promise<WrittenFile[]> {
    return this.pool.run('beside', (api) => api.write(card, this.workshop(), file));
  }

  /** Pictures of a card, the last one as it is put down; nothing when it cannot be worked out. */
  async pictures(card: CardDocument, openings: readonly number[] = [1]): Promise<CardPictures | undefined> {
    try {
      return await this.pool.run('picture', (api) => api.pictures(card, openings));
    } catch {
      return undefined;
    }
  }

  private async quietly<T>(work: (api: Remote<EvaluationApi>) => Promise<T>, channel: string): Promise<T | undefined> {
    try {
      return await this.pool.run('beside', work, channel);
    } catch {
      return undefined;
    }
  }
}
