import { FormsModule } from '@angular/forms';
import { SelectButton } from 'primeng/selectbutton';
import {
  ChangeDetectionStrategy,
  afterNextRender,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  OnDestroy,
  output,
  signal,
  untracked,
} from '@angular/core';
import {
  filledSizes,
  inSentence,
  mechanismById,
  boardOf,
  boxOf,
  envelopeSheets,
  boardWords,
  offKeptGroove,
  partOf,
  place,
  readsOffRuler,
  ROOT,
  rulerStep,
  sayLength,
  shiftOnSheet,
  sizeRows,
  setSize,
  stretchOf,
  type CardDocument,
  type Evaluation,
  type Point,
  type Score,
  type SizeRow,
} from '@diptychon/core';
import { NumberText } from '../fields/number-text';
import type { CardChange } from './card-change';
import { WornOnPiece } from './worn-on-piece';
import { fitSheet, type Fit, LABEL_HEIGHT, reading, RULER_HEIGHT, rulerTicks, spread, toScreen } from '../drawings/flat-piece';
import { pathThrough, pieceOnScreen } from '../drawings/piece-on-screen';
import { nextMark } from '../fields/length-field';

/** A part that stands on this piece, to be moved along its fold. */
interface Grip {
  id: string;
  title: string;
  x: number;
  y: number;
  /** the way along the fold on screen, for each mm */
  way: readonly [number, number];
  value: number;
  words: string;
}

interface DrawnScore {
  score: Score;
  order: number;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  /** only where there is paper */
  path: string;
  upright: boolean;
  at: number;
  words: string;
  /** from where to where along it, when it does not run right across */
  stretch?: string;
  /** how far off the board's groove, when it is */
  offGroove?: number;
  labelX: number;
  draggable: boolean;
  lit: boolean;
}

/** Between the drawing and the readings at its right. */
const BESIDE_GAP = 6;

const NEVER = -Infinity;
/** A change that a drag asked for is waited for this long (ms) before the next one goes out without it. */
const ANSWER_PATIENCE = 250;

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
};

/** The size that says where along its fold a part stands. */
function placeRow(card: CardDocument, id: string): SizeRow | undefined {
  const known = mechanismById(card.parts.find((part) => part.id === id)!.mechanism);
  return known.kind === 'movement' ? sizeRows(card, id).find(({ name }) => name === known.placeSize) : undefined;
}

/** The part whose size a score stands for. */
const ownerOf = ({ standsFor }: Score): string => standsFor!.part ?? ROOT;

/** Each flat piece lying along a ruler: scores in order, cuts, glue, keep-clear, and which face is up. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-flat-view',
  imports: [FormsModule, NumberText, SelectButton, WornOnPiece],
  templateUrl: './flat-view.html',
  styleUrl: './flat-view.scss',
})
export class FlatView implements OnDestroy {
  readonly evaluation = input.required<Evaluation>();
  readonly highlight = input<{ panels: readonly string[]; creases: readonly string[] }>({ panels: [], creases: [] });
  readonly changed = output<CardChange>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly space = signal({ width: 640, height: 260, readings: 290 });
  private readonly watch = new ResizeObserver(([entry]) => {
    const svg = entry!.target.querySelector(':scope > svg')!.getBoundingClientRect();
    const beside = entry!.target.querySelector('.beside')!.getBoundingClientRect();
    // The readings lie over the drawing's right end, or below it where there is no width for both.
    const readings = beside.top < svg.bottom ? svg.right - beside.left + BESIDE_GAP : 0;
    this.space.set({ width: svg.width, height: svg.height, readings });
  });
  protected readonly chosen = signal('base');
  protected readonly turned = signal(false);
  protected readonly hasDecorate = computed(() => this.sheet().zones.some((zone) => zone.kind === 'decorate'));
  protected readonly labelBaseline = LABEL_HEIGHT;
  protected readonly rulerTop = LABEL_HEIGHT;
  protected readonly rulerHeight = RULER_HEIGHT;
  private dragging: { id: string; offset: number; at: number } | undefined;
  private moving: { grip: Grip; startX: number; startY: number; size: number } | undefined;
  private drags = 0;
  private frame = 0;
  /** where the pointer is, and where it was when it was last followed */
  private pointer: Point = [0, 0];
  private followed: Point = [0, 0];
  /** since when a change that a drag asked for is being worked out (ms); never, when none is */
  private asked = NEVER;
  /** while something is dragged the drawing keeps its scale and its place: what is under the finger stays there */
  private readonly heldFit = signal<Fit | undefined>(undefined);
  /** what the drag changes, and to what */
  protected readonly dragSays = signal<string | undefined>(undefined);
  /** why a score cannot be dragged, once somebody tried */
  protected readonly standsStill = signal<string | undefined>(undefined);

  protected readonly card = computed(() => this.evaluation().design.card);
  protected readonly sheet = computed(() => {
    const sheets = this.sheets();
    return sheets.find((sheet) => sheet.piece.id === this.chosen()) ?? sheets[0]!;
  });
  /** the pieces of the card, then those of its own envelope */
  protected readonly sheets = computed(() => [...this.evaluation().sheets, ...envelopeSheets(this.evaluation())]);
  protected readonly pieces = computed(() => this.sheets().map(({ piece: { id, name } }) => ({ id, name })));
  protected readonly fit = computed(() => this.heldFit() ?? fitSheet(this.sheet(), this.space(), this.turned(), this.wornBox()));
  /** what the piece wears, on its sheet: some of it may stand out past an edge */
  private readonly wornBox = computed(() => {
    const { design, dressed } = this.evaluation();
    const worn = dressed.toppers.filter(({ panel }) => panel.startsWith(`${this.sheet().piece.id}/`));
    if (worn.length === 0) return undefined;
    return boxOf(
      worn.flatMap(({ panel, area }): Point[] => {
        const [dx, dy] = shiftOnSheet(this.sheet(), design.panels[design.linkage.bodyOf.get(panel)!]!.area.outer);
        return area.outer.map(([x, y]): Point => [x + dx, y + dy]);
      }),
    );
  });
  protected readonly ticks = computed(() => rulerTicks(this.fit(), this.card().notation));
  protected readonly wears = computed(() => {
    const { layers, toppers } = this.evaluation().dressed;
    return [...layers, ...toppers].some(({ panel }) => panel.startsWith(`${this.sheet().piece.id}/`));
  });
  protected readonly drawn = computed(() => pieceOnScreen(this.sheet(), (point) => toScreen(point, this.fit())));
  /** What is said of zones and pencil lines, by their ids. */
  protected readonly says = computed(() => new Map([...this.sheet().zones, ...this.sheet().marks].map(({ id, says }) => [id, says])));
  protected readonly litPanels = computed(() => {
    const { design } = this.evaluation();
    return (
      this.highlight()
        // What is pointed at may have gone with the last change.
        .panels.flatMap((id) => design.panels.filter((panel) => panel.id === id))
        .filter((panel) => panel.piece.id === this.sheet().piece.id)
        .map((panel) => {
          const [dx, dy] = shiftOnSheet(this.sheet(), panel.area.outer);
          return pathThrough(
            panel.area.outer.map(([x, y]) => toScreen([x + dx, y + dy], this.fit())),
            true,
          );
        })
    );
  });

  protected readonly scores = computed((): DrawnScore[] => {
    const fit = this.fit();
    const { notation } = this.card();
    const board = boardOf(this.card());
    const lit = new Set(this.highlight().creases);
    const lines = this.drawn().of('mountain', 'valley');
    const drawn = this.sheet().scores.map((score) => {
      const [x1, y1] = toScreen(score.from, fit);
      const [x2, y2] = toScreen(score.to, fit);
      const upright = readsOffRuler(score);
      const at = reading(score, fit);
      const off = upright && !score.secondOfSpine ? offKeptGroove(at, score.allowed, board) : undefined;
      return {
        score,
        x1,
        y1,
        x2,
        y2,
        path: lines
          .filter(({ id }) => id === score.id)
          .map(({ path }) => path)
          .join(''),
        upright,
        at,
        words: upright ? boardWords(at, board, notation, score.allowed) : 'set between two pencil marks',
        ...(upright && { stretch: this.stretchOf(score) }),
        ...(off !== undefined && { offGroove: Math.abs(off) }),
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

  /** Where parts stand on this piece. */
  protected readonly grips = computed((): Grip[] => {
    const fit = this.fit();
    const card = this.card();
    const { piece } = this.sheet();
    const corner = [Math.min(...piece.outline.map(([x]) => x)), Math.min(...piece.outline.map(([, y]) => y))] as const;
    const onScreen = ([x, y]: Point): Point => toScreen([x - corner[0], y - corner[1]], fit);
    return this.evaluation().design.parts.flatMap(({ id, title, site, mechanism }): Grip[] => {
      const leaf = site?.leaves.find(({ panel }) => panel.startsWith(`${piece.id}/`));
      const known = mechanismById(mechanism);
      const row = known.kind === 'movement' ? placeRow(card, id) : undefined;
      if (!site || !leaf || !row) return [];
      const [low, high] = stretchOf(card, id) ?? [0, site.length];
      const middle = (low + high) / 2;
      // The site of a part that is turned round runs the other way; its stretch is told from the fold's own lower end.
      const turned = card.parts.find((part) => part.id === id)?.on?.turned === true;
      const at = onScreen(place([0, turned ? site.length - middle : middle], leaf.frame));
      const [from, to] = [onScreen(place([0, 0], leaf.frame)), onScreen(place([0, 1], leaf.frame))];
      const value = Number(row.value);
      const words = `${title}, ${sayLength(value, card.notation)} along its fold`;
      return [{ id, title, x: at[0], y: at[1], way: [to[0] - from[0], to[1] - from[1]], value, words }];
    });
  });

  constructor() {
    effect(() => {
      this.evaluation();
      untracked(() => this.answered());
    });
    afterNextRender(() => this.watch.observe(this.host.nativeElement.querySelector('.drawing')!));
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.frame);
    this.watch.disconnect();
  }

  /** Read upward from the end that lies toward the maker. */
  private stretchOf(score: Score): string | undefined {
    const part = partOf(score, this.sheet());
    if (!part) return undefined;
    const { height } = this.sheet();
    const [low, high] = this.turned() ? [height - part[1], height - part[0]] : part;
    const { notation } = this.card();
    return `from ${sayLength(low, notation)} to ${sayLength(high, notation)} along it`;
  }

  protected say(score: DrawnScore): string {
    return `${score.order}. ${score.score.name}, ${score.score.fold}, ${score.upright ? sayLength(score.at, this.card().notation) : score.words}${score.stretch ? `, ${score.stretch}` : ''}`;
  }

  /** While something is held the drawing keeps its scale. */
  protected keepFit(held: boolean): void {
    this.heldFit.set(held ? this.fit() : undefined);
  }

  protected grab(event: PointerEvent, { score, x1 }: DrawnScore): void {
    if (!score.standsFor) return;
    this.capture(event);
    this.dragging = { id: score.id, offset: event.clientX - x1, at: score.from[0] };
  }

  /** Says why a score stays where it is. */
  protected explain(event: Event, { score, draggable }: DrawnScore): void {
    // A press anywhere else on the drawing takes the words away.
    event.stopPropagation();
    this.standsStill.set(
      draggable ? undefined : `The ${inSentence(score.name)} follows from other sizes, so it is not dragged: change those at the left.`,
    );
  }

  private capture(event: PointerEvent): void {
    (event.target as Element).setPointerCapture(event.pointerId);
    this.heldFit.set(this.fit());
    this.standsStill.set(undefined);
    this.drags++;
    this.pointer = this.followed = [event.clientX, event.clientY];
    this.asked = NEVER;
  }

  /** Two arrowheads along the fold. */
  protected gripPath({ x, y, way }: Grip): string {
    const size = Math.hypot(...way) || 1;
    const [ux, uy] = [way[0] / size, way[1] / size];
    const head = (sign: number): string => {
      const [tx, ty] = [x + sign * ux * 7, y + sign * uy * 7];
      const [bx, by] = [x + sign * ux * 3, y + sign * uy * 3];
      return `M${bx - uy * 4} ${by + ux * 4}L${tx} ${ty}L${bx + uy * 4} ${by - ux * 4}`;
    };
    return head(1) + head(-1);
  }

  protected hold(event: PointerEvent, grip: Grip): void {
    this.capture(event);
    this.moving = { grip, startX: event.clientX, startY: event.clientY, size: grip.value };
  }

  /** Arrow keys go along the fold as it lies on screen. */
  protected shift(event: KeyboardEvent, grip: Grip): void {
    const [dx, dy] = ARROWS[event.key] ?? [0, 0];
    const along = Math.sign(dx * grip.way[0] + dy * grip.way[1]);
    if (along === 0) return;
    event.preventDefault();
    this.standAt(grip, nextMark(grip.value, rulerStep(this.card().notation), along));
  }

  private standAt({ id, title }: Grip, value: number): void {
    const row = placeRow(this.card(), id);
    if (!row?.range) return;
    const clamped = Math.min(row.range.max, Math.max(row.range.min, value));
    if (clamped !== row.value) this.put(`${title} along its fold`, clamped, (card) => setSize(card, id, row.name, clamped));
  }

  /** One step to undo for a whole drag, said while it goes on. */
  private put(what: string, value: number, apply: CardChange['apply']): void {
    const dragged = this.dragging !== undefined || this.moving !== undefined;
    if (dragged) {
      this.dragSays.set(`${what} ${sayLength(value, this.card().notation)}`);
      this.asked = performance.now();
    }
    this.changed.emit({ what, apply, ...(dragged && { typed: `drag-${this.drags}` }) });
  }

  protected drag(event: PointerEvent): void {
    if (!this.dragging && !this.moving) return;
    this.pointer = [event.clientX, event.clientY];
    if (this.frame !== 0) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      // As often as the card can be worked out and drawn, and no oftener.
      if (performance.now() - this.asked > ANSWER_PATIENCE) this.follow();
    });
  }

  /** The card that a drag asked for has come: where the pointer went on, or the line is off still, it is brought the rest of the way. */
  private answered(): void {
    this.asked = NEVER;
    const { dragging, pointer, followed } = this;
    if (!dragging && !this.moving) return;
    const at = this.sheet().scores.find(({ id }) => id === dragging?.id)?.from[0];
    const moved = dragging !== undefined && at !== undefined && at !== dragging.at;
    if (moved) dragging.at = at;
    if (moved || pointer[0] !== followed[0] || pointer[1] !== followed[1]) this.follow();
  }

  private follow(): void {
    this.followed = this.pointer;
    if (this.moving) this.slide(this.moving);
    else if (this.dragging) this.bring(this.dragging);
  }

  /** Along its fold as far as the pointer went along it. */
  private slide({ grip, startX, startY, size }: { grip: Grip; startX: number; startY: number; size: number }): void {
    const [[ux, uy], [x, y]] = [grip.way, this.pointer];
    const along = ((x - startX) * ux + (y - startY) * uy) / (ux * ux + uy * uy);
    const step = rulerStep(this.card().notation);
    this.standAt(grip, Math.round((size + along) / step) * step);
  }

  /**
   * Brings the score that is dragged under the pointer, from where it lies in the card that is drawn: a size that moves more
   * than one line at once leaves no gap that grows.
   */
  private bring({ id, offset }: { id: string; offset: number }): void {
    const score = this.sheet().scores.find((known) => known.id === id);
    if (!score?.standsFor) return;
    const { left, scale, width, turned } = this.fit();
    const along = (this.pointer[0] - offset - left) / scale;
    const wanted = turned ? width - along : along;
    const step = rulerStep(this.card().notation);
    const size = this.sizeOf(score) + (wanted - score.from[0]) * score.standsFor.perMm;
    this.setTo(score, Math.round(size / step) * step);
  }

  protected release(): void {
    cancelAnimationFrame(this.frame);
    this.frame = 0;
    if (this.pointer !== this.followed) this.follow();
    this.dragging = undefined;
    this.moving = undefined;
    this.heldFit.set(undefined);
    this.dragSays.set(undefined);
  }

  protected nudge(event: KeyboardEvent, { score }: DrawnScore): void {
    const direction = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (direction === 0 || !score.standsFor) return;
    event.preventDefault();
    const towards = direction * (this.turned() ? -1 : 1);
    this.setTo(score, nextMark(this.sizeOf(score), rulerStep(this.card().notation), towards));
  }

  private sizeOf(score: Score): number {
    return filledSizes(this.card(), ownerOf(score))[score.standsFor!.size] as number;
  }

  private setTo(score: Score, value: number): void {
    const owner = ownerOf(score);
    const row = sizeRows(this.card(), owner).find((r) => r.name === score.standsFor!.size)!;
    const clamped = Math.min(row.range!.max, Math.max(row.range!.min, value));
    if (clamped !== row.value) this.put(row.label, clamped, (card) => setSize(card, owner, row.name, clamped));
  }
}
