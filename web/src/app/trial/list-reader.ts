import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { CATALOGUE, mechanismById, readSaidList, wordsOfStrange, type CardDocument, type Reconciled } from '@diptychon/core';
import { ChoiceRow } from '../fields/choice-row';
import { TrialWork } from './trial-work';
import { WorkshopStore } from '../workshop/workshop-store';

const ANY = '';

/** A list of numbers from elsewhere, held against a mechanism, or against all: what contradicts what, and the slip that it may be. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-list-reader',
  imports: [ChoiceRow],
  template: `
    <details>
      <summary>I have a list of numbers from elsewhere</summary>
      <p class="help">
        One thing on each line: scores from the left, the blank, the closed card, layers by their panel. What you leave out is left open.
      </p>
      <label for="said-list">The list</label>
      <textarea id="said-list" rows="5" maxlength="4000" [placeholder]="example" (input)="text.set($any($event.target).value)"></textarea>
      <dip-choice-row
        class="row choice"
        fieldId="said-of"
        label="It is of"
        [options]="kinds"
        [value]="kind()"
        (chosen)="kind.set($event)"
      />
      <button type="button" class="fix" [disabled]="working()" (click)="hold()">Do these numbers agree?</button>
      @if (working()) {
        <p role="status">Holding the list against {{ kind() === any ? 'every base' : 'it' }}…</p>
      } @else if (trouble(); as says) {
        <p class="bad" role="alert">{{ says }}</p>
      } @else {
        @for (found of shown(); track found.mechanism) {
          <div class="offer">
            <p class="says">{{ title(found) }}</p>
            @for (entry of found.strange; track entry) {
              <p>{{ words(entry) }}</p>
            }
            @if (found.unsure; as unsure) {
              <p>{{ unsure }}</p>
            }
            @if (found.contradictions.length) {
              <ul>
                @for (contradiction of found.contradictions; track contradiction.says) {
                  <li>{{ contradiction.says }}</li>
                }
              </ul>
              @if (found.corrections.length) {
                <p>
                  {{
                    found.corrections[0]!.leaves > 0
                      ? 'All would agree with these changed together:'
                      : 'All would agree with one of these, the likeliest slip first:'
                  }}
                </p>
                <ol>
                  @for (correction of found.corrections; track correction.entry) {
                    <li>{{ correction.says }}</li>
                  }
                </ol>
              }
            }
            @if (found.card; as card) {
              <button type="button" (click)="make(found.mechanism, card)">Make the card of it</button>
            }
          </div>
        } @empty {
          @if (answer()) {
            <p role="status">No base has places for all of these numbers.</p>
          }
        }
      }
    </details>
  `,
  styleUrl: './trial-panel.scss',
})
export class ListReader {
  readonly made = output<CardDocument>();

  private readonly work = inject(TrialWork);
  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly any = ANY;
  protected readonly example = 'scores 75, 150\nblank 300 x 105\nclosed 150 x 105';
  protected readonly kinds = [{ value: ANY, label: 'I do not know' }, ...CATALOGUE.map(({ id, name }) => ({ value: id, label: name }))];
  protected readonly kind = signal(ANY);
  protected readonly text = signal('');
  protected readonly working = signal(false);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly answer = signal<{ of: string; found: Reconciled[] } | undefined>(undefined);
  private readonly asked = computed(() => `${this.kind()}\n${this.text()}`);
  /** what was found of another list is none of this one */
  protected readonly shown = computed(() => (this.answer()?.of === this.asked() ? this.answer()!.found : []));

  protected async hold(): Promise<void> {
    const reading = readSaidList(this.text(), this.workshop().notation);
    if (!reading.ok) {
      this.trouble.set(reading.says);
      return;
    }
    const of = this.asked();
    this.trouble.set(undefined);
    this.working.set(true);
    const found = await this.work.reconcile(this.kind() || undefined, reading.said);
    this.working.set(false);
    if (found) this.answer.set({ of, found });
    else this.trouble.set('The calculation stopped. Try again.');
  }

  /** A card of its own on the shelf, called by what it is. */
  protected make(mechanism: string, card: CardDocument): void {
    this.made.emit({ ...card, id: crypto.randomUUID(), name: `${mechanismById(mechanism).name}, from a list`, state: 'idea' });
  }

  /** What an entry is called, as a sentence begins. */
  protected readonly words = wordsOfStrange;

  protected title({ mechanism, contradictions, strange }: Reconciled): string {
    const { name } = mechanismById(mechanism);
    if (strange.length > 0 && contradictions.length === 0) return `${name}: not all of it has a place.`;
    if (contradictions.length === 0) return `${name}: all numbers agree.`;
    return `${name}: ${contradictions.length === 1 ? 'one number does' : `${contradictions.length} numbers do`} not agree with the rest.`;
  }
}
