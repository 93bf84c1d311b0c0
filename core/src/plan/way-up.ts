import { visibleFaces, type SeenFace } from '../card/visibility.js';
import type { Evaluation } from '../evaluate.js';
import { poseOf } from '../linkage/motion.js';
import { topOf } from '../dress/reading-up.js';
import { areaOf, signedArea } from '../plane/outline.js';
import { plainStep, type BenchStep } from './step.js';

/** A face shows a picture if as much of it is seen, mm². */
const WORTH_A_PICTURE = 600;
/** Where the top of a picture on one face of a panel belongs. */
export interface WayUp {
  panel: string;
  name: string;
  piece: string;
  face: SeenFace['face'];
  /** as the piece lies flat, upper face up */
  top: string;
}

/** Which way up a picture is on every face that shows when the card is put down, as its piece lies flat, upper face up. */
export function waysUp({ design, motion, closed, resting }: Evaluation): WayUp[] {
  const pressed = motion.pressed ?? motion;
  const pose = poseOf(pressed, resting);
  return visibleFaces(design, pressed, closed, resting, 'front')
    .filter(({ area, panel }) => area >= WORTH_A_PICTURE && !isTab(design, panel))
    .flatMap(({ panel, name, face }): WayUp[] => {
      const body = design.panels.findIndex(({ id }) => id === panel);
      const { piece } = design.panels[body]!;
      if (piece.thickness !== undefined) return [];
      const { toward, lies } = topOf(pose[body]!, design.base.rest);
      const top = lies ? nearestEdge(toward) : edgeToward(toward);
      return [{ panel, name, piece: piece.id, face, top }];
    });
}

/** The step that says so, where anything shows. */
export function wayUpSteps(evaluation: Evaluation): BenchStep[] {
  const ways = waysUp(evaluation);
  const says = evaluation.sheets.flatMap(({ piece }) => {
    const own = ways.filter((way) => way.piece === piece.id);
    if (own.length === 0) return [];
    const tops = [...new Set(own.map(({ top }) => top))];
    const told = tops.map((top) => {
      const names = own.filter((way) => way.top === top).map(({ name, face }) => `${name}${face === 'down' ? ', other face' : ''}`);
      return `top toward the ${top}: ${names.join('; ')}`;
    });
    return [`${piece.name}, lying ${piece.faceUp}: ${told.join('. And ')}.`];
  });
  if (says.length === 0) return [];
  return [
    plainStep({
      id: 'way-up',
      kind: 'dress',
      title: 'Which way up when open',
      says: ['Pictures go on now, while everything is flat.', ...says],
      picture: { kind: 'standing', at: evaluation.design.base.rest.at },
    }),
  ];
}

/** Up to 35° from an edge it is that edge. */
const SLANTS = Math.tan((35 * Math.PI) / 180);

function edgeToward([x, y]: readonly [number, number]): string {
  const slanted = Math.min(Math.abs(x), Math.abs(y)) >= SLANTS * Math.max(Math.abs(x), Math.abs(y));
  return slanted ? `${y > 0 ? 'upper' : 'lower'} ${x > 0 ? 'right' : 'left'} corner` : nearestEdge([x, y]);
}

function nearestEdge([x, y]: readonly [number, number]): string {
  if (Math.abs(x) > Math.abs(y)) return x > 0 ? 'right edge' : 'left edge';
  return y > 0 ? 'upper edge' : 'lower edge';
}

/** Whether glue takes most of a panel: nothing is put on a tab. */
function isTab(design: Evaluation['design'], panel: string): boolean {
  const { area, piece } = design.panels.find(({ id }) => id === panel)!;
  const zones = design.linkage.bonds.filter(({ source }) => source.panel === panel).map(({ source }) => source.zone);
  const glued = piece.zones.filter(({ id }) => zones.includes(id)).reduce((sum, { outline }) => sum + Math.abs(signedArea(outline)), 0);
  return piece.creases.length > 0 && glued > areaOf(area) / 2;
}
