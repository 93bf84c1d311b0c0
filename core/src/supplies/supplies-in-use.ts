import type { Board } from './boards.js';
import type { Envelope } from './envelopes.js';
import { INCH_WORKSHOP, METRIC_WORKSHOP } from './starter-workshops.js';
import { STOCK_ROLES, type Stock, type StockRole } from './stocks.js';
import type { Workshop } from './workshop.js';

/** Copies of the supplies that a card uses, so that its file opens anywhere. */
export interface CarriedSupplies {
  stocks: readonly Stock[];
  boards: readonly Board[];
  envelopes: readonly Envelope[];
}

/** Ids of the supplies that a card uses. */
export interface UsedSupplies {
  board: string;
  envelope?: string | undefined;
  stocks: Readonly<Record<StockRole, string>>;
  pieceStocks?: Readonly<Record<string, string>> | undefined;
  dressing?:
    | {
        layers?: { stock: string; own?: readonly UsedByFace[] | undefined } | undefined;
        toppers?: readonly UsedByTopper[] | undefined;
        envelope?: { stock: string; liner?: string | undefined } | undefined;
        closures?: readonly { id: string; stock?: string }[] | undefined;
      }
    | undefined;
}

interface UsedByFace {
  joint?: { stock: string; cover?: { stock: string } | undefined } | undefined;
}

interface UsedByTopper {
  stock: string;
  backings?: readonly { stock: string }[] | undefined;
  film?: { stock: string } | undefined;
}

/** Where supplies are looked up: the first list that has the id gives it. */
type Source = Pick<Workshop, 'stocks' | 'boards' | 'envelopes'>;

const STARTERS: readonly Source[] = [METRIC_WORKSHOP, INCH_WORKSHOP];

const found = <T extends { id: string }>(id: string, lists: readonly (readonly T[])[]): T | undefined =>
  lists.flatMap((list) => list.find((entry) => entry.id === id) ?? [])[0];

/**
 * Copies of everything that a card uses, from the sources in order and then the starter workshops. What is in none of
 * them is left out: the reader of a file refuses such a card.
 */
export function carriedFor(used: UsedSupplies, ...sources: readonly Source[]): CarriedSupplies {
  const all = [...sources, ...STARTERS];
  const ids = new Set([
    ...STOCK_ROLES.map((role) => used.stocks[role]),
    ...Object.values(used.pieceStocks ?? {}),
    used.dressing?.layers?.stock ?? used.stocks.base,
    ...(used.dressing?.layers?.own ?? []).flatMap(({ joint }) => (joint ? [joint.stock, ...(joint.cover ? [joint.cover.stock] : [])] : [])),
    ...(used.dressing?.toppers ?? []).flatMap(({ backings = [], film }) =>
      [...backings, ...(film ? [film] : [])].map(({ stock }) => stock),
    ),
    ...[...(used.dressing?.toppers ?? []), ...(used.dressing?.closures ?? [])].flatMap(({ stock }: { stock?: string }) => stock ?? []),
    ...[used.dressing?.envelope?.stock, used.dressing?.envelope?.liner].flatMap((id) => id ?? []),
  ]);
  const one = <T extends { id: string }>(id: string | undefined, lists: readonly (readonly T[])[]): T[] => {
    const entry = id === undefined ? undefined : found(id, lists);
    return entry ? [entry] : [];
  };
  return {
    stocks: [...ids].flatMap((id) =>
      one(
        id,
        all.map(({ stocks }) => stocks),
      ),
    ),
    boards: one(
      used.board,
      all.map(({ boards }) => boards),
    ),
    envelopes: one(
      used.envelope,
      all.map(({ envelopes }) => envelopes),
    ),
  };
}

/** One supply of a card that is not as the maker's own of that id, in words: `Card, 250 g: caliper 0.31 here, 0.29 in my workshop`. */
export interface SupplyDifference {
  list: keyof CarriedSupplies;
  id: string;
  name: string;
  /** what differs, or that the workshop has none of that id */
  says: string;
}

/** What a card's supplies differ in from the maker's own. */
export function differencesFrom(carried: CarriedSupplies, workshop: Source): SupplyDifference[] {
  return (['stocks', 'boards', 'envelopes'] as const).flatMap((list) =>
    carried[list].flatMap((entry): SupplyDifference[] => {
      const mine = (workshop[list] as readonly (Stock | Board | Envelope)[]).find(({ id }) => id === entry.id);
      if (!mine) return [{ list, id: entry.id, name: entry.name, says: 'not in my workshop' }];
      const keys = [...new Set([...Object.keys(entry), ...Object.keys(mine)])].filter((key) => TOLD[key] !== undefined);
      const parts = keys.flatMap((key) => {
        const [here, there] = [entry, mine].map((side) => (side as unknown as Record<string, unknown>)[key]);
        return JSON.stringify(here) === JSON.stringify(there) ? [] : [`${TOLD[key]} ${shown(here)} here, ${shown(there)} in my workshop`];
      });
      return parts.length > 0 ? [{ list, id: entry.id, name: entry.name, says: parts.join('; ') }] : [];
    }),
  );
}

/** What is worth telling of: sheets left in the drawer change no card. */
const TOLD: Readonly<Record<string, string>> = {
  name: 'name',
  kind: 'kind',
  caliper: 'caliper',
  weight: 'weight',
  stiffness: 'stiffness',
  grain: 'grain',
  goodSides: 'good sides',
  pitch: 'pitch',
  length: 'length',
  begins: 'first groove at',
  extra: 'extra grooves',
  long: 'longer side',
  short: 'shorter side',
};

const shown = (value: unknown): string => (value === undefined ? 'not said' : Array.isArray(value) ? value.join(', ') : String(value));
