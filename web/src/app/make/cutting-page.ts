import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, input, signal, untracked } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import {
  besideWords,
  everySheet,
  leftWords,
  sayLength,
  type CardDocument,
  type CuttingPlan,
  type CuttingTool,
  type Evaluation,
  type Leftover,
  type MovedSheet,
  type PlanAsked,
  type PlannedSheet,
} from '@diptychon/core';
import { Checkbox } from 'primeng/checkbox';
import { firstValueFrom } from 'rxjs';
import { CardStore } from '../cards/card-store';
import { Evaluator } from '../evaluation/evaluator';
import { ChoiceRow } from '../fields/choice-row';
import { NumberText } from '../fields/number-text';
import { ThemeButton } from '../frame/theme-button';
import { WorkshopStore } from '../workshop/workshop-store';
import { CuttingWork } from './cutting-work';
import { afterMove, snapped, type HandMove } from './laid-by-hand';
import { SheetPicture, type PieceMove } from './sheet-picture';

const COUNTS = [1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 30, 50];
const TOOLS: readonly { value: CuttingTool; label: string }[] = [
  { value: 'trimmer', label: 'edge to edge, with a trimmer' },
  { value: 'free', label: 'each along its outline' },
];
const ANY = '';

/** Sheets that are cut alike, from the first of them. */
interface AlikeSheets {
  sheet: PlannedSheet;
  /** which they are, from 1 */
  which: number[];
  title: string;
  /** why it cannot be cut as it was laid by hand, and what is well to know */
  wrong: readonly string[];
  told: readonly string[];
}

/** How all pieces of so many cards are cut from sheets: where each lies, every cut in its order, and what is left. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-cutting-page',
  imports: [Checkbox, ChoiceRow, FormsModule, NumberText, RouterLink, SheetPicture, ThemeButton],
  templateUrl: './cutting-page.html',
  styleUrl: './cutting-page.scss',
})
export class CuttingPage {
  readonly id = input.required<string>();
  private readonly store = inject(CardStore);
  private readonly evaluator = inject(Evaluator);
  private readonly work = inject(CuttingWork);
  private readonly workshop = inject(WorkshopStore).workshop;

  protected readonly trouble = signal<string | undefined>(undefined);
  private readonly evaluation = signal<Evaluation | undefined>(undefined);
  protected readonly card = computed((): CardDocument | undefined => this.evaluation()?.design.card);
  protected readonly mustChange = computed(() => this.evaluation()?.findings.find(({ severity }) => severity === 'fail'));
  protected readonly drawn = computed(() => {
    const known = this.evaluation();
    return new Map((known ? everySheet(known) : []).map((sheet) => [sheet.piece.id, sheet]));
  });
  protected readonly counts = COUNTS.map((value) => ({ value, label: value === 1 ? 'one' : String(value) }));
  protected readonly tools = TOOLS;
  protected readonly copies = signal(1);
  protected readonly tool = signal<CuttingTool>('trimmer');
  protected readonly spares = signal(false);
  protected readonly hasToppers = computed(() => (this.evaluation()?.dressed.toppers.length ?? 0) > 0);
  protected readonly from = signal(ANY);
  protected readonly sheetChoices = computed(() => [
    { value: ANY, label: 'whichever of my sheets takes least' },
    ...this.workshop().sheets.map(({ id, name, width, height }) => ({
      value: id,
      label: `${name}, ${this.say(width)} × ${this.say(height)}`,
    })),
  ]);
  protected readonly asked = computed((): PlanAsked => {
    const sheet = this.workshop().sheets.find(({ id }) => id === this.from());
    return {
      copies: this.copies(),
      tool: this.tool(),
      sheets: sheet ? [{ width: sheet.width, height: sheet.height }] : [],
      ...(this.spares() && { spares: true }),
    };
  });
  protected readonly working = signal(false);
  protected readonly stopped = signal(false);
  protected readonly share = signal(0);
  private readonly answer = signal<{ of: PlanAsked; plan: CuttingPlan } | undefined>(undefined);
  /** what was laid out for something else is no plan of this */
  protected readonly plan = computed(() => (this.answer()?.of === this.asked() ? this.answer()?.plan : undefined));
  protected readonly isCutByFence = computed(() => this.plan()?.sheets.some(({ cuts }) => cuts.length > 0) === true);
  protected readonly summary = computed(() => {
    const plan = this.plan();
    if (!plan) return '';
    const { sheets, waste, bound, leastSheets } = plan;
    const percent = (share: number): string => `${Math.round(100 * share)} %`;
    const whole = sheets.length === 1 ? 'One sheet' : `${sheets.length} sheets`;
    const least =
      sheets.length <= leastSheets
        ? 'No layout needs fewer.'
        : `No layout needs fewer than ${leastSheets}, or leaves less than ${percent(bound)}.`;
    return `${whole}; ${percent(waste)} of the paper is left over. ${least}`;
  });
  /** how the sheets lie after each move by hand, and while one goes on; of this plan only */
  private readonly hand = signal<{ of: CuttingPlan; after: readonly MovedSheet[][]; held?: MovedSheet[] } | undefined>(undefined);
  private readonly byHand = computed(() => (this.hand()?.of === this.plan() ? this.hand() : undefined));
  protected readonly movedPieces = computed(() => this.byHand()?.after.length ?? 0);
  /** as they lie when nothing is held */
  private readonly still = computed(
    (): readonly MovedSheet[] => this.byHand()?.after.at(-1) ?? this.plan()?.sheets.map((sheet) => ({ sheet, wrong: [], told: [] })) ?? [],
  );
  private readonly laid = computed(() => this.byHand()?.held ?? this.still());
  /** the piece that is worked on: of which sheets, and which of their list */
  protected readonly chosen = signal<{ sheets: readonly number[]; nth: number } | undefined>(undefined);
  protected readonly chosenName = computed(() => {
    const { sheets, nth } = this.chosen() ?? { sheets: [], nth: 0 };
    return this.laid()[sheets[0] ?? -1]?.sheet.pieces[nth]?.name;
  });
  /** sheets that hold the same pieces in the same places are told once */
  protected readonly groups = computed((): AlikeSheets[] => {
    const groups = new Map<string, Omit<AlikeSheets, 'title'>>();
    for (const [i, { sheet, wrong, told }] of this.laid().entries()) {
      const places = sheet.pieces.map(({ piece, x, y, turned, endForEnd }) => [piece, x, y, turned, endForEnd]);
      const key = JSON.stringify([sheet.stock.id, sheet.width, sheet.height, places]);
      const group = groups.get(key);
      if (group) group.which.push(i + 1);
      else groups.set(key, { sheet, which: [i + 1], wrong, told });
    }
    return [...groups.values()].map((group) => {
      const { sheet, which } = group;
      const what = `${sheet.stock.name}, ${this.say(sheet.width)} × ${this.say(sheet.height)}`;
      return { ...group, title: which.length === 1 ? `Sheet ${which[0]}: ${what}` : `Sheets ${which.join(', ')}, cut alike: ${what}` };
    });
  });
  private underWay: AbortController | undefined;

  constructor() {
    effect(() => void this.open(this.id()));
    effect(() => {
      const [evaluation, asked] = [this.evaluation(), this.asked()];
      untracked(() => {
        if (evaluation) void this.layOut(evaluation.design.card, asked);
      });
    });
    inject(DestroyRef).onDestroy(() => this.underWay?.abort());
  }

  /** A piece was moved on sheets that are cut alike: on all of them. */
  protected move({ sheet, which }: AlikeSheets, { nth, to, step, held }: PieceMove): void {
    const sheets = which.map((one) => one - 1);
    if (to) this.keep({ sheets, nth, to: snapped(sheet, nth, to, this.tool()) }, held);
    else if (step) {
      // Keys may come faster than what they do is drawn: each goes on from what the last one did.
      const { x, y } = this.still()[sheets[0]!]!.sheet.pieces[nth]!;
      this.keep({ sheets, nth, to: { x: x + step[0], y: y + step[1] } }, held);
    } else this.hand.update((hand) => hand && { of: hand.of, after: hand.after });
  }

  protected choose({ which }: AlikeSheets, nth: number): void {
    this.chosen.set({ sheets: which.map((one) => one - 1), nth });
  }

  /** The piece that is worked on, lying another way where it is. */
  protected turn(how: 'turned' | 'endForEnd'): void {
    const chosen = this.chosen();
    const piece = this.laid()[chosen?.sheets[0] ?? -1]?.sheet.pieces[chosen!.nth];
    if (!chosen || !piece) return;
    const { x, y, turned, endForEnd = false } = piece;
    const to = { x, y, turned, endForEnd, [how]: how === 'turned' ? !turned : !endForEnd };
    this.keep({ ...chosen, to }, false);
  }

  protected takeBack(): void {
    this.hand.update((hand) => hand && { of: hand.of, after: hand.after.slice(0, -1) });
  }

  protected asLaidOut(): void {
    this.hand.set(undefined);
  }

  private keep(move: HandMove, held: boolean): void {
    const [plan, known] = [this.plan(), this.evaluation()];
    if (!plan || !known) return;
    const after = this.byHand()?.after ?? [];
    const laid = afterMove(known, this.still(), this.tool(), move);
    this.hand.set(held ? { of: plan, after, held: laid } : { of: plan, after: [...after, laid] });
  }

  protected callOff(): void {
    this.underWay?.abort();
    this.underWay = undefined;
    this.working.set(false);
    this.stopped.set(true);
  }

  protected again(): void {
    const card = this.card();
    if (card) void this.layOut(card, this.asked());
  }

  protected say(mm: number): string {
    return sayLength(Math.round(mm * 100) / 100, this.card()?.notation ?? 'mm');
  }

  protected besideSaid(sheet: PlannedSheet): string[] {
    return besideWords(sheet, this.card()?.notation ?? 'mm');
  }

  /** What is left, down to a mark of the ruler, each size once. */
  protected leftWords(leftovers: readonly Leftover[]): string[] {
    return leftWords(leftovers, this.card()?.notation ?? 'mm');
  }

  /** Pieces whose folds run across the grain though nobody laid them so, in a sentence each. */
  protected across({ sheet: { pieces }, told }: AlikeSheets): string[] {
    if (told.length > 0) return [];
    const names = [...new Set(pieces.filter(({ acrossGrain }) => acrossGrain).map(({ name }) => name))];
    return names.map(
      (name) => `${name}: its folds run across the grain, for it comes out of this sheet no other way. Try one fold on scrap.`,
    );
  }

  private async layOut(card: CardDocument, asked: PlanAsked): Promise<void> {
    this.underWay?.abort();
    const own = new AbortController();
    this.underWay = own;
    this.share.set(0);
    this.stopped.set(false);
    this.working.set(true);
    const plan = await this.work.plan(card, asked, (share) => this.share.set(share), own.signal);
    if (this.underWay !== own) return;
    this.underWay = undefined;
    this.working.set(false);
    if (plan) this.answer.set({ of: asked, plan });
    else this.trouble.set('The calculation stopped. Choose once more how it is cut.');
  }

  private async open(id: string): Promise<void> {
    try {
      const kept = await this.store.get(id);
      if (!kept) {
        this.trouble.set('There is no such card on this shelf.');
        return;
      }
      const answer = await firstValueFrom(this.evaluator.once(kept.card));
      if (answer.ok === true) this.evaluation.set(answer.evaluation);
      else this.trouble.set(answer.ok === false ? answer.problems[0]!.says : answer.says);
    } catch {
      this.trouble.set('This browser’s storage could not be read.');
    }
  }
}
