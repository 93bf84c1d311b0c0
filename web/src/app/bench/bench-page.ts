import {
  ChangeDetectionStrategy,
  afterNextRender,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  Injector,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import {
  changesBetween,
  NOTATIONS,
  applyFix,
  inSentence,
  mechanismById,
  titlesOf,
  writeCardFile,
  type CardDocument,
  type CardProblem,
  type Evaluation,
  type Finding,
  type Notation,
} from '@diptychon/core';
import { UndoButtons } from '../frame/undo-buttons';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import { SelectButton } from 'primeng/selectbutton';
import { debounceTime, filter, Subject, switchMap } from 'rxjs';
import { CardSession } from '../cards/card-session';
import { Database } from '../cards/database';
import { OpenElsewhere } from '../cards/open-elsewhere';
import { Evaluator, type Answer, type Late } from '../evaluation/evaluator';
import { Commands, type Command } from '../frame/commands';
import { ThemeButton } from '../frame/theme-button';
import { download, fileName } from '../frame/download';
import { RefusedFields } from '../fields/refused-fields';
import { BendView } from './bend-view';
import { BentCard } from './bent-card';
import { FilesDialog } from './files-dialog';
import { FlatView } from './flat-view';
import { OpeningControl } from './opening-control';
import type { CardChange } from './card-change';
import { SidesView } from './sides-view';
import { SizesPanel } from './sizes-panel';
import { StandingView } from './standing-view';
import { ThicknessView } from './thickness-view';
import { AddMovement } from '../parts/add-movement';
import type { Highlight } from '../parts/highlight';
import { PartsTree } from '../parts/parts-tree';
import { WordsUsed } from '../words/words-used';
import { TrialPanel } from '../trial/trial-panel';
import { VerdictList } from './verdict-list';
import { DressingPanel } from '../dress/dressing-panel';

/** No longer under the hand (ms). */
const STANDS_STILL_MS = 150;

const SAVE_WORDS = {
  saved: 'Saved',
  saving: 'Saving…',
  conflict: 'Kept beside the other',
  gone: 'Kept beside the shelf',
  failed: 'Not saved',
  unreadable: 'Not saved',
} as const;

type Look = 'standing' | 'thickness' | 'sides' | 'bending';

/** The main screen: the standing card, its flat pieces, sizes and verdicts. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-bench-page',
  imports: [
    AddMovement,
    BendView,
    Button,
    DressingPanel,
    FilesDialog,
    FlatView,
    FormsModule,
    OpeningControl,
    PartsTree,
    RouterLink,
    Select,
    SelectButton,
    SidesView,
    SizesPanel,
    StandingView,
    ThemeButton,
    ThicknessView,
    TrialPanel,
    UndoButtons,
    VerdictList,
    WordsUsed,
  ],
  providers: [BentCard, CardSession, OpenElsewhere, RefusedFields],
  templateUrl: './bench-page.html',
  styleUrl: './bench-page.scss',
  host: { '(document:keydown)': 'shortcut($event)', '(focusout)': 'session.leaveField()' },
})
export class BenchPage {
  readonly id = input.required<string>();
  protected readonly session = inject(CardSession);
  protected readonly open = inject(OpenElsewhere);
  private readonly notKept = inject(Database).notKept;
  private readonly refusedFields = inject(RefusedFields);
  private readonly evaluator = inject(Evaluator);
  private readonly router = inject(Router);
  private readonly commands = inject(Commands);
  private readonly injector = inject(Injector);

  protected readonly state = signal<'loading' | 'open' | 'missing' | 'broken'>('loading');
  protected readonly trouble = signal('');
  /** the last state that could be worked out; kept on screen while a size is refused */
  protected readonly evaluation = signal<Evaluation | undefined>(undefined);
  private readonly worked = new Subject<Evaluation>();
  /** the same findings with fixes that were searched for, once they are known */
  private readonly offered = signal<{ of: Evaluation; findings: readonly Finding[] } | undefined>(undefined);
  protected readonly findings = computed(() => {
    const [known, offered] = [this.evaluation(), this.offered()];
    return offered && offered.of === known ? offered.findings : (known?.findings ?? []);
  });
  protected readonly lastGood = signal<CardDocument | undefined>(undefined);
  /** what has changed since nothing failed, when something fails now */
  protected readonly sinceGood = computed(() => {
    const [good, known] = [this.lastGood(), this.evaluation()];
    if (!good || !known || good === known.design.card || !known.findings.some((finding) => finding.severity === 'fail')) return [];
    return changesBetween(good, known.design.card);
  });
  protected readonly problems = signal<readonly CardProblem[]>([]);
  /** what is refused, and of which part where there are several */
  protected readonly refusal = computed((): string | undefined => {
    const [[problem], card] = [this.problems(), this.session.card()];
    if (!problem || !card) return problem?.says;
    const title = card.parts.length > 1 ? titlesOf(card).get(problem.owner ?? '') : undefined;
    return title === undefined || problem.says.startsWith(title) ? problem.says : `${title}: ${inSentence(problem.says)}`;
  });
  /** the card that the last answer is about, and what stopped its calculation, if anything did */
  private readonly answered = signal<CardDocument | undefined>(undefined);
  protected readonly stopped = signal<{ says: string; again: boolean } | undefined>(undefined);
  /** why what is shown is no verdict of the card as it is now; nothing when it is */
  protected readonly unjudged = computed((): string | undefined => {
    const stopped = this.stopped();
    if (stopped) return `Not judged: ${inSentence(stopped.says)}`;
    if (this.answered() !== this.session.card()) return 'Working it out…';
    if (this.problems().length > 0) return 'Not judged: a size cannot be used.';
    return this.refusedFields.any() ? 'Not judged: a field holds what cannot be used.' : undefined;
  });
  /** everything that is read on this screen, for the words in it */
  protected readonly sentences = computed(() => {
    const card = this.session.card();
    const sizes = card?.parts.flatMap(({ mechanism }) => mechanismById(mechanism).sizes.flatMap(({ label, help }) => [label, help])) ?? [];
    return [...this.findings().map(({ says }) => says), ...sizes];
  });
  protected readonly s = signal(1);
  protected readonly filesShown = signal(false);
  protected readonly bent = inject(BentCard);
  /** whether the card was last moved toward closed: what bends lies otherwise than as it opens */
  protected readonly closing = linkedSignal<number, boolean>({
    source: this.s,
    computation: (s, before) => (before && s !== before.source ? s < before.source : (before?.value ?? false)),
  });
  protected readonly looks = computed((): { value: Look; label: string }[] => [
    { value: 'standing', label: 'Opening' },
    { value: 'thickness', label: 'Thickness when closed' },
    { value: 'sides', label: 'Which side shows' },
    ...(this.bent.bends() ? [{ value: 'bending' as const, label: 'How it bends' }] : []),
  ]);
  protected readonly looking = signal<Look>('standing');
  protected readonly shown = signal<Finding | undefined>(undefined);
  /** what is pointed at among the parts and places, above what a verdict is about */
  protected readonly pointed = signal<Highlight | undefined>(undefined);
  protected readonly adding = signal(false);
  protected readonly highlight = computed(
    (): Highlight => this.pointed() ?? { panels: this.shown()?.panels ?? [], creases: this.shown()?.creases ?? [] },
  );
  /** in the standing view a crease is shown by the panels on both its sides */
  protected readonly lit = computed(() => {
    const { panels, creases } = this.highlight();
    const beside = this.evaluation()?.design.linkage.hinges.filter((hinge) => creases.includes(hinge.id)) ?? [];
    return [...panels, ...beside.flatMap(({ source }) => [source.left, source.right])];
  });
  protected readonly notations = NOTATIONS.map(({ id, label }) => ({ value: id, label }));
  protected readonly saveWords = computed(() => {
    const state = this.session.saveState();
    return state === 'saved' && this.notKept() ? 'In this page only' : SAVE_WORDS[state];
  });

  constructor() {
    effect(() => {
      const id = this.id();
      this.state.set('loading');
      this.open.open(id);
      this.session.open(id).then(
        (found) => this.state.set(found ? 'open' : 'missing'),
        (error: unknown) => this.stop(error),
      );
    });
    effect(() => this.offer());
    effect(() => this.bent.of(this.evaluation()));
    inject(DestroyRef).onDestroy(() => this.commands.offered.set([]));
    const cards = this.session.card$.pipe(filter((card): card is CardDocument => card !== undefined));
    this.evaluator
      .follow(cards)
      .pipe(takeUntilDestroyed())
      .subscribe(({ card, answer }) => this.take(card, answer));
    // Fixes that have to be searched for come once the card has stood still: a search would keep the next verdict waiting.
    this.worked
      .pipe(
        debounceTime(STANDS_STILL_MS),
        switchMap(async (of) => ({ of, findings: await this.evaluator.offers(of.design.card) })),
        takeUntilDestroyed(),
      )
      .subscribe(({ of, findings }) => {
        if (findings && this.evaluation() === of) this.offered.set({ of, findings });
      });
  }

  private take(card: CardDocument, answer: Answer | Late): void {
    // Another card may have been opened meanwhile; an earlier state of this one is shown until the next answer comes.
    if (card.id !== this.session.card()?.id) return;
    if (answer.ok === 'late' || answer.ok === 'broken') {
      this.stopped.set({ says: answer.says, again: answer.ok === 'late' });
      return;
    }
    this.stopped.set(undefined);
    this.answered.set(card);
    if (answer.ok === false) {
      this.problems.set(answer.problems);
      return;
    }
    this.evaluation.set(answer.evaluation);
    this.problems.set([]);
    if (answer.evaluation.findings.every((finding) => finding.severity !== 'fail')) this.lastGood.set(answer.evaluation.design.card);
    this.shown.update((before) => before && answer.evaluation.findings.find((f) => f.id === before.id));
    this.worked.next(answer.evaluation);
  }

  /** Works the card out once more, after that stopped. */
  protected again(): void {
    this.stopped.set(undefined);
    this.session.card$.next(this.session.card());
  }

  /** what undo takes back: first what a field holds and the card does not */
  protected readonly undoes = computed(() => (this.refusedFields.any() ? 'what was typed' : this.session.undoWhat()));

  /** Undo takes back first what a field holds and the card does not. */
  protected undo(): void {
    if (this.refusedFields.any()) this.refusedFields.clear();
    else this.session.undo();
  }

  /** What this screen offers to the command search. */
  private offer(): void {
    const commands: Command[] = [
      { words: 'Add a movement', run: () => this.adding.set(true) },
      { words: 'Print and files', run: () => this.filesShown.set(true) },
      { words: 'Make it, step by step', run: () => void this.router.navigate(['/card', this.id(), 'make']) },
      { words: 'Cut it from sheets', run: () => void this.router.navigate(['/card', this.id(), 'sheets']) },
      { words: 'Open the card', run: () => this.s.set(1) },
      { words: 'Close the card', run: () => this.s.set(0) },
      { words: 'Go to the verdicts', run: () => this.toVerdicts() },
      ...this.findings().flatMap((finding) => (finding.fix ? [{ words: finding.fix.says, run: () => this.fix(finding) }] : [])),
      ...NOTATIONS.map(({ id, label }) => ({ words: `Measure in ${label.toLowerCase()}`, run: () => this.setNotation(id) })),
      ...(this.undoes() ? [{ words: `Undo: ${this.undoes()}`, keys: 'Ctrl + Z', run: () => this.undo() }] : []),
      ...(this.session.redoWhat()
        ? [{ words: `Redo: ${this.session.redoWhat()}`, keys: 'Ctrl + Shift + Z', run: () => this.session.redo() }]
        : []),
    ];
    this.commands.offered.set(commands);
  }

  protected change({ what, apply, typed }: CardChange): void {
    this.session.change(what, apply, typed);
  }

  /** A name is kept as it is typed, all of it one step to undo; an empty one leaves the last. */
  protected rename(name: string): void {
    const card = this.session.card();
    const next = name.trim().slice(0, 120);
    if (card && next && next !== card.name) this.session.change('Name', (now) => ({ ...now, name: next }), 'name');
  }

  /** The list of parts comes back, and the focus with it to where adding began. */
  protected doneAdding(): void {
    this.adding.set(false);
    const focus = (): void => document.querySelector<HTMLElement>('dip-parts-tree p-button button')?.focus();
    afterNextRender(focus, { injector: this.injector });
  }

  protected setNotation(notation: Notation): void {
    this.session.change('Unit', (card) => ({ ...card, notation }));
  }

  protected show(finding: Finding): void {
    this.shown.update((before) => (before?.id === finding.id ? undefined : finding));
    if (this.shown() && finding.at !== undefined) this.s.set(finding.at);
  }

  /** Past sizes and drawings: the first thing there is the first fix. */
  protected toVerdicts(): void {
    document.querySelector<HTMLElement>('.verdicts')?.focus();
  }

  protected backToGood(): void {
    const good = this.lastGood();
    if (good) this.session.change('Back to the last good card', () => good);
  }

  protected fix(finding: Finding): void {
    const fix = finding.fix!;
    this.session.change(fix.says.replace(/\.$/, ''), (card) => applyFix(card, fix));
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
    else this.undo();
  }

  private stop(error: unknown): void {
    this.trouble.set(error instanceof Error ? error.message : 'Something went wrong.');
    this.state.set('broken');
  }
}
