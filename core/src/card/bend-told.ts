import type { BentShape } from '../bending/follow-bend.js';
import { capitalised, printAngle } from '../measure/print.js';
import { spoken, told, type Sentence } from '../measure/sentence.js';
import { toDegrees, toRadians, type Mm, type Notation, type Radians } from '../measure/units.js';
import { leastBendRadius, type Stock } from '../supplies/stocks.js';
import type { BentRow } from './bent-rows.js';

/** A sheet bent by more than this has long left the plain curve. */
const MUCH: Radians = toRadians(90);
/** Bent by more than this no card keeps from creasing: it lies nearly on itself. */
const TOO_MUCH: Radians = toRadians(150);
/**
 * How much later than it is worked out a sheet may jump. By then it has long creased and lies nearly on itself; a smooth sheet
 * holds on the longer the finer its cells are (6 × 8: 116°, 8 × 12: 128°, 10 × 14: 137°, 12 × 16: 143° for a carrier 40 mm wide
 * and 200 mm long; bars and hinges of 6 × 8: 137°), and never earlier.
 */
export const SNAP_LATER: Radians = toRadians(30);

/** How far one stock can be taken. */
export interface StockBend {
  name: string;
  /** what the card is made of now */
  own: boolean;
  /** it creases when it is bent to a smaller one */
  leastRadius: Mm;
  /** opened from closed, the opening from which it creases; left out where it never does */
  creasesFrom?: Radians;
}

/** How a row of bending panels fares on the way. Openings are left out of what does not happen. */
export interface BendReading {
  /** opened from closed: bent by more than a right angle from here on */
  muchFrom?: Radians;
  /** the most it is bent before it creases, and the least radius */
  most: { angle: Radians; radius: Mm };
  creasesFrom?: Radians;
  /** where it jumps to the shape that it has when it comes from the open card */
  snapsAt?: Radians;
  /** closed from open, it creases below this */
  closingCreasesBelow?: Radians;
  stocks: readonly StockBend[];
}

/** @param own what the row is cut from  @param others what else the maker has */
export function readBend(row: BentRow, own: Stock, others: readonly Stock[]): BendReading {
  const { openings, opening, closing } = row;
  const creasing =
    (stock: Stock) =>
    ({ angle, radius }: BentShape): boolean =>
      angle > TOO_MUCH || radius < leastBendRadius(stock);
  const firstAs = (is: (shape: BentShape) => boolean): Radians | undefined => at(openings, opening.shapes.findIndex(is));
  const firstCrease = opening.shapes.findIndex(creasing(own));
  const uncreased = firstCrease < 0 ? opening.shapes : opening.shapes.slice(0, firstCrease);
  const [snap] = opening.snaps;
  const stocks = [own, ...others.filter(({ id }) => id !== own.id)];
  return withoutNothing({
    muchFrom: firstAs(({ angle }) => angle > MUCH),
    most: { angle: Math.max(...uncreased.map(({ angle }) => angle)), radius: Math.min(...uncreased.map(({ radius }) => radius)) },
    creasesFrom: at(openings, firstCrease),
    snapsAt: snap && (openings[snap.after]! + openings[snap.before]!) / 2,
    closingCreasesBelow: at(openings, closing.shapes.findLastIndex(creasing(own))),
    stocks: stocks.map((stock) =>
      withoutNothing({
        name: stock.name,
        own: stock === own,
        leastRadius: leastBendRadius(stock),
        creasesFrom: firstAs(creasing(stock)),
      }),
    ),
  });
}

const at = (openings: readonly Radians[], frame: number): Radians | undefined => (frame < 0 ? undefined : openings[frame]);

type Given<T> = { [K in keyof T as undefined extends T[K] ? never : K]: T[K] } & {
  [K in keyof T as undefined extends T[K] ? K : never]?: Exclude<T[K], undefined>;
};
/** An object without the entries that hold nothing. */
const withoutNothing = <T extends object>(entries: T): Given<T> =>
  Object.fromEntries(Object.entries(entries).filter(([, value]) => value !== undefined)) as Given<T>;

/** In whole degrees: it is known no better. */
const whole = (angle: Radians): string => printAngle(toRadians(Math.round(toDegrees(angle))));

/** What a maker should know of it, in the order in which it happens. */
export function bendSentences({ claim, meets }: BentRow, reading: BendReading, notation: Notation): string[] {
  const { muchFrom, most, creasesFrom, snapsAt, closingCreasesBelow, stocks } = reading;
  const own = stocks.find((stock) => stock.own)!;
  const name = capitalised(claim.name);
  const sentences: (Sentence | undefined)[] = [
    `${name} bends on the way. Taken slowly from closed, it curves to a radius of ${spoken(most.radius)}, by up to ${whole(most.angle)}${
      muchFrom === undefined ? '' : ` and by more than 90° from an opening of ${whole(muchFrom)} on`
    }.`,
    creasesFrom === undefined
      ? `${own.name} takes that: it creases only when it is bent to less than ${spoken(own.leastRadius)}.`
      : `From an opening of ${whole(creasesFrom)} on it would crease (${own.name}): help the curve over before that, with a finger under its middle fold.`,
    snapsAt === undefined
      ? undefined
      : `Left alone it jumps over somewhere between ${whole(snapsAt)} and ${whole(Math.min(Math.PI, snapsAt + SNAP_LATER))}, and from there on lies down flat.`,
    closingCreasesBelow === undefined
      ? undefined
      : `Closed from flat it does not find the way back by itself, and creases below ${whole(closingCreasesBelow)}: lift its middle fold into a ridge first, then close the card.`,
    ...meets.map(
      ({ name: other, way, opening, length }) =>
        `${way === 'opening' ? 'Opened from closed' : 'Closed from open'}, it runs into ${other} at an opening of ${whole(opening)}, along up to ${spoken(Math.max(1, Math.round(length)))}: move one of them along the fold, or make it smaller.`,
    ),
  ];
  return sentences.filter((sentence) => sentence !== undefined).map((sentence) => told(sentence, notation));
}
