import type { CardDocument } from '../card/document.js';
import { inSentence } from '../card/part-titles.js';
import type { Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { boxOf } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import type { CutSheet, Score } from '../sheet/cut-sheet.js';
import { isClear } from '../supplies/stocks.js';
import { stockOf } from '../card/card-stocks.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Workshop } from '../supplies/workshop.js';
import type { MadeOver } from './as-made.js';
import type { StretchOff } from './made.js';
import { against, byHand, COST, type RescueWay } from './rescue-way.js';

/** A line that stops so little before its end, or runs so little past it, folds and holds all the same. */
const NO_MATTER: Mm = 1;

/** Ways to go on from a score that was made, or folded, the other way over: turn the piece over where that is the same, or fold it back. */
export function waysFromOver(
  card: CardDocument,
  made: MadeOver & { score: Score },
  evaluation: Evaluation,
  workshop: Workshop,
): RescueWay[] {
  const sheet = evaluation.sheets.find(({ piece }) => piece.id === made.piece)!;
  const leaves = against(evaluation);
  const name = inSentence(sheet.piece.name);
  const ways: RescueWay[] = [];
  if (isSameTurnedOver(sheet, made.score) && looksAlike(evaluation, sheet)) {
    ways.push(
      byHand(
        'turn',
        COST.turn,
        `Turn the ${name} over, left for right: made so it is the same, with its ${inSentence(made.score.name)} the right way.`,
        leaves,
      ),
    );
  }
  const way = made.score.fold === 'valley' ? 'toward you' : 'away from you';
  const again = workshop.schools.scoring === 'flip' ? 'Score the same line again from the other face, then fold' : 'Fold';
  const says = `${again} it back ${way}, seen with ${sheet.piece.faceUp}: slowly, along a rule, and crease it once. Card takes that once or twice; more cracks it.`;
  ways.push(byHand('fold-back', COST.foldBack, says, leaves));
  return ways;
}

/** Whether either face of a piece may be its upper one. */
function looksAlike({ design }: Evaluation, { piece }: CutSheet): boolean {
  const stock = stockOf(design, piece);
  const isPlain =
    (piece.lettering ?? []).length === 0 &&
    !design.panels.some((panel) => panel.piece === piece && design.worn.some((worn) => worn.panel === panel.id));
  return isPlain && (isClear(stock) || stock.goodSides !== 1);
}

/** Whether a piece with this score folded over is, seen from behind, the piece that is meant. */
function isSameTurnedOver(sheet: CutSheet, over: Score): boolean {
  const { width, outline, windows, scores, cuts } = sheet;
  const flipped = ([x, y]: Point): Point => [width - x, y];
  const isNear = (p: Point, q: Point): boolean => Math.abs(p[0] - q[0]) < CLOSING_PLAY && Math.abs(p[1] - q[1]) < CLOSING_PLAY;
  type Line = { from: Point; to: Point };
  const isSame = (a: Line, b: Line): boolean =>
    (isNear(a.from, b.from) && isNear(a.to, b.to)) || (isNear(a.from, b.to) && isNear(a.to, b.from));
  const lines = [...scores, ...cuts];
  const mirrored = lines.every((line) => {
    const behind = { from: flipped(line.from), to: flipped(line.to) };
    return lines.some(
      (other) => isSame(behind, other) && (!('fold' in line) || ('fold' in other && foldOf(other, over) !== foldOf(line, over, true))),
    );
  });
  const corners = [outline, ...windows.map((window) => window.outline)].flat();
  return mirrored && corners.every((corner) => corners.some((other) => isNear(flipped(corner), other)));
}

/** Which way a score is to fold, or, of the one that was made the other way over, was made. */
const foldOf = (score: Score, over: Score, asMade = false): Score['fold'] => {
  if (!asMade || score.id !== over.id) return score.fold;
  return score.fold === 'valley' ? 'mountain' : 'valley';
};

/** Ways to go on from a line that was made too short or too long. */
export function waysFromStretch({ notation }: CardDocument, made: StretchOff, evaluation: Evaluation): RescueWay[] {
  const sheet = evaluation.sheets.find(({ piece }) => piece.id === made.piece)!;
  const leaves = against(evaluation);
  const say = (mm: Mm): string => sayLength(mm, notation);
  const short = [made.from - made.meantFrom, made.meantTo - made.to];
  const [missing, tooMuch] = [Math.max(...short), -Math.min(...short)];
  const [line, verb] = [inSentence(made.name), made.slit ? 'Cut' : 'Score'];
  if (missing <= NO_MATTER && tooMuch <= NO_MATTER) {
    return [byHand('leave', 0, `Leave it: the ${line} ends within ${say(NO_MATTER)} of where it is meant.`, leaves)];
  }
  const ways: RescueWay[] = [];
  const stretches = [
    ...(short[0]! > NO_MATTER ? [`from ${say(made.meantFrom)} to ${say(made.from)}`] : []),
    ...(short[1]! > NO_MATTER ? [`from ${say(made.to)} to ${say(made.meantTo)}`] : []),
  ];
  const goOn = stretches.length > 0 ? `${verb} on ${stretches.join(' and ')}, the rule laid along what is there` : '';
  if (tooMuch <= NO_MATTER) return [byHand('go-on', COST.goOn, `${goOn}.`, leaves)];
  const past = boxOf(sheet.outline);
  const weak = made.slit
    ? `Close what was cut too far with a strip of paper, ${say(tooMuch + 6)} long, glued behind it`
    : `Press what was scored too far flat, and glue a strip of the same card, ${say(tooMuch + 6)} long, behind it: the panel is weak there`;
  ways.push(byHand('stiffen', COST.stiffen + Math.min(tooMuch, past.maxY) / 10, `${goOn ? `${goOn}. ` : ''}${weak}.`, leaves));
  return ways;
}

/** Why a card is not judged with a line of another length. */
export function unjudgedStretch({ notation }: CardDocument, made: StretchOff): string | undefined {
  const [missing, tooMuch] = [
    Math.max(made.from - made.meantFrom, made.meantTo - made.to),
    Math.max(made.meantFrom - made.from, made.to - made.meantTo),
  ];
  const line = inSentence(made.name);
  if (missing > NO_MATTER)
    return `The ${line} is ${sayLength(missing, notation)} too short at an end: the paper does not ${made.slit ? 'part' : 'fold'} there, so the card is not judged as it is.`;
  if (tooMuch > NO_MATTER)
    return `The ${line} runs ${sayLength(tooMuch, notation)} too far: how weak that leaves the panel is not worked out, so the card is not judged as it is.`;
  return undefined;
}
