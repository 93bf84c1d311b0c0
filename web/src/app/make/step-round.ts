import { ChangeDetectionStrategy, Component, effect, input, OnDestroy, signal, untracked } from '@angular/core';
import type { Evaluation, StepMotion } from '@diptychon/core';
import { StandingView } from '../bench/standing-view';

/** How long a step takes to play (ms). */
const PLAYS_FOR = 1800;

/** A step in the round: the card from the state before it to the state after it, played once and then moved by hand. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-step-round',
  imports: [StandingView],
  template: `
    <dip-standing-view [evaluation]="evaluation()" [s]="1" [moves]="motion()" [share]="share()" />
    <div class="way">
      <button type="button" (click)="play()">Play it</button>
      <span aria-hidden="true">before</span>
      <input
        type="range"
        min="0"
        max="1"
        step="0.01"
        aria-label="From before the step to after it"
        [attr.aria-valuetext]="share() === 0 ? 'before' : share() === 1 ? 'after' : 'on the way'"
        [value]="share()"
        (input)="by($any($event.target).valueAsNumber)"
      />
      <span aria-hidden="true">after</span>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      height: 100%;
    }

    dip-standing-view {
      flex: 1;
    }

    .way {
      display: flex;
      gap: 0.6rem;
      align-items: center;
      padding: 0.4rem 0.8rem;
      background: var(--sheet);
      border-top: 1px solid var(--line);
      color: var(--ink-soft);
    }

    .way button {
      min-height: 44px;
      padding: 0.2rem 1rem;
      border: 1px solid var(--line);
      border-radius: 0.4rem;
      background: var(--paper);
      font: inherit;
      color: var(--ink);
      cursor: pointer;
    }

    .way input {
      flex: 1;
      min-width: 0;
      height: 44px;
      accent-color: var(--moss);
    }
  `,
})
export class StepRound implements OnDestroy {
  readonly evaluation = input.required<Evaluation>();
  readonly motion = input.required<StepMotion>();

  protected readonly share = signal(1);
  private queued = 0;

  constructor() {
    effect(() => {
      this.motion();
      untracked(() => (matchMedia('(prefers-reduced-motion: reduce)').matches ? this.by(1) : this.play()));
    });
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.queued);
  }

  protected by(share: number): void {
    cancelAnimationFrame(this.queued);
    this.share.set(share);
  }

  protected play(): void {
    cancelAnimationFrame(this.queued);
    const from = performance.now();
    const next = (now: number): void => {
      const part = Math.min(1, Math.max(0, (now - from) / PLAYS_FOR));
      // Gently away and gently there, as a hand moves.
      this.share.set(part * part * (3 - 2 * part));
      if (part < 1) this.queued = requestAnimationFrame(next);
    };
    this.queued = requestAnimationFrame(next);
  }
}
