import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  caliperOfTen,
  parseLength,
  problemsOfSupply,
  stiffnessFromDroop,
  SUPPLY_FIELDS,
  type Notation,
  type Stock,
  type Supply,
  type SupplyField,
  type SupplyList,
} from '@diptychon/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { Textarea } from 'primeng/textarea';
import { fieldText, readField, withField } from './supply-text';

/** A change of one entry, made to it as it is by then: another may be on its way. */
export interface SupplyChange {
  what: string;
  id: string;
  apply: (now: Supply) => Supply;
}

/** Everything that is known of one supply, each field changed by itself. What cannot be stays in its field with a sentence. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-supply-editor',
  imports: [Button, FormsModule, InputText, Select, Textarea],
  templateUrl: './supply-editor.html',
  styleUrl: './supply-editor.scss',
})
export class SupplyEditor {
  readonly list = input.required<SupplyList>();
  readonly entry = input.required<Supply>();
  readonly notation = input.required<Notation>();
  readonly changed = output<SupplyChange>();

  protected readonly fields = computed(() => SUPPLY_FIELDS[this.list()]);
  protected readonly problems = signal<Readonly<Record<string, string>>>({});
  protected readonly isStock = computed(() => this.list() === 'stocks');

  protected text(field: SupplyField): string {
    return fieldText(field, this.valueOf(field), this.notation());
  }

  protected choice(field: SupplyField): string {
    return String(this.valueOf(field) ?? '');
  }

  protected set(field: SupplyField, typed: string): void {
    const reading = readField(field, typed, this.notation());
    if (!reading.ok) this.complain(field.name, reading.says);
    else this.put(field.name, field.label, reading.value);
  }

  /** Ten sheets measured at once. */
  protected measureTen(typed: string): void {
    const reading = parseLength(typed, 'mm', 'Ten sheets together');
    if (!reading.ok) this.complain('ten', reading.problem);
    else this.put('caliper', 'Thickness of one sheet', Number(caliperOfTen(reading.value).toFixed(4)), 'ten');
  }

  /** A strip that droops over the edge of a table. */
  protected measureDroop(free: string, droop: string): void {
    const [length, down] = [free, droop].map((typed) => parseLength(typed, this.notation(), 'Droop test'));
    if (!length!.ok || !down!.ok) {
      this.complain('droop', [length!, down!].flatMap((reading) => (reading.ok ? [] : [reading.problem]))[0]!);
      return;
    }
    const { caliper, weight } = this.entry() as Stock;
    try {
      const stiffness = stiffnessFromDroop({ length: length!.value, droop: down!.value, caliper, weight });
      this.put('stiffness', 'Stiffness', Math.round(stiffness), 'droop');
    } catch (error) {
      this.complain('droop', `Droop test: ${(error as Error).message}.`);
    }
  }

  private valueOf({ name }: SupplyField): unknown {
    return (this.entry() as unknown as Record<string, unknown>)[name];
  }

  /** @param at the field that shows what is wrong */
  private put(name: string, label: string, value: unknown, at = name): void {
    const entry = withField(this.entry(), name, value);
    const wrong = problemsOfSupply(this.list(), entry)[0];
    if (wrong) {
      this.complain(at, `${label} ${wrong.says}.`);
      return;
    }
    this.problems.update(({ [at]: __, ...others }) => others);
    this.changed.emit({ what: `${entry.name}: ${label.toLowerCase()}`, id: entry.id, apply: (now) => withField(now, name, value) });
  }

  private complain(at: string, says: string): void {
    this.problems.update((all) => ({ ...all, [at]: says }));
  }
}
