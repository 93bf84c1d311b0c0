import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { extentOf, plainRectangle, readsOffRuler, type CutSheet, type Join, type Point, type StepPicture } from '@diptychon/core';
import { apart, spread } from '../drawings/flat-piece';
import { pathThrough, pieceOnScreen } from '../drawings/piece-on-screen';

const WIDTH = 700;
const HEIGHT = 460;
const MARGIN = 46;
/** Round labels are this far from each other. */
const LABEL = 36;

interface Line {
  id: string;
  a: Point;
  b: Point;
  fold: string;
  /** of the reading that makes it; only at its first stretch */
  order?: number;
  label: Point;
}

/** A flat piece as it lies for one step: the face that is up, the end at the fence, and only what counts now. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-step-drawing',
  template: `
    <svg [attr.viewBox]="'0 0 ' + width + ' ' + height" role="img" [attr.aria-label]="said()">
      <defs>
        <pattern id="step-hatch" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="9" class="hatch" />
        </pattern>
      </defs>
      <line class="fence" [attr.x1]="left() - 14" [attr.x2]="left() - 14" y1="24" [attr.y2]="height - 24" />
      @if (blank(); as path) {
        <path class="piece" [class.under]="picture().face === 'down'" [attr.d]="path" />
        <path class="later" [attr.d]="drawn().paper" />
      } @else {
        <path
          class="piece"
          [class.under]="picture().face === 'down'"
          [class.bold]="picture().cuts"
          [attr.d]="drawn().paper"
          fill-rule="evenodd"
        />
      }
      @for (slit of drawn().of('slit'); track slit.id) {
        <path class="slit" [class.bold]="picture().cuts" [attr.d]="slit.path" />
      }
      @if (letters(); as path) {
        <path class="letters" fill-rule="evenodd" [attr.d]="path" />
      }
      @for (zone of zones(); track zone.id) {
        <path class="zone" [attr.d]="zone.path" />
      }
      @for (layer of layers(); track layer.id) {
        <path class="layer" fill-rule="evenodd" [attr.d]="layer.path" />
        <text class="layer-number" [attr.x]="layer.at[0]" [attr.y]="layer.at[1]">{{ layer.number }}</text>
      }
      @for (mark of marks(); track mark.id) {
        <path class="mark" [attr.d]="mark.path" />
      }
      @for (line of labelled(); track $index) {
        <line class="score" [class]="line.fold" [attr.x1]="line.a[0]" [attr.y1]="line.a[1]" [attr.x2]="line.b[0]" [attr.y2]="line.b[1]" />
        @if (line.order) {
          <circle [attr.cx]="line.label[0]" [attr.cy]="line.label[1]" r="17" />
          <text [attr.x]="line.label[0]" [attr.y]="line.label[1] + 6">{{ line.order }}</text>
        }
      }
      @for (number of numbers(); track number.order) {
        <g class="cut-number">
          <line [attr.x1]="number.at[0]" [attr.y1]="number.at[1]" [attr.x2]="number.label[0]" [attr.y2]="number.label[1]" />
          <circle [attr.cx]="number.label[0]" [attr.cy]="number.label[1]" r="17" />
          <text [attr.x]="number.label[0]" [attr.y]="number.label[1] + 6">{{ number.order }}</text>
        </g>
      }
    </svg>
  `,
  styleUrl: './step-drawing.scss',
})
export class StepDrawing {
  readonly sheet = input.required<CutSheet>();
  readonly picture = input.required<Extract<StepPicture, { kind: 'flat' }>>();
  /** scores in the order of their readings, those of one reading together */
  readonly order = input<readonly (readonly string[])[]>([]);

  /** what is glued on it in this step, on the face that is shown */
  readonly laid = input<readonly Join[]>([]);

  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  private readonly scale = computed(() => Math.min((WIDTH - 2 * MARGIN) / this.sheet().width, (HEIGHT - 2 * MARGIN) / this.sheet().height));
  protected readonly left = computed(() => (WIDTH - this.sheet().width * this.scale()) / 2);

  /** Face over means turned like a page (x mirrored); turned end for end means half a turn. */
  private readonly place = computed(() => {
    const { width, height } = this.sheet();
    const { face, turned } = this.picture();
    const top = (HEIGHT - height * this.scale()) / 2;
    return ([x, y]: Point): Point => {
      let [u, v] = face === 'down' ? [width - x, y] : [x, y];
      if (turned) [u, v] = [width - u, height - v];
      return [this.left() + u * this.scale(), top + (height - v) * this.scale()];
    };
  });

  /** The blank as it was trimmed, while its outline is still to be cut. */
  protected readonly blank = computed(() => {
    if (!this.picture().blank) return undefined;
    const { width, height } = this.sheet();
    const corners: Point[] = [
      [0, 0],
      [width, 0],
      [width, height],
      [0, height],
    ];
    return pathThrough(corners.map(this.place()), true);
  });
  protected readonly drawn = computed(() => pieceOnScreen(this.sheet(), this.place()));
  /** Letters are on the upper face. */
  protected readonly letters = computed(() =>
    this.picture().face === 'down'
      ? ''
      : this.drawn()
          .of('lettering')
          .map(({ path }) => path)
          .join(''),
  );
  protected readonly zones = computed(() =>
    this.drawn()
      .of('glue', 'keep-clear', 'decorate')
      .filter((zone) => this.picture().zones.includes(zone.id)),
  );
  /** Layers where they come to lie, each with its number; those on one another have theirs side by side. */
  protected readonly layers = computed(() => {
    const { piece } = this.sheet();
    const onIt = this.laid().filter(
      ({ onto, number }) => onto.piece === piece.id && onto.face === this.picture().face && number !== undefined,
    );
    return onIt.map(({ id, number, onto }) => {
      const { minX, maxX, minY, maxY } = plainRectangle({ outer: onto.outline, holes: onto.holes });
      const above = this.laid().filter((other) => other.onto.piece === id);
      return {
        id,
        number: [number, ...above.map((other) => other.number)].join(', '),
        at: this.place()([(minX + maxX) / 2, (minY + maxY) / 2]),
        path: [onto.outline, ...onto.holes].map((loop) => pathThrough(loop.map(this.place()), true)).join(''),
      };
    });
  });
  protected readonly marks = computed(() =>
    this.picture().marks
      ? this.drawn()
          .of('pencil')
          .filter(({ face }) => face === this.picture().face)
      : [],
  );
  /** Numbers of cuts, each on its cut or, where another number is there, beside it with a line to it. */
  protected readonly numbers = computed(() => {
    const numbers = (this.picture().numbers ?? []).map(({ order, at }) => ({ order, at: this.place()(at) }));
    const labels = apart(
      numbers.map(({ at }) => at),
      LABEL,
      { width: WIDTH, height: HEIGHT },
    );
    return numbers.map((number, i) => ({ ...number, label: labels[i]! }));
  });
  protected readonly scores = computed((): Line[] =>
    this.folds()
      .filter(({ id }) => this.picture().scores.includes(id))
      .map(({ id, role, points }, i, all) => {
        const [a, b] = [points[0]!, points[1]!];
        const at = this.order().findIndex((ids) => ids.includes(id));
        const upper = a[1] < b[1] ? a : b;
        return {
          id,
          a,
          b,
          fold: role,
          ...(at >= 0 && all.findIndex((other) => other.id === id) === i && { order: at + 1 }),
          label: [upper[0], upper[1] - 24] as Point,
        };
      }),
  );
  /** Scores as they are made: on a blank as far as their readings say, on a piece that is cut out where there is paper. */
  private readonly folds = computed((): { id: string; role: string; points: readonly Point[] }[] => {
    if (!this.picture().blank) return this.drawn().of('mountain', 'valley');
    return this.sheet().scores.map((score) => {
      const { low, high } = extentOf(score, this.sheet());
      const [x] = score.from;
      const ends: Point[] = readsOffRuler(score)
        ? [
            [x, low],
            [x, high],
          ]
        : [score.from, score.to];
      return { id: score.id, role: score.fold, points: ends.map(this.place()) };
    });
  });
  /** The same with order numbers moved apart where they would cover each other. */
  protected readonly labelled = computed((): Line[] => {
    const sorted = [...this.scores()].sort((a, b) => a.label[0] - b.label[0]);
    const xs = spread(
      sorted.map((line) => line.label[0]),
      38,
    );
    return sorted.map((line, i) => ({ ...line, label: [xs[i]!, line.label[1]] as Point }));
  });
  protected readonly said = computed(() => {
    const { face, turned } = this.picture();
    return `${this.sheet().piece.name}, ${face === 'up' ? this.sheet().piece.faceUp : 'face over'}${turned ? ', turned end for end' : ''}`;
  });
}
