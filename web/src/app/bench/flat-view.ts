import { afterNextRender, Component, computed, ElementRef, inject, input, OnDestroy, output, signal } from '@angular/core';
import {
  filledSizes,
  GROOVE_CATCH,
  nearestGroove,
  boardById,
  readsOffRuler,
  rulerStep,
  rulerWords,
  sayLength,
  sizeRows,
  setSize,
  type Evaluation,
  type Score,
} from '@diptychon/core';
import { NumberText } from './number-text';
import type { CardChange } from './card-change';
import { fitSheet, LABEL_HEIGHT, pathOf, reading, RULER_HEIGHT, rulerTicks, spread, toScreen } from './flat-piece';
import { nextMark } from './length-field';

interface DrawnScore {
  score: Score;
  order: number;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  upright: boolean;
  at: number;
  words: string;
  /** how far off the board's groove, when it is */
  offGroove?: number;
  labelX: number;
  draggable: boolean;
  lit: boolean;
}

/** Each flat piece lying along a ruler: scores in order, cuts, glue, keep-clear, and which face is up. */
@Component({
  selector: 'dip-flat-view',
  imports: [NumberText],
  templateUrl: './flat-view.html',
  styleUrl: './flat-view.scss',
})
export class FlatView implements OnDestroy {
  readonly evaluation = input.required<Evaluation>();
  readonly highlight = input<{ panels: readonly string[]; creases: readonly string[] }>({ panels: [], creases: [] });
  readonly changed = output<CardChange>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly space = signal({ width: 640, height: 260 });
  private readonly watch = new ResizeObserver(([entry]) => {
    const area = (entry!.target as HTMLElement).getBoundingClientRect();
    this.space.set({ width: area.width, height: area.height });
  });
  protected readonly chosen = signal('base');
  protected readonly turned = signal(false);
  protected readonly hasDecorate = computed(() => this.sheet().zones.some((zone) => zone.kind === 'decorate'));
  protected readonly labelBaseline = LABEL_HEIGHT;
  protected readonly rulerTop = LABEL_HEIGHT;
  protected readonly rulerHeight = RULER_HEIGHT;
  private dragging: { score: Score; startX: number; size: number } | undefined;

  protected readonly card = computed(() => this.evaluation().design.card);
  protected readonly sheet = computed(() => {
    const { sheets } = this.evaluation();
    return sheets.find((sheet) => sheet.piece.id === this.chosen()) ?? sheets[0]!;
  });
  protected readonly fit = computed(() => fitSheet(this.sheet(), this.space().width, this.space().height, this.turned()));
  protected readonly ticks = computed(() => rulerTicks(this.fit(), this.card().notation));
  protected readonly outline = computed(() =>
    [pathOf(this.sheet().outline, this.fit()), ...this.sheet().windows.map((w) => pathOf(w.outline, this.fit()))].join(''),
  );
  protected readonly zones = computed(() => this.sheet().zones.map((zone) => ({ ...zone, path: pathOf(zone.outline, this.fit()) })));
  protected readonly marks = computed(() =>
    this.sheet().marks.map((mark) => ({ ...mark, a: toScreen(mark.from, this.fit()), b: toScreen(mark.to, this.fit()) })),
  );
  protected readonly cuts = computed(() =>
    this.sheet().cuts.map((cut) => ({ ...cut, a: toScreen(cut.from, this.fit()), b: toScreen(cut.to, this.fit()) })),
  );
  protected readonly litPanels = computed(() => {
    const { design } = this.evaluation();
    return this.highlight()
      .panels.map((id) => design.panels.find((panel) => panel.id === id)!)
      .filter((panel) => panel.piece.id === this.sheet().piece.id)
      .map((panel) => {
        const corner = { x: Math.min(...panel.piece.outline.map(([x]) => x)), y: Math.min(...panel.piece.outline.map(([, y]) => y)) };
        return pathOf(
          panel.area.outer.map(([x, y]) => [x - corner.x, y - corner.y] as const),
          this.fit(),
        );
      });
  });

  protected readonly scores = computed((): DrawnScore[] => {
    const fit = this.fit();
    const { notation, board } = this.card();
    const ruler = boardById(board);
    const lit = new Set(this.highlight().creases);
    const drawn = this.sheet().scores.map((score) => {
      const [x1, y1] = toScreen(score.from, fit);
      const [x2, y2] = toScreen(score.to, fit);
      const upright = readsOffRuler(score);
      const at = reading(score, fit);
      const off = nearestGroove(at, ruler).off;
      return {
        score,
        x1,
        y1,
        x2,
        y2,
        upright,
        at,
        words: upright ? rulerWords(at, notation) : 'set between two pencil marks',
        ...(!ruler.free && upright && !score.secondOfSpine && Math.abs(off) > GROOVE_CATCH && { offGroove: Math.abs(off) }),
        labelX: upright ? x1 : (x1 + x2) / 2,
        draggable: score.standsFor !== undefined,
        lit: lit.has(`${this.sheet().piece.id}/${score.id}`),
      };
    });
    const ordered = drawn.sort((a, b) => Number(b.upright) - Number(a.upright) || a.at - b.at);
    const labels = spread(
      ordered.filter((score) => score.upright).map((score) => score.x1),
      23,
    );
    return ordered.map((score, i) => ({ ...score, order: i + 1, labelX: labels[i] ?? score.labelX }));
  });

  constructor() {
    afterNextRender(() => this.watch.observe(this.host.nativeElement.querySelector('.drawing')!));
  }

  ngOnDestroy(): void {
    this.watch.disconnect();
  }

  protected say(score: DrawnScore): string {
    return `${score.order}. ${score.score.name}, ${score.score.fold}, ${score.upright ? sayLength(score.at, this.card().notation) : score.words}`;
  }

  protected grab(event: PointerEvent, { score }: DrawnScore): void {
    if (!score.standsFor) return;
    (event.target as Element).setPointerCapture(event.pointerId);
    this.dragging = { score, startX: event.clientX, size: this.sizeOf(score) };
  }

  protected drag(event: PointerEvent): void {
    const held = this.dragging;
    if (!held) return;
    const moved = ((event.clientX - held.startX) / this.fit().scale) * (this.turned() ? -1 : 1);
    const step = rulerStep(this.card().notation);
    this.setTo(held.score, Math.round((held.size + moved * held.score.standsFor!.perMm) / step) * step);
  }

  protected release(): void {
    this.dragging = undefined;
  }

  protected nudge(event: KeyboardEvent, { score }: DrawnScore): void {
    const direction = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (direction === 0 || !score.standsFor) return;
    event.preventDefault();
    const towards = direction * (this.turned() ? -1 : 1);
    this.setTo(score, nextMark(this.sizeOf(score), rulerStep(this.card().notation), towards));
  }

  private sizeOf(score: Score): number {
    return filledSizes(this.card(), 'base')[score.standsFor!.size] as number;
  }

  private setTo(score: Score, value: number): void {
    const row = sizeRows(this.card(), 'base').find((r) => r.name === score.standsFor!.size)!;
    const clamped = Math.min(row.range!.max, Math.max(row.range!.min, value));
    if (clamped !== row.value) this.changed.emit({ what: row.label, apply: (card) => setSize(card, 'base', row.name, clamped) });
  }
}
