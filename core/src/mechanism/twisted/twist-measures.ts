import { spoken } from '../../measure/sentence.js';
import type { Mm, Radians } from '../../measure/units.js';
import type { Measure } from '../contract.js';
import { angle, mm } from '../measures.js';
import type { FoldSite } from '../sites.js';
import { glueFrom, glueTo, type Twist } from './twist-sizes.js';

/** How far a leg leans from the fold at an opening: tan(tilt/2) = cos(opening/2). A V-fold with both angles 45°. */
export const legTilt = (opening: Radians): Radians => 2 * Math.atan(Math.cos(opening / 2));

/** The opening at which a leg leans so far from the fold: the same formula the other way. */
const openingAt = (tilt: Radians): Radians => 2 * Math.acos(Math.min(1, Math.tan(tilt / 2)));

/**
 * The opening up to which nothing of a strip or carrier of that half length stands past the fold’s end, its farthest corner
 * half·cos(tilt) + ½width·(1 − cos(tilt)) along the fold from its middle.
 */
export function hiddenUpTo(half: Mm, width: Mm, room: Mm): Radians {
  return half <= room ? Math.PI : openingAt(Math.acos((room - width / 2) / (half - width / 2)));
}

/** Numbers that follow from the sizes of a twist carrier. */
export function twistMeasures(twist: Twist, site: FoldSite): Measure[] {
  const { width, strip, carrier, middle } = twist;
  const room = Math.min(middle, site.length - middle);
  const past = (length: Mm): Mm => Math.max(0, length / 2 - room);
  const beyond = 'half its length less what the fold has left on that side: open, it lies along the fold';
  const longest = Math.max(strip, carrier) / 2;
  return [
    mm('square', 'Square in the middle of the strip', width, 'as long as the strip is wide: its diagonals run at 45°'),
    mm('diagonalMarks', 'Marks for the diagonals from each end of the strip', (strip - width) / 2, 'half of what the square leaves'),
    mm('quarter', 'A quarter of the carrier', carrier / 4, 'its folds lie there, valley, mountain, valley'),
    mm(
      'gluedLength',
      'Glued length at either end of the carrier',
      glueTo(twist) - glueFrom(twist),
      'from the carrier’s fold, or the square where that is farther out, to the end of the shorter of both',
    ),
    mm('closedReach', 'Strip from the fold, closed', strip / 2, 'half its length: closed, the legs stand straight out of the fold'),
    mm('carrierReach', 'Carrier from the fold, closed', carrier / 2, 'half its length'),
    mm('legsPast', 'Legs past the end of the fold, open', past(strip), beyond),
    mm('carrierPast', 'Carrier past the end of the fold, open', past(carrier), beyond),
    ...(longest > room
      ? [
          angle(
            'hiddenUpTo',
            'Nothing stands past the card up to an opening of',
            hiddenUpTo(longest, width, room),
            `there the leg has come so far round that its corner is ${spoken(room)} along the fold: tan(tilt/2) = cos(opening/2)`,
          ),
        ]
      : []),
  ];
}
