import {
  ChangeDetectionStrategy,
  afterNextRender,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  OnDestroy,
  output,
  signal,
} from '@angular/core';
import {
  addPart,
  cardToTry,
  inSentence,
  mechanismById,
  PartProblem,
  placesOf,
  type CardDocument,
  type OpenPlace,
  type CardPictures,
} from '@diptychon/core';
import { Button } from 'primeng/button';
import type { CardChange } from '../bench/card-change';
import { MovingPicture } from '../drawings/moving-picture';
import { Evaluator } from '../evaluation/evaluator';
import { WorkshopStore } from '../workshop/workshop-store';
import type { Highlight } from './highlight';

const OPENINGS = Array.from({ length: 13 }, (_, i) => i / 12);

/** What can stand where: every fold of the card in plain words, lit up when it is pointed at, and the movements it takes. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-add-movement',
  imports: [Button, MovingPicture],
  templateUrl: './add-movement.html',
  styleUrl: './add-movement.scss',
  host: { '(keydown.escape)': 'leave()' },
})
export class AddMovement implements OnDestroy {
  readonly card = input.required<CardDocument>();
  readonly changed = output<CardChange>();
  readonly light = output<Highlight | undefined>();
  readonly closed = output<void>();
  private readonly evaluator = inject(Evaluator);
  private readonly workshop = inject(WorkshopStore).workshop;
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected readonly inSentence = inSentence;
  protected readonly pictures = signal<Readonly<Record<string, CardPictures | undefined>>>({});
  protected readonly playing = signal<string | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  private readonly chosenKey = signal<string | undefined>(undefined);
  /** Folds that take at least one movement, each with what it takes. */
  protected readonly places = computed(() => placesOf(this.card()).filter(({ takes }) => takes.some(({ cannot }) => !cannot)));
  protected readonly chosen = computed(() => this.places().find((place) => keyOf(place) === this.chosenKey()) ?? this.places()[0]);
  protected readonly movements = computed(() =>
    (this.chosen()?.takes ?? []).map(({ id, cannot }) => ({ mechanism: mechanismById(id), cannot })),
  );

  constructor() {
    afterNextRender(() => {
      this.show();
      this.host.nativeElement.querySelector<HTMLElement>('.place')?.focus();
      void this.draw();
    });
  }

  ngOnDestroy(): void {
    this.light.emit(undefined);
  }

  protected isChosen(place: OpenPlace): boolean {
    return place === this.chosen();
  }

  /** Lights a fold up; when none is pointed at, the chosen one stays lit. */
  protected show(place: OpenPlace | undefined = this.chosen()): void {
    this.light.emit(place && { panels: place.site.leaves.map(({ panel }) => panel), creases: [place.site.hinge] });
  }

  protected choose(place: OpenPlace): void {
    this.chosenKey.set(keyOf(place));
    this.trouble.set(undefined);
    this.show(place);
  }

  protected put(mechanism: string): void {
    const place = this.chosen();
    if (!place) return;
    const on = { part: place.part, site: place.site.id };
    const workshop = this.workshop();
    try {
      addPart(this.card(), mechanism, on, workshop);
    } catch (error) {
      if (!(error instanceof PartProblem)) throw error;
      this.trouble.set(error.message);
      return;
    }
    const { name } = mechanismById(mechanism);
    this.changed.emit({ what: `${name} on the ${place.site.name}`, apply: (card) => addPart(card, mechanism, on, workshop).card });
    this.leave();
  }

  protected leave(): void {
    this.light.emit(undefined);
    this.closed.emit();
  }

  private async draw(): Promise<void> {
    const ids = [...new Set(this.places().flatMap(({ takes }) => takes.map(({ id }) => id)))];
    for (const id of ids) {
      const drawn = await this.evaluator.pictures(cardToTry(mechanismById(id)), OPENINGS);
      this.pictures.update((known) => ({ ...known, [id]: drawn }));
    }
  }
}

const keyOf = ({ part, site }: OpenPlace): string => `${part}/${site.id}`;
