import { Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { LARGEST_SHELF_FILE, readShelfFile, writeCardFile, writeShelfFile, type CardDocument } from '@diptychon/core';
import { MessageService } from 'primeng/api';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { CardStore, type OpenedCard } from '../cards/card-store';
import { Evaluator } from '../evaluation/evaluator';
import type { CardPictures } from '../evaluation/evaluation-api';
import { download, fileName } from '../frame/download';
import { WorkshopStore } from '../workshop/workshop-store';
import { ScreenBar } from '../frame/screen-bar';
import { NumberText } from '../fields/number-text';
import { FirstRun } from './first-run';
import { KINDS, type Kind } from './kinds';
import { NewCardDialog } from './new-card-dialog';
import { Thumbnail } from '../drawings/thumbnail';

/** The maker's cards, and the ways to a new one. */
@Component({
  selector: 'dip-shelf-page',
  imports: [Button, FirstRun, FormsModule, InputText, NewCardDialog, NumberText, RouterLink, ScreenBar, Thumbnail],
  templateUrl: './shelf-page.html',
  styleUrl: './shelf-page.scss',
})
export class ShelfPage {
  private readonly store = inject(CardStore);
  private readonly router = inject(Router);
  private readonly messages = inject(MessageService);
  private readonly evaluator = inject(Evaluator);
  private readonly workshopStore = inject(WorkshopStore);

  protected readonly kinds = KINDS;
  protected readonly kind = signal(KINDS[0]!);
  protected readonly starting = signal(false);
  protected readonly cards = signal<OpenedCard[] | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly wanted = signal('');
  protected readonly pictures = signal<Readonly<Record<string, CardPictures | undefined>>>({});
  protected readonly renaming = signal<string | undefined>(undefined);
  protected readonly removed = signal<CardDocument | undefined>(undefined);
  protected readonly firstRun = computed(() => this.workshopStore.begun() === false);

  protected readonly found = computed(() => {
    const words = this.wanted().toLowerCase().split(/\s+/).filter(Boolean);
    return this.cards()?.filter(({ card }) => {
      const text =
        `${card.name} ${card.note ?? ''} ${card.state ?? ''} ${card.parts.map((part) => part.mechanism).join(' ')}`.toLowerCase();
      return words.every((word) => text.includes(word));
    });
  });

  private left = false;

  constructor() {
    inject(DestroyRef).onDestroy(() => (this.left = true));
    void this.reload();
  }

  /** The closed card as it is held to be read; known once its picture is. */
  protected sizeOf(card: CardDocument): { width: number; height: number } | undefined {
    const known = this.pictures()[card.id];
    if (!known) return undefined;
    const { depth, length } = known.size;
    return card.foldEdge === 'side' ? { width: depth, height: length } : { width: length, height: depth };
  }

  protected start(kind: Kind): void {
    this.kind.set(kind);
    this.starting.set(true);
  }

  protected async put(card: CardDocument): Promise<void> {
    if (await this.saveNew([card])) await this.router.navigate(['/card', card.id]);
  }

  protected async duplicate({ card }: OpenedCard): Promise<void> {
    if (await this.saveNew([{ ...card, id: crypto.randomUUID(), name: `${card.name}, again`.slice(0, 120), state: 'idea' }]))
      await this.reload();
  }

  protected async rename(kept: OpenedCard, name: string): Promise<void> {
    this.renaming.set(undefined);
    const trimmed = name.trim().slice(0, 120);
    if (!trimmed || trimmed === kept.card.name) return;
    await this.attempt(async () => {
      await this.store.save({ ...kept.card, name: trimmed }, kept.revision);
    }, 'The new name was not kept: the card may be open in another tab.');
    await this.reload();
  }

  protected async remove({ card }: OpenedCard): Promise<void> {
    await this.attempt(() => this.store.remove(card.id), 'The card could not be taken off the shelf.');
    this.removed.set(card);
    await this.reload();
  }

  protected async putBack(): Promise<void> {
    const card = this.removed();
    this.removed.set(undefined);
    if (card && (await this.saveNew([card]))) await this.reload();
  }

  protected exportOne({ card }: OpenedCard): void {
    download(fileName(card.name, 'card.json'), 'application/json', writeCardFile(card));
  }

  protected exportAll(): void {
    download('diptychon-shelf.json', 'application/json', writeShelfFile((this.cards() ?? []).map(({ card }) => card)));
  }

  protected async open(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    if (file.size > LARGEST_SHELF_FILE) {
      this.refuse(`${file.name}: larger than ${LARGEST_SHELF_FILE / 1024} kB, which no card file is.`);
      return;
    }
    const reading = readShelfFile(await file.text());
    if (!reading.ok) {
      this.refuse(`${file.name} was not opened. ${reading.problems.map(({ path, says }) => `${path} ${says}.`).join(' ')}`);
      return;
    }
    // A file never replaces a card on the shelf: one with the same id comes in as another card.
    // The store is asked, not the screen: on a first visit a file may come before the shelf is filled.
    const shelved = await this.store.all().catch(() => this.cards() ?? []);
    const taken = new Set(shelved.map(({ card }) => card.id));
    const cards = reading.cards.map((card) => (taken.has(card.id) ? { ...card, id: crypto.randomUUID() } : card));
    if (cards.length === 1) await this.put(cards[0]!);
    else if (await this.saveNew(cards)) {
      await this.reload();
      this.messages.add({ severity: 'success', summary: `${cards.length} cards came onto the shelf`, life: 4000 });
    }
  }

  private async reload(): Promise<void> {
    this.trouble.set(undefined);
    try {
      const cards = await this.store.all();
      this.cards.set(cards);
      for (const { card } of cards) {
        // A card that was opened meanwhile does not wait for the pictures of the others.
        if (this.left) return;
        const pictures = await this.evaluator.pictures(card);
        this.pictures.update((known) => ({ ...known, [card.id]: pictures }));
      }
    } catch {
      this.trouble.set('This browser keeps no cards: its storage is switched off or broken. You can still open a card file.');
    }
  }

  private async saveNew(cards: readonly CardDocument[]): Promise<boolean> {
    return this.attempt(
      () => this.store.addAll(cards),
      'This browser did not keep the card: its storage may be full or switched off. Save what you need to files.',
    );
  }

  private async attempt(work: () => Promise<void>, says: string): Promise<boolean> {
    try {
      await work();
      return true;
    } catch {
      this.trouble.set(says);
      return false;
    }
  }

  private refuse(detail: string): void {
    this.messages.add({ severity: 'error', summary: 'Not opened', detail, sticky: true });
  }
}
