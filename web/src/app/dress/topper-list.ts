import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  boxOf,
  CAPITALS,
  STYLES,
  STYLE_IDS,
  GLUE_DEEP,
  inSentence,
  MOST_TIMES,
  MOST_TOPPERS,
  MOST_WORDS,
  nextId,
  SHAPE_OPTIONS,
  SIDE_NAMES,
  SIDES,
  toDegrees,
  TOPPER_HEIGHT,
  TOPPER_PLACE,
  TOPPER_WIDTH,
  withoutTopper,
  withTopper,
  withTopperChanged,
  type CardDocument,
  type Evaluation,
  type GluedPart,
  type Greeting,
  type PlacedTopper,
  type Topper,
} from '@diptychon/core';
import { InputText } from 'primeng/inputtext';
import type { CardChange } from '../bench/card-change';
import { ChoiceRow } from '../fields/choice-row';
import { LengthField } from '../fields/length-field';
import { LengthRow, type GivenLength } from '../fields/length-row';
import { offeredChoices } from '../fields/offered-choices';
import { NumberText } from '../fields/number-text';
import { capital, faceChoices, faceOf } from './face-choices';
import { TopperMount } from './topper-mount';
import { TopperOutline } from './topper-outline';
import { WornEntries, type WornEntry } from './worn-entries';
import type { Highlight } from '../parts/highlight';
import { WorkshopStore } from '../workshop/workshop-store';

/** A topper of the card, and how it lies; not there when its panel or its outline is not. */
interface Row extends WornEntry {
  topper: Topper;
  placed: PlacedTopper | undefined;
}

type Length = 'height' | 'width' | 'across' | 'along';

/** What each length of a topper may be. */
const LIMITS: Readonly<Record<Length, { min: number; max: number }>> = {
  height: TOPPER_HEIGHT,
  width: TOPPER_WIDTH,
  across: TOPPER_PLACE,
  along: TOPPER_PLACE,
};

/** A new topper is so large, as a share of the shorter side of its panel. */
const SHARE = 0.5;

/** Outlines glued on panels: each with its place, its size, and how it is mounted. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-topper-list',
  imports: [ChoiceRow, InputText, LengthField, LengthRow, NumberText, TopperMount, TopperOutline, WornEntries],
  templateUrl: './topper-list.html',
  styleUrl: './dressing-panel.scss',
})
export class TopperList {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input<Evaluation>();
  readonly changed = output<CardChange>();
  readonly light = output<Highlight | undefined>();

  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly times = Array.from({ length: MOST_TIMES }, (_, i) => ({
    value: `${i + 1}`,
    label: i === 0 ? 'once' : `${i + 1} times, glued together`,
  }));
  protected readonly glues = [
    { value: 'all', label: 'all over' },
    { value: 'strip', label: 'along one side' },
    { value: 'pocket', label: 'on three sides, a pocket' },
  ];
  protected readonly sides = SIDES.map((value) => ({ value, label: `${SIDE_NAMES[value]} side` }));
  protected readonly holds = [
    { value: 'stays', label: 'for good' },
    { value: 'loose', label: 'so that it comes off again' },
  ];
  protected readonly deepLimits = GLUE_DEEP;
  protected readonly capitals = CAPITALS;
  protected readonly mostWords = MOST_WORDS;
  protected readonly letterStyles = STYLE_IDS.map((value) => ({ value, label: STYLES[value].name }));
  protected readonly limits = LIMITS;
  protected readonly lengths = [
    { name: 'height' as const, label: 'Height' },
    { name: 'across' as const, label: 'Middle from the left' },
    { name: 'along' as const, label: 'Middle from below' },
  ];
  protected readonly stocks = computed(() => offeredChoices('stocks', this.card(), this.workshop()));
  protected readonly outlines = computed(() => [
    ...SHAPE_OPTIONS,
    ...(this.card().outlines ?? []).map(({ id, name }) => ({ value: id, label: name })),
  ]);
  protected readonly faces = computed(() => faceChoices(this.evaluation()));
  protected readonly rows = computed((): Row[] => {
    const placed = this.evaluation()?.dressed.toppers ?? [];
    return (this.card().dressing?.toppers ?? []).map((topper) => {
      const own = placed.find((each) => each.topper.id === topper.id);
      return {
        id: topper.id,
        number: own?.number,
        topper,
        placed: own,
        title: capital(topper.name ?? this.outlines().find(({ value }) => value === topper.outline)?.label ?? topper.outline),
      };
    });
  });
  protected readonly full = computed(() => this.rows().length >= MOST_TOPPERS);

  protected point(row: Row | undefined): void {
    this.show(row?.topper.panel);
  }

  protected show(panel: string | undefined): void {
    this.light.emit(panel === undefined ? undefined : { panels: [panel], creases: [] });
  }

  /** One more, in the middle of what is seen first. */
  protected add(): void {
    const panels = this.evaluation()?.design.panels;
    const [first] = this.faces();
    if (!panels || !first) return;
    const { panel: id, face } = faceOf(first.value);
    const { minX, maxX, minY, maxY } = boxOf(panels.find((panel) => panel.id === id)!.area.outer);
    const [width, height] = [maxX - minX, maxY - minY];
    const size = Math.max(TOPPER_HEIGHT.min, Math.round(Math.min(width, height) * SHARE));
    const workshop = this.workshop();
    const topper = {
      panel: id,
      face,
      across: width / 2,
      along: height / 2,
      outline: 'mushroom',
      height: size,
      stock: this.card().stocks.display,
    };
    this.changed.emit({ what: 'One more topper', apply: (card) => withTopper(card, topper, workshop) });
    this.chosen.set(nextId(this.rows(), 'topper'));
  }

  protected set({ topper, title }: Row, change: Partial<Topper>, typed?: string): void {
    const workshop = this.workshop();
    this.changed.emit({
      what: `Topper: ${inSentence(title)}`,
      apply: (card) => withTopperChanged(card, topper.id, change, workshop),
      ...(typed && { typed }),
    });
  }

  protected setLength(row: Row, name: Length, { mm, typed }: GivenLength): void {
    this.set(row, { [name]: mm }, typed);
  }

  protected setFace(row: Row, value: string): void {
    const { panel, face } = faceOf(value);
    const area = this.evaluation()?.design.panels.find(({ id }) => id === panel)?.area;
    if (!area) return;
    const { minX, maxX, minY, maxY } = boxOf(area.outer);
    this.set(row, { panel, face, across: (maxX - minX) / 2, along: (maxY - minY) / 2 });
    this.show(panel);
  }

  /** Words typed; none take the greeting away. Capitals begin a fifth as high as the topper. */
  protected setWords(row: Row, words: string, typed?: string): void {
    const { greeting, height } = row.topper;
    if (words === (greeting?.words ?? '')) return;
    const capital = Math.min(CAPITALS.max, Math.max(2, Math.round(height / 5)));
    const made: Greeting = { letters: 'serif', capital, ...greeting, words };
    this.set(row, { greeting: words.trim() === '' ? undefined : made }, typed);
  }

  protected setGreeting(row: Row, change: Partial<Greeting>, typed?: string): void {
    if (row.topper.greeting) this.set(row, { greeting: { ...row.topper.greeting, ...change } }, typed);
  }

  /** Glue on a part begins along the side that it had, else the left one; a pocket is open at the top. */
  protected setGlue(row: Row, as: string): void {
    const { glued, height } = row.topper;
    const usual: GluedPart =
      as === 'strip' ? { as, side: 'left', deep: Math.max(GLUE_DEEP.min, Math.round(height / 4)) } : { as: 'pocket', side: 'top', deep: 5 };
    this.set(row, { glued: as === 'all' ? undefined : glued?.as === as ? glued : usual });
  }

  protected setGlued(row: Row, change: Partial<GluedPart>, typed?: string): void {
    if (row.topper.glued) this.set(row, { glued: { ...row.topper.glued, ...change } as GluedPart }, typed);
  }

  protected take(row: Row): void {
    this.chosen.set(undefined);
    this.show(undefined);
    this.changed.emit({ what: `Take away the topper: ${inSentence(row.title)}`, apply: (card) => withoutTopper(card, row.topper.id) });
  }

  protected readonly turnRefusal = (_: unknown, value: number): string | undefined =>
    Math.abs(value) <= Math.PI ? undefined : `${Math.round(toDegrees(value))}° does not work; ${this.turnAllowed()}.`;
  protected readonly turnAllowed = (): string => 'allowed is −180° to 180°';
}
