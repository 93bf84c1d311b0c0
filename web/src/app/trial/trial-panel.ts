import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import type { CardDocument, Evaluation, Finding } from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { AnotherSize } from './another-size';
import { BesideAnother } from './beside-another';
import { HandStudy } from './hand-study';
import { MadeWrong } from './made-wrong';
import { MendingList } from './mending-list';
import { ThreeSizes } from './three-sizes';

type Trial = 'mend' | 'hand' | 'wrong' | 'size' | 'three' | 'beside';

/** Ways to try the card out before it is cut, and after something was made wrong. Each begins its work only when it is opened. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-trial-panel',
  imports: [AnotherSize, BesideAnother, HandStudy, MadeWrong, MendingList, ThreeSizes],
  template: `
    <h2>Try it out</h2>
    @for (trial of trials; track trial.id) {
      <details [open]="shown() === trial.id" (toggle)="toggled(trial.id, $any($event.target).open)">
        <summary>{{ trial.title }}</summary>
        @if (shown() === trial.id) {
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
            @case ('three') {
              <dip-three-sizes [card]="card()" [evaluation]="evaluation()" />
            }
            @case ('beside') {
              <dip-beside-another [evaluation]="evaluation()" [opened]="opened()" [lastGood]="lastGood()" />
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
  /** the card when it was opened, and when nothing failed last */
  readonly opened = input<CardDocument>();
  readonly lastGood = input<CardDocument>();
  readonly changed = output<CardChange>();

  protected readonly shown = signal<Trial | undefined>(undefined);
  protected readonly trials: readonly { id: Trial; title: string }[] = [
    { id: 'mend', title: 'The least change that mends it' },
    { id: 'hand', title: 'How exact must my hand be?' },
    { id: 'wrong', title: 'Something was made wrong' },
    { id: 'size', title: 'The same card, another size' },
    { id: 'three', title: 'One card in three sizes' },
    { id: 'beside', title: 'Beside what it was, or another card' },
  ];

  protected toggled(trial: Trial, open: boolean): void {
    if (open) this.shown.set(trial);
    else if (this.shown() === trial) this.shown.set(undefined);
  }
}
