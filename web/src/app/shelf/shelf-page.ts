import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import type { CardPictures } from '@diptychon/core';
import {
  DEMO_CARDS,
  MECHANISMS,
  readShelfFile,
  writeCardFile,
  writeShelfFiles,
  type CardDocument,
  type Introduction,
} from '@diptychon/core/records';
import { MessageService } from 'primeng/api';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { CardStore, SavedElsewhere, TakenOff, type OpenedCard, type UnreadableCard } from '../cards/card-store';
import { KeptPictures } from '../cards/kept-pictures';
import { Evaluator } from '../evaluation/evaluator';
import { download, fileName } from '../frame/download';
import { WorkshopStore } from '../workshop/workshop-store';
import { ScreenBar } from '../frame/screen-bar';
import { NumberText } from '../fields/number-text';
import { FirstRun } from './first-run';
import { NewCardDialog } from './new-card-dialog';
import { archived, textsOf } from './shelf-archive';
import { Thumbnail } from '../drawings/thumbnail';

const sampleOrder = ({ card }: OpenedCard): number => DEMO_CARDS.findIndex(({ id }) => id === card.id);
/** A sample that was changed is the maker's own card. */
const isSample = (kept: OpenedCard): boolean => sampleOrder(kept) >= 0 && kept.revision === 1 && kept.takes.length === 0;

const NOT_KEPT = 'its storage may be full or switched off. Save what you need to files.';

/** The maker's cards, and the ways to a new one. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-shelf-page',
  imports: [Button, FirstRun, FormsModule, InputText, NewCardDialog, NgTemplateOutlet, NumberText, RouterLink, ScreenBar, Thumbnail],
  templateUrl: './shelf-page.html',
  styleUrl: './shelf-page.scss',
})
export class ShelfPage {
  private readonly store = inject(CardStore);
  private readonly router = inject(Router);
  private readonly messages = inject(MessageService);
  private readonly evaluator = inject(Evaluator);
  private readonly keptPictures = inject(KeptPictures);
  private readonly workshopStore = inject(WorkshopStore);

  protected readonly kinds = MECHANISMS;
  protected readonly kind = signal<string>(MECHANISMS[0].id);
  protected readonly starting = signal(false);
  protected readonly cards = signal<OpenedCard[] | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  /** what cannot be read, with what is wrong and what is there */
  protected readonly unreadable = signal<readonly UnreadableCard[]>([]);
  protected readonly rescued = this.store.rescued;
  protected readonly wanted = signal('');
  protected readonly pictures = signal<Readonly<Record<string, CardPictures | undefined>>>({});
  protected readonly renaming = signal<string | undefined>(undefined);
  protected readonly removed = signal<CardDocument | undefined>(undefined);
  protected readonly firstRun = computed(() => this.workshopStore.begun() === false);

  /** the maker's own cards that were looked for, last saved first */
  protected readonly found = computed(() => this.matching()?.filter((kept) => !isSample(kept)));
  /** samples nobody changed, always in the same order; nothing when there are none */
  protected readonly samples = computed(() => {
    if (!this.cards()?.some(isSample)) return undefined;
    return this.matching()!
      .filter(isSample)
      .sort((a, b) => sampleOrder(a) - sampleOrder(b));
  });
  protected readonly samplesAway = signal(false);

  private readonly matching = computed(() => {
    const words = this.wanted().toLowerCase().split(/\s+/).filter(Boolean);
    return this.cards()?.filter(({ card }) => {
      const text =
        `${card.name} ${card.note ?? ''} ${card.state ?? ''} ${card.parts.map((part) => part.mechanism).join(' ')}`.toLowerCase();
      return words.every((word) => text.includes(word));
    });
  });

  /** what can be done with a card where it stands */
  protected readonly acts: readonly { icon: string; word: string; does: string; run: (kept: OpenedCard) => void }[] = [
    { icon: 'copy', word: 'Duplicate', does: 'Duplicate', run: (kept) => void this.duplicate(kept) },
    { icon: 'pencil', word: 'Rename', does: 'Rename', run: ({ card }) => this.renaming.set(card.id) },
    { icon: 'download', word: 'To a file', does: 'To a file:', run: (kept) => this.exportOne(kept) },
    { icon: 'bin', word: 'Delete', does: 'Delete', run: (kept) => void this.remove(kept) },
  ];

  private left = false;

  protected async putSamplesAway(away: boolean): Promise<void> {
    this.samplesAway.set(away);
    await this.attempt(
      () => this.store.keepNote('samples-away', away),
      () => 'This browser will not remember that: its storage may be full or switched off.',
    );
  }

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

  protected start({ id }: Introduction): void {
    this.kind.set(id);
    this.starting.set(true);
  }

  protected async put(card: CardDocument): Promise<void> {
    if (await this.saveNew([card])) await this.router.navigate(['/card', card.id]);
  }

  private async duplicate({ card }: OpenedCard): Promise<void> {
    if (await this.saveNew([{ ...card, id: crypto.randomUUID(), name: `${card.name}, again`.slice(0, 120), state: 'idea' }]))
      await this.reload();
  }

  protected async rename(kept: OpenedCard, name: string): Promise<void> {
    this.renaming.set(undefined);
    const trimmed = name.trim().slice(0, 120);
    if (!trimmed || trimmed === kept.card.name) return;
    await this.attempt(
      () => this.store.save({ card: { ...kept.card, name: trimmed }, over: kept.revision, takes: kept.takes }),
      (error) => {
        if (error instanceof SavedElsewhere)
          return `“${kept.card.name}” was changed in another tab meanwhile. It keeps its name; it is shown as it is now.`;
        if (error instanceof TakenOff) return `“${kept.card.name}” was taken off the shelf in another tab meanwhile.`;
        return `The new name was not kept: ${NOT_KEPT}`;
      },
    );
    await this.reload();
  }

  private async remove({ card, revision }: OpenedCard): Promise<void> {
    const gone = await this.attempt(
      () => this.store.remove(card.id, revision),
      (error) =>
        error instanceof SavedElsewhere
          ? `“${card.name}” was changed in another tab meanwhile, so it is still on the shelf, as it is now. Delete it once more if you still want to.`
          : 'The card could not be taken off the shelf.',
    );
    if (gone) {
      this.removed.set(card);
      void this.keptPictures.forget(card.id);
    }
    await this.reload();
  }

  /** Gives away what is there of a card that cannot be read, as it is. */
  protected exportRaw({ title, raw }: UnreadableCard): void {
    download(fileName(title, 'unreadable.json'), 'application/json', `${JSON.stringify(raw, null, 2) ?? 'null'}\n`);
  }

  protected async discard({ id }: UnreadableCard): Promise<void> {
    await this.attempt(
      () => this.store.discardUnreadable(id),
      () => 'It could not be taken off the shelf.',
    );
    await this.reload();
  }

  protected async putBack(): Promise<void> {
    const card = this.removed();
    this.removed.set(undefined);
    if (card && (await this.saveNew([card]))) await this.reload();
  }

  private exportOne({ card }: OpenedCard): void {
    download(fileName(card.name, 'card.json'), 'application/json', writeCardFile(card));
  }

  /** All cards in a file or, where one could not be read back, in several that go into one archive. */
  protected async exportAll(): Promise<void> {
    const files = writeShelfFiles((this.cards() ?? []).map(({ card }) => card));
    const [only] = files;
    if (files.length === 1) download('diptychon-shelf.json', 'application/json', only!);
    else download('diptychon-shelf.zip', 'application/zip', await archived(files));
  }

  /** Opens card files, shelf files, or archives of them: all cards of all of them come onto the shelf, or none. */
  protected async open(input: HTMLInputElement): Promise<void> {
    const files = [...(input.files ?? [])];
    input.value = '';
    if (files.length === 0) return;
    const cards: CardDocument[] = [];
    for (const file of files) {
      const given = await textsOf(file);
      if (typeof given === 'string') return this.refuse(given);
      for (const { name, text } of given) {
        const reading = readShelfFile(text);
        if (!reading.ok)
          return this.refuse(`${name} was not opened. ${reading.problems.map(({ path, says }) => `${path} ${says}.`).join(' ')}`);
        cards.push(...reading.cards);
      }
    }
    await this.bringIn(cards);
  }

  private async bringIn(given: readonly CardDocument[]): Promise<void> {
    // A file never replaces a card on the shelf: one with the same id comes in as another card.
    // The store is asked, not the screen: on a first visit a file may come before the shelf is filled.
    const shelved = await this.store.all().catch(() => this.cards() ?? []);
    const taken = new Set(shelved.map(({ card }) => card.id));
    const cards = given.map((card) => {
      const own = taken.has(card.id) ? { ...card, id: crypto.randomUUID() } : card;
      taken.add(own.id);
      return own;
    });
    if (cards.length === 1) await this.put(cards[0]!);
    else if (await this.saveNew(cards)) {
      await this.reload();
      this.messages.add({ severity: 'success', summary: `${cards.length} cards came onto the shelf`, life: 4000 });
    }
  }

  private async reload(): Promise<void> {
    try {
      const { cards, unreadable } = await this.store.shelf();
      this.cards.set(cards);
      this.unreadable.set(unreadable);
      this.samplesAway.set((await this.store.note('samples-away')) === true);
      void this.drawAll(cards);
    } catch {
      this.cards.update((known) => known ?? []);
      this.trouble.set('What this browser keeps could not be read just now. Nothing on the shelf is changed by that; try again.');
    }
  }

  /** One after the other; what is asked for of the shelf meanwhile does not wait for them. */
  private async drawAll(cards: readonly OpenedCard[]): Promise<void> {
    for (const kept of cards) {
      // A card that was opened meanwhile, and a shelf that was read again, have pictures of their own to draw.
      if (this.left || this.cards() !== cards) return;
      const { card } = kept;
      const known = await this.keptPictures.of(kept);
      const pictures = known ?? (await this.evaluator.pictures(card));
      this.pictures.update((all) => ({ ...all, [card.id]: pictures }));
      if (!known && pictures) void this.keptPictures.keep(kept, pictures);
    }
  }

  private async saveNew(cards: readonly CardDocument[]): Promise<boolean> {
    return this.attempt(
      () => this.store.addAll(cards),
      () => `This browser did not keep the card: ${NOT_KEPT}`,
    );
  }

  private async attempt(work: () => Promise<unknown>, says: (error: unknown) => string): Promise<boolean> {
    this.trouble.set(undefined);
    try {
      await work();
      return true;
    } catch (error) {
      this.trouble.set(says(error));
      return false;
    }
  }

  private refuse(detail: string): void {
    this.messages.add({ severity: 'error', summary: 'Not opened', detail, sticky: true });
  }
}
