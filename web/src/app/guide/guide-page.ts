import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { benchSteps, cardToTry, evaluate, mechanismById, MECHANISMS, type BenchStep, type CardDocument } from '@diptychon/core';
import { CardStore } from '../cards/card-store';
import { ScreenBar } from '../frame/screen-bar';
import { GLOSSARY } from '../words/glossary';
import { WordCard } from '../words/word-card';
import { WorkshopStore } from '../workshop/workshop-store';

/** What a first card is made of: one sheet, two cuts, a few folds, no glue. */
const FIRST = 'step';
/** Steps of it that are told: those that a hand does. */
const TOLD: readonly BenchStep['kind'][] = ['trim', 'score', 'cut', 'fold', 'burnish', 'test'];

/** The guide: a first card in ten minutes, the words of the craft with drawings, and a page for each movement. All of it can be searched. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-guide-page',
  imports: [RouterLink, ScreenBar, WordCard],
  templateUrl: './guide-page.html',
  styleUrl: './guide-page.scss',
})
export class GuidePage {
  private readonly store = inject(CardStore);
  private readonly router = inject(Router);
  private readonly workshop = inject(WorkshopStore).workshop;

  protected readonly wanted = signal('');
  protected readonly trouble = signal<string | undefined>(undefined);
  private readonly looksFor = computed(() => this.wanted().toLowerCase().split(/\s+/).filter(Boolean));

  protected readonly words = computed(() => GLOSSARY.filter(({ word, says, forms }) => this.has(`${word} ${forms.join(' ')} ${says}`)));
  protected readonly movements = computed(() =>
    MECHANISMS.filter(({ id, name, summary }) => {
      const { needs, gives, mayGoWrong } = mechanismById(id);
      return this.has([name, summary, ...needs, ...gives, ...mayGoWrong].join(' '));
    }),
  );
  /** the first card, in the maker's own unit, and how it is made with the maker's own tools */
  protected readonly first = computed(() => {
    const workshop = this.workshop();
    const card = cardToTry(mechanismById(FIRST), { name: 'My first card', notation: workshop.notation }, workshop);
    const outcome = evaluate(card, workshop);
    if (!outcome.ok) return undefined;
    const steps = benchSteps(outcome.evaluation, workshop).filter(({ kind }) => TOLD.includes(kind));
    return { card, steps };
  });
  protected readonly showsFirst = computed(() => {
    const first = this.first();
    return first && this.has(['first card ten minutes begin', ...first.steps.flatMap(({ title, says }) => [title, ...says])].join(' '))
      ? first
      : undefined;
  });

  protected readonly showsPractice = computed(() =>
    this.has('practice exercises ruler turned mountain valley closed slipped score questions'),
  );

  protected async begin(card: CardDocument): Promise<void> {
    const id = crypto.randomUUID();
    try {
      await this.store.addAll([{ ...card, id }]);
      await this.router.navigate(['/card', id, 'make']);
    } catch {
      this.trouble.set('The card could not be put on the shelf: the browser’s storage may be full.');
    }
  }

  private has(text: string): boolean {
    const lower = text.toLowerCase();
    return this.looksFor().every((word) => lower.includes(word));
  }
}
