import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  BAND_PLACE,
  closuresOf,
  inSentence,
  MOST_CLOSURES,
  nextId,
  RIBBON_END,
  RIBBON_LOOP,
  RIBBON_WIDTH,
  withClosure,
  withClosureChanged,
  withoutClosure,
  type CardDocument,
  type Evaluation,
  type PlacedRibbon,
  type RibbonClosure,
} from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { ChoiceRow } from '../fields/choice-row';
import { LengthRow, type GivenLength } from '../fields/length-row';
import { NumberText } from '../fields/number-text';
import { WorkshopStore } from '../workshop/workshop-store';
import { WornEntries, type WornEntry } from './worn-entries';

type Length = 'wide' | 'at' | 'loop' | 'end';

interface Row extends WornEntry {
  closure: RibbonClosure;
  placed: PlacedRibbon | undefined;
}

const LIMITS: Readonly<Record<Length, { min: number; max: number }>> = {
  wide: RIBBON_WIDTH,
  at: BAND_PLACE,
  loop: RIBBON_LOOP,
  end: RIBBON_END,
};
/** A ribbon as it is often bought, with a bow of a hand's breadth. */
const USUAL = { wide: 10, loop: 40, end: 100 } as const;
/** A ribbon goes round one way or the other, out of slits in the fold, or round a panel that the card opens with. */
const WAYS = [
  { value: 'across', label: 'the fold and the free edge' },
  { value: 'along', label: 'both ends of the fold' },
  { value: 'slits', label: 'out of two slits in the fold' },
  { value: 'panel', label: 'one panel' },
];
/** As the piece of the panel is drawn. */
const ROUND_PANEL = [
  { value: 'across', label: 'its left and right edge' },
  { value: 'along', label: 'its upper and lower edge' },
];

/** Ribbons tied round the closed card. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-ribbon-list',
  imports: [ChoiceRow, LengthRow, NumberText, WornEntries],
  template: `
    <dip-worn-entries
      heading="Ribbons"
      first="Add a ribbon"
      another="One more ribbon"
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
              ><span class="what">length</span><dip-number [value]="placed.ribbon.length" [notation]="card().notation"
            /></span>
          </p>
        }
        <dip-choice-row
          class="row choice"
          [fieldId]="row.id + '-way'"
          label="Goes round"
          [options]="ways"
          [value]="row.closure.way === 'round' ? row.closure.around : row.closure.way"
          (chosen)="setWay(row, $event)"
        />
        @if (row.closure.way === 'panel') {
          <dip-choice-row
            class="row choice"
            [fieldId]="row.id + '-panel'"
            label="Panel"
            [options]="panels()"
            [value]="row.closure.panel ?? ''"
            (chosen)="set(row, { panel: $event })"
          />
          <dip-choice-row
            class="row choice"
            [fieldId]="row.id + '-round'"
            label="Round"
            [options]="roundPanel"
            [value]="row.closure.around"
            (chosen)="set(row, { around: $any($event) })"
          />
        }
        @for (entry of lengths; track entry.name) {
          <dip-length-row
            [fieldId]="row.id + '-' + entry.name"
            [label]="entry.label"
            [value]="row.closure[entry.name]"
            [notation]="card().notation"
            [limits]="limits[entry.name]"
            (given)="setLength(row, entry.name, $event)"
          />
        }
        <p class="help">A bow whose loops are 0 high is a plain knot.</p>
      </ng-template>
    </dip-worn-entries>
  `,
  styleUrl: './dressing-panel.scss',
})
export class RibbonList {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input<Evaluation>();
  readonly changed = output<CardChange>();

  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly ways = WAYS;
  protected readonly roundPanel = ROUND_PANEL;
  protected readonly panels = computed(() => (this.evaluation()?.design.panels ?? []).map(({ id, name }) => ({ value: id, label: name })));
  protected readonly limits = LIMITS;
  protected readonly lengths = [
    { name: 'wide' as const, label: 'Width' },
    { name: 'at' as const, label: 'Its middle at' },
    { name: 'loop' as const, label: 'Loops, height' },
    { name: 'end' as const, label: 'Each end' },
  ];
  protected readonly rows = computed((): Row[] => {
    const all = this.evaluation()?.dressed.ribbons ?? [];
    return closuresOf(this.card().dressing, 'ribbon').map((closure, i) => {
      const placed = all.find((each) => each.closure.id === closure.id);
      return { id: closure.id, number: placed?.number, title: `Ribbon ${i + 1}`, closure, placed };
    });
  });
  protected readonly full = computed(() => (this.card().dressing?.closures ?? []).length >= MOST_CLOSURES);

  /** One round the middle of the card. */
  protected add(): void {
    const box = this.evaluation()?.closed.box;
    if (!box) return;
    const workshop = this.workshop();
    const ribbon = { kind: 'ribbon', way: 'round', around: 'across', at: Math.round((box.maxY - box.minY) / 2), ...USUAL } as const;
    this.chosen.set(nextId(this.card().dressing?.closures ?? [], 'ribbon'));
    this.changed.emit({ what: 'One more ribbon', apply: (card) => withClosure(card, ribbon, workshop) });
  }

  protected setWay(row: Row, way: string): void {
    if (way === 'panel') {
      const panel = row.closure.panel ?? this.panels()[0]?.value;
      this.set(row, { way, around: 'along', ...(panel !== undefined && { panel }) });
    } else this.set(row, way === 'slits' ? { way, around: 'across' } : { way: 'round', around: way as 'across' | 'along' });
  }

  protected set({ id, title }: Row, change: Partial<RibbonClosure>, typed?: string): void {
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
