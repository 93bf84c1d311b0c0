import * as v from 'valibot';
import { BOARDS } from '../supplies/boards.js';
import { STOCKS } from '../supplies/stocks.js';
import { NOTATIONS, type Notation } from '../measure/units.js';

/** The only thing that is stored. Everything else is worked out from it. Lengths mm, angles radians. */
export const CURRENT_VERSION = 2;

const EVERYDAY_FILM = 'film-190';

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
const sizeName = v.pipe(v.string(), v.regex(/^[a-zA-Z][a-zA-Z0-9]{0,40}$/, 'allowed: a plain size name'));
const plainSize = v.union([finite, text(64)], 'allowed: a number (mm or radians) or a word');
const sizeItems = v.pipe(v.array(v.record(sizeName, plainSize)), v.maxLength(24, 'allowed: at most 24 entries'), v.readonly());
const size = v.union([finite, text(64), sizeItems], 'allowed: a number (mm or radians), a word, or a list of entries with such sizes');
const sizes = v.record(sizeName, size);

/** An outline that the card brings with it: points in its own units, y up. */
const ownOutline = v.strictObject({
  id: v.pipe(v.string(), v.regex(/^own-[a-z0-9-]{1,40}$/, 'allowed: own- and letters, digits, hyphens')),
  name: v.pipe(text(60), v.minLength(1, 'allowed: at least one character')),
  points: v.pipe(
    v.array(v.tuple([finite, finite], 'allowed: pairs of numbers')),
    v.minLength(3, 'allowed: 3 to 600 points'),
    v.maxLength(600, 'allowed: 3 to 600 points'),
  ),
});
const positive = v.pipe(finite, v.minValue(0.1, 'allowed: 0.1 and more'));

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
  board: oneOf(
    'boards',
    BOARDS.map((b) => b.id),
  ),
  envelope: v.optional(identifier),
  stocks: v.strictObject({
    base: oneOf(
      'stocks',
      STOCKS.map((s) => s.id),
    ),
    mechanism: oneOf(
      'stocks',
      STOCKS.map((s) => s.id),
    ),
    display: oneOf(
      'stocks',
      STOCKS.map((s) => s.id),
    ),
    /** clear film; cards made before there was any have the everyday one */
    film: v.optional(
      oneOf(
        'stocks',
        STOCKS.map((s) => s.id),
      ),
      EVERYDAY_FILM,
    ),
  }),
  base: v.strictObject({ mechanism: identifier, sizes }),
  movements: v.pipe(
    v.array(v.strictObject({ id: identifier, mechanism: identifier, host: identifier, sizes })),
    v.maxLength(24, 'allowed: at most 24 movements'),
  ),
  outlines: v.optional(v.pipe(v.array(ownOutline), v.maxLength(12, 'allowed: at most 12 outlines'))),
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

/** A new card on a base, with everyday stocks; sizes left out take their defaults. */
export function newCard(
  given: Partial<Omit<CardDocument, 'stocks'>> & Pick<CardDocument, 'id' | 'name' | 'base'> & { stocks?: Partial<CardDocument['stocks']> },
): CardDocument {
  return {
    format: 'diptychon-card',
    version: CURRENT_VERSION,
    foldEdge: 'side',
    notation: 'mm',
    board: 'rule',
    movements: [],
    ...given,
    stocks: { base: 'card-250', mechanism: 'light-card-160', display: 'card-250', film: EVERYDAY_FILM, ...given.stocks },
  };
}
