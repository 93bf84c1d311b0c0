import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  addItem,
  allowedWords,
  closedSizeOf,
  differencesFrom,
  listRows,
  refusal,
  removeItem,
  ROLE_NAMES,
  setSize,
  sizeRows,
  STOCK_ROLES,
  titlesOf,
  unsetSize,
  withBoard,
  withEnvelope,
  withMine,
  withPieceStock,
  withStock,
  type CardDocument,
  type CardProblem,
  type Envelope,
  type Evaluation,
  type ListRow,
  type SizeRow,
  type StockRole,
  type SupplyDifference,
} from '@diptychon/core';
import { ChoiceRow } from '../fields/choice-row';
import { Textarea } from 'primeng/textarea';
import { Evaluator } from '../evaluation/evaluator';
import { WorkshopStore } from '../workshop/workshop-store';
import type { CardChange } from './card-change';
import { LengthField } from '../fields/length-field';
import { offeredChoices } from '../fields/offered-choices';
import { outlineFrom, withOutline } from '../fields/outline-file';
import { NumberText } from '../fields/number-text';
import { OwnEnvelope } from '../workshop/own-envelope';
import { sizeDrawing } from '../words/size-drawings';
import { DrawnSmall, type SmallDrawing } from '../words/small-drawing';
import { PostLimits } from './post-limits';

/** One size, or a list of like things with the sizes of each. */
type Block = { kind: 'row'; row: SizeRow } | { kind: 'list'; list: ListRow; items: SizeRow[][] };

interface Group {
  owner: string;
  title: string;
  blocks: Block[];
  /** sizes that follow from others unless the card is already cut */
  asCut: SizeRow[];
}

/** What the maker sets, and what follows from it with its reason. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-sizes-panel',
  imports: [ChoiceRow, DrawnSmall, LengthField, NgTemplateOutlet, NumberText, OwnEnvelope, PostLimits, RouterLink, Textarea],
  templateUrl: './sizes-panel.html',
  styleUrl: './sizes-panel.scss',
})
export class SizesPanel {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input<Evaluation>();
  readonly problems = input<readonly CardProblem[]>([]);
  readonly changed = output<CardChange>();

  private readonly store = inject(WorkshopStore);
  private readonly workshop = this.store.workshop;
  private readonly evaluator = inject(Evaluator);
  protected readonly stocks = computed(() => this.offered('stocks'));
  protected readonly boards = computed(() => this.offered('boards'));
  protected readonly withins = [
    { value: 'outline', label: 'its own outline' },
    { value: 'envelope', label: 'its envelope: parts may stick out' },
  ];
  protected readonly envelopes = computed(() => [
    { value: '', label: 'none chosen' },
    ...this.offered('envelopes'),
    { value: OWN, label: 'another, by its inside' },
  ]);
  /** an envelope by its inside is being told, and what it is as far as it can be read */
  protected readonly tellingOwn = signal(false);
  protected readonly ownEnvelope = signal<Envelope | undefined>(undefined);
  protected readonly envelopeShown = computed(() => (this.tellingOwn() ? OWN : (this.card().envelope ?? '')));
  /** what this card carries that is not as in the workshop */
  protected readonly differences = computed(() => differencesFrom(this.card().supplies, this.workshop()));
  protected readonly states = (['idea', 'tested', 'made'] as const).map((value) => ({ value, label: value }));
  protected readonly foldEdges = [
    { value: 'side' as const, label: 'at the side' },
    { value: 'top' as const, label: 'at the top' },
  ];

  protected readonly groups = computed((): Group[] => {
    const card = this.card();
    const titles = titlesOf(card);
    return card.parts.map(({ id: owner }) => {
      const rows = sizeRows(card, owner);
      return {
        owner,
        title: titles.get(owner)!,
        blocks: blocksOf(rows, listRows(card, owner)),
        asCut: rows.filter((row) => row.asCut && !row.list),
      };
    });
  });

  protected readonly closedSize = computed(() => {
    const known = this.evaluation();
    if (!known) return undefined;
    const { depth, length } = closedSizeOf(known);
    return this.card().foldEdge === 'side' ? { width: depth, height: length } : { width: length, height: depth };
  });
  protected readonly outlineTrouble = signal<{ row: string; says: string } | undefined>(undefined);

  protected readonly roles = computed(() => {
    const used = new Set(this.evaluation()?.design.pieces.map((piece) => piece.stock) ?? ['base']);
    return STOCK_ROLES.filter((role) => used.has(role)).map((role) => ({ role, label: ROLE_NAMES[role] }));
  });
  /** pieces of roles that are cut from several: each may have a stock of its own */
  protected readonly pieces = computed(() =>
    (this.evaluation()?.design.pieces ?? []).map(({ id, name, stock }) => ({
      id,
      name,
      own: this.card().pieceStocks?.[id] ?? '',
      options: [{ value: '', label: `as ${ROLE_NAMES[stock].toLowerCase()}` }, ...this.stocks()],
    })),
  );

  /** Item sizes have brackets and points in their names, which ids are better without. */
  protected fieldId(row: SizeRow): string {
    return `${row.owner}-${row.name.replace(/[[\].]+/g, '-')}`;
  }

  protected asCutOpen(rows: readonly SizeRow[]): boolean {
    return rows.some((row) => row.given || this.standing(row));
  }

  /** A small picture of what a size measures, where there is one. */
  protected drawingOf({ owner, name }: SizeRow): SmallDrawing | undefined {
    const part = this.card().parts.find(({ id }) => id === owner);
    return part && sizeDrawing(part.mechanism, name);
  }

  /** What is allowed for a size, worked out when it is asked for. One function for all fields, so that none is drawn anew for it. */
  protected readonly allowed = ({ owner, name }: SizeRow): string => allowedWords(this.card(), owner, name);

  protected standing(row: SizeRow): string | undefined {
    return this.problems().find((p) => p.owner === row.owner && p.size === row.name)?.says;
  }

  /** Why a value cannot be set, in a sentence, or nothing. */
  protected readonly refusal = ({ owner, name }: SizeRow, value: number): string | undefined => refusal(this.card(), owner, name, value);

  protected set(row: SizeRow, value: number | string, typed?: string): void {
    this.changed.emit({ what: row.label, apply: (card) => setSize(card, row.owner, row.name, value), ...(typed && { typed }) });
  }

  protected follow(row: SizeRow): void {
    this.changed.emit({ what: row.label, apply: (card) => unsetSize(card, row.owner, row.name) });
  }

  protected add(list: ListRow): void {
    this.changed.emit({ what: `One more ${list.itemLabel}`, apply: (card) => addItem(card, list.owner, list.name) });
  }

  protected take(list: ListRow, index: number): void {
    this.changed.emit({
      what: `Take away ${list.itemLabel} ${index + 1}`,
      apply: (card) => removeItem(card, list.owner, list.name, index),
    });
  }

  /** Reads an outline out of a drawing and uses it for a size. Refused drawings leave the card as it is. */
  protected async bringOutline(row: SizeRow, input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    const reading = await outlineFrom(file, this.card(), this.evaluator);
    const says = reading.ok ? reading.note : reading.says;
    this.outlineTrouble.set(says === undefined ? undefined : { row: row.owner + row.name, says });
    if (!reading.ok) return;
    const { outline } = reading;
    this.changed.emit({ what: row.label, apply: (card) => setSize(withOutline(card, outline), row.owner, row.name, outline.id) });
  }

  private offered(list: 'stocks' | 'boards' | 'envelopes') {
    return offeredChoices(list, this.card(), this.workshop());
  }

  protected setStock(role: StockRole, label: string, id: string): void {
    const workshop = this.workshop();
    this.changed.emit({ what: label, apply: (card) => withStock(card, role, id, workshop) });
  }

  protected setPieceStock(piece: string, name: string, id: string): void {
    const workshop = this.workshop();
    this.changed.emit({ what: `Stock of ${name}`, apply: (card) => withPieceStock(card, piece, id || undefined, workshop) });
  }

  protected useMine({ list, id, name }: SupplyDifference): void {
    const workshop = this.workshop();
    this.changed.emit({ what: `${name} as in my workshop`, apply: (card) => withMine(card, list, id, workshop) });
  }

  protected isMine({ list, id }: SupplyDifference): boolean {
    return this.workshop()[list].some((entry) => entry.id === id);
  }

  protected setFoldEdge(foldEdge: 'side' | 'top'): void {
    this.changed.emit({ what: 'Fold edge', apply: (card) => ({ ...card, foldEdge }) });
  }

  protected setState(state: NonNullable<CardDocument['state']>): void {
    this.changed.emit({ what: 'State', apply: (card) => ({ ...card, state }) });
  }

  protected setNote(note: string): void {
    this.changed.emit({ what: 'Notes', apply: (card) => ({ ...card, note: note.slice(0, 4000) || undefined }), typed: 'note' });
  }

  protected setBoard(id: string): void {
    const workshop = this.workshop();
    this.changed.emit({ what: 'Board', apply: (card) => withBoard(card, id, workshop) });
  }

  /** The envelope that was told by its inside goes into my workshop and onto this card. */
  protected useOwnEnvelope(): void {
    const own = this.ownEnvelope();
    if (!own) return;
    this.store.addEnvelope(own);
    this.setEnvelope(own.id);
  }

  protected setWithin(within: string): void {
    this.changed.emit({
      what: 'What it must keep inside',
      apply: (card) => ({ ...card, within: within === 'envelope' ? 'envelope' : undefined }),
    });
  }

  protected setEnvelope(id: string): void {
    this.tellingOwn.set(id === OWN);
    this.ownEnvelope.set(undefined);
    if (id === OWN) return;
    const workshop = this.workshop();
    this.changed.emit({ what: 'Envelope', apply: (card) => withEnvelope(card, id || undefined, workshop) });
  }
}

/** Chosen in the list of envelopes for one that is not in it; no envelope has an id like that. */
const OWN = '?';

function blocksOf(rows: readonly SizeRow[], lists: readonly ListRow[]): Block[] {
  const blocks: Block[] = [];
  for (const row of rows) {
    if (!row.list) {
      blocks.push({ kind: 'row', row });
      continue;
    }
    const { name, index } = row.list;
    let block = blocks.find((b): b is Extract<Block, { kind: 'list' }> => b.kind === 'list' && b.list.name === name);
    if (!block) blocks.push((block = { kind: 'list', list: lists.find((list) => list.name === name)!, items: [] }));
    (block.items[index] ??= []).push(row);
  }
  const empty = lists.filter((list) => list.count === 0);
  return [...blocks, ...empty.map((list): Block => ({ kind: 'list', list, items: [] }))];
}
