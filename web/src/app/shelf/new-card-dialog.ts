import { Component, computed, inject, linkedSignal, model, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { parseLength, partsOf, sayLength, sizeForEnvelope, sizeForSheet, type CardDocument, told, type ClosedSize } from '@diptychon/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { NumberText } from '../fields/number-text';
import { WorkshopStore } from '../workshop/workshop-store';

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
  private readonly workshop = inject(WorkshopStore).workshop;

  protected readonly kinds = [...KINDS];
  protected readonly from = signal<From>('size');
  protected readonly ways: { value: From; label: string }[] = [
    { value: 'size', label: 'a closed size' },
    { value: 'envelope', label: 'an envelope I have' },
    { value: 'sheet', label: 'a sheet I have' },
  ];
  protected readonly envelopes = computed(() => this.workshop().envelopes.map((e) => ({ value: e.id, label: e.name })));
  protected readonly sheets = computed(() => this.workshop().sheets.map((s) => ({ value: s.id, label: s.name })));
  /** an everyday one to begin with: the second of the list */
  protected readonly envelope = linkedSignal(() => (this.workshop().envelopes[1] ?? this.workshop().envelopes[0])?.id ?? '');
  protected readonly sheet = linkedSignal(() => this.workshop().sheets[0]?.id ?? '');
  protected readonly count = signal(1);
  protected readonly counts = [
    { value: 1, label: 'one card, as large as it gives' },
    { value: 2, label: 'two cards from one sheet' },
  ];
  protected readonly notation = computed(() => this.workshop().notation);
  private readonly inches = computed(() => this.notation().startsWith('inch'));
  protected readonly depthText = signal<string | undefined>(undefined);
  protected readonly lengthText = signal<string | undefined>(undefined);
  protected readonly depthShown = computed(() => this.depthText() ?? (this.inches() ? '5 in' : '130 mm'));
  protected readonly lengthShown = computed(() => this.lengthText() ?? (this.inches() ? '7 in' : '150 mm'));

  /** The closed size, or what is wrong with what was typed or with a card of that size. */
  protected readonly size = computed((): ClosedSize | string => {
    const size = this.wanted();
    if (typeof size === 'string') return size;
    const [problem] = partsOf(cardOfKind(this.kind(), size, { notation: this.notation() }, this.workshop())).problems;
    return problem ? told(problem.says, this.notation()) : size;
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
    this.made.emit(
      cardOfKind(
        kind,
        size,
        {
          id: crypto.randomUUID(),
          name: `New ${kind.title.toLowerCase()}`,
          notation: this.notation(),
          ...(this.from() === 'envelope' && { envelope: this.envelope() }),
          state: 'idea',
        },
        this.workshop(),
      ),
    );
    this.visible.set(false);
  }

  private wanted(): ClosedSize | string {
    const { base, foldEdge } = this.kind();
    if (this.from() === 'envelope')
      return sizeForEnvelope(
        this.workshop().envelopes.find((e) => e.id === this.envelope())!,
        foldEdge,
      );
    if (this.from() === 'sheet') {
      const sheet = this.workshop().sheets.find((s) => s.id === this.sheet())!;
      const of = this.count() === 1 ? 'all its pieces' : 'the pieces of two cards';
      return sizeForSheet(base, sheet, this.count()) ?? `No card of this kind has ${of} on one sheet of ${sheet.name}.`;
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
