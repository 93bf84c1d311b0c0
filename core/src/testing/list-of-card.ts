import { dressedBy } from '../card/dress-card.js';
import type { CardDocument } from '../card/document.js';
import { setSize } from '../card/set-size.js';
import { cardToTry } from '../card/try-out.js';
import { evaluate, type Evaluation } from '../evaluate.js';
import type { Mechanism } from '../mechanism/contract.js';
import { readsOffRuler } from '../sheet/cut-sheet.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { freeRows } from '../trial/changed-sizes.js';
import type { SaidNumber } from '../trial/said-list.js';

/** A card of a mechanism with some of its lengths changed by whole mm inside their limits, that is not refused. */
export function cardOnMarks(mechanism: Mechanism, next: () => number): CardDocument {
  const plain = cardToTry(mechanism);
  return freeRows(plain).reduce((card, { owner, name, kind, asCut, insteadOf }) => {
    if (kind !== 'length' || asCut || insteadOf || next() < 0.4) return card;
    const row = freeRows(card).find((other) => other.owner === owner && other.name === name);
    if (!row?.range) return card;
    const to = Math.round(Number(row.value)) + Math.round((next() - 0.5) * 24);
    if (to < row.range.min || to > row.range.max) return card;
    const changed = setSize(card, owner, name, to);
    return evaluate(changed).ok ? changed : card;
  }, plain);
}

/** The list that a card gives: scores of its first scored piece, its blank, the closed card, and a layer on every panel that wears one piece. */
export function listOfCard(card: CardDocument, border = 3): SaidNumber[] {
  const outcome = evaluate(dressedBy(card, { border }, starterFor(card.notation)));
  if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
  const { evaluation } = outcome;
  return [...blankNumbers(evaluation), ...closedNumbers(evaluation), ...layerNumbers(evaluation)];
}

function blankNumbers({ sheets, design }: Evaluation): SaidNumber[] {
  const scored = sheets.filter(({ scores }) => scores.some(readsOffRuler));
  const shown = design.card.parts[1]?.id;
  const sheet = scored.find(({ piece }) => shown !== undefined && piece.part === shown) ?? scored[0] ?? sheets[0]!;
  const at = [...new Set(sheet.scores.filter(readsOffRuler).map(({ from }) => Math.round(from[0] * 1e6) / 1e6))];
  return [
    ...at.map((value, i) => ({ entry: `scores[${i + 1}]`, value })),
    { entry: 'blank.width', value: sheet.width },
    { entry: 'blank.height', value: sheet.height },
  ];
}

function closedNumbers({ closed: { box } }: Evaluation): SaidNumber[] {
  return [
    { entry: 'closedWidth', value: box.maxX - box.minX },
    { entry: 'closedHeight', value: box.maxY - box.minY },
  ];
}

function layerNumbers({ dressed }: Evaluation): SaidNumber[] {
  const first = dressed.layers.filter(({ panel }, _, all) => all.filter((other) => other.panel === panel).length === 1);
  return first.flatMap(({ panel, box }) => [
    { entry: `layer.${panel}.width`, value: box.width },
    { entry: `layer.${panel}.height`, value: box.height },
  ]);
}
