import { Component, computed, inject, model, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  ENVELOPES,
  parseLength,
  problemsOf,
  SHEET_SIZES,
  sizeForEnvelope,
  sizeForSheet,
  type CardDocument,
  type ClosedSize,
} from '@diptychon/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { NumberText } from '../bench/number-text';
import { Preferences } from '../frame/preferences';

import { cardOfKind, KINDS, type Kind } from './kinds';

type From = 'size' | 'envelope' | 'sheet';

/** Starts a card from a closed size, an envelope that is there, or a sheet that is there. */
@Component({
  selector: 'dip-new-card-dialog',
  imports: [Button, Dialog, FormsModule, InputText, NumberText, Select],
  templateUrl: './new-card-dialog.html',
  styleUrl: './new-card-dialog.scss',
})
export class NewCardDialog {
  readonly visible = model(false);
  readonly kind = model<Kind>(KINDS[0]!);
  readonly made = output<CardDocument>();
  private readonly preferences = inject(Preferences);

  protected readonly kinds = [...KINDS];
  protected readonly from = signal<From>('size');
  protected readonly ways: { value: From; label: string }[] = [
    { value: 'size', label: 'a closed size' },
    { value: 'envelope', label: 'an envelope I have' },
    { value: 'sheet', label: 'a sheet I have' },
  ];
  protected readonly envelopes = ENVELOPES.map((e) => ({ value: e.id, label: e.name }));
  protected readonly sheets = SHEET_SIZES.map((s) => ({ value: s.id, label: s.name }));
  protected readonly envelope = signal('c6');
  protected readonly sheet = signal('a4');
  protected readonly notation = computed(() => this.preferences.notation() ?? 'mm');
  private readonly inches = computed(() => this.notation().startsWith('inch'));
  protected readonly depthText = signal<string | undefined>(undefined);
  protected readonly lengthText = signal<string | undefined>(undefined);
  protected readonly depthShown = computed(() => this.depthText() ?? (this.inches() ? '5 in' : '130 mm'));
  protected readonly lengthShown = computed(() => this.lengthText() ?? (this.inches() ? '7 in' : '150 mm'));

  /** The closed size, or what is wrong with what was typed or with a card of that size. */
  protected readonly size = computed((): ClosedSize | string => {
    const size = this.wanted();
    if (typeof size === 'string') return size;
    const [problem] = problemsOf(cardOfKind(this.kind(), size, { notation: this.notation() }));
    return problem ? problem.says : size;
  });

  protected readonly good = computed(() => {
    const size = this.size();
    return typeof size === 'string' ? undefined : size;
  });
  protected readonly problem = computed(() => {
    const size = this.size();
    return typeof size === 'string' ? size : undefined;
  });

  protected make(): void {
    const size = this.good();
    if (!size) return;
    const kind = this.kind();
    const board = this.preferences.board();
    this.made.emit(
      cardOfKind(kind, size, {
        id: crypto.randomUUID(),
        name: `New ${kind.title.toLowerCase()}`,
        notation: this.notation(),
        ...(board && { board }),
        ...(this.from() === 'envelope' && { envelope: this.envelope() }),
        state: 'idea',
      }),
    );
    this.visible.set(false);
  }

  private wanted(): ClosedSize | string {
    const { base, foldEdge } = this.kind();
    if (this.from() === 'envelope')
      return sizeForEnvelope(
        ENVELOPES.find((e) => e.id === this.envelope())!,
        foldEdge,
      );
    if (this.from() === 'sheet') {
      const sheet = SHEET_SIZES.find((s) => s.id === this.sheet())!;
      return sizeForSheet(base, sheet) ?? `No card of this kind has all its pieces on sheets of ${sheet.name}.`;
    }
    const depth = parseLength(this.depthShown(), this.notation(), 'Across the fold');
    const length = parseLength(this.lengthShown(), this.notation(), 'Along the fold');
    if (!depth.ok) return depth.problem;
    if (!length.ok) return length.problem;
    const wrong = [depth.value, length.value].find((mm) => mm < 40 || mm > 320);
    if (wrong !== undefined)
      return `${Math.round(wrong)} mm does not work; allowed is 40 mm to 320 mm, so that it can be handled and cut from a sheet.`;
    return { depth: depth.value, length: length.value };
  }
}
