import { inSentence } from '../card/part-titles.js';
import { SIDE_NAMES, SIDES, type Side } from '../card/dressing.js';
import { cutOnce, type DressedLayer } from '../dress/layer.js';
import type { Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { isRectangle } from '../plane/outline.js';
import type { Workshop } from '../supplies/workshop.js';
import { flatSteps } from './flat-steps.js';
import { joinsOfLayer } from './joins-said.js';
import { blankOf, KNIFE, plainStep, type BenchStep } from './step.js';

const isPlain = ({ sheet }: DressedLayer): boolean => isRectangle(sheet.outline) && sheet.windows.length === 0 && sheet.scores.length === 0;

/** Cutting the layers: plain ones by their sizes in one step for each stock, odd ones each like any other piece. */
export function layerCuts(evaluation: Evaluation, workshop: Workshop): BenchStep[] {
  const layers = cutOnce(evaluation.dressed.layers);
  const { notation } = evaluation.design.card;
  const say = (mm: Mm): string => sayLength(mm, notation);
  const plain = layers.filter(isPlain);
  const stocks = [...new Set(plain.map(({ stock }) => stock))];
  return [
    ...stocks.map((stock): BenchStep => {
      const own = plain.filter((layer) => layer.stock === stock);
      return plainStep({
        id: `layers-${stock.id}`,
        kind: 'trim',
        title: `Trim the layers: ${stock.name}`,
        says: [
          'The first size is across, the second up, with the good side toward you and what is up on the open card at the top.',
          ...grouped(own).map(
            ([first, ...others]) =>
              `${[first!, ...others].map(({ number }) => number).join(', ')}: ${others.length > 0 ? `${others.length + 1} of ` : ''}${say(first!.sheet.width)} × ${say(first!.sheet.height)}${others.length > 0 ? '' : `, for the ${inSentence(first!.panelName)}`}.`,
          ),
          'Write the number on the back of each.',
        ],
        blanks: own.map(({ sheet }) => blankOf(sheet)),
        cautions: [KNIFE],
      });
    }),
    ...layers.filter((layer) => !isPlain(layer)).flatMap(({ sheet }) => flatSteps(sheet, evaluation, workshop)),
  ];
}

/** Layers that are cut to one size, together. */
function grouped(layers: readonly DressedLayer[]): DressedLayer[][] {
  const groups: DressedLayer[][] = [];
  for (const layer of layers) {
    const group = groups.find(([first]) => first!.id === layer.twin?.of || (layer.twin !== undefined && first!.twin?.of === layer.twin.of));
    if (group) group.push(layer);
    else groups.push([layer]);
  }
  return groups;
}

/** Gluing them on, piece by piece, while everything is flat: where each lies, and which way its top goes. */
export function layerGlue(evaluation: Evaluation): BenchStep[] {
  const { dressed, design, sheets } = evaluation;
  const { layers } = dressed;
  if (layers.length === 0) return [];
  const { notation } = design.card;
  const of = (piece: string): DressedLayer[] => layers.filter(({ panel }) => panel.startsWith(`${piece}/`));
  return sheets.flatMap(({ piece }): BenchStep[] => {
    const own = of(piece.id);
    if (own.length === 0) return [];
    return [
      plainStep({
        id: `wear-${piece.id}`,
        kind: 'dress',
        title: `Glue the layers on: ${piece.name}`,
        says: [
          `Sides are those of the piece lying ${piece.faceUp}. Glue goes on the layers, thinly and up to their edges; ${own.some(({ past }) => past.length > 0) ? 'none goes on what stands past the edge of a panel.' : own.some(({ liner }) => liner) ? 'nothing but what is in one piece may reach past a fold.' : 'nothing may reach past a fold.'}`,
          ...jointLines(own, notation),
          ...cutOnce(own).flatMap((layer) => (layer.liner ? linerPlaced(layer, own, notation) : placed(layer, own, notation))),
        ],
        joins: own.flatMap((layer) => joinsOfLayer(evaluation, layer)),
        picture: {
          kind: 'flat',
          piece: piece.id,
          face: own.some(({ face }) => face === 'up') ? 'up' : 'down',
          turned: false,
          scores: [],
          zones: [],
          marks: false,
          cuts: false,
        },
      }),
    ];
  });
}

/** “the left edge”, “the left, right and lower edges”. */
function edgesNamed(sides: readonly Side[]): string {
  const names = sides.map((side) => SIDE_NAMES[side]);
  if (names.length === 1) return `the ${names[0]} edge`;
  return `the ${names.slice(0, -1).join(', ')} and ${names.at(-1)} edges`;
}

/** A piece over several panels: it is glued on one of them first, and on the others with the folds between them folded. */
function linerPlaced(layer: DressedLayer, all: readonly DressedLayer[], notation: Parameters<typeof sayLength>[1]): string[] {
  const { number, liner, upWhenOpen } = layer;
  const on = all.filter(({ id }) => liner!.of.includes(id));
  const [first, ...others] = on.map(({ panelName }) => inSentence(panelName));
  const folds = liner!.folds.map(({ name, shorter }) => {
    const by = sayLength(Math.abs(Math.round(shorter * 10) / 10), notation);
    return `${by} ${shorter < 0 ? 'longer' : 'shorter'} over the ${inSentence(name)}`;
  });
  return [
    `${number} on the ${allOf([first!, ...others.map((name) => `the ${name}`)])}, in one piece: fold it along its scores first, as the card folds. It lies ${on.map((each) => `on the ${inSentence(each.panelName)} ${bordersSaid(each, undefined, notation)}`).join('; ')}; its top toward ${edgesNamed([upWhenOpen])}.`,
    `Glue ${number} on the ${first!} alone, then fold the card with it and press it on the ${allOf(others.map((name, i) => (i === 0 ? name : `the ${name}`)))}: it is ${allOf(folds)} than the card, so that it lies smooth when that is closed.`,
  ];
}

const allOf = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;

/** The strip over a joint, by the papers that meet under it. */
function overJoint({ number, panel, face, stock }: DressedLayer, all: readonly DressedLayer[]): string {
  const under = all.filter(({ joint, ...other }) => joint && joint.of !== 'cover' && other.panel === panel && other.face === face);
  return `${number}, the strip of ${inSentence(stock.name)}, over the line where ${under.map((layer) => layer.number).join(' and ')} meet, as much of it on either side.`;
}

/** Where one layer lies, read from the edges of its panel, or of the layer under it. */
function placed(layer: DressedLayer, all: readonly DressedLayer[], notation: Parameters<typeof sayLength>[1]): string {
  if (layer.joint?.of === 'cover') return overJoint(layer, all);
  const under = all.find(({ panel, face, step }) => panel === layer.panel && face === layer.face && step === layer.step - 1);
  const on = layer.step > 1 && under ? under.number : `the ${inSentence(layer.panelName)}${layer.face === 'down' ? ', its back' : ''}`;
  return `${layer.number} on ${on}: ${bordersSaid(layer, layer.step > 1 ? under : undefined, notation)}; its top toward ${edgesNamed([layer.upWhenOpen])}.`;
}

/** Where two papers meet on a panel: a line to draw before they are glued. */
function jointLines(own: readonly DressedLayer[], notation: Parameters<typeof sayLength>[1]): string[] {
  return own.flatMap((first) => {
    const { joint, panel, face, step, panelName } = first;
    const second = own.find((other) => other.joint?.of === 'second' && other.panel === panel && other.face === face);
    const isFirst = own.find((other) => other.joint && other.panel === panel && other.face === face) === first;
    if (!joint || !second || !isFirst) return [];
    const end = joint.runs === 'along' ? 'left' : 'lower';
    const on =
      step > 1
        ? `the layer under them, measured from the ${end} edge of the ${inSentence(panelName)}`
        : `the ${inSentence(panelName)}, from its ${end} edge`;
    return [`Draw a line ${sayLength(joint.at, notation)} on ${on}: ${first.number} and ${second.number} meet there, edge to edge.`];
  });
}

const SAME: Mm = 0.02;

/** The four borders, those that are alike in one word; of a shaped layer the one that runs round it. */
function bordersSaid(
  { borders, evenBorder, area, covers, joint, liner }: DressedLayer,
  under: DressedLayer | undefined,
  notation: Parameters<typeof sayLength>[1],
): string {
  if (covers) return 'edge to edge';
  if (evenBorder !== undefined && !joint && !liner && !isRectangle(area.outer)) {
    return `${sayLength(evenBorder - (under?.evenBorder ?? 0), notation)} inside its outline all round`;
  }
  const atLine = joint && JOINT_SIDES[joint.runs][joint.of === 'second' ? 'second' : 'first'];
  // Over a fold a liner runs on.
  const sides = SIDES.filter((side) => side !== atLine && !(liner && Math.abs(borders[side]) < SAME));
  const gap = (side: Side): Mm => {
    const mm = borders[side] - (under?.borders[side] ?? 0);
    return under ? Math.max(0, mm) : mm;
  };
  const groups: { mm: Mm; sides: Side[] }[] = [];
  for (const side of sides) {
    const group = groups.find(({ mm }) => Math.abs(mm - gap(side)) < SAME);
    if (group) group.sides.push(side);
    else groups.push({ mm: gap(side), sides: [side] });
  }
  const said = groups
    .map(({ mm, sides: own }) => {
      const where = own.length === 4 ? 'every edge' : edgesNamed(own);
      if (mm < -SAME) return `${sayLength(-mm, notation)} past ${where}`;
      return mm < SAME ? `flush with ${where}` : `${sayLength(mm, notation)} from ${where}`;
    })
    .join(', ');
  return atLine ? `${said}, and up to the line` : said;
}

/** The side on which a paper meets the other. */
const JOINT_SIDES = {
  along: { first: 'right', second: 'left' },
  across: { first: 'top', second: 'bottom' },
} as const;
