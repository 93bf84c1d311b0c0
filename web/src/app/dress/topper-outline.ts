import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  aspectOf,
  boxOf,
  inSentence,
  MARGIN,
  ownOutlines,
  sayLength,
  shapeNamed,
  SHAPE_OPTIONS,
  TOPPER_HEIGHT,
  withImage,
  withTopperChanged,
  type CardDocument,
  type CutAlong,
  type PlacedTopper,
  type Topper,
} from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { Evaluator } from '../evaluation/evaluator';
import { ChoiceRow } from '../fields/choice-row';
import { imageFrom, outlineAlong } from '../fields/image-file';
import { LengthRow } from '../fields/length-row';
import { outlineFrom, withOutline } from '../fields/outline-file';
import { WorkshopStore } from '../workshop/workshop-store';

/** What a topper is cut along: a built-in outline, one of my dies, a drawing, or a picture that is printed on it. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-topper-outline',
  imports: [ChoiceRow, LengthRow],
  template: `
    <dip-choice-row
      class="row choice"
      [fieldId]="topper().id + '-outline'"
      label="Outline"
      [options]="outlines()"
      [value]="topper().outline"
      (chosen)="set({ outline: $event })"
    />
    @if (dies().length) {
      <dip-choice-row
        class="row choice"
        [fieldId]="topper().id + '-die'"
        label="From my dies"
        [options]="dies()"
        [value]="die()"
        (chosen)="setDie($event)"
      />
    }
    <input
      #drawing
      type="file"
      accept=".svg,image/svg+xml"
      class="visually-hidden"
      tabindex="-1"
      [attr.aria-label]="'Drawing for ' + title()"
      (change)="bringOutline(drawing)"
    />
    <button type="button" class="more" (click)="drawing.click()">Bring an outline from an SVG drawing</button>
    <input
      #picture
      type="file"
      accept=".png,.jpg,.jpeg,image/png,image/jpeg"
      class="visually-hidden"
      tabindex="-1"
      [attr.aria-label]="'Picture for ' + title()"
      (change)="bringPicture(picture)"
    />
    <button type="button" class="more" (click)="picture.click()">Bring a picture to print on it</button>
    @if (trouble(); as says) {
      <p class="trouble" role="alert">{{ says }}</p>
    }
    @if (image()) {
      <dip-choice-row
        class="row choice"
        [fieldId]="topper().id + '-cut-along'"
        label="Cut along"
        [options]="alongs"
        [value]="along()"
        (chosen)="cutAlong($any($event))"
      />
    }
    <dip-length-row
      [fieldId]="topper().id + '-margin'"
      label="Cut outside it by"
      [value]="topper().margin ?? 0"
      [notation]="card().notation"
      [limits]="margins"
      (given)="set({ margin: $event.mm === 0 ? undefined : $event.mm }, $event.typed)"
    />
  `,
  styleUrl: './dressing-panel.scss',
  styles: ':host { display: block; }',
})
export class TopperOutline {
  readonly topper = input.required<Topper>();
  readonly placed = input<PlacedTopper>();
  readonly title = input.required<string>();
  readonly card = input.required<CardDocument>();
  readonly changed = output<CardChange>();

  private readonly workshop = inject(WorkshopStore).workshop;
  private readonly evaluator = inject(Evaluator);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly margins = MARGIN;
  protected readonly alongs = [
    { value: 'shows', label: 'what the picture shows' },
    { value: 'whole', label: 'the edge of the picture' },
  ];
  protected readonly outlines = computed(() => [
    ...SHAPE_OPTIONS,
    ...(this.card().outlines ?? []).map(({ id, name }) => ({ value: id, label: name })),
  ]);
  private readonly own = computed(() => this.card().outlines?.find(({ id }) => id === this.topper().outline));
  /** the picture that is printed on it */
  protected readonly image = computed(() => this.card().images?.find(({ id }) => id === this.own()?.image?.of));
  protected readonly along = computed((): CutAlong => {
    const { image, points = [] } = this.own() ?? {};
    if (!image) return 'shows';
    const { minX, maxX, minY, maxY } = boxOf(points);
    const isWhole = points.length === 4 && maxX - minX > 0.999 * image.width && maxY - minY > 0.999 * image.height;
    return isWhole ? 'whole' : 'shows';
  });
  /** every size of every die whose outline is known, and that a topper need not be one */
  protected readonly dies = computed(() => {
    const { notation } = this.card();
    const own = this.workshop().dies.filter(({ outline }) => this.outlines().some(({ value }) => value === outline));
    const all = own.flatMap(({ id, name, sizes }) =>
      sizes.map(({ cut }, i) => ({ value: `${id} ${i}`, label: `${name}, ${sayLength(cut, notation)}` })),
    );
    return all.length > 0 ? [{ value: '', label: 'cut by hand or cutter' }, ...all] : [];
  });
  /** the die that cuts it as it is; none where it is of another size */
  protected readonly die = computed(() => {
    const width = this.placed()?.sheet.width;
    const found = this.workshop().dies.flatMap(({ id, outline, sizes }) =>
      sizes.flatMap(({ cut }, i) =>
        outline === this.topper().outline && width !== undefined && Math.abs(cut - width) < 0.05 ? [`${id} ${i}`] : [],
      ),
    );
    return found[0] ?? '';
  });

  protected set(change: Partial<Topper>, typed?: string): void {
    this.emit(`Topper: ${inSentence(this.title())}`, (card) => card, change, typed);
  }

  /** One step: what the card brings along, and what of the topper is changed with it. */
  private emit(what: string, bring: (card: CardDocument) => CardDocument, change: Partial<Topper>, typed?: string): void {
    const workshop = this.workshop();
    const { id } = this.topper();
    this.changed.emit({ what, apply: (card) => withTopperChanged(bring(card), id, change, workshop), ...(typed && { typed }) });
  }

  /** Makes a topper what a die cuts: its outline, as wide as that cuts. */
  protected setDie(value: string): void {
    const [id, size] = value.split(' ');
    const die = this.workshop().dies.find((each) => each.id === id);
    const cut = die?.sizes[Number(size)]?.cut;
    const outline = die && shapeNamed(die.outline, ownOutlines(this.card()));
    if (!die || !outline || cut === undefined) return;
    this.set({ outline: die.outline, height: cut / aspectOf(outline), width: undefined, margin: undefined });
  }

  /** Reads an outline out of a drawing and gives it to the topper. Refused drawings leave the card as it is. */
  protected async bringOutline(drawing: HTMLInputElement): Promise<void> {
    const file = drawing.files?.[0];
    drawing.value = '';
    if (!file) return;
    const reading = await outlineFrom(file, this.card(), this.evaluator);
    this.trouble.set(reading.ok ? reading.note : reading.says);
    if (!reading.ok) return;
    const { outline } = reading;
    this.emit(`Outline of the topper: ${inSentence(this.title())}`, (card) => withOutline(card, outline), { outline: outline.id });
  }

  /** Prints a picture on the topper, as large as its file says. Refused ones leave the card as it is. */
  protected async bringPicture(picture: HTMLInputElement): Promise<void> {
    const file = picture.files?.[0];
    picture.value = '';
    if (!file) return;
    const reading = await imageFrom(file);
    this.trouble.set(reading.ok ? reading.note : reading.says);
    if (!reading.ok) return;
    const { image, outline } = reading;
    try {
      withImage(this.card(), image, outline);
    } catch (error) {
      this.trouble.set((error as RangeError).message);
      return;
    }
    const height = Math.min(TOPPER_HEIGHT.max, Math.max(TOPPER_HEIGHT.min, Math.round(10 * reading.height) / 10));
    this.emit(`Picture on the topper: ${inSentence(this.title())}`, (card) => withImage(card, image, outline), {
      ...{ outline: outline.id, height, width: undefined },
    });
  }

  /** Cuts a picture along something else; it stays as large as it is. */
  protected async cutAlong(along: CutAlong): Promise<void> {
    const [own, image] = [this.own(), this.image()];
    if (!own?.image || !image) return;
    const outline = await outlineAlong(image, own, along);
    const high = (of: typeof own): number => (boxOf(of.points).maxY - boxOf(of.points).minY) / of.image!.height;
    const height = Math.min(TOPPER_HEIGHT.max, Math.max(TOPPER_HEIGHT.min, (this.topper().height * high(outline)) / high(own)));
    this.emit(
      `Cut of the topper: ${inSentence(this.title())}`,
      (card) => ({ ...card, outlines: (card.outlines ?? []).map((each) => (each.id === own.id ? { ...outline, id: own.id } : each)) }),
      { height, width: undefined },
    );
  }
}
