import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  boxOf,
  closuresOf,
  DISC,
  DISC_THICK,
  inSentence,
  MOST_CLOSURES,
  nextId,
  TOPPER_PLACE,
  usualMagnet,
  withClosure,
  withClosureChanged,
  withoutClosure,
  type CardDocument,
  type Evaluation,
  type MagnetClosure,
  type PlacedMagnet,
} from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { ChoiceRow } from '../fields/choice-row';
import { LengthRow, type GivenLength } from '../fields/length-row';
import { offeredChoices } from '../fields/offered-choices';
import { NumberText } from '../fields/number-text';
import type { Highlight } from '../parts/highlight';
import { WorkshopStore } from '../workshop/workshop-store';
import { faceChoices, faceOf } from './face-choices';
import { WornEntries, type WornEntry } from './worn-entries';

type Length = 'across' | 'along' | 'disc' | 'thick';

interface Row extends WornEntry {
  closure: MagnetClosure;
  placed: PlacedMagnet | undefined;
}

const LIMITS: Readonly<Record<Length, { min: number; max: number }>> = {
  across: TOPPER_PLACE,
  along: TOPPER_PLACE,
  disc: DISC,
  thick: DISC_THICK,
};
/** A disc as it is often bought, for who keeps none. */
const USUAL = { disc: 8, thick: 1 } as const;

/** Pairs of magnets: one is placed, the other lies where that comes to lie when the card closes. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-magnet-list',
  imports: [ChoiceRow, LengthRow, NumberText, WornEntries],
  template: `
    <dip-worn-entries
      heading="Magnets"
      first="Add a pair of magnets"
      another="One more pair"
      [entries]="rows()"
      [full]="full()"
      [(chosen)]="chosen"
      (added)="add()"
      (taken)="take($event)"
      (lit)="show($event)"
    >
      <ng-template let-row>
        @if (row.placed; as placed) {
          <p class="size numerals">
            <span class="pair"><span class="what">blank layers</span>{{ placed.first.blanks }}</span>
            @if (placed.second) {
              <span class="pair"
                ><span class="what">apart when closed</span><dip-number [value]="placed.apart" [notation]="card().notation"
              /></span>
            }
          </p>
          @if (placed.second; as other) {
            <p class="help">The other: {{ inSentence(other.panelName) }}{{ other.face === 'down' ? ', its back' : '' }}.</p>
          }
        }
        <dip-choice-row
          class="row choice"
          [fieldId]="row.id + '-face'"
          label="One lies on"
          [options]="faces()"
          [value]="row.closure.panel + ' ' + row.closure.face"
          (chosen)="setFace(row, $event)"
        />
        @if (mine().length > 1) {
          <dip-choice-row
            class="row choice"
            [fieldId]="row.id + '-disc-of-mine'"
            label="From my magnets"
            [options]="mine()"
            [value]="discOf(row)"
            (chosen)="setDisc(row, $event)"
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
        <dip-choice-row
          class="row choice"
          [fieldId]="row.id + '-whole'"
          label="Blank layers"
          [options]="blanks"
          [value]="row.closure.whole ? 'whole' : 'patch'"
          (chosen)="set(row, { whole: $event === 'whole' ? true : undefined })"
        />
        <dip-choice-row
          class="row choice"
          [fieldId]="row.id + '-stock'"
          label="Paper of the blank layers"
          [options]="stocks()"
          [value]="row.closure.stock"
          (chosen)="set(row, { stock: $event })"
        />
        <p class="help">Two magnets that are swallowed can kill: never where small children reach them. Follow your local rules.</p>
      </ng-template>
    </dip-worn-entries>
    @if (trouble(); as says) {
      <p class="trouble" role="alert">{{ says }}</p>
    }
  `,
  styleUrl: './dressing-panel.scss',
})
export class MagnetList {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input<Evaluation>();
  readonly changed = output<CardChange>();
  readonly light = output<Highlight | undefined>();

  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly inSentence = inSentence;
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly limits = LIMITS;
  protected readonly lengths = [
    { name: 'across' as const, label: 'Middle from the left' },
    { name: 'along' as const, label: 'Middle from below' },
    { name: 'disc' as const, label: 'Disc, across' },
    { name: 'thick' as const, label: 'Disc, thickness' },
  ];
  protected readonly blanks = [
    { value: 'patch', label: 'a patch round the disc' },
    { value: 'whole', label: 'the whole face, nothing stands out' },
  ];
  protected readonly mine = computed(() => [
    { value: '', label: 'of another size' },
    ...this.workshop().magnets.map(({ id, name }) => ({ value: id, label: name })),
  ]);
  protected readonly stocks = computed(() => offeredChoices('stocks', this.card(), this.workshop()));
  protected readonly faces = computed(() => faceChoices(this.evaluation()));
  protected readonly rows = computed((): Row[] => {
    const all = this.evaluation()?.dressed.magnets ?? [];
    return closuresOf(this.card().dressing, 'magnet').map((closure, i) => {
      const placed = all.find((each) => each.closure.id === closure.id);
      return { id: closure.id, number: placed?.number, title: `Magnets ${i + 1}`, closure, placed };
    });
  });
  protected readonly full = computed(() => (this.card().dressing?.closures ?? []).length >= MOST_CLOSURES);

  protected show(row: Row | undefined): void {
    const panels = row?.placed ? [row.placed.first, row.placed.second].flatMap((disc) => disc?.panel ?? []) : [];
    this.light.emit(panels.length > 0 ? { panels, creases: [] } : undefined);
  }

  /** One near the free edge, where two panels lie on one another and part. */
  protected add(): void {
    const known = this.evaluation();
    if (!known) return;
    const place = usualMagnet(known);
    this.trouble.set(
      place ? undefined : 'No two panels of this card lie on one another near its edge and part when it opens: magnets have no place.',
    );
    if (!place) return;
    const workshop = this.workshop();
    const [own] = workshop.magnets;
    const disc = own ? { disc: own.diameter, thick: own.thickness } : USUAL;
    const magnet = { kind: 'magnet' as const, ...place, ...disc, stock: this.card().stocks.display };
    this.chosen.set(nextId(this.card().dressing?.closures ?? [], 'magnet'));
    this.changed.emit({ what: 'One more pair of magnets', apply: (card) => withClosure(card, magnet, workshop) });
  }

  protected set({ id, title }: Row, change: Partial<MagnetClosure>, typed?: string): void {
    const workshop = this.workshop();
    this.changed.emit({ what: title, apply: (card) => withClosureChanged(card, id, change, workshop), ...(typed && { typed }) });
  }

  protected setLength(row: Row, name: Length, { mm, typed }: GivenLength): void {
    this.set(row, { [name]: mm }, typed);
  }

  protected discOf({ closure }: Row): string {
    return this.workshop().magnets.find(({ diameter, thickness }) => diameter === closure.disc && thickness === closure.thick)?.id ?? '';
  }

  protected setDisc(row: Row, id: string): void {
    const found = this.workshop().magnets.find((magnet) => magnet.id === id);
    if (found) this.set(row, { disc: found.diameter, thick: found.thickness });
  }

  protected setFace(row: Row, value: string): void {
    const { panel, face } = faceOf(value);
    const area = this.evaluation()?.design.panels.find(({ id }) => id === panel)?.area;
    if (!area) return;
    const { minX, maxX, minY, maxY } = boxOf(area.outer);
    this.set(row, { panel, face, across: (maxX - minX) / 2, along: (maxY - minY) / 2 });
  }

  protected take({ id, title }: Row): void {
    this.chosen.set(undefined);
    this.show(undefined);
    this.changed.emit({ what: `Take away the ${inSentence(title)}`, apply: (card) => withoutClosure(card, id) });
  }
}
