import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  dressedBy,
  dressedOtherwise,
  inSentence,
  layerStock,
  foldBetween,
  linedOver,
  MOST_BORDER,
  MOST_PAST,
  ownDressOf,
  sayLength,
  SIDES,
  withoutLayers,
  usualBorder,
  withPieceStock,
  type BareFace,
  type CardDocument,
  type DressedLayer,
  type Evaluation,
  type LayerRule,
  type OwnDress,
  type Side,
} from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { ChoiceRow } from '../fields/choice-row';
import { LengthRow, type GivenLength } from '../fields/length-row';
import { offeredChoices } from '../fields/offered-choices';
import { NumberText } from '../fields/number-text';
import type { Highlight } from '../parts/highlight';
import { BandList } from './band-list';
import { EnvelopeMaker } from './envelope-maker';
import { LayerCut } from './layer-cut';
import { MagnetList } from './magnet-list';
import { RibbonList } from './ribbon-list';
import { TopperList } from './topper-list';
import { WorkshopStore } from '../workshop/workshop-store';

/** A face that is seen, with what it wears or why it wears nothing. */
interface Face {
  key: string;
  panel: string;
  face: 'up' | 'down';
  title: string;
  /** the lowest first */
  layers: readonly DressedLayer[];
  bare?: BareFace['why'];
  own: OwnDress | undefined;
}

/** A neighbour of a face over a fold, and whether both layers are one piece. */
interface FoldTo {
  panel: string;
  name: string;
  isOne: boolean;
}

/** What can be set for the borders of one face: all round, or one side. */
type Edge = 'border' | Side;

const EDGES: readonly { edge: Edge; label: string }[] = [
  { edge: 'border', label: 'Border all round' },
  ...SIDES.map((side) => ({ edge: side, label: { left: 'Left', right: 'Right', bottom: 'Lower', top: 'Upper' }[side] })),
];

const WHY: Readonly<Record<BareFace['why'], string>> = {
  wished: 'left bare',
  clear: 'clear film: a layer would hide what is behind',
  raised: 'raised stock: its top is decorated, not layered',
  bends: 'it bends: a layer would stiffen it',
  tab: 'a tab, which is hidden or in the way',
  small: 'too little of it is free',
  borders: 'the borders leave nothing of it',
};

const MOMENTS = { closed: 'closed', half: 'half open', open: 'open' } as const;
const TOPS: Readonly<Record<Side, string>> = { left: 'left edge', right: 'right edge', bottom: 'lower edge', top: 'upper edge' };
const TWINS = {
  same: 'cut like',
  'half turn': 'half turn of',
  'mirror image': 'mirror image of',
  'mirror image, turned by half': 'mirror image, turned by half, of',
} as const;

/** What the panels of a card wear: one rule for all that are seen, and what differs from it. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-dressing-panel',
  imports: [BandList, ChoiceRow, EnvelopeMaker, LayerCut, LengthRow, MagnetList, NumberText, RibbonList, TopperList],
  templateUrl: './dressing-panel.html',
  styleUrl: './dressing-panel.scss',
})
export class DressingPanel {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input<Evaluation>();
  readonly changed = output<CardChange>();
  readonly light = output<Highlight | undefined>();

  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly rule = computed(() => this.card().dressing?.layers);
  protected readonly stepsOffered = [1, 2, 3].map((value) => ({ value, label: String(value) }));
  protected readonly edges = EDGES;
  protected readonly stocks = computed(() => offeredChoices('stocks', this.card(), this.workshop()));
  protected readonly papers = computed(() => [{ value: '', label: 'as all layers' }, ...this.stocks()]);
  protected readonly limits = { min: 0, max: MOST_BORDER };
  protected readonly edgeLimits = { min: -MOST_PAST, max: MOST_BORDER };

  protected readonly faces = computed((): Face[] => {
    const known = this.evaluation();
    if (!known) return [];
    const { layers, bare } = known.dressed;
    const card = this.card();
    const faces: Face[] = [];
    for (const layer of layers) {
      const key = `${layer.panel} ${layer.face}`;
      const face = faces.find((other) => other.key === key);
      if (face) face.layers = [...face.layers, layer];
      else
        faces.push({
          key,
          panel: layer.panel,
          face: layer.face,
          title: titleOf(layer.panelName, layer.face),
          layers: [layer],
          own: ownDressOf(card, layer),
        });
    }
    return [
      ...faces,
      ...bare.map(({ panel, name, face, why }) => ({
        ...{ key: `${panel} ${face}`, panel, face, title: titleOf(name, face), layers: [], bare: why },
        own: ownDressOf(card, { panel, face }),
      })),
    ];
  });
  protected readonly dressed = computed(() => this.faces().filter(({ layers }) => layers.length > 0));
  protected readonly bare = computed(() => this.faces().filter(({ layers }) => layers.length === 0));
  /** in a few words, for the folded-away panel */
  protected readonly sum = computed(() => {
    const layers = this.rule() ? (this.evaluation()?.dressed.layers.length ?? 0) : 0;
    const toppers = this.card().dressing?.toppers?.length ?? 0;
    const counted = (n: number, one: string): string[] => (n === 0 ? [] : [`${n} ${one}${n === 1 ? '' : 's'}`]);
    const closures = this.card().dressing?.closures?.length ?? 0;
    const envelope = this.card().dressing?.envelope ? ['an envelope'] : [];
    return (
      [...counted(layers, 'layer'), ...counted(toppers, 'topper'), ...counted(closures, 'closure'), ...envelope].join(', ') || 'nothing yet'
    );
  });
  /** how the piece of the chosen face lies when its sides are told */
  protected readonly lying = computed(() => {
    const panel = this.chosen()?.split(' ')[0];
    return this.evaluation()?.design.panels.find(({ id }) => id === panel)?.piece.faceUp;
  });

  protected toggle({ key, panel }: Face): void {
    const opens = this.chosen() !== key;
    this.chosen.set(opens ? key : undefined);
    this.show(opens ? panel : undefined);
  }

  /** Lights a panel up wherever it is drawn. */
  protected show(panel: string | undefined): void {
    this.light.emit(panel === undefined ? undefined : { panels: [panel], creases: [] });
  }

  protected dress(): void {
    const workshop = this.workshop();
    this.changed.emit({ what: 'Dress the whole card', apply: (card) => dressedBy(card, {}, workshop) });
  }

  protected undress(): void {
    this.chosen.set(undefined);
    this.show(undefined);
    this.changed.emit({ what: 'Take all layers off', apply: withoutLayers });
  }

  protected setRule(what: string, change: Partial<LayerRule>, typed?: string): void {
    const workshop = this.workshop();
    this.changed.emit({ what, apply: (card) => dressedBy(card, change, workshop), ...(typed && { typed }) });
  }

  protected setSteps(steps: number): void {
    this.setRule('Layers on one another', { steps: steps as LayerRule['steps'] });
  }

  protected setOwn({ panel, face, title }: Face, change: Partial<OwnDress>, typed?: string): void {
    const workshop = this.workshop();
    this.changed.emit({
      what: `What the ${inSentence(title)} wears`,
      apply: (card) => {
        const { panel: _, face: __, ...own } = ownDressOf(card, { panel, face }) ?? { panel, face };
        return dressedOtherwise(card, { panel, face }, { ...own, ...change }, workshop);
      },
      ...(typed && { typed }),
    });
  }

  protected setEdge(face: Face, edge: Edge, { mm, typed }: Partial<GivenLength>): void {
    this.setOwn(face, { [edge]: mm }, typed);
  }

  /** Neighbours over a fold with whose layers its own may be one piece. */
  protected foldsOf({ panel, face }: Face): FoldTo[] {
    const known = this.evaluation();
    if (!known) return [];
    const lined = this.rule()?.overFolds ?? [];
    return this.dressed()
      .filter((other) => other.face === face && other.panel !== panel && foldBetween(known.design, [panel, other.panel]))
      .map((other) => ({
        panel: other.panel,
        name: inSentence(other.title),
        isOne: lined.some((fold) => fold.face === face && fold.panels.includes(panel) && fold.panels.includes(other.panel)),
      }));
  }

  protected setOnePiece({ panel, face, title }: Face, { panel: other, name }: FoldTo, isOne: boolean): void {
    this.changed.emit({
      what: `${title} and ${name}: ${isOne ? 'in one piece' : 'apart'}`,
      apply: (card) => linedOver(card, { face, panels: [panel, other] }, isOne),
    });
  }

  /** Borders as the rule has them again. */
  protected forgetBorders(face: Face): void {
    this.setOwn(face, { border: undefined, left: undefined, right: undefined, bottom: undefined, top: undefined });
  }

  protected setPaper({ number, id }: DressedLayer, stock: string): void {
    const workshop = this.workshop();
    this.changed.emit({ what: `Paper of ${number}`, apply: (card) => withPieceStock(card, id, stock || undefined, workshop) });
  }

  protected ownPaper({ id }: DressedLayer): string {
    return this.card().pieceStocks?.[id] ?? '';
  }

  /** The border as it is on that side: what the face says of it, or of all its sides, or the rule. */
  protected borderOf({ own, layers }: Face, edge: Edge): number {
    const said = own?.[edge] ?? (edge === 'border' ? undefined : own?.border);
    if (said !== undefined) return said;
    const border = this.rule()!.border;
    // Along a seam and on a covered strip the rule gives none.
    const first = layers[0];
    const isNone = edge !== 'border' && first !== undefined && (first.covers || (first.seams > 0 && first.borders[edge] < 1e-3));
    return isNone ? 0 : border;
  }

  protected isOwn({ own }: Face, edge: Edge): boolean {
    return own?.[edge] !== undefined;
  }

  protected stepOf(): number {
    return this.rule()!.step ?? this.rule()!.border;
  }

  protected usually(): string {
    return `${sayLength(usualBorder(this.card()), this.card().notation)} smaller on each side, from ${this.paperName()}`;
  }

  private paperName(): string {
    const id = layerStock(this.card(), this.workshop());
    return inSentence(this.stocks().find(({ value }) => value === id)?.label ?? id);
  }

  protected idOf({ key }: Face): string {
    return `worn-${key.replace(/[^a-z0-9]+/gi, '-')}`;
  }

  protected sizes({ box, panelBox }: DressedLayer): { what: string; width: number; height: number }[] {
    return [
      { what: 'layer', ...box },
      { what: 'panel', ...panelBox },
    ];
  }

  protected seen({ shows }: DressedLayer): string {
    return shows.map((moment) => MOMENTS[moment]).join(', ');
  }

  protected up({ upWhenOpen }: DressedLayer): string {
    return TOPS[upWhenOpen];
  }

  protected twin({ twin }: DressedLayer): string | undefined {
    const of = twin && this.evaluation()?.dressed.layers.find(({ id }) => id === twin.of)?.number;
    return of && `${TWINS[twin.by]} ${of}`;
  }

  /** Of a layer in one piece with others how large that is, and what its folds take. */
  protected onePiece({ liner, sheet }: DressedLayer): string | undefined {
    if (!liner) return undefined;
    const say = (mm: number): string => sayLength(Math.round(mm * 10) / 10, this.card().notation);
    const folds = liner.folds.map(
      ({ name, shorter }) => `${say(Math.abs(shorter))} ${shorter < 0 ? 'longer' : 'shorter'} over the ${inSentence(name)}`,
    );
    return `In one piece of ${say(sheet.width)} × ${say(sheet.height)}, ${folds.join(', ')} than its panels.`;
  }

  protected why({ bare }: Face): string {
    return WHY[bare!];
  }
}

const titleOf = (name: string, face: 'up' | 'down'): string =>
  `${name[0]!.toUpperCase()}${name.slice(1)}${face === 'down' ? ', its back' : ''}`;
