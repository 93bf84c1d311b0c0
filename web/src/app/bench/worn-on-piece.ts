import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  imageCorners,
  boxOf,
  envelopeLimit,
  inSentence,
  place,
  rulerStep,
  shiftOnSheet,
  type Area,
  type CutSheet,
  type Evaluation,
  type PlacedTopper,
  type Point,
} from '@diptychon/core';
import { toScreen, type Fit } from '../drawings/flat-piece';
import { pathThrough } from '../drawings/piece-on-screen';
import { imageAddress } from '../fields/image-address';
import { nextMark } from '../fields/length-field';
import { WorkshopStore } from '../workshop/workshop-store';
import type { CardChange } from './card-change';
import { HeldTopper, topperMoved } from './held-topper';

/** A topper with the grip by which it is dragged. */
interface Grip {
  placed: PlacedTopper;
  path: string;
  /** the picture that is printed on it, where its good side is seen */
  image?: { edge: string; address: string; matrix: string };
  /** papers behind it, its film and its twin */
  sheets: string[];
  pads: string[];
  letters: string;
  /** what of it is glued, where that is only a part */
  glue: string[];
  x: number;
  y: number;
  says: string;
}

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
};

/** What the panels of a flat piece wear: layers with their numbers, and toppers that can be dragged. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  // Drawn inside a drawing: an element of its own would not be.
  // eslint-disable-next-line @angular-eslint/component-selector
  selector: 'g[dipWornOnPiece]',
  template: `
    @for (layer of layers(); track layer.id) {
      <svg:path class="worn" [class.under]="layer.face === 'down'" [attr.d]="layer.path" />
      @if (layer.named) {
        <svg:text class="number" [attr.x]="layer.x" [attr.y]="layer.y" [attr.text-anchor]="layer.anchor">{{ layer.number }}</svg:text>
      }
    }
    @for (disc of discs(); track $index) {
      <svg:circle class="disc" [class.under]="disc.under" [attr.cx]="disc.x" [attr.cy]="disc.y" [attr.r]="disc.r" />
      <svg:text class="number" text-anchor="middle" [attr.x]="disc.x" [attr.y]="disc.y - disc.r - 3">{{ disc.number }}</svg:text>
    }
    @if (limit(); as path) {
      <svg:path class="limit" [attr.d]="path"><svg:title>As far as the envelope takes it</svg:title></svg:path>
    }
    @for (grip of grips(); track grip.placed.topper.id) {
      <svg:g class="topper" [class.under]="grip.placed.face === 'down'">
        <svg:title>{{ grip.says }}: drag it, or use the arrow keys</svg:title>
        @for (sheet of grip.sheets; track $index) {
          <svg:path class="sheet" [attr.d]="sheet" />
        }
        <svg:path class="outline" [attr.d]="grip.path" />
        @if (grip.image; as image) {
          <svg:clipPath [attr.id]="image.edge"><svg:path [attr.d]="grip.path" /></svg:clipPath>
          <svg:g [attr.clip-path]="'url(#' + image.edge + ')'">
            <svg:image width="1" height="1" preserveAspectRatio="none" [attr.href]="image.address" [attr.transform]="image.matrix" />
          </svg:g>
          <svg:path class="outline bare" [attr.d]="grip.path" />
        }
        @for (pad of grip.pads; track $index) {
          <svg:path class="pad" [attr.d]="pad" />
        }
        @for (glue of grip.glue; track $index) {
          <svg:path class="glue" [attr.d]="glue" />
        }
        @if (grip.letters) {
          <svg:path class="letters" [attr.d]="grip.letters" />
        }
        <svg:circle
          role="button"
          tabindex="0"
          r="12"
          [attr.cx]="grip.x"
          [attr.cy]="grip.y"
          [attr.aria-label]="grip.says + ': arrow keys move it'"
          (pointerdown)="grab($event, grip)"
          (pointermove)="drag($event)"
          (pointerup)="release()"
          (pointercancel)="release()"
          (keydown)="nudge($event, grip)"
          (focus)="moving.set(grip.placed.topper.id)"
          (blur)="moving.set(undefined)"
        />
        <svg:text class="number" text-anchor="middle" [attr.x]="grip.x" [attr.y]="grip.y + 4">{{ grip.placed.number }}</svg:text>
      </svg:g>
    }
  `,
  styles: `
    /* What lies on a panel: a washed sheet with a fine edge, on the back only the edge, dashed. */
    .worn {
      fill: var(--moss-wash);
      fill-opacity: 0.55;
      fill-rule: evenodd;
      stroke: var(--moss);
      stroke-width: 0.9;
      pointer-events: none;
    }
    .under .outline,
    .worn.under {
      fill: none;
      stroke-dasharray: 7 3 2 3;
    }
    .number {
      font-size: 0.72rem;
      font-weight: 600;
      fill: var(--moss);
      pointer-events: none;
    }
    .outline {
      fill: var(--chanterelle-wash, var(--moss-wash));
      fill-opacity: 0.75;
      stroke: var(--chanterelle);
      stroke-width: 1.6;
      pointer-events: none;
    }
    .outline.bare {
      fill: none;
    }
    image {
      pointer-events: none;
    }
    .sheet {
      fill: none;
      stroke: var(--chanterelle);
      stroke-width: 0.9;
      pointer-events: none;
    }
    .under .sheet {
      stroke-dasharray: 7 3 2 3;
    }
    .pad {
      fill: none;
      stroke: var(--ink-soft);
      stroke-width: 0.8;
      pointer-events: none;
    }
    .letters {
      fill: var(--ink);
      fill-rule: evenodd;
      pointer-events: none;
    }
    .under .letters {
      fill: var(--ink-soft);
      fill-opacity: 0.5;
    }
    .disc {
      fill: var(--ink-soft);
      fill-opacity: 0.35;
      stroke: var(--ink-soft);
      stroke-width: 1.2;
      pointer-events: none;
    }
    .disc.under {
      fill: none;
      stroke-dasharray: 4 3;
    }
    .limit {
      fill: none;
      stroke: var(--rust);
      stroke-width: 1.4;
      stroke-dasharray: 10 4;
      pointer-events: none;
    }
    .glue {
      fill: var(--chanterelle);
      fill-opacity: 0.28;
      fill-rule: evenodd;
      pointer-events: none;
    }
    .topper circle {
      fill: var(--sheet);
      fill-opacity: 0.6;
      stroke: var(--chanterelle);
      stroke-width: 2;
      cursor: grab;
      touch-action: none;
    }
    .topper circle:focus-visible {
      outline: none;
      stroke-width: 4;
    }
  `,
})
export class WornOnPiece {
  readonly evaluation = input.required<Evaluation>();
  readonly sheet = input.required<CutSheet>();
  readonly fit = input.required<Fit>();
  readonly changed = output<CardChange>();
  /** what a drag makes, in words; nothing once it is over */
  readonly says = output<string | undefined>();
  /** whether something is held: meanwhile the drawing stays where it is */
  readonly holding = output<boolean>();

  private readonly workshop = inject(WorkshopStore).workshop;
  /** the topper that is dragged or has the keyboard */
  protected readonly moving = signal<string | undefined>(undefined);
  private held: { placed: PlacedTopper; topper: HeldTopper; start: Point } | undefined;
  private drags = 0;

  private readonly onScreen = (area: Area, shift: Point): string =>
    [area.outer, ...area.holes]
      .filter((loop) => loop.length > 0)
      .map((loop) =>
        pathThrough(
          loop.map(([x, y]) => toScreen([x + shift[0], y + shift[1]], this.fit())),
          true,
        ),
      )
      .join('');

  protected readonly layers = computed(() => {
    const { piece } = this.sheet();
    return this.evaluation()
      .dressed.layers.filter(({ panel }) => panel.startsWith(`${piece.id}/`))
      .map(({ id, number, area, face, step }) => {
        const shift = shiftOnSheet(this.sheet(), area.outer);
        const box = boxOf(area.outer.map(([x, y]) => toScreen([x + shift[0], y + shift[1]], this.fit())));
        // Its number stands in a lower corner, of what lies on the back in the other one.
        const at = face === 'up' ? { x: box.minX + 5, anchor: 'start' } : { x: box.maxX - 5, anchor: 'end' };
        return { id, number, face, ...at, y: box.maxY - 5, named: step === 1, path: this.onScreen(area, shift) };
      });
  });

  protected readonly grips = computed((): Grip[] => {
    const { piece } = this.sheet();
    return this.evaluation()
      .dressed.toppers.filter(({ panel }) => panel.startsWith(`${piece.id}/`))
      .map((placed) => {
        const shift = shiftOnSheet(this.sheet(), this.panelOf(placed).outer);
        const [x, y] = toScreen([placed.at[0] + shift[0], placed.at[1] + shift[1]], this.fit());
        const says = `${placed.number}, ${placed.topper.name ?? placed.outlineName}, on the ${inSentence(placed.panelName)}`;
        const pads = placed.pads.map((pad) => this.onScreen({ outer: pad, holes: [] }, shift));
        const part = (placed.topper.glued || placed.topper.film) && placed.pads.length === 0 ? placed.glue : [];
        return {
          placed,
          path: this.onScreen(placed.area, shift),
          sheets: placed.under.map(({ area }) => this.onScreen(area, shift)),
          pads,
          ...this.pictureOf(placed, shift),
          glue: part.map((area) => this.onScreen(area, shift)),
          letters: this.onScreen({ outer: [], holes: placed.greeting?.onPanel ?? [] }, shift),
          x,
          y,
          says,
        };
      });
  });

  /** Discs of magnets that lie on this piece. */
  protected readonly discs = computed(() => {
    const { piece } = this.sheet();
    const { design, dressed } = this.evaluation();
    return dressed.magnets.flatMap(({ number, closure, first, second }) =>
      [first, second].flatMap((disc) => {
        if (!disc?.panel.startsWith(`${piece.id}/`)) return [];
        const shift = shiftOnSheet(this.sheet(), design.panels[design.linkage.bodyOf.get(disc.panel)!]!.area.outer);
        const [x, y] = toScreen([disc.at[0] + shift[0], disc.at[1] + shift[1]], this.fit());
        return [{ number, x, y, r: (closure.disc / 2) * this.fit().scale, under: disc.face === 'down' }];
      }),
    );
  });

  /** While a topper is moved: how far it may reach before the card misses its envelope. */
  protected readonly limit = computed(() => {
    const id = this.moving();
    const placed = this.evaluation().dressed.toppers.find(({ topper }) => topper.id === id);
    const outer = placed && envelopeLimit(this.evaluation(), placed.topper.id);
    return outer && this.onScreen({ outer, holes: [] }, shiftOnSheet(this.sheet(), this.panelOf(placed).outer));
  });

  /** How the picture of a topper lies on the screen; from behind only its edge is seen. */
  private pictureOf({ sheet, placement, face, topper }: PlacedTopper, shift: Point): Pick<Grip, 'image'> {
    const { image } = sheet.piece;
    const own = this.evaluation().design.card.images?.find(({ id }) => id === image?.of);
    if (!image || !own || face === 'down') return {};
    const at = (x: number, y: number): Point => {
      const [px, py] = place([x, y], placement);
      return toScreen([px + shift[0], py + shift[1]], this.fit());
    };
    const [lowLeft, [right], upLeft] = imageCorners(image);
    const [origin, across, down] = [at(...upLeft), at(right, upLeft[1]), at(...lowLeft)];
    const matrix = [across[0] - origin[0], across[1] - origin[1], down[0] - origin[0], down[1] - origin[1], ...origin];
    return { image: { edge: `edge-${topper.id}`, address: imageAddress(own), matrix: `matrix(${matrix.join(' ')})` } };
  }

  private panelOf({ panel }: PlacedTopper): Area {
    const { design } = this.evaluation();
    return design.panels[design.linkage.bodyOf.get(panel)!]!.area;
  }

  protected grab(event: PointerEvent, { placed }: Grip): void {
    event.stopPropagation();
    (event.target as Element).setPointerCapture(event.pointerId);
    this.drags++;
    this.held = { placed, topper: new HeldTopper(this.evaluation(), placed), start: [event.clientX, event.clientY] };
    this.holding.emit(true);
    this.moving.set(placed.topper.id);
  }

  protected drag(event: PointerEvent): void {
    if (!this.held) return;
    event.stopPropagation();
    const { start, topper, placed } = this.held;
    const { scale, turned } = this.fit();
    const sign = turned ? -1 : 1;
    const [x, y] = topper.from;
    const place = topper.ledTo([x + (sign * (event.clientX - start[0])) / scale, y - (sign * (event.clientY - start[1])) / scale]);
    this.says.emit(place.says);
    this.changed.emit(topperMoved(placed, place, this.workshop(), `drag-topper-${this.drags}`));
  }

  protected release(): void {
    if (!this.held) return;
    this.held = undefined;
    this.moving.set(undefined);
    this.says.emit(undefined);
    this.holding.emit(false);
  }

  /** Arrow keys go in ruler steps, as it lies on screen. */
  protected nudge(event: KeyboardEvent, { placed }: Grip): void {
    const way = ARROWS[event.key];
    if (!way) return;
    event.preventDefault();
    const sign = this.fit().turned ? -1 : 1;
    const step = rulerStep(this.evaluation().design.card.notation);
    const { across, along } = placed.topper;
    const to = (mm: number, direction: number): number => (direction === 0 ? mm : nextMark(mm, step, direction * sign));
    this.changed.emit(topperMoved(placed, { across: to(across, way[0]), along: to(along, way[1]) }, this.workshop()));
  }
}
