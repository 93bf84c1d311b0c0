import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  BACKING_BORDER,
  FILM_LENGTH,
  FILM_WIDTH,
  MOST_BACKINGS,
  MOST_FOAM,
  rulerStep,
  type CardDocument,
  type Topper,
  type TopperFilm,
} from '@diptychon/core';
import { ChoiceRow } from '../fields/choice-row';
import { LengthRow } from '../fields/length-row';

/** What is changed of a topper, and the field that it is typed into where that is not left yet. */
export interface TopperChange {
  change: Partial<Topper>;
  typed?: string | undefined;
}

/** Foam as it is bought. */
const USUAL_FOAM = 2;
const USUAL_BORDER = 3;
const USUAL_FILM_WIDTH = 10;
/** Film reaches so far under a new topper, for the glue. */
const USUAL_FOOT = 20;
const HOW_MANY = ['none', 'one', 'two', 'three'] as const;

/** What a topper is put together with: papers behind it, foam or film under it, a twin on its back. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-topper-mount',
  imports: [ChoiceRow, LengthRow],
  template: `
    <dip-choice-row
      class="row choice"
      [fieldId]="topper().id + '-backings'"
      label="Papers behind it"
      [options]="counts"
      [value]="'' + backings().length"
      (chosen)="setCount(+$event)"
    />
    @for (backing of backings(); track $index) {
      <dip-length-row
        [fieldId]="topper().id + '-border-' + $index"
        [label]="$index === 0 ? 'The first shows, all round' : 'The next shows, all round'"
        [value]="backing.border"
        [notation]="card().notation"
        [limits]="borders"
        (given)="setBacking($index, { border: $event.mm }, $event.typed)"
      />
      <dip-choice-row
        class="row choice"
        [fieldId]="topper().id + '-backing-stock-' + $index"
        label="Its paper"
        [options]="stocks()"
        [value]="backing.stock"
        (chosen)="setBacking($index, { stock: $event })"
      />
    }
    <dip-choice-row
      class="row"
      [fieldId]="topper().id + '-mount'"
      label="Mounted"
      [options]="mounts"
      [value]="mount()"
      (chosen)="setMount($event)"
    />
    @if (topper().foam; as foam) {
      <dip-length-row
        [fieldId]="topper().id + '-foam'"
        label="Foam, height"
        [value]="foam"
        [notation]="card().notation"
        [limits]="foams"
        (given)="changed.emit({ change: { foam: $event.mm }, typed: $event.typed })"
      />
    }
    @if (topper().film; as film) {
      <dip-length-row
        [fieldId]="topper().id + '-film-wide'"
        label="Film, width"
        [value]="film.wide"
        [notation]="card().notation"
        [limits]="widths"
        (given)="setFilm({ wide: $event.mm }, $event.typed)"
      />
      <dip-length-row
        [fieldId]="topper().id + '-film-long'"
        label="Film, length"
        [value]="film.long"
        [notation]="card().notation"
        [limits]="filmLengths"
        (given)="setFilm({ long: $event.mm }, $event.typed)"
      />
      <dip-choice-row
        class="row choice"
        [fieldId]="topper().id + '-film-stock'"
        label="Its film"
        [options]="stocks()"
        [value]="film.stock"
        (chosen)="setFilm({ stock: $event })"
      />
      <p class="help">It begins just under the upper edge and runs down the middle; only what lies on the panel is taped down.</p>
    }
    <dip-choice-row
      class="row choice"
      [fieldId]="topper().id + '-twin'"
      label="Its back"
      [options]="backs"
      [value]="topper().twin ? 'twin' : 'bare'"
      (chosen)="changed.emit({ change: { twin: $event === 'twin' ? true : undefined } })"
    />
    @if (topper().twin) {
      <p class="help">Its mirror image covers it wherever it is free: past an edge, over an opening, or through clear film.</p>
    }
  `,
  styleUrl: './dressing-panel.scss',
  styles: ':host { display: block; }',
})
export class TopperMount {
  readonly topper = input.required<Topper>();
  readonly card = input.required<CardDocument>();
  readonly stocks = input.required<readonly { value: string; label: string }[]>();
  readonly changed = output<TopperChange>();

  protected readonly mounts = [
    { value: 'flat', label: 'glued flat' },
    { value: 'foam', label: 'on foam' },
    { value: 'film', label: 'on film' },
  ];
  protected readonly backs = [
    { value: 'bare', label: 'left as it is' },
    { value: 'twin', label: 'covered by a twin' },
  ];
  protected readonly counts = HOW_MANY.slice(0, MOST_BACKINGS + 1).map((label, i) => ({ value: `${i}`, label }));
  protected readonly borders = BACKING_BORDER;
  protected readonly widths = FILM_WIDTH;
  protected readonly filmLengths = FILM_LENGTH;
  protected readonly foams = { min: 0.5, max: MOST_FOAM };
  protected readonly backings = computed(() => this.topper().backings ?? []);
  protected readonly mount = computed(() => (this.topper().film ? 'film' : this.topper().foam === undefined ? 'flat' : 'foam'));

  /** The mark of the maker's ruler that is nearest. */
  private onMark(mm: number): number {
    const step = rulerStep(this.card().notation);
    return Math.round(mm / step) * step;
  }

  protected setCount(count: number): void {
    const now = this.backings();
    const more = Array.from({ length: Math.max(0, count - now.length) }, () => ({
      border: this.onMark(USUAL_BORDER),
      stock: this.card().stocks.display,
    }));
    const backings = [...now, ...more].slice(0, count);
    this.changed.emit({ change: { backings: backings.length > 0 ? backings : undefined } });
  }

  protected setBacking(at: number, change: Partial<NonNullable<Topper['backings']>[number]>, typed?: string): void {
    this.changed.emit({ change: { backings: this.backings().map((each, i) => (i === at ? { ...each, ...change } : each)) }, typed });
  }

  /** Film holds by itself: there is no foam under it then, and no glue on a part. */
  protected setMount(mount: string): void {
    const { height } = this.topper();
    const film = { wide: this.onMark(USUAL_FILM_WIDTH), long: this.onMark(Math.min(FILM_LENGTH.max, height + USUAL_FOOT)) };
    this.changed.emit({
      change: {
        foam: mount === 'foam' ? USUAL_FOAM : undefined,
        film: mount === 'film' ? { ...film, stock: this.card().stocks.film } : undefined,
        ...(mount === 'film' && { glued: undefined }),
      },
    });
  }

  protected setFilm(change: Partial<TopperFilm>, typed?: string): void {
    const { film } = this.topper();
    if (film) this.changed.emit({ change: { film: { ...film, ...change } }, typed });
  }
}
