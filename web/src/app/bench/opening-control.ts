import { ChangeDetectionStrategy, Component, computed, inject, input, model, OnDestroy, signal } from '@angular/core';
import { frameBetween, printAngle, toDegrees, type Evaluation } from '@diptychon/core';
import { Preferences } from '../frame/preferences';

const PLAY_SECONDS = 4;
/** Places closer together than this share of the way are one mark. */
const TOGETHER = 0.04;

/** A place of the opening worth going to. */
export interface OpeningMark {
  s: number;
  says: string;
  severity: string;
}

/** Opens and closes the card: one continuous control, with marks where something first touches or binds. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-opening-control',
  template: `
    <div class="track">
      <label for="opening" class="visually-hidden">Opening</label>
      <input
        id="opening"
        type="range"
        min="0"
        max="1000"
        step="1"
        [value]="s() * 1000"
        [attr.aria-valuetext]="valueText()"
        (input)="s.set(+$any($event.target).value / 1000)"
      />
      <div class="marks">
        @for (mark of marks(); track mark.says) {
          <button
            type="button"
            class="mark"
            [class]="mark.severity"
            [style.left.%]="mark.s * 100"
            [title]="mark.says"
            [attr.aria-label]="'Go to: ' + mark.says"
            (click)="s.set(mark.s)"
          ></button>
        }
      </div>
    </div>
    <output class="numerals" for="opening">{{ valueText() }}</output>
    <div class="buttons">
      <button type="button" (click)="s.set(0)">Closed</button>
      <button type="button" (click)="play()" [attr.aria-pressed]="playing()">{{ playing() ? 'Stop' : 'Open slowly' }}</button>
      <button type="button" (click)="s.set(1)">Open</button>
    </div>
  `,
  styleUrl: './opening-control.scss',
})
export class OpeningControl implements OnDestroy {
  readonly evaluation = input.required<Evaluation>();
  readonly s = model.required<number>();
  /** what happens there besides findings */
  readonly besides = input<readonly OpeningMark[]>([]);
  private readonly preferences = inject(Preferences);
  protected readonly playing = signal(false);
  private handle = 0;

  protected readonly valueText = computed(() => {
    const frame = frameBetween(this.evaluation().motion, this.s());
    return `open ${Math.round(toDegrees(frame.opening))}°`;
  });

  protected readonly marks = computed((): OpeningMark[] => {
    const { findings, motion, design } = this.evaluation();
    const { notation } = design.card;
    const marks: OpeningMark[] = [];
    const found = findings.flatMap(({ severity, at, says }) => (at === undefined ? [] : [{ s: at, severity, says }]));
    for (const { severity, s, says } of [...found, ...this.besides()]) {
      if (severity === 'pass' || s <= 0 || s >= 1) continue;
      const near = marks.find((mark) => Math.abs(mark.s - s) < TOGETHER);
      if (near) near.says += ` ${says}`;
      else marks.push({ s, severity, says: `${printAngle(frameBetween(motion, s).opening, notation)}: ${says}` });
    }
    return marks;
  });

  ngOnDestroy(): void {
    cancelAnimationFrame(this.handle);
  }

  protected play(): void {
    if (this.playing()) {
      cancelAnimationFrame(this.handle);
      this.playing.set(false);
      return;
    }
    if (this.preferences.reducedMotion) {
      this.s.set(this.s() < 0.5 ? 1 : 0);
      return;
    }
    const from = this.s() > 0.98 ? 0 : this.s();
    const began = performance.now();
    this.playing.set(true);
    const tick = (now: number): void => {
      const s = Math.min(1, from + (now - began) / 1000 / PLAY_SECONDS);
      this.s.set(s);
      if (s < 1) this.handle = requestAnimationFrame(tick);
      else this.playing.set(false);
    };
    this.handle = requestAnimationFrame(tick);
  }
}
