import type { Mm } from '../measure/units.js';
import type { Schools } from '../supplies/workshop.js';
import { readsOffRuler, type CutSheet, type Score } from './cut-sheet.js';
import type { Face } from './piece.js';

/** One setting of the board: the blank lies one way, and everything on one line is scored. */
export interface ScorePlace {
  /** stretches of the line, from the edge nearer the maker */
  scores: Score[];
  /** from the edge at the board’s zero */
  at: Mm;
  face: Face;
  /** the blank’s far end lies at zero */
  turned: boolean;
  /** what the same setting scores once the blank is turned end for end */
  again: Score[];
}

const SAME: Mm = 1e-4;

/**
 * Where the scores of a blank are set on a board that reaches so far: all from one face, or mountains from the other,
 * turned like a page, so that the far end lies at zero. What lies beyond the board is read from the far end; on a blank whose
 * scores are the same turned end for end, half of them are read and made twice. Steps and the check of grooves both read a score here.
 */
export function scorePlaces(
  sheet: CutSheet,
  reach: Mm,
  scoring: Schools['scoring'],
  of: (score: Score) => boolean = () => true,
): ScorePlace[] {
  const all = sheet.scores.filter((score) => readsOffRuler(score));
  if (scoring === 'one-face') return placesFrom(all, 'up', sheet, reach, of);
  const [valleys, mountains] = [all.filter(({ fold }) => fold === 'valley'), all.filter(({ fold }) => fold === 'mountain')];
  return [...placesFrom(valleys, 'up', sheet, reach, of), ...placesFrom(mountains, 'down', sheet, reach, of)];
}

function placesFrom(scores: readonly Score[], face: Face, sheet: CutSheet, reach: Mm, of: (score: Score) => boolean): ScorePlace[] {
  const near = (score: Score): Mm => (face === 'up' ? score.from[0] : sheet.width - score.from[0]);
  const twice = (score: Score): Score | undefined =>
    scores.find((other) => other !== score && other.fold === score.fold && isHalfTurn(score, other, sheet));
  const middle = sheet.width / 2;
  const inMiddle = (score: Score): boolean => Math.abs(near(score) - middle) < SAME;
  const halved = scores.some((score) => !inMiddle(score)) && scores.every((score) => inMiddle(score) || twice(score));
  const places: ScorePlace[] = [];
  for (const score of scores.filter(of)) {
    if (halved && near(score) > middle + SAME && of(twice(score)!)) continue;
    const turned = near(score) > reach;
    const at = turned ? sheet.width - near(score) : near(score);
    const again = halved && !inMiddle(score) ? [twice(score)!] : [];
    const same = places.find((p) => p.turned === turned && Math.abs(p.at - at) < SAME && p.scores[0]!.fold === score.fold);
    if (same) {
      same.scores.push(score);
      same.again.push(...again);
    } else {
      places.push({ scores: [score], at, face, turned, again });
    }
  }
  const lowest = ({ from, to }: Score): Mm => Math.min(from[1], to[1]);
  for (const place of places) place.scores.sort((a, b) => (lowest(a) - lowest(b)) * (place.turned ? -1 : 1));
  return places.sort((a, b) => Number(a.turned) - Number(b.turned) || a.at - b.at);
}

/** Whether a score lies where another comes to lie when the blank is turned end for end on the table. */
function isHalfTurn(score: Score, other: Score, { width, height }: CutSheet): boolean {
  const ends = ({ from, to }: Score): [Mm, Mm] => [Math.min(from[1], to[1]), Math.max(from[1], to[1])];
  const [[low, high], [otherLow, otherHigh]] = [ends(score), ends(other)];
  return (
    Math.abs(score.from[0] + other.from[0] - width) < SAME &&
    Math.abs(low + otherHigh - height) < SAME &&
    Math.abs(high + otherLow - height) < SAME
  );
}
