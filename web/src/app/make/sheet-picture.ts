import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output, signal } from '@angular/core';
import {
  rulerStep,
  sayLength,
  type CutSheet,
  type Notation,
  type PlannedPiece,
  type PlannedSheet,
  type Point,
  type PutAt,
} from '@diptychon/core';

/** A sheet is drawn this wide or high at the most, in units of its drawing. */
const LONGEST = 420;
/** Between a cut and its number. */
const BADGE = 9;

/** A piece that a hand moves, by its place in the list of its sheet. */
export interface PieceMove {
  nth: number;
  /** by a pointer: where to; neither this nor a step where it was taken up and not moved after all */
  to?: PutAt;
  /** by a key: how far from where it lies by then, mm */
  step?: Point;
  /** still held: where it is let go of is told by another */
  held: boolean;
}

interface DrawnPiece {
  id: string;
  says: string;
  box: { x: number; y: number; width: number; height: number };
  path: string;
  name: string;
  at: Point;
  /** written up along a piece that is higher than wide */
  upright: boolean;
}

interface DrawnCut {
  order: number;
  from: Point;
  to: Point;
  at: Point;
}

const ARROWS: Readonly<Record<string, Point>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };

/** One sheet as it lies on the table: where each piece lies, what is left, and every cut with its number. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-sheet-picture',
  template: `
    <svg [attr.viewBox]="'-4 -4 ' + (size().width + 8) + ' ' + (size().height + 8)" role="group" [attr.aria-label]="said()">
      <defs>
        <pattern [id]="hatch()" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" class="hatch" />
        </pattern>
      </defs>
      <rect class="sheet" x="0" y="0" [attr.width]="size().width" [attr.height]="size().height" [attr.fill]="'url(#' + hatch() + ')'" />
      @for (piece of pieces(); track piece.id; let nth = $index) {
        <rect class="blank" [attr.x]="piece.box.x" [attr.y]="piece.box.y" [attr.width]="piece.box.width" [attr.height]="piece.box.height" />
        <path
          class="piece"
          role="button"
          tabindex="0"
          fill-rule="evenodd"
          [attr.d]="piece.path"
          [attr.aria-label]="piece.says"
          (pointerdown)="grab($event, nth)"
          (pointermove)="drag($event, nth)"
          (pointerup)="release(nth)"
          (pointercancel)="letGo(nth)"
          (keydown)="press($event, nth)"
          (focus)="chosen.emit(nth)"
        />
        <text
          [attr.x]="piece.at[0]"
          [attr.y]="piece.at[1]"
          [attr.transform]="piece.upright ? 'rotate(-90 ' + piece.at[0] + ' ' + piece.at[1] + ')' : null"
        >
          {{ piece.name }}
        </text>
      }
      @for (cut of cuts(); track cut.order) {
        <line class="cut" [attr.x1]="cut.from[0]" [attr.y1]="cut.from[1]" [attr.x2]="cut.to[0]" [attr.y2]="cut.to[1]" />
      }
      @for (cut of cuts(); track cut.order) {
        <circle class="badge" [attr.cx]="cut.at[0]" [attr.cy]="cut.at[1]" [attr.r]="badge" />
        <text class="order" [attr.x]="cut.at[0]" [attr.y]="cut.at[1]">{{ cut.order }}</text>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      width: 100%;
      max-height: 70vh;
    }
    .sheet {
      stroke: var(--ink);
      stroke-width: 1.4;
    }
    .hatch {
      stroke: var(--line);
      stroke-width: 1.4;
    }
    .blank {
      fill: var(--sheet);
      stroke: none;
    }
    .piece {
      fill: var(--moss-wash);
      stroke: var(--ink-soft);
      stroke-width: 0.8;
      cursor: grab;
    }
    /* A finger scrolls over the sheets: it drags the piece that it tapped before. */
    .piece:focus {
      touch-action: none;
    }
    .piece:focus-visible {
      outline: none;
      stroke: var(--moss);
      stroke-width: 2.5;
    }
    text {
      pointer-events: none;
    }
    text {
      fill: var(--ink);
      font-size: 11px;
      text-anchor: middle;
      dominant-baseline: central;
    }
    .cut {
      stroke: var(--rust);
      stroke-width: 1.6;
    }
    .badge {
      fill: var(--sheet);
      stroke: var(--rust);
      stroke-width: 1.2;
    }
    .order {
      font-size: 10px;
      font-weight: 600;
    }
  `,
})
export class SheetPicture {
  readonly planned = input.required<PlannedSheet>();
  /** every sheet that is cut for the card, by its piece */
  readonly drawn = input.required<ReadonlyMap<string, CutSheet>>();
  readonly copies = input.required<number>();
  readonly notation = input.required<Notation>();
  /** which of all sheets it is, from 1 */
  readonly nth = input.required<number>();
  readonly moved = output<PieceMove>();
  /** the piece that has the focus, by its place in the list */
  readonly chosen = output<number>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly grip = signal<{ from: Point; piece: Point; last: Point } | undefined>(undefined);

  protected readonly badge = BADGE;
  protected readonly hatch = computed(() => `left-over-${this.nth()}`);
  private readonly scale = computed(() => LONGEST / Math.max(this.planned().width, this.planned().height));
  protected readonly size = computed(() => ({ width: this.planned().width * this.scale(), height: this.planned().height * this.scale() }));
  protected readonly pieces = computed(() => this.planned().pieces.map((piece) => this.pieceOf(piece)));
  protected readonly cuts = computed(() =>
    this.planned().cuts.map(({ order, from, to }): DrawnCut => {
      const [a, b] = [this.onScreen(from), this.onScreen(to)];
      return { order, from: a, to: b, at: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] };
    }),
  );
  protected readonly said = computed(() => {
    const { stock, width, height, pieces, cuts } = this.planned();
    const say = (mm: number): string => sayLength(mm, this.notation());
    const names = pieces.map(({ name, copy, spare }) => (this.copies() > 1 && !spare ? `${name} ${copy}` : name)).join(', ');
    const cutWords = cuts.length === 0 ? '' : cuts.length === 1 ? ', one cut' : `, ${cuts.length} cuts`;
    return `Sheet ${this.nth()}, ${stock.name}, ${say(width)} × ${say(height)}: ${names}${cutWords}`;
  });

  /** Millimetres from the lower left corner of the sheet, in the drawing. */
  private onScreen([x, y]: Point): Point {
    return [x * this.scale(), (this.planned().height - y) * this.scale()];
  }

  protected grab(event: PointerEvent, nth: number): void {
    const piece = event.target as Element;
    if (event.pointerType === 'touch' && piece.ownerDocument.activeElement !== piece) return;
    piece.setPointerCapture(event.pointerId);
    const { x, y } = this.planned().pieces[nth]!;
    this.grip.set({ from: this.onSheet(event), piece: [x, y], last: [x, y] });
  }

  protected drag(event: PointerEvent, nth: number): void {
    const grip = this.grip();
    if (!grip) return;
    const [x, y] = this.onSheet(event);
    const last = [grip.piece[0] + this.stepped(x - grip.from[0]), grip.piece[1] + this.stepped(y - grip.from[1])] as const;
    if (last[0] === grip.last[0] && last[1] === grip.last[1]) return;
    this.grip.set({ ...grip, last });
    this.moved.emit({ nth, to: { x: last[0], y: last[1] }, held: true });
  }

  protected release(nth: number): void {
    const grip = this.grip();
    this.grip.set(undefined);
    if (grip && (grip.last[0] !== grip.piece[0] || grip.last[1] !== grip.piece[1]))
      this.moved.emit({ nth, to: { x: grip.last[0], y: grip.last[1] }, held: false });
  }

  /** What was taken up lies where it lay. */
  protected letGo(nth: number): void {
    if (!this.grip()) return;
    this.grip.set(undefined);
    this.moved.emit({ nth, held: false });
  }

  /** A step of the ruler with an arrow key, ten with the shift key held. */
  protected press(event: KeyboardEvent, nth: number): void {
    const way = ARROWS[event.key];
    if (!way) return;
    event.preventDefault();
    const step = rulerStep(this.notation()) * (event.shiftKey ? 10 : 1);
    this.moved.emit({ nth, step: [way[0] * step, way[1] * step], held: false });
  }

  private stepped(mm: number): number {
    const step = rulerStep(this.notation());
    return Math.round(mm / step) * step;
  }

  /** Where on the sheet a pointer is, mm from its lower left corner. */
  private onSheet({ clientX, clientY }: PointerEvent): Point {
    const matrix = this.host.nativeElement.querySelector('svg')!.getScreenCTM()!.inverse();
    const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix);
    return [x / this.scale(), this.planned().height - y / this.scale()];
  }

  private pieceOf({ id, piece, copy, name, spare, x, y, width, height, turned, endForEnd }: PlannedPiece): DrawnPiece {
    const sheet = this.drawn().get(piece);
    const lies = ([px, py]: Point): Point => {
      const [u, v] = endForEnd && sheet ? [sheet.width - px, sheet.height - py] : [px, py];
      return this.onScreen(turned ? [x + width - v, y + u] : [x + u, y + v]);
    };
    const loops = sheet ? [sheet.outline, ...sheet.windows.map(({ outline }) => outline)] : [];
    const path = loops
      .map(
        (loop) =>
          `M${loop
            .map((point) =>
              lies(point)
                .map((at) => at.toFixed(1))
                .join(' '),
            )
            .join('L')}Z`,
      )
      .join('');
    const [left, top] = this.onScreen([x, y + height]);
    const box = { x: left, y: top, width: width * this.scale(), height: height * this.scale() };
    const upright = box.height > 1.3 * box.width;
    const room = (upright ? box.height : box.width) / 6;
    const isOneOf = this.copies() > 1 && !spare;
    const whole = isOneOf ? `${name} ${copy}` : name;
    const short = isOneOf ? String(copy) : '';
    const say = (mm: number): string => sayLength(Math.round(mm * 10) / 10, this.notation());
    return {
      id,
      says: `${whole}, ${say(x)} from the left edge, ${say(y)} from the lower edge: arrow keys move it`,
      box,
      path,
      name: Math.min(box.width, box.height) < 12 ? '' : whole.length <= room ? whole : short,
      at: [box.x + box.width / 2, box.y + box.height / 2],
      upright,
    };
  }
}
