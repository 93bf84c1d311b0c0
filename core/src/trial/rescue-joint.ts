import type { CardDocument } from '../card/document.js';
import { inSentence } from '../card/part-titles.js';
import { setSize } from '../card/set-size.js';
import { closedOnly, evaluate, type Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Workshop } from '../supplies/workshop.js';
import { gluedBeside, trimmedAt, type GluedOff, type Trimmed } from './as-made.js';
import { freeRows } from './changed-sizes.js';
import { judgedAsMade } from './judged-as-made.js';
import { costOf } from './size-search.js';
import { against, byHand, COST, fails, failsButForGlue, type RescueWay } from './rescue-way.js';

const EDGES: readonly Trimmed['edge'][] = ['left', 'right', 'lower', 'upper'];
const NUDGE: Mm = 0.25;
/** Less than this a hand cannot trim. */
const LEAST_TRIM: Mm = 0.5;
const SAME: Mm = 1e-3;

/**
 * Ways to go on from a piece that was glued beside its place: trim it at an edge by what it is off, change a size with which it
 * belongs there and that neither of the two pieces follows, part them and glue again.
 */
export function waysFromJoint(card: CardDocument, made: GluedOff, evaluation: Evaluation, workshop: Workshop): RescueWay[] {
  const { notation } = card;
  const bond = evaluation.design.bonds.find(({ id }) => id === made.joint)!;
  const panel = evaluation.design.panels.find(({ id }) => id === bond.panel)!;
  const name = inSentence(panel.piece.name);
  const way = [...wayTo(made.right, 'left', 'right'), ...wayTo(made.up, 'down', 'up')]
    .map(([by, where]) => `${sayLength(by, notation)} ${where}`)
    .join(' and ');
  const again = `While the glue is wet, slide the ${name} ${way}. Once it has set, part it with a thin blade, away from your fingers, and glue it again; make it anew where the paper tears.`;
  return [
    ...trims(card, made, panel.piece.id, name, workshop),
    ...sizesFor(card, made, evaluation, workshop),
    byHand('glue-again', COST.glueAgain, again, against(evaluation)),
  ];
}

/** Back to where it belongs: the other way than it lies off. */
function wayTo(off: Mm, back: string, forth: string): [Mm, string][] {
  return Math.abs(off) < SAME ? [] : [[Math.abs(off), off > 0 ? back : forth]];
}

/** The glued piece trimmed at one edge by what it is off, where the card works so. */
function trims(card: CardDocument, made: GluedOff, piece: string, name: string, workshop: Workshop): RescueWay[] {
  const by = Math.max(Math.abs(made.right), Math.abs(made.up));
  if (by < LEAST_TRIM) return [];
  return EDGES.flatMap((edge): RescueWay[] => {
    const judged = judgedAsMade(card, (drawing) => trimmedAt(gluedBeside(drawing, made), { piece, edge, by }), workshop);
    if (!judged.ok || failsButForGlue(judged.evaluation.findings, [made.joint])) return [];
    const says = `Trim the ${name} by ${sayLength(by, card.notation)} at its ${edge} edge, as that is drawn, where it is glued by now, and wipe off what glue stands out: the card works so.`;
    const leaves = against(judged.evaluation).filter(({ id }) => id !== `glue-clear/${made.joint}/past`);
    return [byHand('trim', COST.trim + by, says, leaves)];
  }).slice(0, 1);
}

/** Sizes with which the joint belongs where it was made, while what is joined stays as it is cut. */
function sizesFor(card: CardDocument, made: GluedOff, { sheets, design }: Evaluation, workshop: Workshop): RescueWay[] {
  const bond = design.bonds.find(({ id }) => id === made.joint)!;
  const joined = [bond.panel, bond.partner].map((id) => design.panels.find((panel) => panel.id === id)!.piece.id);
  const isCut = (now: readonly CutSheet[]): boolean =>
    joined.every((id) =>
      isSameSheet(
        sheets.find(({ piece }) => piece.id === id)!,
        now.find(({ piece }) => piece.id === id),
      ),
    );
  const [x, y] = bond.placement.to;
  const rows = freeRows(card).filter(({ kind, range, insteadOf, asCut }) => kind === 'length' && range && !insteadOf && !asCut);
  return rows.flatMap((row): RescueWay[] => {
    const near = closedOnly(setSize(card, row.owner, row.name, Number(row.value) + NUDGE));
    const there = near?.design.bonds.find(({ id }) => id === made.joint)?.placement.to;
    if (!near || !there || !isCut(near.sheets)) return [];
    const [perX, perY] = [(there[0] - x) / NUDGE, (there[1] - y) / NUDGE];
    const square = perX * perX + perY * perY;
    if (square < 1e-9) return [];
    const by = (perX * made.right + perY * made.up) / square;
    const left = Math.hypot(made.right - by * perX, made.up - by * perY);
    const to = Math.round((Number(row.value) + by) * 1e6) / 1e6;
    if (left > SAME || to < row.range!.min || to > row.range!.max) return [];
    const outcome = evaluate(setSize(card, row.owner, row.name, to), workshop);
    if (!outcome.ok || fails(outcome.evaluation.findings) || !isCut(outcome.evaluation.sheets)) return [];
    const changes = [{ owner: row.owner, size: row.name, label: row.label, from: Number(row.value), to }];
    const say = (mm: Mm): string => sayLength(mm, card.notation);
    return [
      {
        kind: 'change-size',
        says: `Change ${inSentence(row.label)} from ${say(Number(row.value))} to ${say(to)}: it then belongs where it is glued. Cut what is not cut yet for that.`,
        cost: costOf(card, changes),
        changes,
        card: outcome.evaluation.design.card,
        leaves: against(outcome.evaluation),
      },
    ];
  });
}

function isSameSheet(a: CutSheet, b: CutSheet | undefined): boolean {
  const corners = ({ outline, scores, cuts, windows }: CutSheet): number[] =>
    [...outline, ...[...scores, ...cuts].flatMap(({ from, to }) => [from, to]), ...windows.flatMap((window) => [...window.outline])].flat();
  if (!b) return false;
  const [own, other] = [corners(a), corners(b)];
  return own.length === other.length && own.every((at, i) => Math.abs(at - other[i]!) < SAME);
}
