import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { layersAt, sayInWords, sayLength, type Evaluation, type Point, type ThicknessMap } from '@diptychon/core';
import { Evaluator } from '../evaluation/evaluator';

/** Paper, chanterelle, bark: thin to thick. One hue that darkens, so that it reads in grey as well. */
const RAMP: readonly (readonly [number, number, number])[] = [
  [250, 243, 226],
  [240, 199, 112],
  [178, 101, 22],
  [74, 38, 14],
];
const STEPS = 5;
const PROBE_STEP = 0.02;

/** The closed card seen from above, coloured by how thick it is; a probe tells what lies at one place. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-thickness-view',
  template: `
    <div class="map" [style.aspect-ratio]="map().columns + ' / ' + map().rows" [style.--shape]="map().columns / map().rows">
      <canvas #canvas aria-hidden="true"></canvas>
      <svg aria-hidden="true" preserveAspectRatio="none" [attr.viewBox]="box()">
        @for (outline of outlines(); track $index) {
          <path [attr.d]="outline" />
        }
      </svg>
      <button
        type="button"
        class="field"
        aria-label="Place to look at; arrow keys move it"
        [attr.aria-describedby]="'thickness-here'"
        (click)="point($event)"
        (keydown)="move($event)"
      >
        <span class="probe" [style.left.%]="probe()[0] * 100" [style.bottom.%]="probe()[1] * 100"></span>
      </button>
    </div>
    <div class="told" tabindex="0" role="region" aria-label="What lies there">
      <p id="thickness-here" aria-live="polite">
        <strong class="numerals">{{ here().thickness }}</strong> {{ here().where }}
      </p>
      <ol>
        @for (layer of here().layers; track $index) {
          <li>{{ layer }}</li>
        } @empty {
          <li>Nothing lies here.</li>
        }
      </ol>
      <div class="scale" role="img" [attr.aria-label]="'From nothing to ' + mm(map().most)">
        @for (tick of ticks(); track tick) {
          <span class="numerals"><i [style.background]="colour(tick / map().most)"></i>{{ mm(tick) }}</span>
        }
      </div>
      <p class="hint">Tap the card, or use the arrow keys. Top layer first.</p>
    </div>
  `,
  styleUrl: './thickness-view.scss',
})
export class ThicknessView {
  readonly evaluation = input.required<Evaluation>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly mm = (thickness: number): string => sayInWords(thickness, this.evaluation().design.card.notation);
  private readonly evaluator = inject(Evaluator);
  /** the map that was last worked out, or an empty one of this card's size until then */
  private readonly known = signal<ThicknessMap | undefined>(undefined);
  protected readonly map = computed((): ThicknessMap => this.known() ?? emptyMap(this.evaluation().closed.box));
  /** across and up, as shares of the closed card; it begins at the thickest place */
  protected readonly probe = linkedSignal((): Point => {
    const { closed } = this.evaluation();
    const { minX, maxX, minY, maxY } = closed.box;
    const [x, y] = closed.thickest.at;
    return [(x - minX) / (maxX - minX), (y - minY) / (maxY - minY)];
  });

  protected readonly box = computed(() => {
    const { minX, minY, maxX, maxY } = this.map().box;
    return `${minX} ${-maxY} ${maxX - minX} ${maxY - minY}`;
  });
  protected readonly outlines = computed(() =>
    this.evaluation().closed.pile.map(({ area }) =>
      [area.outer, ...area.holes].map((loop) => `M${loop.map(([x, y]) => `${x.toFixed(2)} ${(-y).toFixed(2)}`).join('L')}Z`).join(''),
    ),
  );
  protected readonly ticks = computed(() => Array.from({ length: STEPS }, (_, i) => (this.map().most * (i + 1)) / STEPS));

  protected readonly here = computed(() => {
    const { design, closed } = this.evaluation();
    const { minX, maxX, minY, maxY } = closed.box;
    const [u, v] = this.probe();
    const at: Point = [minX + u * (maxX - minX), minY + v * (maxY - minY)];
    const { thickness, layers } = layersAt(design, closed.pile, at);
    const { notation } = design.card;
    const sides = { fold: 'the fold', lower: 'the lower end', ...design.base.sides };
    return {
      thickness: this.mm(thickness),
      where: `thick, ${sayLength(Math.round(at[0] - minX), notation)} from ${sides.fold}, ${sayLength(Math.round(at[1] - minY), notation)} from ${sides.lower}`,
      layers: layers.map(({ name, thickness: own }) => `${name}, ${this.mm(own)}`).reverse(),
    };
  });

  constructor() {
    effect(() => this.paint());
    effect(() => {
      const { card } = this.evaluation().design;
      void this.evaluator.thickness(card, CELL).then((map) => {
        if (map && this.evaluation().design.card === card) this.known.set(map);
      });
    });
  }

  protected point(event: MouseEvent): void {
    const field = event.currentTarget as HTMLElement;
    const { left, bottom, width, height } = field.getBoundingClientRect();
    // A click without a place comes from the keyboard.
    if (event.detail === 0) return;
    this.probe.set([inside((event.clientX - left) / width), inside((bottom - event.clientY) / height)]);
  }

  protected move(event: KeyboardEvent): void {
    const steps: Partial<Record<string, Point>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    this.probe.update(([u, v]) => [inside(u + step[0] * PROBE_STEP), inside(v + step[1] * PROBE_STEP)]);
  }

  protected colour(share: number): string {
    return `rgb(${rampAt(share).join(' ')})`;
  }

  private paint(): void {
    const { columns, rows, values, most } = this.map();
    const canvas = this.canvas().nativeElement;
    canvas.width = columns;
    canvas.height = rows;
    const context = canvas.getContext('2d');
    if (!context) return;
    const picture = context.createImageData(columns, rows);
    values.forEach((value, i) => {
      const [row, column] = [Math.floor(i / columns), i % columns];
      // Rows of the map go up, those of a picture down.
      const pixel = 4 * ((rows - 1 - row) * columns + column);
      picture.data.set([...rampAt(value / most), value > 0 ? 255 : 0], pixel);
    });
    context.putImageData(picture, 0, 0);
  }
}

/** Width of a square of the map, mm. */
const CELL = 1;

function emptyMap(box: ThicknessMap['box']): ThicknessMap {
  const [columns, rows] = [Math.max(1, Math.ceil(box.maxX - box.minX)), Math.max(1, Math.ceil(box.maxY - box.minY))];
  return { box, columns, rows, cell: CELL, values: new Float64Array(columns * rows), most: 1 };
}

const inside = (share: number): number => Math.min(0.999, Math.max(0.001, share));

/** A colour of the ramp, 0 thin to 1 thick. */
export function rampAt(share: number): [number, number, number] {
  const place = Math.min(0.9999, Math.max(0, share)) * (RAMP.length - 1);
  const i = Math.floor(place);
  const mix = (k: 0 | 1 | 2): number => Math.round(RAMP[i]![k] + (RAMP[i + 1]![k] - RAMP[i]![k]) * (place - i));
  return [mix(0), mix(1), mix(2)];
}
