import {
  boxOf,
  evenBorder,
  rulerStep,
  sayLength,
  snapPlaces,
  withTopperChanged,
  type Evaluation,
  type PlacedTopper,
  type Point,
  type SnapPlace,
  type Workshop,
} from '@diptychon/core';
import type { CardChange } from './card-change';

/** So near to a place that draws it (mm) a topper that is dragged goes there. */
const SNAP = 1.5;

/** A place of a topper's middle on its panel, mm from the left and the lower end, and how it is said. */
export interface TopperPlace {
  across: number;
  along: number;
  says: string;
}

/** A topper while it is moved: where it goes, drawn to what it may line up with, else to the marks of the ruler. */
export class HeldTopper {
  readonly from: Point;
  private readonly size: Point;
  private readonly half: Point;
  private readonly places: ReturnType<typeof snapPlaces>;
  private readonly notation: Evaluation['design']['card']['notation'];

  constructor(
    evaluation: Evaluation,
    private readonly placed: PlacedTopper,
  ) {
    const { across, along, id } = placed.topper;
    const { design } = evaluation;
    const panel = boxOf(design.panels[design.linkage.bodyOf.get(placed.panel)!]!.area.outer);
    const own = boxOf(placed.area.outer);
    this.from = [across, along];
    this.size = [panel.maxX - panel.minX, panel.maxY - panel.minY];
    this.half = [(own.maxX - own.minX) / 2, (own.maxY - own.minY) / 2];
    this.places = snapPlaces(evaluation, id);
    this.notation = design.card.notation;
  }

  /** Where it goes that is led to a point. */
  ledTo([x, y]: Point): TopperPlace {
    const step = rulerStep(this.notation);
    const drawnTo = (mm: number, list: readonly SnapPlace[]): SnapPlace | undefined => list.find(({ at }) => Math.abs(mm - at) < SNAP);
    const up = drawnTo(y, this.places.along);
    const along = up?.at ?? Math.round(y / step) * step;
    const even = { at: evenBorder(this.size, this.half, x, along), says: 'as far from both edges' };
    const beside = drawnTo(x, [...this.places.across, even]);
    const across = beside?.at ?? Math.round(x / step) * step;
    return this.said(across, along, [beside?.says, up?.says]);
  }

  /** @param why it lies there, across and along, where it was drawn to a place */
  private said(across: number, along: number, why: readonly (string | undefined)[]): TopperPlace {
    const where = (mm: number, i: 0 | 1, words: string): string =>
      Math.abs(mm - this.size[i] / 2) < 1e-6
        ? `in the middle ${words}`
        : `${sayLength(mm, this.notation)} ${words}${why[i] ? `, ${why[i]}` : ''}`;
    return { across, along, says: `${this.placed.number}: ${where(across, 0, 'across')}, ${where(along, 1, 'up')}` };
  }
}

/** Moves a topper. @param typed the drag that it is part of: all of it is one step to undo */
export const topperMoved = (
  { number, topper: { id } }: PlacedTopper,
  { across, along }: Pick<TopperPlace, 'across' | 'along'>,
  workshop: Workshop,
  typed?: string,
): CardChange => ({
  what: `Place of ${number}`,
  apply: (card) => withTopperChanged(card, id, { across, along }, workshop),
  ...(typed && { typed }),
});
