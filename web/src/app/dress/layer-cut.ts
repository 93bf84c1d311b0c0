import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  COVER_WIDTH,
  JOINT_PLACE,
  MOST_BORDER,
  STRIP_WIDTH,
  type CardDocument,
  type LayerJoint,
  type LayerRule,
  type LayerStrips,
  type OwnDress,
} from '@diptychon/core';
import { ChoiceRow } from '../fields/choice-row';
import { LengthRow } from '../fields/length-row';

/** What is changed of a face, and the field that it is typed into where that is not left yet. */
export interface FaceChange {
  change: Partial<OwnDress>;
  typed?: string | undefined;
}

/** A strip is so many borders wide where nothing says how wide. */
const USUAL_STRIP = 4;
/** Of a panel’s width, or its height. */
const USUAL_JOINT = 1 / 3;
const USUAL_COVER = 10;

/** What a layer is cut from: one piece, four strips, or two papers that meet; and how many lie on one another. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-layer-cut',
  imports: [ChoiceRow, LengthRow],
  template: `
    <dip-choice-row
      class="row choice"
      [fieldId]="fieldId() + '-cut'"
      label="Cut"
      [spoken]="'How it is cut, ' + title()"
      [options]="cuts"
      [value]="cut()"
      (chosen)="setCut($event)"
    />
    @if (own()?.strips; as strips) {
      <dip-length-row
        [fieldId]="fieldId() + '-gap'"
        label="Gap between strips"
        [value]="strips.gap"
        [notation]="card().notation"
        [limits]="gaps"
        (given)="setStrips({ gap: $event.mm }, $event.typed)"
      />
      <dip-length-row
        [fieldId]="fieldId() + '-wide'"
        label="Width, without a window"
        [value]="strips.wide ?? usualStrip()"
        [notation]="card().notation"
        [limits]="widths"
        (given)="setStrips({ wide: $event.mm }, $event.typed)"
      />
    } @else {
      @if (own()?.joint; as joint) {
        <dip-length-row
          [fieldId]="fieldId() + '-joint'"
          [label]="joint.runs === 'across' ? 'Line from the lower edge' : 'Line from the left edge'"
          [value]="joint.at"
          [notation]="card().notation"
          [limits]="places"
          (given)="setJoint({ at: $event.mm }, $event.typed)"
        />
        <dip-choice-row
          class="row choice"
          [fieldId]="fieldId() + '-joint-paper'"
          [label]="joint.runs === 'across' ? 'The upper paper' : 'The right paper'"
          [options]="papers()"
          [value]="joint.stock"
          (chosen)="setJoint({ stock: $event })"
        />
        <dip-choice-row
          class="row choice"
          [fieldId]="fieldId() + '-cover'"
          label="Over the line"
          [options]="covers()"
          [value]="joint.cover?.stock ?? ''"
          (chosen)="setCover({ stock: $event })"
        />
        @if (joint.cover; as cover) {
          <dip-length-row
            [fieldId]="fieldId() + '-cover-wide'"
            label="Width of the strip"
            [value]="cover.wide"
            [notation]="card().notation"
            [limits]="coverWidths"
            (given)="setCover({ wide: $event.mm }, $event.typed)"
          />
        }
      }
      <dip-choice-row
        class="row"
        [fieldId]="fieldId() + '-steps'"
        label="On one another"
        [spoken]="'Layers on one another, ' + title()"
        [options]="steps"
        [value]="own()?.steps ?? rule().steps"
        (chosen)="changed.emit({ change: { steps: $any($event) } })"
      />
    }
  `,
  styleUrl: './dressing-panel.scss',
})
export class LayerCut {
  readonly fieldId = input.required<string>();
  readonly title = input.required<string>();
  readonly card = input.required<CardDocument>();
  readonly rule = input.required<LayerRule>();
  readonly own = input<OwnDress>();
  readonly panelBox = input.required<{ width: number; height: number }>();
  readonly papers = input.required<readonly { value: string; label: string }[]>();
  readonly changed = output<FaceChange>();

  protected readonly cuts = [
    { value: 'whole', label: 'in one piece' },
    { value: 'strips across', label: 'four strips, corners across' },
    { value: 'strips along', label: 'four strips, corners up and down' },
    { value: 'joint across', label: 'two papers, one above the other' },
    { value: 'joint along', label: 'two papers, side by side' },
  ];
  protected readonly steps = [1, 2, 3].map((value) => ({ value, label: String(value) }));
  protected readonly gaps = { min: 0, max: MOST_BORDER };
  protected readonly widths = STRIP_WIDTH;
  protected readonly places = JOINT_PLACE;
  protected readonly coverWidths = COVER_WIDTH;
  protected readonly covers = computed(() => [
    { value: '', label: 'nothing' },
    ...this.papers().map(({ value, label }) => ({ value, label: `a strip of ${label.charAt(0).toLowerCase()}${label.slice(1)}` })),
  ]);
  protected readonly cut = computed(() => {
    const { strips, joint } = this.own() ?? {};
    return strips ? `strips ${strips.corners}` : joint ? `joint ${joint.runs}` : 'whole';
  });

  protected usualStrip(): number {
    return Math.max(STRIP_WIDTH.min, USUAL_STRIP * this.rule().border);
  }

  protected setCut(cut: string): void {
    const [kind, way] = cut.split(' ');
    // Strips begin with the border of the layers between them, two papers where a third of the panel is one of them.
    const strips = kind === 'strips' ? this.stripsNow({ corners: way as LayerStrips['corners'] }) : undefined;
    const joint = kind === 'joint' ? this.jointNow(way as LayerJoint['runs']) : undefined;
    this.changed.emit({ change: { strips, joint } });
  }

  protected setStrips(change: Partial<LayerStrips>, typed?: string): void {
    this.changed.emit({ change: { strips: this.stripsNow(change) }, typed });
  }

  protected setJoint(change: Partial<LayerJoint>, typed?: string): void {
    this.changed.emit({ change: { joint: { ...this.own()!.joint!, ...change } }, typed });
  }

  protected setCover({ stock, wide }: { stock?: string; wide?: number }, typed?: string): void {
    const { cover, ...joint } = this.own()!.joint!;
    if (stock === '') return this.changed.emit({ change: { joint } });
    const next = { wide: wide ?? cover?.wide ?? USUAL_COVER, stock: stock ?? cover!.stock };
    this.changed.emit({ change: { joint: { ...joint, cover: next } }, typed });
  }

  private stripsNow(change: Partial<LayerStrips>): LayerStrips {
    return { corners: 'across', gap: this.rule().border, wide: this.usualStrip(), ...this.own()?.strips, ...change };
  }

  private jointNow(runs: LayerJoint['runs']): LayerJoint {
    const { width, height } = this.panelBox();
    const at = Math.max(JOINT_PLACE.min, Math.round((runs === 'across' ? height : width) * USUAL_JOINT));
    const other = this.papers().find(({ value }) => value !== this.rule().stock)?.value ?? this.rule().stock;
    return { stock: other, ...this.own()?.joint, runs, at };
  }
}
