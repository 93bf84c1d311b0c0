import type { ClosedCard } from '../card/closed-card.js';
import { envelopeOf } from '../card/document.js';
import type { Design } from '../card/join.js';
import { lyingAt } from '../card/worn.js';
import { poseOf, type Motion } from '../linkage/motion.js';
import { carryFlat, inverted } from '../linkage/rigid.js';
import type { Mm } from '../measure/units.js';
import { boxOf, rectangle, type Box, type Loop } from '../plane/outline.js';
import type { Dressed } from './dress.js';
import { postedCard } from './posted-card.js';

interface DressedCard {
  design: Design;
  motion: Motion;
  closed: ClosedCard;
  dressed: Dressed;
}

/**
 * How far the outline of a topper may reach before the closed card misses the envelope that was chosen for it: a rectangle
 * round the panel that carries it, in the coordinates of the panel's piece. Everything else of the card, and its thickness,
 * is taken as it is. Nothing without a chosen envelope, or where the rest misses it already.
 */
export function envelopeLimit({ design, motion, closed, dressed }: DressedCard, topper: string): Loop | undefined {
  const envelope = envelopeOf(design.card);
  const moved = dressed.toppers.find((each) => each.topper.id === topper);
  if (!envelope || !moved) return undefined;
  const pressed = motion.pressed ?? motion;
  const pose = poseOf(pressed, pressed.frames[0]!);
  const others = design.worn
    .filter(({ id }) => id !== moved.id && moved.under.every((own) => own.id !== id))
    .flatMap((each) => lyingAt(pose[design.linkage.bodyOf.get(each.panel)!]!, each).outer);
  const rest = boxOf([...closed.stack.layers.flatMap(({ area }) => area.outer), ...others]);
  const posted = postedCard(closed, dressed);
  const room = (long: Mm, short: Mm): { width: Mm; height: Mm } => ({
    // What goes round the card counts on top of it.
    width: long - posted.thickness - (posted.width - (closed.box.maxX - closed.box.minX)),
    height: short - posted.thickness - (posted.height - (closed.box.maxY - closed.box.minY)),
  });
  const taking = [room(envelope.long, envelope.short), room(envelope.short, envelope.long)].filter(
    ({ width, height }) => width >= rest.maxX - rest.minX - 1e-9 && height >= rest.maxY - rest.minY - 1e-9,
  );
  // Either way round it may go in: the way that lies nearer to how the card lies now.
  const [way] = taking.sort((a, b) => lacking(a, closed.box) - lacking(b, closed.box));
  if (!way) return undefined;
  const [minX, maxX] = [rest.maxX - way.width, rest.minX + way.width];
  const [minY, maxY] = [rest.maxY - way.height, rest.minY + way.height];
  const back = inverted(pose[design.linkage.bodyOf.get(moved.panel)!]!);
  return rectangle(minX, minY, maxX - minX, maxY - minY).map((point) => carryFlat(back, point));
}

/** By how much the card as it is now is too large for some room. */
const lacking = ({ width, height }: { width: Mm; height: Mm }, { minX, maxX, minY, maxY }: Box): Mm =>
  Math.max(0, maxX - minX - width, maxY - minY - height);
