import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  OnDestroy,
  signal,
  viewChild,
} from '@angular/core';
import { CLOSING_PLAY, MEETS_WITHIN, plainMm, sayLength, type CardDocument, type ToleranceStudy } from '@diptychon/core';
import { TrialWork } from './trial-work';
import { WorkshopStore } from '../workshop/workshop-store';

/** So many cards are made on paper only. */
const SAMPLES = 10_000;
const SEED = 1;
/** No hand sees less, mm. */
const HARDLY = 0.05;

const ASKED = {
  works: 'All of these',
  closes: 'Closed, joints meet',
  meets: 'Edges meet',
  swings: 'Parts swing clear',
  inside: 'It stays inside',
  fits: 'It goes into its envelope',
} as const;

/** How far off is still right, mm: the same as the card itself is judged by. */
const WITHIN: Readonly<Record<string, number>> = { closes: CLOSING_PLAY, meets: MEETS_WITHIN };

/** How many of ten thousand such cards would work, made by this hand; what matters most, and how exact that must be. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-hand-study',
  template: `
    <p class="help">
      Ten thousand of this card, made only in numbers: every score off by {{ say(hand().score) }} as a rule, every cut by
      {{ say(hand().cut) }}, every glued place by {{ say(hand().glue) }}, as your workshop says of your hand.
    </p>
    @if (done() !== undefined) {
      <p role="status"><progress [value]="done()" max="1" aria-label="Cards made so far"></progress> {{ percent(done()!) }}</p>
      <button type="button" (click)="stop()">Stop</button>
    } @else {
      <button type="button" class="fix" (click)="begin()">{{ study() ? 'Make them once more' : 'Make them' }}</button>
    }
    @if (trouble(); as says) {
      <p class="bad" role="alert">{{ says }}</p>
    }
    @if (study(); as known) {
      <table>
        <caption>
          Of
          {{
            known.samples
          }}
          cards
        </caption>
        <thead>
          <tr>
            <th scope="col">What is asked</th>
            <th scope="col" class="number">well</th>
            <th scope="col" class="number">as sure as 95 in 100</th>
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.asked) {
            <tr>
              <th scope="row">{{ row.asked }}</th>
              <td class="number">{{ row.share }}</td>
              <td class="number">{{ row.between }}</td>
            </tr>
          }
        </tbody>
      </table>
      <div class="chart"><canvas #chart role="img" [attr.aria-label]="chartSays()"></canvas></div>
      <details>
        <summary>The same as numbers</summary>
        <table>
          <caption>
            How much of its play the most strained place takes: up to 100 % the card works
          </caption>
          <tbody>
            @for (bin of bins(); track bin.upTo) {
              <tr>
                <th scope="row">{{ bin.upTo }}</th>
                <td class="number">{{ bin.cards }}</td>
              </tr>
            }
          </tbody>
        </table>
      </details>
      @if (known.untold.length) {
        <p class="help">Taken as exact, because the card comes apart with it: {{ known.untold.join('; ') }}.</p>
      }
      @if (known.critical.length) {
        <table>
          <caption>
            What matters most
          </caption>
          <thead>
            <tr>
              <th scope="col">If this were exact</th>
              <th scope="col" class="number">would work</th>
              <th scope="col" class="number">so exact it must be</th>
            </tr>
          </thead>
          <tbody>
            @for (critical of known.critical; track critical.source) {
              <tr>
                <th scope="row">{{ critical.name }}</th>
                <td class="number">{{ percent(critical.ifExact) }}</td>
                <td class="number">{{ mustBe(critical.mustBe) }}</td>
              </tr>
            }
          </tbody>
        </table>
        @if (known.cutLast) {
          <p>Cut this last, measured against what it must fit: {{ cutLast() }}.</p>
        }
      } @else {
        <p>Nothing that you score, cut or glue matters more than the rest.</p>
      }
    }
  `,
  styleUrl: './trial-panel.scss',
})
export class HandStudy implements OnDestroy {
  readonly card = input.required<CardDocument>();

  private readonly work = inject(TrialWork);
  private readonly workshop = inject(WorkshopStore).workshop;
  private readonly canvas = viewChild<ElementRef<HTMLCanvasElement>>('chart');
  protected readonly hand = computed(() => this.workshop().hand);
  protected readonly done = signal<number | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  private readonly answer = signal<{ of: CardDocument; study: ToleranceStudy } | undefined>(undefined);
  protected readonly study = computed(() => (this.answer()?.of === this.card() ? this.answer()?.study : undefined));
  protected readonly rows = computed(() =>
    Object.entries(ASKED).map(([asked, words]) => {
      const { share, low, high } = this.study()!.shares[asked as keyof typeof ASKED];
      return {
        asked: asked in WITHIN ? `${words} within ${this.say(WITHIN[asked]!)}` : words,
        share: this.percent(share),
        between: `${(100 * low).toFixed(1)} – ${this.percent(high)}`,
      };
    }),
  );
  /** Fifths of the play, as far as any card goes. */
  protected readonly bins = computed(() => {
    const { used } = this.study()!;
    const last = used.reduce((far, { samples }, i) => (samples > 0 ? i : far), 0);
    const pairs = Array.from({ length: Math.max(5, Math.floor(last / 2) + 1) }, (_, k) => used.slice(2 * k, 2 * k + 2));
    return pairs.map((both, k) => ({
      upTo: 2 * k + 2 < used.length ? `up to ${Math.round(100 * both.at(-1)!.upTo)} %` : 'more',
      works: k < 5,
      cards: both.reduce((sum, { samples }) => sum + samples, 0),
    }));
  });
  /** what of a blank matters most */
  protected readonly cutLast = computed(
    () => this.study()!.critical.find(({ kind, source }) => kind === 'cut' && source.startsWith(`${this.study()!.cutLast}/`))?.name,
  );
  protected readonly chartSays = computed(
    () =>
      `Bars: how many cards take how much of their play at the place that is strained most. ${this.percent(this.study()!.shares.works.share)} take less than all of it.`,
  );
  private drawn: { destroy: () => void } | undefined;
  private stopped = false;

  constructor() {
    effect(() => {
      const canvas = this.canvas()?.nativeElement;
      if (canvas && this.study()) void this.draw(canvas);
    });
  }

  ngOnDestroy(): void {
    this.stopped = true;
    this.drawn?.destroy();
  }

  protected async begin(): Promise<void> {
    const card = this.card();
    this.stopped = false;
    this.trouble.set(undefined);
    this.done.set(0);
    const study = await this.work.tolerance(card, SAMPLES, SEED, (share) => {
      if (!this.stopped) this.done.set(share);
      // Cards of another size are no longer wanted.
      return !this.stopped && this.card() === card;
    });
    this.done.set(undefined);
    if (!study) return;
    if ('says' in study) this.trouble.set(study.says);
    else this.answer.set({ of: card, study });
  }

  protected stop(): void {
    this.stopped = true;
  }

  protected percent(share: number): string {
    return `${(100 * share).toFixed(1)} %`;
  }

  protected mustBe(mm: number | null): string {
    if (mm === null) return 'not enough alone';
    return mm < HARDLY ? 'quite exact' : this.say(mm);
  }

  /** Errors of a hand lie between the marks of any ruler: hundredths of a mm, or thousandths of an inch. */
  protected say(mm: number): string {
    const { notation } = this.card();
    return notation.startsWith('inch') ? sayLength(mm, notation) : plainMm(mm, notation);
  }

  private async draw(canvas: HTMLCanvasElement): Promise<void> {
    const { BarController, BarElement, CategoryScale, Chart, LinearScale } = await import('chart.js');
    if (!canvas.isConnected) return;
    Chart.register(BarController, BarElement, CategoryScale, LinearScale);
    Chart.defaults.font.family = getComputedStyle(document.body).fontFamily;
    const style = getComputedStyle(canvas);
    const ink = style.getPropertyValue('--ink').trim();
    this.drawn?.destroy();
    const scale = (text: string) => ({ title: { display: true, text, color: ink }, ticks: { color: ink }, grid: { display: false } });
    this.drawn = new Chart(canvas, {
      type: 'bar',
      data: {
        labels: this.bins().map(({ upTo }) => upTo.replace('up to ', '≤ ')),
        datasets: [
          {
            data: this.bins().map(({ cards }) => cards),
            backgroundColor: this.bins().map(({ works }) => style.getPropertyValue(works ? '--moss' : '--rust').trim()),
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        scales: { x: scale('of its play, at the place strained most'), y: scale('cards') },
      },
    });
  }
}
