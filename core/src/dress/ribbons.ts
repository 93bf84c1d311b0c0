import type { ClosedCard } from '../card/closed-card.js';
import { caliperOf } from '../card/card-stocks.js';
import { closuresOf, type RibbonClosure } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import { poseOf, type Motion } from '../linkage/motion.js';
import { carryFlat } from '../linkage/rigid.js';
import type { Mm } from '../measure/units.js';
import { areasOf, intersect } from '../plane/boolean.js';
import { areaOf, asArea, boxOf, rectangle, type Area, type Box } from '../plane/outline.js';
import { between, type Point } from '../plane/point.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { ribbonRound, SLIT_GAP, SLIT_PLAY, type Ribbon } from './ribbon.js';
import { under } from './strip-under.js';

/** A line of the closed card runs along its fold when it is no farther from it. */
const ON_FOLD: Mm = 1;
/** A strip of a panel that is smaller than this is none, mm². */
const LEAST_PLACE = 0.01;
/** What only touches the edge of a ribbon is not in its way. */
const TOUCHES: Mm = 1e-6;
/** Paper left between a slit and the end of its fold. */
const FROM_END: Mm = 3;

/** A slit along a score of a flat piece, as shares of its way from its first to its second end. */
export interface Slit {
  piece: string;
  crease: string;
  from: number;
  to: number;
}

/** A ribbon as it is tied round the closed card. */
export interface PlacedRibbon {
  closure: RibbonClosure;
  number: string;
  /** of the card where it is thickest under the ribbon */
  thickness: Mm;
  ribbon: Ribbon;
  /** none where it goes round, and none where no fold is whole there */
  slits: readonly Slit[];
  /** the one panel that it goes round, the strip of it that it covers as its piece is drawn, and what it cannot go round there */
  panel?: { id: string; name: string; lies: Box; inTheWay?: 'fold' | 'glue' };
  /** the strip of the closed card that it goes over, in the ground's coordinates; none where it goes round one panel */
  over?: Box;
}

/** The ribbons of a closed card, with what it wears. One that lies beside the card is left out. */
export function ribbonsOf(design: Design, motion: Motion, closed: ClosedCard): PlacedRibbon[] {
  return closuresOf(design.card.dressing, 'ribbon').flatMap((closure, i): PlacedRibbon[] => {
    if (closure.way === 'panel') return roundPanel(design, closed, closure, `R${i + 1}`);
    const { box, pile } = closed;
    const across = closure.way === 'slits' || closure.around === 'across';
    const low = across ? box.minY : box.minX;
    const [from, to] = [low + closure.at - closure.wide / 2, low + closure.at + closure.wide / 2];
    const over = across ? { ...box, minY: from, maxY: to } : { ...box, minX: from, maxX: to };
    const here = under(design, pile, over, across);
    if (here.wide <= 0) return [];
    const ribbon = ribbonRound(closure, here);
    const slits = closure.way === 'slits' ? slitsFor(design, motion, closed, low + closure.at, closure.wide) : [];
    return [{ closure, number: `R${i + 1}`, thickness: here.thickness, ribbon, slits, over }];
  });
}

/**
 * A ribbon round one panel, from free edge to free edge: over it, round the edge, down its back, and round the other edge. It goes
 * round no fold, and not where the panel is glued down.
 */
function roundPanel(design: Design, { thickest }: ClosedCard, closure: RibbonClosure, number: string): PlacedRibbon[] {
  const { panels, linkage } = design;
  const body = linkage.bodyOf.get(closure.panel ?? '');
  if (body === undefined) return [];
  const { id, name, area, piece } = panels[body]!;
  const { minX, maxX, minY, maxY } = boxOf(area.outer);
  const isAcross = closure.around === 'across';
  const middle = (isAcross ? minY : minX) + closure.at;
  const [from, to] = [middle - closure.wide / 2, middle + closure.wide / 2];
  const strip = asArea(isAcross ? rectangle(minX, from, maxX - minX, closure.wide) : rectangle(from, minY, closure.wide, maxY - minY));
  const isOn = (other: Area): boolean => areasOf(intersect([other], [strip])).some((part) => areaOf(part) > LEAST_PLACE);
  if (!isOn(area)) return [];
  const lies = boxOf(areasOf(intersect([area], [strip])).flatMap(({ outer }) => outer));
  const along = ([x, y]: Point): Mm => (isAcross ? y : x);
  const isFolded = linkage.hinges.some(({ left, right, source: { crease } }) => {
    if (left !== body && right !== body) return false;
    const [low, high] = [along(crease.from), along(crease.to)].sort((a, b) => a - b) as [Mm, Mm];
    return low < to - TOUCHES && high > from + TOUCHES;
  });
  const isGlued = linkage.bonds.some(
    ({ a, b, corners, fixed }) =>
      (a === body && isOn(asArea(corners))) || (b === body && isOn(asArea(corners.map((corner) => carryFlat(fixed, corner))))),
  );
  const inTheWay = isFolded ? ('fold' as const) : isGlued ? ('glue' as const) : undefined;
  const worn = design.worn.filter((each) => each.panel === id && isOn(each.area));
  const thickness = caliperOf(design, piece) + worn.reduce((sum, each) => sum + each.thickness, 0);
  const wide = isAcross ? lies.maxX - lies.minX : lies.maxY - lies.minY;
  return [
    {
      ...{ closure, number, thickness: thickest.thickness, slits: [] },
      ribbon: ribbonRound({ ...closure, way: 'round' }, { wide, thickness }),
      panel: {
        id,
        name,
        lies: isAcross ? { ...lies, minY: from, maxY: to } : { ...lies, minX: from, maxX: to },
        ...(inTheWay && { inTheWay }),
      },
    },
  ];
}

/** Two slits in the fold at the edge of the closed card, one over the other; none where no fold is whole so far. */
function slitsFor({ linkage, panels }: Design, motion: Motion, { box }: ClosedCard, middle: Mm, wide: Mm): Slit[] {
  const pose = poseOf(motion, motion.frames[0]!);
  const long = wide + SLIT_PLAY;
  const wanted = [middle - SLIT_GAP / 2 - long, middle + SLIT_GAP / 2].map((from) => [from, from + long] as const);
  for (const { left, source } of linkage.hinges) {
    const { piece } = panels[left]!;
    // What interrupts a fold leaves stretches of it that turn as one.
    const line = source.crease.stretchOf?.id;
    const stretches = line === undefined ? [source.crease] : piece.creases.filter(({ stretchOf }) => stretchOf?.id === line);
    for (const crease of stretches) {
      const [a, b] = [crease.from, crease.to].map((point: Point) => carryFlat(pose[left]!, point)) as [Point, Point];
      if ([a, b].some(([x]) => Math.abs(x - box.minX) > ON_FOLD)) continue;
      const [start, end] = [Math.min(a[1], b[1]) + FROM_END, Math.max(a[1], b[1]) - FROM_END];
      if (wanted.some(([from, to]) => from < start || to > end)) continue;
      const share = (y: Mm): number => (y - a[1]) / (b[1] - a[1]);
      return wanted.map(([from, to]) => ({ piece: piece.id, crease: crease.id, from: share(from), to: share(to) }));
    }
  }
  return [];
}

/** A flat piece with the slits that ribbons go through: along their score, between both scores of a spine. */
export function withSlits(sheet: CutSheet, ribbons: readonly PlacedRibbon[]): CutSheet {
  const cuts = ribbons.flatMap(({ closure, slits }) =>
    slits.flatMap(({ piece, crease, from, to }, i) => {
      const scores = sheet.scores.filter(({ id, secondOfSpine }) => (secondOfSpine ? id === `${crease}-2` : id === crease));
      if (piece !== sheet.piece.id || scores.length === 0) return [];
      const on = (share: number): Point => {
        const points = scores.map((score) => between(score.from, score.to, share));
        return [points.reduce((sum, [x]) => sum + x, 0) / points.length, points[0]![1]];
      };
      return [{ id: `${closure.id}-slit-${i + 1}`, from: on(from), to: on(to) }];
    }),
  );
  return cuts.length > 0 ? { ...sheet, cuts: [...sheet.cuts, ...cuts] } : sheet;
}
