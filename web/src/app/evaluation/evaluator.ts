import { inject, Injectable, OnDestroy } from '@angular/core';
import type {
  BentRow,
  CardDocument,
  CardPictures,
  Exercise,
  ExerciseKind,
  Finding,
  Outcome,
  OutlineReading,
  ThicknessMap,
  Workshop,
} from '@diptychon/core';
import { proxy, releaseProxy, wrap, type Remote } from 'comlink';
import { catchError, concat, defer, EMPTY, filter, map, mergeMap, of, tap, type Observable } from 'rxjs';
import { WorkshopStore } from '../workshop/workshop-store';
import type { BegunCard, EvaluationApi, HeavyFile, Sides, WrittenFile } from './evaluation-api';
import { Overtaken, ThreadDied, TookTooLong, WorkerPool } from './worker-pool';

/** An outcome, or a sentence when the calculation itself broke. */
export type Answer = Outcome | { ok: 'broken'; says: string };
/** The calculation was begun once more. */
export interface Late {
  ok: 'late';
  says: string;
}

/** How long a card may take (ms): the first time, and once it was begun anew, on a machine that is just slow. */
const PATIENCE = [3000, 20_000] as const;
/** How long what is shown beside the verdict may take (ms). */
const BESIDE_LIMIT = 20_000;
const WRITING_LIMIT = 60_000;
/** A bent sheet takes ten seconds on a machine at rest. */
const BENDING_LIMIT = 120_000;
const READING_LIMIT = 5000;

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
        ready: api.here(),
        died: new Promise<string>((done) => worker.addEventListener('error', ({ message }) => done(message ?? ''))),
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

  /**
   * Outcomes of a card that changes: the one that is worked out is finished and told, of those that come meanwhile only the
   * newest is begun. So a card that changes faster than it is worked out is still seen to move. Where a calculation dies or
   * takes too long that is said, and it is begun once more, unless a newer card waits.
   */
  follow(cards: Observable<CardDocument>): Observable<{ card: CardDocument; answer: Answer | Late }> {
    let newest: CardDocument | undefined;
    return cards.pipe(
      tap((card) => (newest = card)),
      mergeMap((card) => this.tried(card, 'bench', () => newest === card).pipe(map((answer) => ({ card, answer })))),
    );
  }

  once(card: CardDocument): Observable<Answer> {
    return this.tried(card).pipe(filter((answer): answer is Answer => answer.ok !== 'late'));
  }

  private tried(card: CardDocument, channel?: string, wanted = () => true, attempt = 0): Observable<Answer | Late> {
    const work = async (api: Remote<EvaluationApi>): Promise<Answer> => api.evaluate(card, this.workshop());
    return defer(() => this.pool.run('hand', work, channel, PATIENCE[attempt])).pipe(
      catchError((error: unknown): Observable<Answer | Late> => {
        if (error instanceof Overtaken) return EMPTY;
        const says = error instanceof Error ? error.message : 'The calculation stopped.';
        if (!wanted()) return EMPTY;
        const again = (error instanceof TookTooLong || error instanceof ThreadDied) && attempt + 1 < PATIENCE.length;
        return again
          ? concat(of({ ok: 'late' as const, says }), this.tried(card, channel, wanted, attempt + 1))
          : of({ ok: 'broken' as const, says });
      }),
    );
  }

  /** An outline out of a drawing, which may hold anything. */
  async outline(text: string, name: string): Promise<OutlineReading> {
    try {
      return await this.pool.run('hand', async (api): Promise<OutlineReading> => api.outline(text, name), 'outline', READING_LIMIT);
    } catch (error) {
      return { ok: false, says: `${name} could not be read. ${error instanceof Error ? error.message : ''}`.trim() };
    }
  }

  /** Findings with fixes that were searched for; nothing when that was overtaken or broke. */
  offers(card: CardDocument): Promise<Finding[] | undefined> {
    return this.quietly((api) => api.offers(card, this.workshop()), 'offers');
  }

  /**
   * What comes of a card that is about to be begun, on the grooves of its board where that is wanted; see `evaluationApi`.
   * @param sheet the one that it is cut from, where it begins with a sheet; else any of the workshop
   */
  begun(
    card: CardDocument,
    onBoard: boolean,
    openings: readonly number[],
    sheet?: Workshop['sheets'][number],
  ): Promise<BegunCard | undefined> {
    const workshop = this.workshop();
    const having = sheet ? { ...workshop, sheets: [sheet] } : workshop;
    return this.quietly((api) => api.begun(card, having, onBoard, [...openings]), 'begun');
  }

  /** A question to practise on; nothing when that was overtaken or broke. */
  exercise(kind: ExerciseKind, seed: number): Promise<Exercise | undefined> {
    return this.quietly((api) => api.exercise(kind, seed, this.workshop()), 'exercise');
  }

  /** Which faces are seen, closed, half open and open. */
  sides(card: CardDocument): Promise<Sides | undefined> {
    return this.quietly((api) => api.sides(card, this.workshop()), 'sides');
  }

  /** How thick the closed card is, over a grid of cells that wide (mm). */
  thickness(card: CardDocument, cell: number): Promise<ThicknessMap | undefined> {
    return this.quietly((api) => api.thickness(card, this.workshop(), cell), 'thickness');
  }

  /** How the panels of a card bend that no stiff motion opens. @param told how much of it is done, 0 … 1 */
  bends(card: CardDocument, told: (share: number) => void): Promise<BentRow[] | undefined> {
    return this.quietly((api) => api.bends(card, this.workshop(), proxy(told)), 'bends', BENDING_LIMIT);
  }

  /** A piece of long work, behind all else. @throws TookTooLong, ThreadDied */
  piece<T>(work: (api: Remote<EvaluationApi>) => Promise<T>, limit: number): Promise<T> {
    return this.pool.run('picture', work, undefined, limit);
  }

  /** A PDF or DXF of a card. */
  write(card: CardDocument, file: HeavyFile): Promise<WrittenFile[]> {
    return this.pool.run('beside', (api) => api.write(card, this.workshop(), file), undefined, WRITING_LIMIT);
  }

  /** Pictures of a card, the last one as it is put down; nothing when it cannot be worked out. */
  async pictures(card: CardDocument, openings: readonly number[] = [1]): Promise<CardPictures | undefined> {
    try {
      return await this.pool.run('picture', (api) => api.pictures(card, openings), undefined, BESIDE_LIMIT);
    } catch {
      return undefined;
    }
  }

  /** Work beside what is under the hand, of a channel of its own; nothing when it was overtaken, called off, took too long or broke. */
  async quietly<T>(
    work: (api: Remote<EvaluationApi>) => Promise<T>,
    channel: string,
    limit = BESIDE_LIMIT,
    signal?: AbortSignal,
  ): Promise<T | undefined> {
    try {
      return await this.pool.run('beside', work, channel, limit, signal);
    } catch {
      return undefined;
    }
  }
}
