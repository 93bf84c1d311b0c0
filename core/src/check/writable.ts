import { spoken } from '../measure/sentence.js';
import type { Mm } from '../measure/units.js';
import { visibleFaces, type Look, type SeenFace } from '../card/visibility.js';
import type { Design } from '../card/join.js';
import { areaOf, boxOf, signedArea, type Area } from '../plane/outline.js';
import { inSentence } from '../card/part-titles.js';
import type { DressedLayer, Layers } from '../dress/layer.js';
import type { Panel } from '../sheet/panels.js';
import type { Face } from '../sheet/piece.js';
import type { Stock } from '../supplies/stocks.js';
import { plainRectangle } from '../plane/plain-rectangle.js';
import type { Check } from './finding.js';

/** A message wants a place of at least this, both ways. */
const LEAST_ACROSS = 40;
const LEAST_SHARE = 0.7;
/** Of its box a place must fill this much, or it is a frame. */
const LEAST_FILL = 0.8;
/** A coarse look is enough for a place of this size. */
const COARSE = 36;

type Place = Pick<SeenFace, 'panel' | 'face' | 'name'> & { look: Look; width: Mm; height: Mm; layer?: string };

/** Of its own area a liner is glued down at least so much. */
const LINER_GLUED = 0.6;

/** The card itself, and a liner: paper that is glued down nearly whole. What stands up is for the picture. */
function isPaperToWriteOn({ linkage }: Design, { id, piece, area }: Panel): boolean {
  const body = linkage.bodyOf.get(id)!;
  const glued = linkage.bonds.filter(({ a }) => a === body).reduce((sum, { corners }) => sum + Math.abs(signedArea(corners)), 0);
  return piece.stock === 'base' || (piece.stock === 'mechanism' && glued >= LINER_GLUED * areaOf(area));
}

/** What lies uppermost on a face, the largest where it has come apart. */
function uppermost({ layers }: Layers, panel: string, face: Face): DressedLayer | undefined {
  const own = layers.filter((layer) => layer.panel === panel && layer.face === face);
  const highest = Math.max(...own.map(({ step }) => step));
  return own.filter(({ step }) => step === highest).sort((a, b) => areaOf(b.area) - areaOf(a.area))[0];
}

/** Paper with one good side is bought for its pattern: nothing that is written on it can be read. */
const isPatterned = ({ kind, goodSides }: Stock): boolean => kind === 'paper' && goodSides === 1;

/** How much of its box an area fills. */
function filled(area: Area): number {
  const { minX, maxX, minY, maxY } = boxOf(area.outer);
  return areaOf(area) / ((maxX - minX) * (maxY - minY));
}

/** Is there a plain place for the message that can be seen and reached when the card is open? */
export const writable: Check = ({ design, motion, closed, resting, dressed }) => {
  let patterned: DressedLayer | undefined;
  /** The largest panel seen from there that has a plain rectangle large enough: what is cut out of it is no place to write on. */
  const placeSeen = (look: Look): Place | undefined => {
    const places = visibleFaces(design, motion, closed, resting, look, COARSE)
      .map((face) => ({ ...face, holder: design.panels[design.linkage.bodyOf.get(face.panel)!]! }))
      .filter(({ share, holder }) => share >= LEAST_SHARE && filled(holder.area) >= LEAST_FILL && isPaperToWriteOn(design, holder))
      .sort((a, b) => b.area - a.area);
    for (const { panel, face, name, holder } of places) {
      const layer = uppermost(dressed, panel, face);
      const { minX, maxX, minY, maxY } = plainRectangle(layer?.area ?? holder.area);
      const place = { panel, face, name, look, width: maxX - minX, height: maxY - minY, ...(layer && { layer: layer.number }) };
      if (Math.min(place.width, place.height) < LEAST_ACROSS) continue;
      if (!layer || !isPatterned(layer.stock)) return place;
      patterned ??= layer;
    }
    return undefined;
  };
  const best = placeSeen('front') ?? placeSeen('behind');
  return [
    {
      id: 'writable',
      check: 'writable',
      severity: best ? 'pass' : 'warn',
      ...(best ? { panels: [best.panel] } : patterned && { panels: [patterned.panel] }),
      at: resting.s,
      says: best
        ? `The message has its place on ${best.layer ? `layer ${best.layer} of ` : ''}${best.name}, its ${best.face === 'up' ? 'upper' : 'back'} face, ${spoken(best.width)} × ${spoken(best.height)}${best.look === 'behind' ? ', seen from behind' : ''}.`
        : patterned
          ? `Every panel large enough for the message wears patterned paper: cut layer ${patterned.number}, of the ${inSentence(patterned.panelName)}, from plain paper, or leave that panel bare.`
          : 'No plain panel of 40 mm both ways is seen when the card is open: write the message before it is put together, on the back of the closed card, or on a card of its own.',
    },
  ];
};
