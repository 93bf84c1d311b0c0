import { NgTemplateOutlet } from '@angular/common';
import { Component, computed, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  addItem,
  allowedWords,
  BOARDS,
  closedSizeOf,
  ENVELOPES,
  LARGEST_SVG,
  listRows,
  mechanismOf,
  readOutlineSvg,
  refusal,
  removeItem,
  setSize,
  sizeRows,
  STOCKS,
  unsetSize,
  type CardDocument,
  type CardProblem,
  type Evaluation,
  type ListRow,
  type SizeRow,
} from '@diptychon/core';
import { Select } from 'primeng/select';
import { Textarea } from 'primeng/textarea';
import type { CardChange } from './card-change';
import { LengthField } from './length-field';
import { NumberText } from './number-text';
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
  selector: 'dip-sizes-panel',
  imports: [FormsModule, LengthField, NgTemplateOutlet, NumberText, PostLimits, Select, Textarea],
  templateUrl: './sizes-panel.html',
  styleUrl: './sizes-panel.scss',
})
export class SizesPanel {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input<Evaluation>();
  readonly problems = input<readonly CardProblem[]>([]);
  readonly changed = output<CardChange>();

  protected readonly stocks = STOCKS.map(({ id, name }) => ({ value: id, label: name }));
  protected readonly boards = BOARDS.map(({ id, name }) => ({ value: id, label: name }));
  protected readonly envelopes = [{ value: '', label: 'none chosen' }, ...ENVELOPES.map(({ id, name }) => ({ value: id, label: name }))];
  protected readonly states = ['idea', 'tested', 'made'];
  protected readonly foldEdges = [
    { value: 'side', label: 'at the side' },
    { value: 'top', label: 'at the top' },
  ];

  protected readonly groups = computed((): Group[] => {
    const card = this.card();
    return ['base', ...card.movements.map((m) => m.id)].map((owner) => {
      const rows = sizeRows(card, owner);
      return {
        owner,
        title: mechanismOf(card, owner).name,
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
    return [
      { role: 'base' as const, label: 'Base stock' },
      { role: 'mechanism' as const, label: 'Mechanism stock' },
      { role: 'display' as const, label: 'Display stock' },
      { role: 'film' as const, label: 'Clear film' },
    ].filter(({ role }) => used.has(role));
  });

  /** Item sizes have brackets and points in their names, which ids are better without. */
  protected fieldId(row: SizeRow): string {
    return `${row.owner}-${row.name.replace(/[[\].]+/g, '-')}`;
  }

  protected asCutOpen(rows: readonly SizeRow[]): boolean {
    return rows.some((row) => row.given || this.standing(row));
  }

  protected allowed(row: SizeRow): string {
    return allowedWords(this.card(), row.owner, row.name);
  }

  protected standing(row: SizeRow): string | undefined {
    return this.problems().find((p) => p.owner === row.owner && p.size === row.name)?.says;
  }

  /** Why a value cannot be set, in a sentence, or nothing. */
  protected readonly refusalOf = (row: SizeRow) => (value: number) => refusal(this.card(), row.owner, row.name, value);

  protected set(row: SizeRow, value: number | string): void {
    this.changed.emit({ what: row.label, apply: (card) => setSize(card, row.owner, row.name, value) });
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
    const refuse = (says: string): void => this.outlineTrouble.set({ row: row.owner + row.name, says });
    if (file.size > LARGEST_SVG) return refuse(`${file.name}: larger than ${LARGEST_SVG / 1024} kB, which no outline drawing is.`);
    const reading = readOutlineSvg(await file.text(), file.name);
    if (!reading.ok) return refuse(reading.says);
    const others = this.card().outlines ?? [];
    if (others.length >= 12 && !others.some((own) => own.id === reading.outline.id))
      return refuse('A card holds at most 12 outlines of its own.');
    this.outlineTrouble.set(reading.note ? { row: row.owner + row.name, says: reading.note } : undefined);
    this.changed.emit({
      what: row.label,
      apply: (card) => {
        const kept = (card.outlines ?? []).filter((own) => own.id !== reading.outline.id);
        return setSize({ ...card, outlines: [...kept, reading.outline] }, row.owner, row.name, reading.outline.id);
      },
    });
  }

  protected setStock(role: keyof CardDocument['stocks'], label: string, id: string): void {
    this.changed.emit({ what: label, apply: (card) => ({ ...card, stocks: { ...card.stocks, [role]: id } }) });
  }

  protected setFoldEdge(foldEdge: 'side' | 'top'): void {
    this.changed.emit({ what: 'Fold edge', apply: (card) => ({ ...card, foldEdge }) });
  }

  protected setState(state: NonNullable<CardDocument['state']>): void {
    this.changed.emit({ what: 'State', apply: (card) => ({ ...card, state }) });
  }

  protected setNote(note: string): void {
    this.changed.emit({ what: 'Notes', apply: (card) => ({ ...card, note: note.slice(0, 4000) || undefined }) });
  }

  protected setBoard(board: string): void {
    this.changed.emit({ what: 'Board', apply: (card) => ({ ...card, board }) });
  }

  protected setEnvelope(envelope: string): void {
    this.changed.emit({ what: 'Envelope', apply: (card) => ({ ...card, envelope: envelope || undefined }) });
  }
}

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
