import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { cardToTry, CATALOGUE, mechanismById, type CardDocument, type CardPictures } from '@diptychon/core';
import { MessageService } from 'primeng/api';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { CardStore } from '../cards/card-store';
import { Evaluator } from '../evaluation/evaluator';
import { WorkshopStore } from '../workshop/workshop-store';
import { ScreenBar } from '../frame/screen-bar';
import { KINDS, type Kind } from '../shelf/kinds';
import { NewCardDialog } from '../shelf/new-card-dialog';
import { ListReader } from '../trial/list-reader';
import { LiveCard } from './live-card';

/** Card of some kind every maker has: it is no reason to leave a movement out. */
const isEveryday = (need: string): boolean => /\bcard\b/.test(need);
const OPENINGS = Array.from({ length: 17 }, (_, i) => i / 16);

/** The whole catalogue as little cards that open when they are pointed at, and a start from each. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-movements-page',
  imports: [Button, FormsModule, InputText, ListReader, LiveCard, NewCardDialog, ScreenBar],
  templateUrl: './movements-page.html',
  styleUrl: './movements-page.scss',
})
export class MovementsPage {
  private readonly evaluator = inject(Evaluator);
  private readonly store = inject(CardStore);
  private readonly router = inject(Router);
  private readonly messages = inject(MessageService);
  private readonly workshop = inject(WorkshopStore).workshop;

  protected readonly needs = wordsOf((m) => m.needs).filter((need) => !isEveryday(need));
  protected readonly gives = wordsOf((m) => m.gives);
  protected readonly efforts = ['easy', 'medium', 'hard'] as const;

  protected readonly wanted = signal('');
  protected readonly lacking = signal<ReadonlySet<string>>(new Set());
  protected readonly wishes = signal<ReadonlySet<string>>(new Set());
  protected readonly effort = signal<ReadonlySet<string>>(new Set());
  protected readonly pictures = signal<Readonly<Record<string, CardPictures | undefined>>>({});
  protected readonly notation = computed(() => this.workshop().notation);
  protected readonly kind = signal(KINDS[0]!.id);
  protected readonly starting = signal(false);
  private left = false;

  protected readonly found = computed(() => {
    const words = this.wanted().toLowerCase().split(/\s+/).filter(Boolean);
    return KINDS.map((kind) => ({ kind, mechanism: mechanismById(kind.id) })).filter(({ mechanism }) => {
      const { name, summary, needs, gives, difficulty } = mechanism;
      const text = [name, summary, ...needs, ...gives].join(' ').toLowerCase();
      return (
        words.every((word) => text.includes(word)) &&
        needs.every((need) => !this.lacking().has(need)) &&
        [...this.wishes()].every((wish) => gives.includes(wish)) &&
        (this.effort().size === 0 || this.effort().has(difficulty))
      );
    });
  });
  protected readonly filtered = computed(() => this.wanted() !== '' || this.lacking().size + this.wishes().size + this.effort().size > 0);

  constructor() {
    inject(DestroyRef).onDestroy(() => (this.left = true));
    void this.draw();
  }

  protected has(set: ReadonlySet<string>, word: string): boolean {
    return set.has(word);
  }

  protected toggle(which: 'lacking' | 'wishes' | 'effort', word: string): void {
    this[which].update((before) => {
      const after = new Set(before);
      if (!after.delete(word)) after.add(word);
      return after;
    });
  }

  protected all(): void {
    this.wanted.set('');
    for (const which of ['lacking', 'wishes', 'effort'] as const) this[which].set(new Set());
  }

  protected start({ id }: Kind): void {
    this.kind.set(id);
    this.starting.set(true);
  }

  protected async put(card: CardDocument): Promise<void> {
    try {
      await this.store.addAll([card]);
    } catch {
      this.messages.add({
        severity: 'error',
        summary: 'This browser did not keep the card: its storage may be full or switched off.',
        sticky: true,
      });
      return;
    }
    await this.router.navigate(['/card', card.id]);
  }

  /** One after the other, so that a card that is started meanwhile does not wait long. */
  private async draw(): Promise<void> {
    for (const kind of KINDS) {
      if (this.left) return;
      const drawn = await this.evaluator.pictures(cardToTry(mechanismById(kind.id)), OPENINGS);
      this.pictures.update((known) => ({ ...known, [kind.id]: drawn }));
    }
  }
}

function wordsOf(read: (mechanism: (typeof CATALOGUE)[number]) => readonly string[]): string[] {
  return [...new Set(CATALOGUE.flatMap(read))];
}
