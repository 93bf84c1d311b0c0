import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  carriedBy,
  duplicatePart,
  inSentence,
  movementsOf,
  movePart,
  PartProblem,
  partTree,
  placesOf,
  removePart,
  renamePart,
  ROOT,
  titlesOf,
  turnPart,
  type CardDocument,
  type Evaluation,
  type PartNode,
} from '@diptychon/core';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import type { CardChange } from '../bench/card-change';
import type { Highlight } from './highlight';

/** The parts of a card: what stands on what, and what can be done with each. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-parts-tree',
  imports: [Button, FormsModule, NgTemplateOutlet, Select],
  templateUrl: './parts-tree.html',
  styleUrl: './parts-tree.scss',
})
export class PartsTree {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input<Evaluation>();
  readonly changed = output<CardChange>();
  readonly light = output<Highlight | undefined>();
  readonly add = output<void>();

  protected readonly root = ROOT;
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly tree = computed(() => partTree(this.card()));
  private readonly titles = computed(() => titlesOf(this.card()));

  /** Parts that take the same paper as another: they are not built. */
  protected readonly left = computed(() => new Set(this.evaluation()?.design.overlaps.flatMap(({ parts }) => parts) ?? []));

  /** Folds that the chosen part could stand on, and where it stands. */
  protected readonly places = computed(() => {
    const id = this.chosen();
    const part = movementsOf(this.card()).find((movement) => movement.id === id);
    if (!id || !part) return [];
    const below = [id, ...carriedBy(this.card(), id)];
    return placesOf(this.card())
      .filter((place) => !below.includes(place.part))
      .filter(({ takes }) => takes.some((taker) => taker.id === part.mechanism && !taker.cannot))
      .map((place) => ({ value: `${place.part}/${place.site.id}`, label: `${place.site.name} of ${inSentence(place.title)}` }));
  });
  protected readonly place = computed(() => {
    const on = this.card().parts.find(({ id }) => id === this.chosen())?.on;
    return on && `${on.part}/${on.site}`;
  });

  protected toggle(node: PartNode): void {
    this.trouble.set(undefined);
    this.chosen.update((before) => (before === node.id ? undefined : node.id));
  }

  /** Lights a part up wherever it is drawn. */
  protected show(id: string | undefined): void {
    const panels = this.evaluation()?.design.panels.filter((panel) => (panel.part ?? ROOT) === id) ?? [];
    this.light.emit(id === undefined || id === ROOT ? undefined : { panels: panels.map((panel) => panel.id), creases: [] });
  }

  /** Names of what goes with a part when it is taken away. */
  protected carried(id: string): string {
    return carriedBy(this.card(), id)
      .map((other) => this.titles().get(other)!)
      .join(' and ');
  }

  protected turn({ id, title }: PartNode): void {
    this.changed.emit({ what: `Turn ${title} round`, apply: (card) => turnPart(card, id) });
  }

  protected duplicate({ id, title }: PartNode): void {
    this.attempt(`${title} once more`, (card) => duplicatePart(card, id).card);
  }

  protected move({ id, title }: PartNode, to: string): void {
    const [part, site] = to.split('/') as [string, string];
    const where = this.places().find(({ value }) => value === to)?.label ?? 'another fold';
    this.attempt(`Move ${title} to the ${where}`, (card) => movePart(card, id, { part, site }));
  }

  protected remove({ id, title }: PartNode): void {
    const with_ = this.carried(id);
    this.chosen.set(undefined);
    this.light.emit(undefined);
    this.changed.emit({ what: `Take away ${title}${with_ && `, with ${with_}`}`, apply: (card) => removePart(card, id) });
  }

  protected rename({ id, title }: PartNode, name: string): void {
    if (name.trim() !== title) this.changed.emit({ what: `Name of ${title}`, apply: (card) => renamePart(card, id, name) });
  }

  protected toSizes({ id }: PartNode): void {
    document.getElementById(`${id}-title`)?.scrollIntoView({ block: 'start' });
    document.querySelector<HTMLElement>(`[id^="${id}-"]:is(input)`)?.focus();
  }

  /** Tries a change on the card as it is now: what cannot be done is said, and changes nothing. */
  private attempt(what: string, apply: (card: CardDocument) => CardDocument): void {
    try {
      apply(this.card());
    } catch (error) {
      if (!(error instanceof PartProblem)) throw error;
      this.trouble.set(error.message);
      return;
    }
    this.trouble.set(undefined);
    this.changed.emit({ what, apply });
  }
}
