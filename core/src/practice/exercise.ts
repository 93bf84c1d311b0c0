import { cardToTry } from '../card/try-out.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { inSentence } from '../card/part-titles.js';
import { poseOf } from '../linkage/motion.js';
import { carry } from '../linkage/rigid.js';
import { sayLength } from '../measure/print.js';
import { told } from '../measure/sentence.js';
import { sharesFor } from '../measure/seeded.js';
import { rulerStep, type Mm } from '../measure/units.js';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { areaContains, boxOf } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { partOf, readsOffRuler, type CutSheet, type Score } from '../sheet/cut-sheet.js';
import type { Workshop } from '../supplies/workshop.js';
import { asMade } from '../trial/as-made.js';
import { judgedAsMade } from '../trial/judged-as-made.js';

/** What can be practised: a ruler read from the other end, which way a fold goes, where a point lies when closed, which score slipped. */
export const EXERCISES = ['ruler', 'fold', 'closed', 'slip'] as const;
export type ExerciseKind = (typeof EXERCISES)[number];

/** A question about a real card, with answers of which one is right. */
export interface Exercise {
  kind: ExerciseKind;
  asks: string;
  choices: readonly string[];
  right: number;
  /** why that is right */
  because: string;
  evaluation: Evaluation;
  sheet: CutSheet;
  /** places on the flat piece that are spoken of, numbered from 1 */
  points: readonly Point[];
  /** whether the scores are drawn: where they would tell the answer they are not */
  drawsScores: boolean;
  /** panels that are meant, of the card as it stands */
  panels: readonly string[];
}

/** So often another card is taken where one gives no question. */
const MOST_TRIES = 60;
/** A point that hardly moves asks nothing. */
const LEAST_MOVE: Mm = 8;
/** Answers closer than this look alike. */
const APART: Mm = 1;

type Made = Omit<Exercise, 'kind' | 'choices' | 'right'> & { answer: string; others: readonly string[] };
type Shares = () => number;

/**
 * A question of a kind: the same for the same seed and workshop.
 * @throws Error when no card of the catalogue gives one, which would be a fault of the catalogue
 */
export function exerciseOf(kind: ExerciseKind, seed: number, workshop: Workshop): Exercise {
  const next = sharesFor(seed, EXERCISES.indexOf(kind));
  const bases = CATALOGUE.filter((mechanism) => mechanism.kind === 'base');
  for (let i = 0; i < MOST_TRIES; i++) {
    const base = one(bases, next);
    const card = cardToTry(base, { notation: workshop.notation }, workshop);
    const outcome = evaluate(card, workshop);
    if (!outcome.ok) continue;
    const made = MAKERS[kind](outcome.evaluation, next, workshop);
    if (!made) continue;
    const { answer, others, ...rest } = made;
    const choices = shuffled([answer, ...others.slice(0, 3)], next);
    return { kind, ...rest, choices, right: choices.indexOf(answer) };
  }
  throw new Error(`${kind}: no card gives a question`);
}

const MAKERS: Readonly<Record<ExerciseKind, (evaluation: Evaluation, next: Shares, workshop: Workshop) => Made | undefined>> = {
  ruler: turnedRuler,
  fold: whichWay,
  closed: whereClosed,
  slip: whichSlipped,
};

const one = <T>(list: readonly T[], next: Shares): T => list[Math.floor(next() * list.length)]!;

function shuffled<T>(list: readonly T[], next: Shares): T[] {
  const left = [...list];
  return list.map(() => left.splice(Math.floor(next() * left.length), 1)[0]!);
}

/** Scores that are read off a ruler and run right across. */
const across = (sheet: CutSheet): Score[] =>
  sheet.scores.filter((score) => readsOffRuler(score) && !score.secondOfSpine && partOf(score, sheet) === undefined);

/** Lengths that are told, each once, the first of them the right one. */
function lengths(right: Mm, wrong: readonly Mm[], { notation }: Workshop): { answer: string; others: string[] } | undefined {
  const apart = wrong.filter(
    (mm, i) => mm > 0 && Math.abs(mm - right) > APART && wrong.findIndex((other) => Math.abs(other - mm) < APART) === i,
  );
  const say = (mm: Mm): string => sayLength(mm, notation);
  const others = [...new Set(apart.map(say))].filter((text) => text !== say(right));
  return others.length >= 3 ? { answer: say(right), others } : undefined;
}

function turnedRuler(evaluation: Evaluation, next: Shares, workshop: Workshop): Made | undefined {
  const sheet = one(evaluation.sheets, next);
  const scores = across(sheet);
  if (scores.length === 0) return undefined;
  const { name, from } = one(scores, next);
  const [x] = from;
  const right = sheet.width - x;
  const mark = rulerStep(workshop.notation);
  const told = lengths(right, [x, right + 10 * mark, right - mark, right + mark, right - 10 * mark], workshop);
  if (!told) return undefined;
  const say = (mm: Mm): string => sayLength(mm, workshop.notation);
  return {
    ...told,
    asks: `This blank is ${say(sheet.width)} wide; its ${inSentence(name)}, at 1, lies ${say(x)} from its left edge. You lay it end for end, its right edge at zero: at which reading do you score?`,
    because: `${say(sheet.width)} less ${say(x)} is ${say(right)}.`,
    ...{ evaluation, sheet, points: [[x, sheet.height / 2]], drawsScores: true, panels: [] },
  };
}

function whichWay(evaluation: Evaluation, next: Shares): Made | undefined {
  const sheet = one(evaluation.sheets, next);
  const scores = across(sheet);
  if (scores.length === 0) return undefined;
  const { id, name, fold, from } = one(scores, next);
  const { linkage, panels } = evaluation.design;
  const hinge = linkage.hinges.find(
    ({ source }) => source.crease.id === id && panels[linkage.bodyOf.get(source.left)!]?.piece.id === sheet.piece.id,
  );
  if (!hinge) return undefined;
  const ways = { valley: 'toward you: a valley', mountain: 'away from you: a mountain' };
  return {
    answer: ways[fold],
    others: [ways[fold === 'valley' ? 'mountain' : 'valley']],
    asks: `The piece lies ${sheet.piece.faceUp}. Which way does its ${inSentence(name)}, at 1, fold?`,
    because: `It is a ${fold}: seen from the face that lies up, ${fold === 'valley' ? 'the line sinks and both sides rise' : 'the line rises and both sides sink'}.`,
    ...{
      evaluation,
      sheet,
      points: [[from[0], sheet.height / 2]],
      drawsScores: false,
      panels: [panels[hinge.left]!.id, panels[hinge.right]!.id],
    },
  };
}

function whereClosed(evaluation: Evaluation, next: Shares, workshop: Workshop): Made | undefined {
  const { design, motion, sheets } = evaluation;
  const ground = design.panels[design.linkage.ground]!;
  const pose = poseOf(motion, motion.frames[0]!);
  const panel = one(design.panels, next);
  if (panel.piece !== ground.piece || panel === ground) return undefined;
  const box = boxOf(panel.area.outer);
  const mark = 10 * rulerStep(workshop.notation);
  const whole = (mm: Mm): Mm => Math.round(mm / mark) * mark;
  const point: Point = [whole(box.minX + next() * (box.maxX - box.minX)), whole(box.minY + next() * (box.maxY - box.minY))];
  if (!areaContains(panel.area, point)) return undefined;
  const { minX, maxX, minY } = boxOf(panel.piece.outline);
  const [qx] = carry(pose[design.linkage.bodyOf.get(panel.id)!]!, point[0], point[1], 0);
  const [x, right, width] = [point[0] - minX, qx - minX, maxX - minX];
  const sheet = sheets.find(({ piece }) => piece === panel.piece)!;
  // Beside a spine the flat piece is wider than it is drawn: such a place is not asked for.
  if (Math.abs(right - x) < LEAST_MOVE || right < 0 || right > width || Math.abs(sheet.width - width) > 0.05) return undefined;
  const told = lengths(right, [width - x, x, right + mark, right - mark, right + 2 * mark], workshop);
  if (!told) return undefined;
  const say = (mm: Mm): string => sayLength(mm, workshop.notation);
  return {
    ...told,
    asks: `Point 1 lies ${say(x)} from the left edge. The ${inSentence(ground.name)} stays where it is, and the card is closed: how far from where the left edge was does the point lie then?`,
    because: `Each fold mirrors what lies beyond it: the point comes to lie ${say(right)} from there.`,
    ...{ evaluation, sheet, points: [[x, point[1] - minY]], drawsScores: true, panels: [panel.id] },
  };
}

function whichSlipped(evaluation: Evaluation, next: Shares, workshop: Workshop): Made | undefined {
  const [sheet] = evaluation.sheets;
  const scores = across(sheet!);
  if (scores.length < 3 || evaluation.findings.some(({ severity }) => severity === 'fail')) return undefined;
  const { card } = evaluation.design;
  const slip = one(scores, next);
  const size = workshop.notation.startsWith('inch') ? 6.35 : 5;
  const by = next() < 0.5 ? size : -size;
  const { id: piece } = sheet!.piece;
  const judged = (more: readonly { line: string; by: Mm }[]) =>
    judgedAsMade(
      card,
      (drawing) =>
        asMade(
          drawing,
          [{ line: slip.id, by }, ...more].map((off) => ({ piece, ...off })),
        ),
      workshop,
    );
  const wrong = judged([]);
  if (!wrong.ok) return undefined;
  const finding = wrong.evaluation.findings.find(({ severity, followsFrom }) => severity === 'fail' && !followsFrom);
  if (!finding) return undefined;
  // Were there another score that makes it right when moved by as much, nobody could tell which one it was.
  const mends = (line: string, back: Mm): boolean => {
    const again = judged([{ line, by: back }]);
    return again.ok && !again.evaluation.findings.some(({ severity }) => severity === 'fail');
  };
  if (scores.some(({ id }) => id !== slip.id && (mends(id, size) || mends(id, -size)))) return undefined;
  const say = (mm: Mm): string => sayLength(mm, workshop.notation);
  const place = ({ id, from }: Score): Mm => from[0] + (id === slip.id ? by : 0);
  const named = (score: Score): string => `${score.name}, at ${say(place(score))}`;
  const others = scores.filter(({ id }) => id !== slip.id);
  return {
    answer: named(slip),
    others: shuffled(others, next).map(named),
    asks: `One score slipped by ${say(size)}: ${scores.map(named).join('; ')}. Made so: ${told(finding.says, workshop.notation)} Which one was it?`,
    because: `The ${inSentence(slip.name)} belongs at ${say(slip.from[0])}.`,
    ...{
      evaluation,
      sheet: sheet!,
      points: scores.map((score): Point => [place(score), sheet!.height / 2]),
      drawsScores: false,
      panels: [],
    },
  };
}
