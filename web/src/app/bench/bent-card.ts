import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { bendSentences, claimsOf, readBend, stockOf, type BendReading, type BentRow, type Evaluation } from '@diptychon/core';
import { Evaluator } from '../evaluation/evaluator';
import type { OpeningMark } from './opening-control';
import { WorkshopStore } from '../workshop/workshop-store';

/** A card stands still for this long (ms) before its bent panels are worked out: that takes seconds. */
const STANDS_STILL_MS = 600;
/** So many cards are remembered, the latest asked for last. */
const MOST_KEPT = 6;

/** How one row of panels bends, in words and numbers. */
export interface ToldBend {
  row: BentRow;
  reading: BendReading;
  sentences: string[];
}

/** The bent panels of the card on the bench: worked out once it stands still, and kept with its sizes. */
@Injectable()
export class BentCard {
  private readonly evaluator = inject(Evaluator);
  private readonly workshop = inject(WorkshopStore).workshop;
  private readonly kept = new Map<string, readonly BentRow[]>();
  private readonly known = signal<{ key: string; rows: readonly BentRow[] } | undefined>(undefined);
  private readonly wanted = signal<Evaluation | undefined>(undefined);
  /** how much is done, 0 … 1 */
  readonly share = signal(0);
  /** why there is nothing to show though panels bend */
  readonly failed = signal(false);

  /** whether the card has panels that bend */
  readonly bends = computed(() => rowsOf(this.wanted()) > 0);
  readonly rows = computed((): readonly BentRow[] | undefined => {
    const [known, wanted] = [this.known(), this.wanted()];
    return known && wanted && known.key === keyOf(wanted) ? known.rows : undefined;
  });
  readonly told = computed((): ToldBend[] | undefined => {
    const wanted = this.wanted();
    return this.rows()?.map((row) => {
      const { design } = wanted!;
      const { piece } = design.panels[design.linkage.bodyOf.get(row.claim.panels[0]!)!]!;
      const reading = readBend(
        row,
        stockOf(design, piece),
        this.workshop().stocks.filter(({ kind }) => kind === 'card' || kind === 'paper'),
      );
      return { row, reading, sentences: bendSentences(row, reading, design.card.notation) };
    });
  });

  /** where on the way something happens to what bends */
  readonly marks = computed((): OpeningMark[] =>
    (this.told() ?? []).flatMap(({ row, reading: { creasesFrom, snapsAt } }) => {
      const last = row.openings.length - 1;
      const after = row.openings.findIndex((opening) => opening >= (snapsAt ?? Infinity));
      return [
        ...(creasesFrom === undefined
          ? []
          : [
              {
                s: row.openings.indexOf(creasesFrom) / last,
                severity: 'warn',
                says: `Opened from closed, ${row.claim.name} creases from here on.`,
              },
            ]),
        ...row.meets.map(({ frame, name, way }) => ({
          s: frame / last,
          severity: 'warn' as const,
          says: `${way === 'opening' ? 'Opened from closed' : 'Closed from open'}, ${row.claim.name} runs into ${name} here.`,
        })),
        ...(snapsAt === undefined
          ? []
          : [{ s: (after - 0.5) / last, severity: 'warn', says: `From about here on ${row.claim.name} jumps over.` }]),
      ];
    }),
  );

  constructor() {
    effect((cleanUp) => {
      const wanted = this.wanted();
      if (!wanted || rowsOf(wanted) === 0 || untracked(this.rows)) return;
      const later = setTimeout(() => void this.workOut(wanted), STANDS_STILL_MS);
      cleanUp(() => clearTimeout(later));
    });
  }

  /** The card as it is now. */
  of(evaluation: Evaluation | undefined): void {
    const kept = evaluation && this.kept.get(keyOf(evaluation));
    if (kept) this.known.set({ key: keyOf(evaluation), rows: kept });
    this.wanted.set(evaluation);
  }

  private async workOut(evaluation: Evaluation): Promise<void> {
    const key = keyOf(evaluation);
    const isWanted = (): boolean => {
      const wanted = this.wanted();
      return wanted !== undefined && keyOf(wanted) === key;
    };
    this.share.set(0);
    this.failed.set(false);
    const rows = await this.evaluator.bends(evaluation.design.card, (share) => isWanted() && this.share.set(share));
    if (!isWanted()) return;
    if (!rows) {
      this.failed.set(true);
      return;
    }
    this.kept.set(key, rows);
    if (this.kept.size > MOST_KEPT) this.kept.delete(this.kept.keys().next().value!);
    this.known.set({ key, rows });
  }
}

const rowsOf = (evaluation: Evaluation | undefined): number => (evaluation ? claimsOf(evaluation.design, 'bends').length : 0);

/** What a bent shape depends on: parts, where they stand, all their sizes, and outlines. Not supplies, names or notes. */
const keyOf = ({ design: { card, parts, sizes } }: Evaluation): string =>
  JSON.stringify([parts.map(({ id, mechanism, on }) => [id, mechanism, on]), sizes, card.outlines, card.foldEdge]);
