import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import type { CardDocument, Evaluation, Finding } from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { AnotherSize } from './another-size';
import { HandStudy } from './hand-study';
import { MadeWrong } from './made-wrong';
import { MendingList } from './mending-list';

type Trial = 'mend' | 'hand' | 'wrong' | 'size';

/** Ways to try the card out before it is cut, and after something was made wrong. Each begins its work only when it is opened. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-trial-panel',
  imports: [AnotherSize, HandStudy, MadeWrong, MendingList],
  template: `
    <h2>Try it out</h2>
    @for (trial of trials; track trial.id) {
      <details [open]="opened() === trial.id" (toggle)="toggled(trial.id, $any($event.target).open)">
        <summary>{{ trial.title }}</summary>
        @if (opened() === trial.id) {
          @switch (trial.id) {
            @case ('mend') {
              <dip-mending-list [card]="card()" [findings]="findings()" (changed)="changed.emit($event)" />
            }
            @case ('hand') {
              <dip-hand-study [card]="card()" />
            }
            @case ('wrong') {
              <dip-made-wrong [card]="card()" [evaluation]="evaluation()" (changed)="changed.emit($event)" />
            }
            @case ('size') {
              <dip-another-size [card]="card()" [evaluation]="evaluation()" (changed)="changed.emit($event)" />
            }
          }
        }
      </details>
    }
  `,
  styleUrl: './trial-panel.scss',
})
export class TrialPanel {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input.required<Evaluation>();
  readonly findings = input.required<readonly Finding[]>();
  readonly changed = output<CardChange>();

  protected readonly opened = signal<Trial | undefined>(undefined);
  protected readonly trials: readonly { id: Trial; title: string }[] = [
    { id: 'mend', title: 'The least change that mends it' },
    { id: 'hand', title: 'How exact must my hand be?' },
    { id: 'wrong', title: 'Something was made wrong' },
    { id: 'size', title: 'The same card, another size' },
  ];

  protected toggled(trial: Trial, open: boolean): void {
    if (open) this.opened.set(trial);
    else if (this.opened() === trial) this.opened.set(undefined);
  }
}
