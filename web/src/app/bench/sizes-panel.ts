import { Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  allowedWords,
  BOARDS,
  ENVELOPES,
  filledSizes,
  mechanismOf,
  refusal,
  setSize,
  sizeRows,
  STOCKS,
  unsetSize,
  type CardDocument,
  type CardProblem,
  type Evaluation,
  type SizeRow,
} from '@diptychon/core';
import { Select } from 'primeng/select';
import { Textarea } from 'primeng/textarea';
import { LengthField } from './length-field';
import { NumberText } from './number-text';

/** A change of the card, with its name for undo. Applied to the card as it is then, never to an older one. */
export interface CardChange {
  what: string;
  apply: (card: CardDocument) => CardDocument;
}

interface Group {
  owner: string;
  title: string;
  rows: SizeRow[];
}

/** What the maker sets, and what follows from it with its reason. */
@Component({
  selector: 'dip-sizes-panel',
  imports: [FormsModule, LengthField, NumberText, Select, Textarea],
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
    return ['base', ...card.movements.map((m) => m.id)].map((owner) => ({
      owner,
      title: mechanismOf(card, owner).name,
      rows: sizeRows(card, owner),
    }));
  });

  protected readonly closedSize = computed(() => {
    const { depth, length } = filledSizes(this.card(), 'base') as { depth: number; length: number };
    return this.card().foldEdge === 'side' ? { width: depth, height: length } : { width: length, height: depth };
  });

  protected readonly roles = computed(() => {
    const used = new Set(this.evaluation()?.design.pieces.map((piece) => piece.stock) ?? ['base']);
    return [
      { role: 'base' as const, label: 'Base stock' },
      { role: 'mechanism' as const, label: 'Mechanism stock' },
      { role: 'display' as const, label: 'Display stock' },
    ].filter(({ role }) => used.has(role));
  });

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

  protected setStock(role: 'base' | 'mechanism' | 'display', label: string, id: string): void {
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
