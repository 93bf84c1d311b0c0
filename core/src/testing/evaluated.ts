import { draw } from '../card/draw.js';
import { newCard, ROOT, withOwnSupplies, type CardDocument, type CardPart } from '../card/document.js';
import { join, type Design } from '../card/join.js';
import type { CheckInput, Finding } from '../check/finding.js';
import { closeUp, evaluate, inspect, move, readTracked, type Evaluation } from '../evaluate.js';
import { poseOf, type Frame } from '../linkage/motion.js';
import { carry, type Vec3 } from '../linkage/rigid.js';
import { boxOf, type Box } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { Sizes } from '../mechanism/sizes.js';
import type { Board } from '../supplies/boards.js';
import type { Envelope } from '../supplies/envelopes.js';
import { INCH_WORKSHOP, METRIC_WORKSHOP, starterFor } from '../supplies/starter-workshops.js';
import type { Stock } from '../supplies/stocks.js';
import { withOffers } from '../trial/offers.js';

type Given = Partial<Omit<CardDocument, 'stocks' | 'parts'>> & { stocks?: Partial<CardDocument['stocks']> };

/** A card on a base with some sizes, the rest at their defaults. */
export function cardOn(mechanism: string, sizes: Sizes = {}, given: Given = {}): CardDocument {
  return newCard({ id: mechanism, name: mechanism, base: { mechanism, sizes: sizes as CardPart['sizes'] }, ...given });
}

/** A movement on a fold of a folded card, called `figure`. */
export function cardWith(mechanism: string, sizes: Sizes = {}, base: Sizes = {}, given: Given = {}): CardDocument {
  const figure = { id: 'figure', mechanism, on: { part: ROOT, site: 'main-fold' }, sizes: sizes as CardPart['sizes'] };
  const plain = { mechanism: 'folded-card', sizes: base as CardPart['sizes'] };
  return newCard({ id: 'card', name: 'card', base: plain, movements: [figure], ...given });
}

/** A card changed in what supplies it names, carrying copies of those. */
export const having = (card: CardDocument, given: Partial<CardDocument>): CardDocument => withOwnSupplies({ ...card, ...given });

/** A card with the base's sizes put in place of what they were. */
export const baseSizes = (card: CardDocument, sizes: Sizes): CardDocument => ({
  ...card,
  parts: card.parts.map((part) => (part.id === ROOT ? { ...part, sizes: sizes as CardPart['sizes'] } : part)),
});

const inStarters = <T extends { id: string }>(id: string, lists: readonly (readonly T[])[]): T =>
  lists.flat().find((entry) => entry.id === id)!;
export const stockById = (id: string): Stock => inStarters(id, [METRIC_WORKSHOP.stocks]);
export const boardById = (id: string): Board => inStarters(id, [METRIC_WORKSHOP.boards, INCH_WORKSHOP.boards]);
export const envelopeById = (id: string): Envelope => inStarters(id, [METRIC_WORKSHOP.envelopes, INCH_WORKSHOP.envelopes]);

/** @throws Error when the card is refused */
export function designOf(card: CardDocument): Design {
  const drawn = draw(card);
  if (!drawn.ok) throw new Error(drawn.problems.map((p) => p.says).join(' '));
  const joined = join(drawn.drawing);
  if (!joined.ok) throw new Error(joined.problems.map((p) => p.says).join(' '));
  return joined.design;
}

/** What every check reads, for a test that changes some of it. */
export const checkInputOf = (card: CardDocument): CheckInput => inspect(closeUp(move(designOf(card))), starterFor(card.notation));

export function evaluated(card: CardDocument): Evaluation {
  const outcome = evaluate(card);
  if (!outcome.ok) throw new Error(outcome.problems.map((p) => p.says).join(' '));
  return outcome.evaluation;
}

/** What is said against a card's sizes; empty when they are allowed. */
export function refused(card: CardDocument): string {
  const outcome = evaluate(card);
  return outcome.ok ? '' : outcome.problems.map((p) => p.says).join(' ');
}

export function measure(evaluation: Evaluation, name: string): number {
  const found = evaluation.measures.find((m) => m.name === name);
  if (!found) throw new Error(`no measure ${name}; there are ${evaluation.measures.map((m) => m.name).join(', ')}`);
  return found.value;
}

export const failing = (evaluation: Evaluation): Finding[] => evaluation.findings.filter((f) => f.severity === 'fail');

export function finding(evaluation: Evaluation, id: string): Finding {
  const found = evaluation.findings.find((f) => f.id === id) ?? evaluation.findings.find((f) => f.id.startsWith(id));
  if (!found) throw new Error(`no finding ${id}; there are ${evaluation.findings.map((f) => f.id).join(', ')}`);
  return found;
}

/** Scores of a piece as [x, fold], from the left. */
export function scoresOf(evaluation: Evaluation, piece: string): [number, string][] {
  const sheet = evaluation.sheets.find((s) => s.piece.id === piece)!;
  return sheet.scores.map((score) => [Number(score.from[0].toFixed(6)), score.fold]);
}

export function at(evaluation: Evaluation, panel: string, [x, y]: Point, frame: Frame): Vec3 {
  return carry(poseOf(evaluation.motion, frame)[evaluation.design.linkage.bodyOf.get(panel)!]!, x, y, 0);
}

/** Box of a panel in a frame, seen along z. */
export function boxIn(evaluation: Evaluation, panel: string, frame: Frame): Box {
  const { area } = evaluation.design.panels[evaluation.design.linkage.bodyOf.get(panel)!]!;
  return boxOf(
    area.outer.map((p): Point => {
      const [x, y] = at(evaluation, panel, p, frame);
      return [x, y];
    }),
  );
}

export function tracked(evaluation: Evaluation, id: string, frame: Frame): number {
  return readTracked(
    evaluation,
    evaluation.design.tracked.find((t) => t.id === id)!,
    frame,
  );
}

/**
 * Where the panels of a strip lie when it is folded flat, worked out without the solver: the ground panel
 * stays where it is drawn; each other goes on from the edge it shares with the one nearer the ground, back
 * the other way wherever the score between them is folded over.
 * @returns [from, to] of each panel across the scores, from ≤ to
 */
export function folded(widths: readonly number[], over: readonly boolean[], ground: number): [number, number][] {
  const lying = new Array<[number, number]>(widths.length);
  const start = widths.slice(0, ground).reduce((sum, width) => sum + width, 0);
  lying[ground] = [start, start + widths[ground]!];
  for (const step of [1, -1]) {
    let edge = step === 1 ? start + widths[ground]! : start;
    let way = step;
    for (let i = ground + step; i >= 0 && i < widths.length; i += step) {
      if (over[step === 1 ? i - 1 : i]) way = -way;
      const end = edge + way * widths[i]!;
      lying[i] = [Math.min(edge, end), Math.max(edge, end)];
      edge = end;
    }
  }
  return lying;
}

/** A card's evaluation with the fixes that are searched for after the verdict. */
export function offered(card: CardDocument): Evaluation {
  const evaluation = evaluated(card);
  return { ...evaluation, findings: withOffers(evaluation) };
}
