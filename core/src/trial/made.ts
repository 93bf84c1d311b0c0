import type { Drawing } from '../card/draw.js';
import type { Evaluation } from '../evaluate.js';
import type { Mm } from '../measure/units.js';
import { readsOffRuler, type CutSheet, type Score } from '../sheet/cut-sheet.js';
import { asMade, foldedOver, gluedBeside, type GluedOff, type MadeOver } from './as-made.js';

/** A line where it was really made: a score, or the width or height of a blank, mm from the left or lower end. */
export interface MadeLine {
  piece: string;
  line: string;
  at: Mm;
}

/** A score or a slit as long as it was really made: from where to where along it, from the lower edge or, lying across, from the left. */
export interface MadeStretch {
  piece: string;
  line: string;
  from: Mm;
  to: Mm;
}

/** What was really made of a card: a line elsewhere, one of another length, a score the other way over, a piece glued beside its place. */
export type Made = MadeLine | MadeStretch | MadeOver | GluedOff;

/** A line that lies elsewhere than it is meant. */
export interface LineOff extends MadeLine {
  meant: Mm;
  off: Mm;
}

/** A line that is of another length than it is meant. */
export interface StretchOff extends MadeStretch {
  meantFrom: Mm;
  meantTo: Mm;
  /** what the line is called, and whether it is a slit */
  name: string;
  slit: boolean;
}

/** What was made beside what was meant. */
export type Off = LineOff | StretchOff | (MadeOver & { score: Score }) | (GluedOff & { name: string });

/** A line or joint that a card has not: what was said, and what there is. */
export interface NoSuchLine {
  says: string;
}

export const isLineOff = (off: Off): off is LineOff => 'at' in off;
export const isStretchOff = (off: Off): off is StretchOff => 'from' in off;
export const isJointOff = (off: Off): off is GluedOff & { name: string } => 'joint' in off;

/** What was made, beside what the card means at that place. */
export function meantOf(made: Made, { sheets, design }: Pick<Evaluation, 'sheets' | 'design'>): Off | NoSuchLine {
  if ('joint' in made) {
    const joints = design.bonds.filter(({ slides }) => !slides);
    const joint = joints.find(({ id }) => id === made.joint);
    if (joint) return { ...made, name: joint.name };
    const names = joints.length > 0 ? `there are ${joints.map(({ id }) => id).join(', ')}` : 'nothing is glued on this card';
    return { says: `There is no glued place “${made.joint}”; ${names}.` };
  }
  const sheet = sheets.find(({ piece }) => piece.id === made.piece);
  if (!sheet) return { says: `There is no piece “${made.piece}”; there are ${sheets.map(({ piece }) => piece.id).join(', ')}.` };
  if ('at' in made) return lineOff(made, sheet);
  if ('from' in made) return stretchOff(made, sheet);
  const score = sheet.scores.find(({ id, secondOfSpine }) => id === made.line && !secondOfSpine);
  return score ? { ...made, score } : noLine(made, namesOf(sheet.scores));
}

function lineOff(made: MadeLine, sheet: CutSheet): LineOff | NoSuchLine {
  // The second score of a spine goes with its first.
  const upright = sheet.scores.filter((score) => readsOffRuler(score) && !score.secondOfSpine);
  const score = upright.find(({ id }) => id === made.line);
  const meant = made.line === 'width' ? sheet.width : made.line === 'height' ? sheet.height : score?.from[0];
  if (meant === undefined) return noLine(made, [...namesOf(upright), 'width', 'height']);
  return { ...made, meant, off: made.at - meant };
}

function stretchOff(made: MadeStretch, sheet: CutSheet): StretchOff | NoSuchLine {
  const score = sheet.scores.find(({ id }) => id === made.line);
  const line = score ?? sheet.cuts.find(({ id }) => id === made.line);
  if (!line) return noLine(made, [...namesOf(sheet.scores), ...namesOf(sheet.cuts)]);
  const axis = Math.abs(line.to[1] - line.from[1]) >= Math.abs(line.to[0] - line.from[0]) ? 1 : 0;
  const ends = [line.from[axis], line.to[axis]].sort((a, b) => a - b) as [Mm, Mm];
  return { ...made, meantFrom: ends[0], meantTo: ends[1], name: score?.name ?? 'slit', slit: !score };
}

const namesOf = (lines: readonly { id: string }[]): string[] => [...new Set(lines.map(({ id }) => id))];

const noLine = ({ piece, line }: { piece: string; line: string }, there: readonly string[]): NoSuchLine => ({
  says: `${piece} has no line “${line}” of this kind; ${there.length > 0 ? `there are ${there.join(', ')}` : 'it has none'}.`,
});

/** The drawing as it was made. The length of a line is not in it: a panel is split wholly or not at all. */
export function drawnAsMade(drawing: Drawing, offs: readonly Off[]): Drawing {
  return offs.reduce((made, off) => {
    if (isJointOff(off)) return gluedBeside(made, off);
    if (isLineOff(off)) return asMade(made, [{ piece: off.piece, line: off.line, by: off.off }]);
    return isStretchOff(off) ? made : foldedOver(made, off);
  }, drawing);
}
