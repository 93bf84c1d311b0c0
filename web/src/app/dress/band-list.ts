import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  BAND_PLACE,
  BAND_WIDTH,
  closuresOf,
  FASTENER_THICK,
  GIFT_GRAMS,
  GIFT_THICK,
  inSentence,
  MOST_CLOSURES,
  nextId,
  withClosure,
  withClosureChanged,
  withoutClosure,
  type BandClosure,
  type CardDocument,
  type Evaluation,
  type PlacedBand,
} from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { ChoiceRow } from '../fields/choice-row';
import { GramRow } from '../fields/gram-row';
import { LengthRow, type GivenLength } from '../fields/length-row';
import { offeredChoices } from '../fields/offered-choices';
import { NumberText } from '../fields/number-text';
import { WorkshopStore } from '../workshop/workshop-store';
import { WornEntries, type WornEntry } from './worn-entries';

type Length = 'wide' | 'at' | 'slip' | 'overlap';

interface Row extends WornEntry {
  closure: BandClosure;
  placed: PlacedBand | undefined;
}

const LIMITS: Readonly<Record<Length, { min: number; max: number }>> = {
  wide: BAND_WIDTH,
  at: BAND_PLACE,
  slip: { min: 0, max: 30 },
  overlap: { min: 2, max: 60 },
};
const USUAL_WIDTH = 30;

/** Bands round the closed card, which slide off. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-band-list',
  imports: [ChoiceRow, GramRow, LengthRow, NumberText, WornEntries],
  template: `
    <dip-worn-entries
      heading="Bands"
      first="Add a band"
      another="One more band"
      [entries]="rows()"
      [full]="full()"
      [(chosen)]="chosen"
      (added)="add()"
      (taken)="take($event)"
    >
      <ng-template let-row>
        @if (row.placed; as placed) {
          <p class="size numerals">
            <span class="pair"
              ><span class="what">strip</span><dip-number [value]="placed.sheet.width" [notation]="card().notation" /> ×
              <dip-number [value]="placed.sheet.height" [notation]="card().notation"
            /></span>
          </p>
        }
        <dip-choice-row
          class="row choice"
          [fieldId]="row.id + '-around'"
          label="Goes round"
          [options]="ways"
          [value]="row.closure.around"
          (chosen)="set(row, { around: $event })"
        />
        @for (entry of lengths; track entry.name) {
          <dip-length-row
            [fieldId]="row.id + '-' + entry.name"
            [label]="entry.label"
            [value]="value(row, entry.name)"
            [notation]="card().notation"
            [limits]="limits[entry.name]"
            (given)="setLength(row, entry.name, $event)"
          />
        }
        <dip-choice-row
          class="row choice"
          [fieldId]="row.id + '-joined'"
          label="Its ends"
          [options]="ends"
          [value]="row.closure.fastener === undefined ? 'glued' : 'fastener'"
          (chosen)="set(row, { fastener: $event === 'glued' ? undefined : usualFastener })"
        />
        @if (row.closure.fastener; as thick) {
          <dip-length-row
            [fieldId]="row.id + '-fastener'"
            label="Fastener, thickness"
            [value]="thick"
            [notation]="card().notation"
            [limits]="fasteners"
            (given)="set(row, { fastener: $event.mm }, $event.typed)"
          />
        }
        <dip-choice-row
          class="row choice"
          [fieldId]="row.id + '-gift'"
          label="On it"
          [options]="gifts"
          [value]="row.closure.gift === undefined ? 'none' : 'gift'"
          (chosen)="set(row, { gift: $event === 'none' ? undefined : usualGift })"
        />
        @if (row.closure.gift; as gift) {
          <dip-length-row
            [fieldId]="row.id + '-gift-thick'"
            label="Gift, height"
            [value]="gift.thick"
            [notation]="card().notation"
            [limits]="giftHeights"
            (given)="set(row, { gift: { thick: $event.mm, grams: gift.grams } }, $event.typed)"
          />
          <dip-gram-row
            [fieldId]="row.id + '-gift-grams'"
            label="Gift, weight in g"
            [value]="gift.grams"
            [limits]="giftGrams"
            (given)="set(row, { gift: { thick: gift.thick, grams: $event } })"
          />
        }
        <dip-choice-row
          class="row choice"
          [fieldId]="row.id + '-stock'"
          label="Paper"
          [spoken]="'Paper of ' + row.title"
          [options]="stocks()"
          [value]="row.closure.stock"
          (chosen)="set(row, { stock: $event })"
        />
      </ng-template>
    </dip-worn-entries>
  `,
  styleUrl: './dressing-panel.scss',
})
export class BandList {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input<Evaluation>();
  readonly changed = output<CardChange>();

  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly ways = [
    { value: 'across' as const, label: 'the fold and the free edge' },
    { value: 'along' as const, label: 'both ends of the fold' },
  ];
  protected readonly limits = LIMITS;
  protected readonly lengths = [
    { name: 'wide' as const, label: 'Width' },
    { name: 'at' as const, label: 'Its middle at' },
    { name: 'slip' as const, label: 'Slip' },
    { name: 'overlap' as const, label: 'Overlap' },
  ];
  protected readonly ends = [
    { value: 'glued', label: 'glued to itself' },
    { value: 'fastener', label: 'held by a fastener' },
  ];
  protected readonly gifts = [
    { value: 'none', label: 'nothing' },
    { value: 'gift', label: 'a gift, dotted on' },
  ];
  protected readonly usualFastener = 1;
  protected readonly usualGift = { thick: 5, grams: 10 };
  protected readonly fasteners = FASTENER_THICK;
  protected readonly giftHeights = GIFT_THICK;
  protected readonly giftGrams = GIFT_GRAMS;
  protected readonly stocks = computed(() => offeredChoices('stocks', this.card(), this.workshop()));
  protected readonly rows = computed((): Row[] => {
    const all = this.evaluation()?.dressed.bands ?? [];
    return closuresOf(this.card().dressing, 'band').map((closure, i) => {
      const placed = all.find((each) => each.closure.id === closure.id);
      return { id: closure.id, number: placed?.number, title: `Band ${i + 1}`, closure, placed };
    });
  });
  protected readonly full = computed(() => (this.card().dressing?.closures ?? []).length >= MOST_CLOSURES);

  /** Slip and overlap that are not said are those that the band was worked out with. */
  protected value({ closure, placed }: Row, name: Length): number {
    return closure[name] ?? placed?.band[name as 'slip'] ?? 0;
  }

  /** One across the middle of the card. */
  protected add(): void {
    const box = this.evaluation()?.closed.box;
    if (!box) return;
    const workshop = this.workshop();
    const at = Math.round((box.maxY - box.minY) / 2);
    const band = { kind: 'band' as const, around: 'across' as const, wide: USUAL_WIDTH, at, stock: this.card().stocks.display };
    this.chosen.set(nextId(this.card().dressing?.closures ?? [], 'band'));
    this.changed.emit({ what: 'One more band', apply: (card) => withClosure(card, band, workshop) });
  }

  protected set({ id, title }: Row, change: Partial<BandClosure>, typed?: string): void {
    const workshop = this.workshop();
    this.changed.emit({ what: title, apply: (card) => withClosureChanged(card, id, change, workshop), ...(typed && { typed }) });
  }

  protected setLength(row: Row, name: Length, { mm, typed }: GivenLength): void {
    this.set(row, { [name]: mm }, typed);
  }

  protected take({ id, title }: Row): void {
    this.chosen.set(undefined);
    this.changed.emit({ what: `Take away the ${inSentence(title)}`, apply: (card) => withoutClosure(card, id) });
  }
}
