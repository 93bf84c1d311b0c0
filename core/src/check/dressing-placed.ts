import { inSentence } from '../card/part-titles.js';
import type { LinedFold, OwnDress } from '../card/dressing.js';
import { foldBetween } from '../dress/liner.js';
import { spoken, type Sentence } from '../measure/sentence.js';
import type { BareFace } from '../dress/layer.js';
import { layersPast } from './layers-past.js';
import type { Check, CheckInput, Verdict } from './finding.js';

/** Does every face wear what was asked for? What lies on its panel lies clear of folds, openings and glue by how it is made. */
export const dressingPlaced: Check = (input) => {
  const rule = input.card.dressing?.layers;
  if (!rule) return [];
  const found = [
    ...input.dressed.bare.flatMap((face) => bareFace(input, face)),
    ...(rule.own ?? []).flatMap((own) => [...ownDress(input, own), ...jointMissing(input, own)]),
    ...(rule.overFolds ?? []).flatMap((fold) => linerMissing(input, fold)),
    ...layersPast(input),
  ];
  if (found.some(({ severity }) => severity !== 'pass')) return found;
  const { layers } = input.dressed;
  const past = layers.filter((layer) => layer.past.length > 0);
  const faces = new Set(layers.map(({ panel, face }) => `${panel} ${face}`)).size;
  return [
    {
      id: 'dressing-placed',
      check: 'dressing-placed',
      severity: 'pass',
      says:
        layers.length === 0
          ? 'No panel that is seen can wear a layer.'
          : `${layers.length} ${layers.length === 1 ? 'layer' : 'layers'} on ${faces} ${faces === 1 ? 'face' : 'faces'}: ${past.length === 0 ? 'inside their panels, ' : ''}clear of folds, openings and glue${past.length === 0 ? '' : `; past an edge, as you wish it: ${past.map(({ number }) => number).join(', ')}`}.`,
    },
  ];
};

/** A face that would wear a layer, but for its borders. */
function bareFace({ design, card }: CheckInput, { panel, name, face, why }: BareFace): Verdict[] {
  if (why !== 'borders') return [];
  const own = card.dressing?.layers?.own?.find((entry) => entry.panel === panel && entry.face === face);
  // Where the rule leaves nothing of a small panel, it stays bare, and nothing is wrong.
  if (!own) return [];
  const { area } = design.panels[design.linkage.bodyOf.get(panel)!]!;
  const xs = area.outer.map(([x]) => x);
  const ys = area.outer.map(([, y]) => y);
  const [width, height] = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
  return [
    {
      id: `dressing-placed/${panel}/${face}`,
      check: 'dressing-placed',
      severity: 'warn',
      panels: [panel],
      says: `The borders leave nothing of the ${inSentence(name)}, which is ${spoken(width)} × ${spoken(height)}: make them narrower, or leave it bare.`,
    },
  ];
}

/** A fold over which layers should be one piece, and are not. */
function linerMissing({ design, dressed }: CheckInput, { panels, face }: LinedFold): Verdict[] {
  const layers = panels.map((panel) => dressed.layers.filter((one) => one.panel === panel && one.face === face && one.step === 1));
  if (layers.every((own) => own.some(({ liner }) => liner))) return [];
  const name = (panel: string): string => {
    const body = design.linkage.bodyOf.get(panel);
    return body === undefined ? panel : `the ${inSentence(design.panels[body]!.name)}`;
  };
  const both = `${name(panels[0])} and ${name(panels[1])}`;
  const bare = panels.find((_, i) => layers[i]!.length === 0);
  const parted = panels.find((_, i) => layers[i]!.length > 1);
  const why =
    foldBetween(design, panels) === undefined
      ? 'there is no fold between them'
      : bare !== undefined
        ? `${name(bare)} wears none there`
        : parted !== undefined
          ? `on ${name(parted)} it is in several parts`
          : 'they do not lie beside one another';
  return [
    {
      id: `dressing-placed/${panels.join('+')}/${face}/liner`,
      check: 'dressing-placed',
      severity: 'warn',
      panels: panels.filter((panel) => design.linkage.bodyOf.has(panel)),
      says: `The layers of ${both} should be one piece, and are cut apart: ${why}.`,
    },
  ];
}

/** A line along which two papers should meet, and that parts nothing of the layer. */
function jointMissing({ design, dressed }: CheckInput, { panel, face, joint, bare, strips }: OwnDress): Verdict[] {
  if (!joint || bare || strips) return [];
  const own = dressed.layers.filter((layer) => layer.panel === panel && layer.face === face);
  if (own.length === 0 || own.some((layer) => layer.joint)) return [];
  const { panelName, panelBox, borders } = own.reduce((a, b) => (b.step > a.step ? b : a));
  const [from, to] =
    joint.runs === 'along' ? [borders.left, panelBox.width - borders.right] : [borders.bottom, panelBox.height - borders.top];
  return [
    {
      id: `dressing-placed/${panel}/${face}/joint`,
      check: 'dressing-placed',
      severity: 'warn',
      panels: [design.panels[design.linkage.bodyOf.get(panel)!]!.id],
      value: joint.at,
      unit: 'mm',
      says: `Two papers should meet ${spoken(joint.at)} from the ${joint.runs === 'along' ? 'left' : 'lower'} edge of the ${inSentence(panelName)}, where its layer has no room for both: it lies between ${spoken(from)} and ${spoken(to)} from there. It is cut in one piece; move the line, or leave it out.`,
    },
  ];
}

/** What a maker asked of a face that the card has not, or does not show, and steps that found no room. */
function ownDress({ design, dressed }: CheckInput, { panel, face, bare, steps }: OwnDress): Verdict[] {
  const says = (words: Sentence, panels: string[]): Verdict[] => [
    { id: `dressing-placed/${panel}/${face}`, check: 'dressing-placed', severity: 'warn', panels, says: words },
  ];
  const body = design.linkage.bodyOf.get(panel);
  if (body === undefined)
    return says(
      `A layer of its own was wished for ${panel}, which this card has not any more: it waits until the panel is there again.`,
      [],
    );
  if (bare) return [];
  const own = dressed.layers.filter((layer) => layer.panel === panel && layer.face === face);
  const name = inSentence(design.panels[body]!.name);
  if (own.length === 0) {
    if (dressed.bare.some((other) => other.panel === panel && other.face === face)) return [];
    return says(
      `A layer of its own was wished for the ${face === 'up' ? 'upper face' : 'back'} of the ${name}, which is not seen: it is left out.`,
      [panel],
    );
  }
  const highest = Math.max(...own.map(({ step }) => step));
  if (steps === undefined || highest >= steps) return [];
  return says(
    `Of ${steps} layers on the ${name} only ${highest} ${highest === 1 ? 'is' : 'are'} wide enough to be cut: take a smaller step, or fewer layers.`,
    [panel],
  );
}
