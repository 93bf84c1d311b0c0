import { inject, Injectable } from '@angular/core';
import { proxy } from 'comlink';
import type { CardDocument, CuttingPlan, PlanAsked } from '@diptychon/core';
import { Evaluator } from '../evaluation/evaluator';
import { WorkshopStore } from '../workshop/workshop-store';

/** A plan of a hundred cards takes some seconds (ms). */
const PLAN_LIMIT = 60_000;

/** Hands the sheets of a card to the workers. */
@Injectable({ providedIn: 'root' })
export class CuttingWork {
  private readonly evaluator = inject(Evaluator);
  private readonly workshop = inject(WorkshopStore).workshop;

  /**
   * How all pieces of so many cards are cut; nothing when that was overtaken, called off or broke.
   * @param told how much of it is done, 0 … 1
   */
  plan(card: CardDocument, asked: PlanAsked, told: (share: number) => void, signal: AbortSignal): Promise<CuttingPlan | undefined> {
    return this.evaluator.quietly((api) => api.cuttingPlan(card, this.workshop(), asked, proxy(told)), 'cutting', PLAN_LIMIT, signal);
  }
}
