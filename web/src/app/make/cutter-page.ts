import { ChangeDetectionStrategy, Component, computed, effect, inject, input, OnDestroy, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  drawingsOf,
  readCutterSvg,
  USUAL_CUTTER,
  writeSvg,
  type CardDocument,
  type CutterProgress,
  type CutterReport,
  type Evaluation,
} from '@diptychon/core';
import { firstValueFrom, type Subscription } from 'rxjs';
import { CardStore } from '../cards/card-store';
import { Evaluator } from '../evaluation/evaluator';
import { ThemeButton } from '../frame/theme-button';
import { WorkshopStore } from '../workshop/workshop-store';
import { Machines, type Heard, type Machine } from './cutter-machine';

/** The picture of what has been cut is asked for so often (ms). */
const LOOK_AGAIN = 500;

const TOOL_SAYS: Readonly<Record<string, string>> = {
  cut: 'cutting',
  score: 'scoring',
  draw: 'drawing',
  perforate: 'perforating',
  travel: 'on its way',
};

/** Sends the drawings of a card to a cutter and follows them: held, gone on with, called off; then what came of it. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-cutter-page',
  imports: [RouterLink, ThemeButton],
  templateUrl: './cutter-page.html',
  styleUrl: './cutter-page.scss',
})
export class CutterPage implements OnDestroy {
  readonly id = input.required<string>();
  private readonly store = inject(CardStore);
  private readonly evaluator = inject(Evaluator);
  private readonly machines = inject(Machines);
  private readonly workshop = inject(WorkshopStore).workshop;

  protected readonly card = signal<CardDocument | undefined>(undefined);
  protected readonly evaluation = signal<Evaluation | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly machine = signal<Machine | undefined>(undefined);
  protected readonly mustChange = computed(() => this.evaluation()?.findings.find(({ severity }) => severity === 'fail'));
  protected readonly drawings = computed(() => {
    const known = this.evaluation();
    return known ? drawingsOf(known, this.workshop()) : [];
  });
  protected readonly chosen = signal(0);
  /** the drawing on the machine; nothing while none was sent */
  protected readonly job = signal<CutterProgress | undefined>(undefined);
  protected readonly lost = signal(false);
  protected readonly report = signal<CutterReport | undefined>(undefined);
  protected readonly picture = signal<string | undefined>(undefined);
  protected readonly going = computed(() => ['waiting', 'plotting', 'paused'].includes(this.job()?.state ?? ''));
  private following: Subscription | undefined;
  private looked = 0;

  constructor() {
    effect(() => void this.open(this.id()));
  }

  ngOnDestroy(): void {
    this.following?.unsubscribe();
    this.show(undefined);
  }

  protected async send(): Promise<void> {
    const machine = this.machine();
    const drawing = this.drawings()[this.chosen()];
    if (!machine || !drawing) return;
    this.trouble.set(undefined);
    this.report.set(undefined);
    const { folds } = this.workshop().cutters[0] ?? { folds: 'score' as const };
    const svg = writeSvg(drawing, this.card()!.name, { folds: folds === 'score' ? 'score' : 'perforation' });
    const read = readCutterSvg(svg, USUAL_CUTTER);
    if (!read.ok) {
      this.trouble.set(read.says);
      return;
    }
    try {
      const job = await machine.send(svg);
      noteJob(this.id(), job.id);
      this.follow(machine, job);
    } catch (error) {
      this.tell(error);
    }
  }

  protected async turn(what: 'pause' | 'resume' | 'cancel'): Promise<void> {
    const [machine, job] = [this.machine(), this.job()];
    if (!machine || !job) return;
    try {
      this.job.set(await machine.turn(job.id, what));
    } catch (error) {
      // Done just before it was asked: that is seen by itself.
      if (this.going()) this.tell(error);
    }
  }

  protected says({ state, seconds, of, tool }: CutterProgress): string {
    const left = Math.max(0, Math.round(of - seconds));
    if (state === 'waiting') return 'It waits: another drawing is on the machine.';
    if (state === 'paused') return `It is held; ${left} s are left.`;
    if (state === 'cancelled') return `It was called off after ${Math.round(seconds)} s.`;
    if (state === 'done') return `It is done: ${Math.round(of)} s.`;
    return `${tool ? `It is ${TOOL_SAYS[tool] ?? 'working'}` : 'It is on its way'}; ${left} s are left.`;
  }

  private follow(machine: Machine, job: CutterProgress): void {
    this.following?.unsubscribe();
    this.job.set(job);
    this.following = machine.follow(job.id).subscribe({
      next: (heard: Heard) => {
        this.lost.set(heard === 'lost');
        if (heard === 'lost') return;
        this.job.set(heard);
        void this.look(machine, heard);
      },
      complete: () => void this.ended(machine, job.id),
      error: (error: unknown) => this.tell(error),
    });
  }

  /** Looks at what has been cut by now, not at every word of it. */
  private async look(machine: Machine, { id }: CutterProgress, at = Date.now()): Promise<void> {
    if (at - this.looked < LOOK_AGAIN) return;
    this.looked = at;
    await this.draw(machine, id);
  }

  private async ended(machine: Machine, id: string): Promise<void> {
    await this.draw(machine, id);
    try {
      this.report.set(await machine.report(id));
    } catch (error) {
      this.tell(error);
    }
  }

  private async draw(machine: Machine, id: string): Promise<void> {
    try {
      const svg = await machine.picture(id);
      if (this.job()?.id === id) this.show(svg);
    } catch {
      // It is asked for again with the next word of it.
    }
  }

  private show(svg: string | undefined): void {
    const before = this.picture();
    this.picture.set(svg === undefined ? undefined : URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' })));
    if (before) URL.revokeObjectURL(before);
  }

  private async open(id: string): Promise<void> {
    try {
      const kept = await this.store.get(id);
      if (!kept) {
        this.trouble.set('There is no such card on this shelf.');
        return;
      }
      this.card.set(kept.card);
      const [answer, machine] = await Promise.all([firstValueFrom(this.evaluator.once(kept.card)), this.machines.nearest()]);
      if (answer.ok !== true) {
        this.trouble.set(answer.ok === false ? answer.problems[0]!.says : answer.says);
        return;
      }
      this.evaluation.set(answer.evaluation);
      this.machine.set(machine);
      // A page that was left meanwhile takes its drawing up again.
      const job = notedJob(id);
      if (job && (await machine.holds(job))) this.follow(machine, { id: job, state: 'waiting', done: 0, seconds: 0, of: 0, tool: null });
    } catch {
      this.trouble.set('This browser’s storage could not be read.');
    }
  }

  private tell(error: unknown): void {
    this.trouble.set(error instanceof Error ? error.message : 'The cutter does not answer.');
  }
}

const NOTED = 'diptychon-cutter-';

/** Which drawing of a card is on the machine, for this tab; where the browser keeps nothing, until the page is left. */
function noteJob(card: string, job: string): void {
  try {
    sessionStorage.setItem(NOTED + card, job);
  } catch {
    // The drawing is followed all the same.
  }
}

function notedJob(card: string): string | null {
  try {
    return sessionStorage.getItem(NOTED + card);
  } catch {
    return null;
  }
}
