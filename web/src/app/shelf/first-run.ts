import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { NOTATIONS, starterFor, type Notation } from '@diptychon/core/records';
import { Button } from 'primeng/button';
import { ChoiceRow } from '../fields/choice-row';
import { WorkshopStore } from '../workshop/workshop-store';

/** The only two questions asked before the first card. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-first-run',
  imports: [Button, ChoiceRow],
  template: `
    <section aria-labelledby="first-title">
      <h2 id="first-title">Two questions, then the table is yours</h2>
      <div class="form">
        <dip-choice-row
          fieldId="first-unit"
          label="You measure in"
          [options]="notations"
          [value]="notation()"
          (chosen)="notation.set($event)"
        />
        <dip-choice-row fieldId="first-board" label="You score on" [options]="boards()" [value]="board()" (chosen)="board.set($event)" />
      </div>
      <p-button label="Keep these" (onClick)="keep()" />
    </section>
  `,
  styles: `
    section {
      margin: 1rem 0;
      padding: 1rem 1.2rem;
      background: var(--moss-wash);
      border-radius: 0.3rem;
    }
    h2 {
      margin: 0 0 0.8rem;
      font-size: 1.15rem;
    }
    .form {
      display: grid;
      grid-template-columns: 9rem minmax(0, 22rem);
      gap: 0.6rem;
      align-items: center;
      margin-bottom: 0.8rem;
    }
    dip-choice-row {
      display: contents;
    }
  `,
})
export class FirstRun {
  private readonly store = inject(WorkshopStore);
  protected readonly notations = NOTATIONS.map(({ id, label }) => ({ value: id, label }));
  protected readonly notation = signal<Notation>('mm');
  protected readonly boards = computed(() => starterFor(this.notation()).boards.map(({ id, name }) => ({ value: id, label: name })));
  /** the board that was chosen, while the unit has it */
  protected readonly board = linkedSignal(() => starterFor(this.notation()).usual.board);

  protected keep(): void {
    this.store.begin(this.notation(), this.board());
  }
}
