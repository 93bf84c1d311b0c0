import { inSentence } from '../card/part-titles.js';
import type { PlacedMagnet, SunkDisc } from '../dress/magnets.js';
import type { Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { boxOf, isRectangle } from '../plane/outline.js';
import { inner } from '../sheet/cut-lines.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Workshop } from '../supplies/workshop.js';
import { cutRun } from './cut-runs.js';
import { flatSteps } from './flat-steps.js';
import { joinsOfMagnet } from './joins-said.js';
import { blankOf, flat, KNIFE, plainStep, type BenchStep } from './step.js';

export const MAGNETS =
  'Magnets: two of them that are swallowed pinch the gut and can kill. Never where small children reach them; keep them from pacemakers. Follow your local rules.';

type Say = (mm: Mm) => string;

/** Cutting the blank layers of a pair, and covers, in one step; what is no rectangle is cut like any other piece. */
export function magnetCuts(evaluation: Evaluation, workshop: Workshop): BenchStep[] {
  const { notation } = evaluation.design.card;
  const say: Say = (mm) => sayLength(mm, notation);
  return evaluation.dressed.magnets.flatMap((magnet): BenchStep[] => {
    const plain = magnet.sheets.filter(isPlain);
    const odd = magnet.sheets.filter((sheet) => !isPlain(sheet));
    if (magnet.sheets.length === 0) return [];
    const first = plain[0];
    return [
      ...(first
        ? [
            plainStep({
              id: `blanks-${magnet.closure.id}`,
              kind: 'cut',
              title: `Cut the blank layers: ${magnet.number}`,
              says: [
                ...grouped(plain).map((own) => cutSaid(own, magnet, say)),
                `The holes are ${say(magnet.closure.disc)} across, as wide as the disc: a hole punch of that size, or a knife. Try one.`,
              ],
              blanks: plain.map(blankOf),
              readings: plain.flatMap((sheet) => cutRun(sheet, inner(sheet), notation, workshop.schools.cutting).readings),
              cautions: [KNIFE],
              picture: flat(first),
            }),
          ]
        : []),
      ...odd.flatMap((sheet) => flatSteps(sheet, evaluation, workshop)),
    ];
  });
}

const isPlain = ({ outline, windows }: CutSheet): boolean => isRectangle(outline) && windows.length <= 1;

/** Sheets that are cut alike. */
function grouped(sheets: readonly CutSheet[]): CutSheet[][] {
  const groups: CutSheet[][] = [];
  const key = ({ width, height, windows }: CutSheet): string =>
    JSON.stringify([width, height, windows.map(({ outline }) => outline)], (_, each) =>
      typeof each === 'number' ? Math.round(each * 100) : each,
    );
  for (const sheet of sheets) {
    const group = groups.find(([first]) => key(first!) === key(sheet));
    if (group) group.push(sheet);
    else groups.push([sheet]);
  }
  return groups;
}

function cutSaid(sheets: readonly CutSheet[], { stock }: PlacedMagnet, say: Say): string {
  const [{ width, height, windows }] = sheets as readonly [CutSheet];
  const size = `${sheets.length} of ${say(width)} × ${say(height)} from ${stock.name}`;
  const [hole] = windows;
  if (!hole) return `${size}, without a hole: ${sheets.length === 1 ? 'the cover' : 'the covers'}.`;
  const { minX, maxX, minY, maxY } = boxOf(hole.outline);
  return `${size}, the middle of the hole ${say((minX + maxX) / 2)} from the left and ${say((minY + maxY) / 2)} from the lower edge.`;
}

/** Sinking the discs, while everything is flat: which way round the second goes is tried before anything covers it. */
export function magnetGlue(evaluation: Evaluation): BenchStep[] {
  const { dressed, design } = evaluation;
  const say: Say = (mm) => sayLength(mm, design.card.notation);
  return dressed.magnets.flatMap((magnet): BenchStep[] => {
    const { closure, number, first, second } = magnet;
    if (!second || !first.patch || !second.patch) return [];
    const sink = (disc: SunkDisc): string => {
      const { minX, minY } = boxOf(design.panels[design.linkage.bodyOf.get(disc.panel)!]!.area.outer);
      const place = `${say(disc.at[0] - minX)} from the left and ${say(disc.at[1] - minY)} from the lower edge`;
      return `On the ${face(disc)}: glue ${disc.blanks === 1 ? 'the blank layer' : `the ${disc.blanks} blank layers on one another, their holes in line`}, the middle of the hole ${place} of the panel as it is drawn.`;
    };
    const hides = (disc: SunkDisc): string => (disc.coveredBy === '' ? 'its cover' : disc.coveredBy);
    return [
      plainStep({
        id: `sink-${closure.id}`,
        kind: 'dress',
        title: `Sink the magnets: ${number}`,
        says: [
          ...[first, second].map(sink),
          `Lay one disc into its hole on the ${face(first)}, with a drop of glue under it.`,
          'Lay the other disc on it, so that it snaps on, and mark the side of it that looks up: that side goes down into the other hole. Slide it off, glue it in that way round.',
          'Close the card before anything covers them: they must pull one another. Let the glue dry with the card open.',
          `Only then cover them: on the ${face(first)} with ${hides(first)}, on the ${face(second)} with ${hides(second)}.`,
        ],
        joins: joinsOfMagnet(evaluation, magnet),
        picture: { kind: 'standing', at: 0.3 },
        cautions: [MAGNETS],
      }),
    ];
  });
}

const face = ({ panelName, face: side }: SunkDisc): string => `${inSentence(panelName)}${side === 'down' ? ', its back' : ''}`;
