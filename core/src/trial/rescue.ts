import type { CardDocument } from '../card/document.js';
import { inSentence } from '../card/part-titles.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import type { Workshop } from '../supplies/workshop.js';
import { judgedAsMade, type Judged } from './judged-as-made.js';
import { drawnAsMade, isJointOff, isLineOff, isStretchOff, meantOf, type Made, type NoSuchLine, type Off } from './made.js';
import { unjudgedStretch, waysFromOver, waysFromStretch } from './rescue-fold.js';
import { waysFromJoint } from './rescue-joint.js';
import { turned, waysFromLine } from './rescue-line.js';
import { against, byHand, COST, fails, failsButForGlue, type RescueWay } from './rescue-way.js';

/** What was made, how the card works with it, and ways to go on, the least first. */
export interface Rescue {
  made: Off[];
  /** the card as it was made: judged, or why it cannot be */
  asMade: Judged;
  ways: RescueWay[];
}

/**
 * The card worked out again from what was really made, and the least repair: leave it, turn the piece, change a size that is not
 * cut yet, trim, go on with a line, fold or score or glue it again, take the piece for another, start again. Each way is tried out whole.
 */
export function rescue(card: CardDocument, made: readonly Made[], workshop: Workshop): Rescue | NoSuchLine {
  const outcome = evaluate(card, workshop);
  if (!outcome.ok) return { says: outcome.problems[0]!.says };
  const { evaluation } = outcome;
  const told = made.map((one) => meantOf(one, evaluation));
  const wrong = told.find((one): one is NoSuchLine => 'says' in one);
  if (wrong) return wrong;
  const offs = told as Off[];
  const judged = judgedTogether(card, offs, workshop);
  const joints = offs.filter(isJointOff).map(({ joint }) => joint);
  const ways: RescueWay[] = [];
  if (judged.ok && !failsButForGlue(judged.evaluation.findings, joints)) ways.push(leave(card, offs, judged.evaluation));
  ways.push(...(offs.length === 1 ? waysFrom(card, offs[0]!, evaluation, workshop) : oneByOne(card, offs, evaluation, workshop)));
  ways.push(startAgain(offs, evaluation));
  return { made: offs, asMade: judged, ways: ways.sort((a, b) => a.cost - b.cost) };
}

function judgedTogether(card: CardDocument, offs: readonly Off[], workshop: Workshop): Judged {
  const unjudged = offs.filter(isStretchOff).flatMap((off) => unjudgedStretch(card, off) ?? []);
  if (unjudged.length > 0) return { ok: false, says: unjudged.join(' ') };
  const judged = judgedAsMade(card, (drawing) => drawnAsMade(drawing, offs), workshop);
  if (!offs.some(isOver) || !judged.ok || fails(judged.evaluation.findings)) return judged;
  return { ok: false, says: 'Folded the other way over it holds, but with the wrong side of its paper outward.' };
}

const isOver = (off: Off): boolean => !isLineOff(off) && !isJointOff(off) && !isStretchOff(off);

function waysFrom(card: CardDocument, off: Off, evaluation: Evaluation, workshop: Workshop): RescueWay[] {
  if (isJointOff(off)) return waysFromJoint(card, off, evaluation, workshop);
  if (isLineOff(off)) return waysFromLine(card, off, evaluation, workshop);
  return isStretchOff(off)
    ? waysFromStretch(card, off, evaluation).filter(({ kind }) => kind !== 'leave')
    : waysFromOver(card, off, evaluation, workshop);
}

/**
 * Several things at once: a piece turned, or each put right by what a hand can do to it alone, which leaves the card as it is
 * meant but for what is off too little for that. Sizes are changed for one thing at a time only.
 */
function oneByOne(card: CardDocument, offs: readonly Off[], evaluation: Evaluation, workshop: Workshop): RescueWay[] {
  const turn = offs.every(isLineOff) ? turned(card, offs, evaluation, against(evaluation)) : [];
  const each = offs.map((off) => ({
    off,
    way: waysFrom(card, off, evaluation, workshop)
      .filter(({ kind }) => BACK_AS_MEANT.has(kind))
      .sort((a, b) => a.cost - b.cost)
      .at(0),
  }));
  const ways = each.flatMap(({ way }) => way ?? []);
  const left = each.flatMap(({ off, way }) => (way ? [] : [off]));
  const judged = left.length > 0 ? judgedTogether(card, left, workshop) : { ok: true as const, evaluation };
  if (ways.length === 0 || !judged.ok || fails(judged.evaluation.findings)) return turn;
  const cost = ways.reduce((sum, way) => sum + way.cost, 0);
  const dearest = ways.reduce((most, way) => (way.cost > most.cost ? way : most));
  return [...turn, byHand(dearest.kind, cost, ways.map(({ says }) => says).join(' '), against(judged.evaluation))];
}

/** Ways after which the piece is as it was meant. */
const BACK_AS_MEANT = new Set<RescueWay['kind']>(['turn', 'fold-back', 'go-on', 'stiffen', 'second-score', 'glue-again']);

function leave({ notation }: CardDocument, offs: readonly Off[], evaluation: Evaluation): RescueWay {
  const off = offs.map((one) => offInWords(one, notation)).join(' and ');
  const isPast = evaluation.findings.some(({ severity }) => severity === 'fail');
  const wipe = isPast ? ' Wipe off what glue stands out beside it before it sets.' : '';
  const leaves = against(evaluation).filter(({ severity }) => severity !== 'fail');
  return byHand('leave', 0, `Leave it: the card works with it ${off}.${wipe}`, leaves);
}

function offInWords(off: Off, notation: CardDocument['notation']): string {
  if (isLineOff(off)) return `${sayLength(Math.abs(off.off), notation)} off`;
  if (isJointOff(off)) return `${sayLength(Math.hypot(off.right, off.up), notation)} off`;
  return isStretchOff(off) ? 'nearly as long as it is meant' : 'the other way over';
}

function startAgain(offs: readonly Off[], { design, sheets }: Evaluation): RescueWay {
  const pieces = offs.map((off) => {
    if (!isJointOff(off)) return sheets.find(({ piece }) => piece.id === off.piece)!.piece;
    const bond = design.bonds.find(({ id }) => id === off.joint)!;
    return design.panels.find(({ id }) => id === bond.panel)!.piece;
  });
  const names = [...new Set(pieces.map(({ name }) => inSentence(name)))];
  return byHand('start-again', COST.startAgain, `Start again: cut the ${names.join(' and the ')} once more.`, []);
}
