import type { GrooveRuler } from '../measure/ruler.js';
import type { Notation } from '../measure/units.js';

/** A scoring board, or no board at all (pencil, rule and bone folder: any position can be scored). */
export interface Board extends GrooveRuler {
  id: string;
  name: string;
  /** no grooves: every position can be set */
  free?: boolean;
  notation: Notation;
}

export const BOARDS: readonly Board[] = [
  { id: 'eighths-12', name: 'Grooves every 1/8 in, 12 in long', pitch: 3.175, length: 304.8, notation: 'inch/8' },
  { id: 'sixteenths-12', name: 'Grooves every 1/16 in, 12 in long', pitch: 1.5875, length: 304.8, notation: 'inch/16' },
  { id: 'five-mm-300', name: 'Grooves every 5 mm, 30 cm long', pitch: 5, length: 300, notation: 'cm' },
  { id: 'half-cm-210', name: 'Grooves every 5 mm, 21 cm long', pitch: 5, length: 210, notation: 'cm' },
  { id: 'rule', name: 'No board: pencil, rule and bone folder', pitch: 0.5, length: 1000, free: true, notation: 'mm' },
];

/** @throws RangeError naming the board when there is none of that id */
export function boardById(id: string): Board {
  const board = BOARDS.find((candidate) => candidate.id === id);
  if (!board) throw new RangeError(`no board “${id}”; known: ${BOARDS.map((b) => b.id).join(', ')}`);
  return board;
}
