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
  viewChild,
} from '@angular/core';
import {
  frameBetween,
  printAngle,
  readTracked,
  sayLength,
  type BentRow,
  type Evaluation,
  type PlacedTopper,
  type StepMotion,
} from '@diptychon/core';
import { WorkshopStore } from '../workshop/workshop-store';
import type { CardChange } from './card-change';
import { HeldTopper, topperMoved } from './held-topper';
import type { SceneDrag } from './scene-drag';
import { summarise } from './verdict-list';
import type { PaperScene, Partly, ViewName } from './paper-scene';

/** What the drawing is told, each after what it stands on. */
const TOLD = ['card', 'part', 'pose', 'light'] as const;

/** The card in the round. The drawing code loads only when this is on screen. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-standing-view',
  template: `
    <div #stage class="picture"></div>
    @if (state() === 'loading') {
      <p class="over">Setting the card up…</p>
    }
    @if (state() === 'failed') {
      <p class="over">This browser cannot draw the card in 3D. Everything else works: sizes, flat pieces and verdicts are beside this.</p>
    }
    <div class="views" role="group" aria-label="Look from">
      @for (view of views; track view.name) {
        <button type="button" (click)="look(view.name)">{{ view.label }}</button>
      }
    </div>
    @if (!moves()) {
      <p class="pose">{{ says() ?? pose() }}</p>
    }
  `,
  styleUrl: './standing-view.scss',
})
export class StandingView implements OnDestroy {
  readonly evaluation = input.required<Evaluation>();
  readonly s = input.required<number>();
  readonly highlight = input<readonly string[]>([]);
  /** said in place of the verdict, where this is not the card as it is now */
  readonly instead = input<string>();

  /** of a step of making: what of it is seen, and how far between the states before and after it */
  readonly moves = input<StepMotion>();
  readonly share = input(1);

  /** how its bending panels lie, once that is known */
  readonly bent = input<readonly BentRow[]>();
  /** whether it was last moved toward closed */
  readonly closing = input(false);

  /** whether toppers may be dragged on it */
  readonly dressing = input(false);
  readonly changed = output<CardChange>();

  private readonly workshop = inject(WorkshopStore).workshop;
  /** what a drag makes, in words; nothing once it is over */
  protected readonly says = signal<string | undefined>(undefined);
  private drags = 0;

  private readonly place = viewChild.required<ElementRef<HTMLElement>>('stage');
  private readonly scene = signal<PaperScene | undefined>(undefined);
  protected readonly state = signal<'loading' | 'ready' | 'failed'>('loading');
  private destroyed = false;
  private readonly untold = new Map<(typeof TOLD)[number], (scene: PaperScene) => void>();
  private readonly watch = new ResizeObserver(() => this.scene()?.resize(this.stage.clientWidth, this.stage.clientHeight));
  private readonly themeWatch = new MutationObserver(() => this.scene()?.repaint());

  protected readonly views: { name: ViewName; label: string }[] = [
    { name: 'stand', label: 'Front' },
    { name: 'side', label: 'Side' },
    { name: 'above', label: 'Above' },
  ];

  /** the point of the drive that it is opened to */
  private readonly stands = computed(() => this.moves()?.drive?.(this.share()) ?? (this.moves() ? 1 : this.s()));
  private readonly partly = computed<Partly | undefined>(() => {
    const moves = this.moves();
    if (!moves) return undefined;
    const { panels, stands, poses, drive, wears } = moves;
    return { panels, stands, wears, ...(poses ? { start: poses(0) } : { at: Math.max(drive!(0), drive!(1)) }) };
  });

  /** The pose and verdict in words, for who cannot see the drawing. */
  protected readonly pose = computed(() => {
    const known = this.evaluation();
    const { notation } = known.design.card;
    const frame = frameBetween(known.motion, this.stands());
    const readings = known.design.tracked.map((tracked) => {
      const value = readTracked(known, tracked, frame);
      return `${tracked.label.toLowerCase()} ${tracked.kind === 'angle' ? printAngle(value, notation) : sayLength(value, notation)}`;
    });
    return `Open ${printAngle(frame.opening, notation)}${readings.length ? `: ${readings.join(', ')}` : ''}. ${this.instead() ?? summarise(known.findings)}`;
  });

  constructor() {
    afterNextRender(() => void this.start());
    effect(() => {
      const evaluation = this.evaluation();
      this.tell('card', (scene) => scene.build(evaluation));
    });
    effect(() => {
      this.evaluation();
      const partly = this.partly();
      this.tell('part', (scene) => scene.only(partly));
    });
    effect(() => {
      this.evaluation();
      const [bent, closing, moves, share, stands] = [this.bent(), this.closing(), this.moves(), this.share(), this.stands()];
      this.tell('pose', (scene) => {
        scene.bend(bent, closing);
        if (moves?.poses) scene.pose(1, moves.poses(share));
        else scene.pose(stands);
      });
    });
    effect(() => {
      this.evaluation();
      const highlight = this.highlight();
      this.tell('light', (scene) => scene.highlight(highlight));
    });
  }

  /**
   * Words and numbers come first: what the drawing is told waits until they are in place, and is drawn right after them. Of one
   * kind only the last is told.
   */
  private tell(what: (typeof TOLD)[number], work: (scene: PaperScene) => void): void {
    if (!this.scene()) return;
    if (this.untold.size === 0) setTimeout(() => this.tellAll());
    this.untold.set(what, work);
  }

  private tellAll(): void {
    const scene = this.scene();
    if (scene) for (const what of TOLD) this.untold.get(what)?.(scene);
    this.untold.clear();
  }

  /** A topper follows the hand over its panel, as on the flat piece. */
  private dragOf(): SceneDrag {
    let held: { placed: PlacedTopper; topper: HeldTopper } | undefined;
    return {
      taken: (id) => {
        const placed = this.evaluation().dressed.toppers.find(({ topper }) => topper.id === id);
        held = placed && { placed, topper: new HeldTopper(this.evaluation(), placed) };
        this.drags++;
        return held !== undefined;
      },
      moved: ([x, y]) => {
        if (!held) return;
        const { from } = held.topper;
        const place = held.topper.ledTo([from[0] + x, from[1] + y]);
        this.says.set(place.says);
        this.changed.emit(topperMoved(held.placed, place, this.workshop(), `drag-standing-topper-${this.drags}`));
      },
      let: () => {
        held = undefined;
        this.says.set(undefined);
      },
    };
  }

  ngOnDestroy(): void {
    this.watch.disconnect();
    this.themeWatch.disconnect();
    this.scene()?.leave(this.stage);
    this.scene.set(undefined);
    this.destroyed = true;
  }

  private get stage(): HTMLElement {
    return this.place().nativeElement;
  }

  protected look(view: ViewName): void {
    this.scene()?.look(view);
  }

  private async start(): Promise<void> {
    try {
      const { sharedScene } = await import('./paper-scene');
      if (this.destroyed) return;
      const scene = sharedScene();
      scene.moveTo(this.stage);
      scene.resize(this.stage.clientWidth, this.stage.clientHeight);
      this.watch.observe(this.stage);
      this.themeWatch.observe(document.documentElement, { attributeFilter: ['class'] });
      scene.dragged(this.dressing() ? this.dragOf() : undefined);
      this.scene.set(scene);
      this.state.set('ready');
    } catch {
      this.state.set('failed');
    }
  }
}
