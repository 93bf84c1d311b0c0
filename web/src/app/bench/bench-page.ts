import { Component, computed, effect, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import {
  NOTATIONS,
  setSize,
  writeCardFile,
  writeSvg,
  type CardDocument,
  type CardProblem,
  type Evaluation,
  type Finding,
  type Notation,
} from '@diptychon/core';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import { filter } from 'rxjs';
import { CardSession } from '../cards/card-session';
import { Evaluator } from '../evaluation/evaluator';
import { ThemeButton } from '../frame/theme-button';
import { download, fileName } from '../frame/download';
import { FlatView } from './flat-view';
import { OpeningControl } from './opening-control';
import { SizesPanel, type CardChange } from './sizes-panel';
import { StandingView } from './standing-view';
import { VerdictList } from './verdict-list';

const SAVE_WORDS = { saved: 'Saved', saving: 'Saving…', conflict: 'Not saved', failed: 'Not saved' } as const;

/** The main screen: the standing card, its flat pieces, sizes and verdicts. */
@Component({
  selector: 'dip-bench-page',
  imports: [Button, FlatView, FormsModule, OpeningControl, RouterLink, Select, SizesPanel, StandingView, ThemeButton, VerdictList],
  providers: [CardSession],
  templateUrl: './bench-page.html',
  styleUrl: './bench-page.scss',
  host: { '(document:keydown)': 'shortcut($event)' },
})
export class BenchPage {
  readonly id = input.required<string>();
  protected readonly session = inject(CardSession);
  private readonly evaluator = inject(Evaluator);

  protected readonly state = signal<'loading' | 'open' | 'missing' | 'broken'>('loading');
  protected readonly trouble = signal('');
  /** the last state that could be worked out; kept on screen while a size is refused */
  protected readonly evaluation = signal<Evaluation | undefined>(undefined);
  protected readonly problems = signal<readonly CardProblem[]>([]);
  protected readonly s = signal(1);
  protected readonly shown = signal<Finding | undefined>(undefined);
  protected readonly highlight = computed(() => ({ panels: this.shown()?.panels ?? [], creases: this.shown()?.creases ?? [] }));
  protected readonly notations = NOTATIONS.map(({ id, label }) => ({ value: id, label }));
  protected readonly saveWords = computed(() => SAVE_WORDS[this.session.saveState()]);

  constructor() {
    effect(() => {
      const id = this.id();
      this.state.set('loading');
      this.session.open(id).then(
        (found) => this.state.set(found ? 'open' : 'missing'),
        (error: unknown) => this.stop(error),
      );
    });
    const cards = this.session.card$.pipe(filter((card): card is CardDocument => card !== undefined));
    this.evaluator
      .follow(cards)
      .pipe(takeUntilDestroyed())
      .subscribe(({ answer }) => {
        if (answer.ok === true) {
          this.evaluation.set(answer.evaluation);
          this.problems.set([]);
          this.shown.update((before) => before && answer.evaluation.findings.find((f) => f.id === before.id));
        } else if (answer.ok === false) this.problems.set(answer.problems);
        else this.stop(new Error(answer.says));
      });
  }

  protected change({ what, apply }: CardChange): void {
    this.session.change(what, apply);
  }

  protected rename(name: string): void {
    const card = this.session.card();
    const trimmed = name.trim();
    if (card && trimmed && trimmed !== card.name) this.session.change('Name', (now) => ({ ...now, name: trimmed.slice(0, 120) }));
  }

  protected setNotation(notation: Notation): void {
    this.session.change('Unit', (card) => ({ ...card, notation }));
  }

  protected show(finding: Finding): void {
    this.shown.update((before) => (before?.id === finding.id ? undefined : finding));
    if (this.shown() && finding.at !== undefined) this.s.set(finding.at);
  }

  protected fix(finding: Finding): void {
    const { says, changes } = finding.fix!;
    this.session.change(says.replace(/\.$/, ''), (card) =>
      changes.reduce((next, { owner, size, value }) => setSize(next, owner, size, value), card),
    );
  }

  protected downloadSvg(): void {
    const { sheets, design } = this.evaluation()!;
    download(fileName(design.card.name, 'svg'), 'image/svg+xml', writeSvg(sheets, design.card.name));
  }

  protected downloadCard(): void {
    const card = this.session.card()!;
    download(fileName(card.name, 'card.json'), 'application/json', writeCardFile(card));
  }

  protected shortcut(event: KeyboardEvent): void {
    const key = event.key.toLowerCase();
    if (!(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y')) return;
    event.preventDefault();
    if (key === 'y' || event.shiftKey) this.session.redo();
    else this.session.undo();
  }

  private stop(error: unknown): void {
    this.trouble.set(error instanceof Error ? error.message : 'Something went wrong.');
    this.state.set('broken');
  }
}
