import * as v from 'valibot';
import { imageSize, IMAGE_TYPES, imageTypeOf, type ImageType } from '../image/image-file.js';
import { inchDenominator, NOTATIONS, type Notation } from '../measure/units.js';
import { boardSchema, envelopeSchema, stockSchema } from '../supplies/supply-schemas.js';
import { starterFor } from '../supplies/starter-workshops.js';
import { carriedFor } from '../supplies/supplies-in-use.js';
import { STOCK_ROLES, type StockRole } from '../supplies/stocks.js';
import type { Workshop } from '../supplies/workshop.js';
import { dressingSchema } from './dressing.js';

/** The only thing that is stored of a card. Everything else is worked out from it. Lengths mm, angles radians. */

export const CURRENT_VERSION = 3;

/** Id of the part that all others stand on. No other part may have it. */
export const ROOT = 'base';

/** A card carries at most so many parts. */
export const MOST_PARTS = 25;

const oneOf = (what: string, values: readonly string[]) =>
  v.pipe(
    v.string(),
    v.check((value) => values.includes(value), `allowed ${what}: ${values.join(', ')}`),
  );

const text = (max: number) => v.pipe(v.string('allowed: text'), v.maxLength(max, `allowed: at most ${max} characters`));
const identifier = v.pipe(
  v.string('allowed: text'),
  v.regex(/^[a-z0-9][a-z0-9-]{0,63}$/i, 'allowed: letters, digits and hyphens, at most 64'),
);
const finite = v.pipe(
  v.number(),
  v.finite('allowed: a finite number'),
  v.minValue(-1e5, 'allowed: -100000 to 100000'),
  v.maxValue(1e5, 'allowed: -100000 to 100000'),
);
const positive = v.pipe(finite, v.minValue(0.1, 'allowed: 0.1 and more'));
const sizeName = v.pipe(v.string(), v.regex(/^[a-zA-Z][a-zA-Z0-9]{0,40}$/, 'allowed: a plain size name'));

const hasOwnNameOf = (given: unknown, names: readonly string[]): boolean =>
  typeof given === 'object' && given !== null && names.some((name) => Object.hasOwn(given, name));

/** Values by name: a list, which JSON also counts among objects, is not taken for an empty one. */
const named = <K extends v.GenericSchema<string, string>, V extends v.GenericSchema>(key: K, value: V) =>
  v.pipe(
    v.unknown(),
    v.check((given) => !Array.isArray(given), 'allowed: values by name, not a list'),
    // The schema would pass over such a name in silence, and what it holds with it.
    v.check((given) => !hasOwnNameOf(given, ['__proto__', 'constructor', 'prototype']), 'allowed: names that are no words of the machine'),
    v.record(key, value),
  );
const plainSize = v.union([finite, text(64)], 'allowed: a number (mm or radians) or a word');
const sizeItems = v.pipe(v.array(named(sizeName, plainSize)), v.maxLength(24, 'allowed: at most 24 entries'), v.readonly());
const size = v.union([finite, text(64), sizeItems], 'allowed: a number (mm or radians), a word, or a list of entries with such sizes');
const sizes = named(sizeName, size);

/** A card holds at most so many outlines of its own. */
export const MOST_OUTLINES = 12;
/** A card keeps at most so many pictures, each of so many letters (base64): together with all else it stays a file that is quickly read. */
export const MOST_IMAGES = 4;
export const LARGEST_IMAGE = 400_000;
const imageName = v.pipe(v.string('allowed: text'), v.regex(/^image-[a-z0-9-]{1,40}$/, 'allowed: image- and letters, digits, hyphens'));

/** A picture that a card keeps has no more dots than this either way: a small file may unpack to more than a page can hold. */
const MOST_DOTS = 4096;
function isShown({ type, data }: { type: ImageType; data: string }): boolean {
  try {
    const bytes = Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0));
    const { width, height } = imageSize(bytes)!;
    return imageTypeOf(bytes) === type && Math.min(width, height) > 0 && Math.max(width, height) <= MOST_DOTS;
  } catch {
    return false;
  }
}

/** A picture that is printed on toppers, as its file is, in base64. */
const ownImage = v.pipe(
  v.strictObject({
    id: imageName,
    name: v.pipe(text(60), v.minLength(1, 'allowed: at least one character')),
    type: v.picklist(IMAGE_TYPES, `allowed: ${IMAGE_TYPES.join(', ')}`),
    data: v.pipe(
      v.string('allowed: text'),
      v.maxLength(LARGEST_IMAGE, `allowed: at most ${LARGEST_IMAGE} characters`),
      v.regex(/^[A-Za-z0-9+/]+={0,2}$/, 'allowed: base64'),
    ),
  }),
  v.check((image) => isShown(image), `allowed: a picture of the type that it names, of at most ${MOST_DOTS} × ${MOST_DOTS} dots`),
);

/** An outline that the card brings with it: points in its own units, y up. */
const ownOutline = v.strictObject({
  id: v.pipe(v.string(), v.regex(/^own-[a-z0-9-]{1,40}$/, 'allowed: own- and letters, digits, hyphens')),
  name: v.pipe(text(60), v.minLength(1, 'allowed: at least one character')),
  points: v.pipe(
    v.array(v.strictTuple([finite, finite], 'allowed: pairs of numbers')),
    v.minLength(3, 'allowed: 3 to 600 points'),
    v.maxLength(600, 'allowed: 3 to 600 points'),
  ),
  /** the picture that is printed on it, and where that lies, in the same units: its lower left corner, how wide and how high */
  image: v.optional(v.strictObject({ of: imageName, x: finite, y: finite, width: positive, height: positive })),
});

/** What stands where: the part that carries it, and the fold of that part; turned end for end where the maker wished so. */
const placeSchema = v.strictObject({
  part: identifier,
  site: identifier,
  turned: v.optional(v.literal(true, 'allowed: true, or left out')),
});

const partSchema = v.strictObject({
  id: identifier,
  mechanism: identifier,
  /** what the maker calls it, where the mechanism's own name is not enough */
  name: v.optional(v.pipe(text(60), v.minLength(1, 'allowed: at least one character'))),
  /** left out for the base alone */
  on: v.optional(placeSchema),
  sizes,
});

export const cardSchema = v.strictObject({
  format: v.literal('diptychon-card', 'allowed: diptychon-card'),
  version: v.literal(CURRENT_VERSION, `allowed: up to ${CURRENT_VERSION}`),
  id: identifier,
  name: v.pipe(text(120), v.minLength(1, 'allowed: at least one character')),
  foldEdge: v.picklist(['side', 'top'], 'allowed: side, top'),
  notation: v.pipe(
    oneOf(
      'notations',
      NOTATIONS.map((n) => n.id),
    ),
    v.transform((value) => value as Notation),
  ),
  /** the ruler on which sizes lie that are left out, chosen once: reading in another unit changes no card */
  marks: v.optional(v.picklist(['mm', 'inch'], 'allowed: mm, inch')),
  /** the base first; movements in any order */
  parts: v.pipe(
    v.array(partSchema),
    v.minLength(1, 'allowed: the base and what stands on it'),
    v.maxLength(MOST_PARTS, `allowed: at most ${MOST_PARTS} parts`),
  ),
  /** ids of supplies, by what they are for */
  stocks: v.strictObject(Object.fromEntries(STOCK_ROLES.map((role) => [role, identifier])) as Record<StockRole, typeof identifier>),
  /** pieces that are cut from a stock of their own */
  pieceStocks: v.optional(named(identifier, identifier)),
  /** what is glued on it */
  dressing: v.optional(dressingSchema),
  board: identifier,
  envelope: v.optional(identifier),
  /** what the closed card must keep inside: its own outline where left out, or only its envelope */
  within: v.optional(v.picklist(['outline', 'envelope'], 'allowed: outline, envelope')),
  /** copies of those supplies as they were when they were chosen */
  supplies: v.strictObject({
    stocks: v.pipe(v.array(stockSchema), v.maxLength(40, 'allowed: at most 40 stocks')),
    boards: v.pipe(v.array(boardSchema), v.maxLength(8, 'allowed: at most 8 boards')),
    envelopes: v.pipe(v.array(envelopeSchema), v.maxLength(8, 'allowed: at most 8 envelopes')),
  }),
  outlines: v.optional(v.pipe(v.array(ownOutline), v.maxLength(MOST_OUTLINES, `allowed: at most ${MOST_OUTLINES} outlines`))),
  images: v.optional(v.pipe(v.array(ownImage), v.maxLength(MOST_IMAGES, `allowed: at most ${MOST_IMAGES} pictures`))),
  /** what the maker's post takes, as the maker was told it: mm and g */
  post: v.optional(
    v.strictObject({
      thickness: v.optional(positive),
      long: v.optional(positive),
      short: v.optional(positive),
      weight: v.optional(positive),
    }),
  ),
  state: v.optional(v.picklist(['idea', 'tested', 'made'], 'allowed: idea, tested, made')),
  note: v.optional(text(4000)),
});

export type CardDocument = v.InferOutput<typeof cardSchema>;
export type OwnImage = NonNullable<CardDocument['images']>[number];
export type CardPart = CardDocument['parts'][number];
export type Place = NonNullable<CardPart['on']>;

/** The part that all others stand on. */
export const rootOf = (card: Pick<CardDocument, 'parts'>): CardPart => card.parts[0]!;

/** The parts that stand on the base or on one another. */
export const movementsOf = (card: Pick<CardDocument, 'parts'>): readonly (CardPart & { on: Place })[] =>
  card.parts.filter((part): part is CardPart & { on: Place } => part.on !== undefined);

type Given = Partial<Omit<CardDocument, 'parts' | 'stocks'>> &
  Pick<CardDocument, 'id' | 'name'> & {
    base: Pick<CardPart, 'mechanism' | 'sizes'>;
    movements?: readonly (CardPart & { on: Place })[];
    stocks?: Partial<CardDocument['stocks']>;
  };

/** A new card on a base, with what this workshop usually takes; sizes left out take their defaults. */
export function newCard({ base, movements = [], stocks, ...given }: Given, workshop?: Workshop): CardDocument {
  const { usual } = workshop ?? starterFor('mm');
  const card: Omit<CardDocument, 'supplies'> = {
    format: 'diptychon-card',
    version: CURRENT_VERSION,
    foldEdge: 'side',
    notation: workshop?.notation ?? 'mm',
    ...(inchDenominator(given.notation ?? workshop?.notation ?? 'mm') !== undefined && { marks: 'inch' as const }),
    board: usual.board,
    ...given,
    parts: [{ id: ROOT, mechanism: base.mechanism, sizes: base.sizes }, ...movements],
    stocks: { ...usual.stocks, ...stocks },
  };
  return withOwnSupplies(card, ...(workshop ? [workshop] : []));
}

/** A card that carries copies of just what it uses: those it has already, then those of the workshops. */
export function withOwnSupplies(
  card: Omit<CardDocument, 'supplies'> & Partial<CardDocument>,
  ...workshops: readonly Workshop[]
): CardDocument {
  const carried = carriedFor(card, ...(card.supplies ? [card.supplies] : []), ...workshops);
  return { ...card, supplies: JSON.parse(JSON.stringify(carried)) as CardDocument['supplies'] };
}

/** The board that a card is scored on. @throws RangeError when the card does not carry it */
export function boardOf({ board, supplies }: Pick<CardDocument, 'board' | 'supplies'>): CardDocument['supplies']['boards'][number] {
  const found = supplies.boards.find(({ id }) => id === board);
  if (!found) throw new RangeError(`no board “${board}”; the card carries ${supplies.boards.map(({ id }) => id).join(', ')}`);
  return found;
}

/** The envelope that was chosen for a card, if one was. */
export const envelopeOf = ({ envelope, supplies }: Pick<CardDocument, 'envelope' | 'supplies'>) =>
  supplies.envelopes.find(({ id }) => id === envelope);
