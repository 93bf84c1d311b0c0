import { Injectable } from '@angular/core';
import type { CardDocument, Outcome } from '@diptychon/core';
import { wrap, type Remote } from 'comlink';
import { catchError, defer, map, of, switchMap, type Observable } from 'rxjs';
import type { CardPictures, EvaluationApi, HeavyFile } from './evaluation.worker';

/** An outcome, or a sentence when the calculation itself broke. */
export type Answer = Outcome | { ok: 'broken'; says: string };

/** Hands cards to the worker. */
@Injectable({ providedIn: 'root' })
export class Evaluator {
  private readonly api: Remote<EvaluationApi> = wrap<EvaluationApi>(
    new Worker(new URL('./evaluation.worker', import.meta.url), { type: 'module' }),
  );

  /** The outcome for each card; one that is overtaken by a newer card is dropped. */
  follow(cards: Observable<CardDocument>): Observable<{ card: CardDocument; answer: Answer }> {
    return cards.pipe(switchMap((card) => this.once(card).pipe(map((answer) => ({ card, answer })))));
  }

  /** A PDF or DXF of a card, made in the worker. */
  write(card: CardDocument, file: HeavyFile): Promise<Uint8Array> {
    return this.api.write(card, file);
  }

  /** Pictures of a card, the last one as it is put down; nothing when it cannot be worked out. */
  async pictures(card: CardDocument, openings: readonly number[] = [1]): Promise<CardPictures | undefined> {
    try {
      return await this.api.pictures(card, openings);
    } catch {
      return undefined;
    }
  }

  once(card: CardDocument): Observable<Answer> {
    return defer(() => this.api.evaluate(card)).pipe(
      catchError((error: unknown) =>
        of({ ok: 'broken' as const, says: error instanceof Error ? error.message : 'The calculation stopped.' }),
      ),
    );
  }
}
