import { ChangeDetectionStrategy, Component, computed, effect, inject, linkedSignal, model, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  mechanismById,
  parseLength,
  partsOf,
  rulerStep,
  sayLength,
  sizeForEnvelope,
  proportionsOf,
  sizeForSheet,
  type Look,
  told,
  withEnvelope,
  type CardDocument,
  type ClosedSize,
  type Envelope,
  type UsedUp,
} from '@diptychon/core';
import { Button } from 'primeng/button';
import { Checkbox } from 'primeng/checkbox';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { MovingPicture } from '../drawings/moving-picture';
import type { BegunCard } from '../evaluation/evaluation-api';
import { Evaluator } from '../evaluation/evaluator';
import { ChoiceRow } from '../fields/choice-row';
import { NumberText } from '../fields/number-text';
import { DialogFocus } from '../frame/dialog-focus';
import { OwnEnvelope } from '../workshop/own-envelope';
import { WorkshopStore } from '../workshop/workshop-store';
import { cardFromSheet, cardOfKind, KINDS } from './kinds';

type From = 'size' | 'envelope' | 'sheet';

/** Chosen in the list of envelopes for one that is not in it. */
const OWN = '';
const LONGEST_WAIT_MS = 2000;
const OPENINGS = Array.from({ length: 13 }, (_, i) => i / 12);

/**
 * Starts a card from a closed size, an envelope that is there, or a sheet that is there, and shows it moving, with all that
 * comes of that size, before it is taken to the bench.
 */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-new-card-dialog',
  imports: [Button, Checkbox, ChoiceRow, Dialog, DialogFocus, FormsModule, InputText, MovingPicture, NumberText, OwnEnvelope],
  templateUrl: './new-card-dialog.html',
  styleUrl: './new-card-dialog.scss',
})
export class NewCardDialog {
  readonly visible = model(false);
  /** what kind of card, by its id */
  readonly kind = model(KINDS[0]!.id);
  readonly made = output<CardDocument>();
  private readonly store = inject(WorkshopStore);
  private readonly workshop = this.store.workshop;
  private readonly evaluator = inject(Evaluator);

  protected readonly kinds = KINDS.map(({ id, title }) => ({ value: id, label: title }));
  private readonly ofKind = computed(() => KINDS.find(({ id }) => id === this.kind())!);
  protected readonly from = signal<From>('size');
  protected readonly ways: { value: From; label: string }[] = [
    { value: 'size', label: 'a closed size' },
    { value: 'envelope', label: 'an envelope I have' },
    { value: 'sheet', label: 'a sheet I have' },
  ];
  protected readonly envelopes = computed(() => [
    ...this.workshop().envelopes.map((e) => ({ value: e.id, label: e.name })),
    { value: OWN, label: 'another, by its inside' },
  ]);
  protected readonly sheets = computed(() => this.workshop().sheets.map((s) => ({ value: s.id, label: s.name })));
  /** an everyday one to begin with: the second of the list */
  protected readonly envelope = linkedSignal(() => (this.workshop().envelopes[1] ?? this.workshop().envelopes[0])?.id ?? OWN);
  protected readonly ownEnvelope = signal<Envelope | undefined>(undefined);
  protected readonly sheet = linkedSignal(() => this.workshop().sheets[0]?.id ?? '');
  protected readonly count = signal(1);
  protected readonly counts = [
    { value: 1, label: 'one card, as large as it gives' },
    { value: 2, label: 'two cards from one sheet' },
  ];
  /** how the card from a sheet is to look */
  protected readonly lookOf = signal<Look>('any');
  protected readonly looks: { value: Look; label: string }[] = [
    { value: 'any', label: 'whatever gives most' },
    { value: 'upright', label: 'higher than wide' },
    { value: 'square', label: 'square, or nearly' },
    { value: 'wide', label: 'wider than high' },
  ];
  protected readonly notation = computed(() => this.workshop().notation);
  private readonly inches = computed(() => this.notation().startsWith('inch'));
  protected readonly depthText = signal<string | undefined>(undefined);
  protected readonly lengthText = signal<string | undefined>(undefined);
  protected readonly depthShown = computed(() => this.depthText() ?? (this.inches() ? '5 in' : '130 mm'));
  protected readonly lengthShown = computed(() => this.lengthText() ?? (this.inches() ? '7 in' : '150 mm'));
  /** whether its sizes are brought to the grooves of the board */
  protected readonly onBoard = signal(true);
  protected readonly board = computed(() => {
    const { boards, usual } = this.workshop();
    return boards.find(({ id, free }) => id === usual.board && !free);
  });

  /** The card that is wanted, or what is wrong with what was typed or with a card of that size. */
  private readonly wanted = computed((): CardDocument | string => {
    const { title } = this.ofKind();
    const given = { id: 'new', name: `New ${title.toLowerCase()}`, notation: this.notation(), state: 'idea' as const };
    const card = this.cardFrom(given);
    if (typeof card === 'string') return card;
    const [problem] = partsOf(card).problems;
    if (problem) return told(problem.says, this.notation());
    const envelope = this.from() === 'envelope' ? this.chosenEnvelope() : undefined;
    return envelope ? withEnvelope(card, envelope.id, { ...this.workshop(), envelopes: [envelope] }) : card;
  });
  protected readonly problem = computed(() => {
    const wanted = this.wanted();
    return typeof wanted === 'string' ? wanted : undefined;
  });

  /** whether the sheet is used up together with what moves on the card */
  protected readonly usesUp = computed(() => this.ofKind().usesUp);
  protected readonly shareText = signal<string | undefined>(undefined);
  protected readonly shareLabel = computed(() => {
    const { movement, usesUp } = this.ofKind();
    return usesUp ? mechanismById(movement!).sizes.find(({ name }) => name === usesUp.size)!.label : '';
  });
  private readonly chosenSheet = computed(() => this.workshop().sheets.find(({ id }) => id === this.sheet())!);
  protected readonly shareShown = computed(() => {
    const usesUp = this.usesUp();
    return this.shareText() ?? (usesUp ? sayLength(this.onMark(usesUp.usual(this.chosenSheet())), this.notation()) : '');
  });

  private onMark(length: number): number {
    const step = rulerStep(this.notation());
    return Math.floor(length / step + 1e-6) * step;
  }

  /** The size that a sheet is divided by, or what is wrong with it. */
  private share(usesUp: UsedUp): number | string {
    const parsed = parseLength(this.shareShown(), this.notation(), this.shareLabel());
    if (!parsed.ok) return parsed.problem;
    const { min, max, because } = usesUp.range(this.chosenSheet());
    const say = (mm: number): string => sayLength(mm, this.notation());
    return parsed.value < min - 1e-6 || parsed.value > max + 1e-6
      ? `${this.shareLabel()}: ${say(parsed.value)} does not work; allowed is ${say(min)} to ${say(max)}, because ${because}.`
      : parsed.value;
  }

  private readonly known = signal<{ of: CardDocument; onBoard: boolean; begun: BegunCard | undefined } | undefined>(undefined);
  /** what comes of the card that is wanted, once it is worked out */
  protected readonly begun = computed(() => {
    const known = this.known();
    return known && known.of === this.wanted() && known.onBoard === this.onBoard() ? known.begun : undefined;
  });

  private working: Promise<void> | undefined;

  constructor() {
    effect(() => {
      const [wanted, onBoard] = [this.wanted(), this.onBoard()];
      if (!this.visible() || typeof wanted === 'string') return;
      const sheet = this.from() === 'sheet' ? this.chosenSheet() : undefined;
      this.working = this.evaluator.begun(wanted, onBoard, OPENINGS, sheet).then((begun) => {
        if (this.wanted() === wanted) this.known.set({ of: wanted, onBoard, begun });
      });
    });
  }

  protected async make(): Promise<void> {
    const wanted = this.wanted();
    if (typeof wanted === 'string') return;
    // Whoever is faster than the calculation waits a moment for it; a calculation that is stuck keeps nobody waiting.
    if (!this.begun()) await Promise.race([this.working, new Promise((done) => setTimeout(done, LONGEST_WAIT_MS))]);
    const envelope = this.from() === 'envelope' && this.envelope() === OWN ? this.chosenEnvelope() : undefined;
    if (envelope) this.store.addEnvelope(envelope);
    this.made.emit({ ...(this.begun()?.card ?? wanted), id: crypto.randomUUID() });
    this.visible.set(false);
  }

  private chosenEnvelope(): Envelope | undefined {
    if (this.envelope() === OWN) return this.ownEnvelope();
    return this.workshop().envelopes.find(({ id }) => id === this.envelope());
  }

  private cardFrom(given: Partial<CardDocument>): CardDocument | string {
    const usesUp = this.from() === 'sheet' ? this.usesUp() : undefined;
    if (usesUp) {
      const share = this.share(usesUp);
      return typeof share === 'string' ? share : cardFromSheet(this.ofKind(), this.chosenSheet(), share, given, this.workshop());
    }
    const size = this.size();
    return typeof size === 'string' ? size : cardOfKind(this.ofKind(), size, given, this.workshop());
  }

  private size(): ClosedSize | string {
    const { base, foldEdge } = this.ofKind();
    if (this.from() === 'envelope') {
      const envelope = this.chosenEnvelope();
      return envelope ? sizeForEnvelope(envelope, foldEdge, this.notation()) : 'Measure the inside of the envelope both ways.';
    }
    if (this.from() === 'sheet') {
      const sheet = this.workshop().sheets.find((s) => s.id === this.sheet())!;
      const of = this.count() === 1 ? 'all its pieces' : 'the pieces of two cards';
      const look = this.lookOf();
      const words = look === 'any' ? '' : ` that is ${this.looks.find(({ value }) => value === look)!.label}`;
      return (
        sizeForSheet(base, sheet, this.count(), proportionsOf(look, foldEdge)) ??
        `No card of this kind${words} has ${of} on one sheet of ${sheet.name}.`
      );
    }
    const depth = parseLength(this.depthShown(), this.notation(), 'Across the fold');
    const length = parseLength(this.lengthShown(), this.notation(), 'Along the fold');
    if (!depth.ok) return depth.problem;
    if (!length.ok) return length.problem;
    const say = (mm: number): string => sayLength(mm, this.notation());
    const wrong = [depth.value, length.value].find((mm) => mm < 40 || mm > 320);
    if (wrong !== undefined)
      return `${say(wrong)} does not work; allowed is ${say(40)} to ${say(320)}, so that it can be handled and cut from a sheet.`;
    return { depth: depth.value, length: length.value };
  }
}
