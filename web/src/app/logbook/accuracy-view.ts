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
import {
  accepted,
  ACCURACY_BY,
  accuracyBy,
  evidenceOf,
  introduction,
  MECHANISMS,
  plainMm,
  sayLength,
  takenBack,
  type Accuracy,
  type AccuracyBy,
  type Build,
  type Calibration,
  type Evidence,
  type Mm,
} from '@diptychon/core';
import { WorkshopStore } from '../workshop/workshop-store';

const TITLES: Readonly<Record<AccuracyBy, string>> = { tool: 'Tool', stock: 'Stock', mechanism: 'Movement' };

const SAYS: Readonly<Record<Calibration['kind'], (by: string, sign: number) => string>> = {
  board: (by, sign) => `Scores land ${by} too ${sign > 0 ? 'far from' : 'near'} the zero.`,
  trimmer: (by, sign) => `Cuts come out ${by} too ${sign > 0 ? 'wide' : 'narrow'}.`,
  fold: (by, sign) => (sign > 0 ? `A fold of it bulges by ${by}.` : `Folded panels come out ${by} narrower for each fold.`),
  'hand-score': (by) => `Scores are off by ${by} as a rule.`,
  'hand-cut': (by) => `Cuts are off by ${by} as a rule.`,
};

/** On a screen narrower than this (px) names stand in lines of fewer letters beside their bars. */
const NARROW = 480;
const [SHORT, LONG] = [14, 34];
const [SHORT_TITLE, LONG_TITLE] = [30, 90];

/** A name in lines of about so many letters. */
function lines(name: string, most: number): string[] {
  return name.split(' ').reduce<string[]>((done, word) => {
    const last = done.at(-1);
    if (last === undefined || last.length + 1 + word.length > most) return [...done, word];
    return [...done.slice(0, -1), `${last} ${word}`];
  }, []);
}

/** What all measurements together say: how exact things come out, and what of tools, stocks and hands should be minded. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-accuracy-view',
  templateUrl: './accuracy-view.html',
  styleUrl: './build-entry.scss',
})
export class AccuracyView implements OnDestroy {
  readonly builds = input.required<readonly Build[]>();
  protected readonly store = inject(WorkshopStore);
  private readonly canvas = viewChild<ElementRef<HTMLCanvasElement>>('chart');

  protected readonly ways = ACCURACY_BY.map((id) => ({ id, title: TITLES[id] }));
  protected readonly by = signal<AccuracyBy>('tool');
  protected readonly rows = computed(() => accuracyBy(this.builds(), this.by()));
  protected readonly evidence = computed(() => evidenceOf(this.builds(), this.store.workshop()));
  protected readonly title = computed(() => TITLES[this.by()]);
  protected readonly measured = computed(() => this.builds().reduce((sum, { measures }) => sum + measures.length, 0));
  private drawn: { destroy: () => void } | undefined;

  constructor() {
    effect(() => {
      const canvas = this.canvas()?.nativeElement;
      const rows = this.rows();
      if (canvas && rows.length > 0) void this.draw(canvas, rows);
    });
  }

  ngOnDestroy(): void {
    this.drawn?.destroy();
  }

  /** Errors lie between the marks of any ruler. */
  protected say(mm: Mm): string {
    const { notation } = this.store.workshop();
    return notation.startsWith('inch') ? sayLength(mm, notation) : plainMm(mm, notation);
  }

  protected signed(mm: Mm): string {
    return `${mm < 0 ? '−' : '+'}${this.say(Math.abs(mm))}`;
  }

  protected name(id: string): string {
    const { boards, trimmers, knives, stocks } = this.store.workshop();
    const mechanism = MECHANISMS.find((each) => each.id === id);
    return (
      [...boards, ...trimmers, ...knives, ...stocks].find((each) => each.id === id)?.name ??
      (mechanism ? introduction(mechanism.id).name : id)
    );
  }

  protected found({ kind, value }: Evidence): string {
    return SAYS[kind](this.say(Math.abs(value)), value);
  }

  protected isInForce({ kind, id }: Evidence): boolean {
    return (this.store.workshop().calibrations ?? []).some((each) => each.kind === kind && each.id === id);
  }

  protected accept({ kind, id, value, uncertainty, count, name }: Evidence): void {
    this.store.change(`Calibration: ${name}`, (workshop) => accepted(workshop, { kind, id, value, uncertainty, count }));
  }

  protected takeBack({ kind, id, name }: Evidence): void {
    this.store.change(`Calibration taken back: ${name}`, (workshop) => takenBack(workshop, kind, id));
  }

  private async draw(canvas: HTMLCanvasElement, rows: readonly Accuracy[]): Promise<void> {
    const { BarController, BarElement, CategoryScale, Chart, LinearScale } = await import('chart.js');
    if (!canvas.isConnected) return;
    Chart.register(BarController, BarElement, CategoryScale, LinearScale);
    Chart.defaults.font.family = getComputedStyle(document.body).fontFamily;
    const style = getComputedStyle(canvas);
    const colour = (name: string): string => style.getPropertyValue(name).trim();
    const ink = colour('--ink');
    this.drawn?.destroy();
    const narrow = canvas.clientWidth < NARROW;
    const scale = (text: string) => ({
      title: { display: text !== '', text: lines(text, narrow ? SHORT_TITLE : LONG_TITLE), color: ink },
      ticks: { color: ink },
      grid: { display: false },
    });
    this.drawn = new Chart(canvas, {
      type: 'bar',
      data: {
        labels: rows.map(({ id }) => lines(this.name(id), narrow ? SHORT : LONG)),
        datasets: [
          // From one spread below the mean to one above it: a bar that does not take in zero is off as a rule.
          {
            data: rows.map(({ mean, spread = 0 }): [number, number] => [mean - spread, mean + spread]),
            backgroundColor: colour('--moss'),
            minBarLength: 3,
            maxBarThickness: 26,
          },
        ],
      },
      options: {
        indexAxis: 'y',
        animation: false,
        maintainAspectRatio: false,
        scales: {
          x: {
            ...scale('measured less planned, mm: the mean, and one spread to either side'),
            suggestedMin: -0.5,
            suggestedMax: 0.5,
            grid: { color: colour('--line') },
          },
          // Every bar has its name, in however many lines.
          y: { ...scale(''), ticks: { color: ink, autoSkip: false } },
        },
      },
    });
  }
}
