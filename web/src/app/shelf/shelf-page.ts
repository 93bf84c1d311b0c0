import { Component, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { LARGEST_CARD_FILE, newCard, readCardFile, type CardDocument } from '@diptychon/core';
import { MessageService } from 'primeng/api';
import { Button } from 'primeng/button';
import { CardStore, type OpenedCard } from '../cards/card-store';
import { Preferences } from '../frame/preferences';
import { ThemeButton } from '../frame/theme-button';

/** The maker's cards, and the ways to a new one. */
@Component({
  selector: 'dip-shelf-page',
  imports: [Button, RouterLink, ThemeButton],
  templateUrl: './shelf-page.html',
  styleUrl: './shelf-page.scss',
})
export class ShelfPage {
  private readonly store = inject(CardStore);
  private readonly router = inject(Router);
  private readonly messages = inject(MessageService);
  private readonly preferences = inject(Preferences);
  protected readonly cards = signal<OpenedCard[] | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);

  protected readonly starts = [
    { id: 'easel', title: 'Easel card', says: 'A display that stands against a stop.', base: 'easel-folded-front', movements: [] },
    {
      id: 'v-fold',
      title: 'V-fold card',
      says: 'A figure that rises from the fold.',
      base: 'folded-card',
      movements: [{ id: 'figure', mechanism: 'v-fold', host: 'main-fold', sizes: {} }],
    },
  ];

  constructor() {
    this.reload();
  }

  protected reload(): void {
    this.trouble.set(undefined);
    this.store.all().then(
      (cards) => this.cards.set(cards),
      () => this.trouble.set('This browser keeps no cards: its storage is switched off or broken. You can still open a card file.'),
    );
  }

  protected async start({ title, base, movements }: (typeof this.starts)[number]): Promise<void> {
    const notation = this.preferences.notation();
    const board = this.preferences.board();
    const card = newCard({
      id: crypto.randomUUID(),
      name: `New ${title.toLowerCase()}`,
      foldEdge: base === 'folded-card' ? 'side' : 'top',
      ...(notation && { notation }),
      ...(board && { board }),
      base: { mechanism: base, sizes: {} },
      movements,
    });
    await this.put(card);
  }

  protected async open(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    if (file.size > LARGEST_CARD_FILE) {
      this.refuse(`${file.name}: larger than ${LARGEST_CARD_FILE / 1024} kB, which no card file is.`);
      return;
    }
    const reading = readCardFile(await file.text());
    if (!reading.ok) {
      this.refuse(`${file.name} was not opened. ${reading.problems.map(({ path, says }) => `${path} ${says}.`).join(' ')}`);
      return;
    }
    // A file never replaces a card on the shelf: one with the same id comes in as another card.
    const taken = this.cards()?.some(({ card }) => card.id === reading.card.id);
    await this.put(taken ? { ...reading.card, id: crypto.randomUUID() } : reading.card);
  }

  private async put(card: CardDocument): Promise<void> {
    try {
      await this.store.save(card, 0);
      await this.router.navigate(['/card', card.id]);
    } catch {
      this.trouble.set('This browser did not keep the new card: its storage may be full or switched off.');
    }
  }

  private refuse(detail: string): void {
    this.messages.add({ severity: 'error', summary: 'Not opened', detail, sticky: true });
  }
}
