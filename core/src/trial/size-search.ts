import type { CardDocument } from '../card/document.js';
import { setSize, unsetSize } from '../card/set-size.js';
import type { SizeRow } from '../card/size-rows.js';
import { rulerStep, toRadians } from '../measure/units.js';
import type { Workshop } from '../supplies/workshop.js';
import { freeRows } from './changed-sizes.js';
import { LEVER, tried, type Aim, type Tried } from './trouble.js';

/** One size that is set otherwise, lengths in mm, angles in radians. */
export interface SizeChange {
  owner: string;
  size: string;
  label: string;
  from: number;
  to: number;
}

/** What was left out follows other sizes: to set it is dearer than to change what was set. */
const UNSET_WEIGHT = 3;
/** No more sizes than so many are changed at once, and so many ways to go on are followed up. */
const MOST_CHANGED = 3;
const FOLLOWED_UP = 4;
/** Once there is a way, others are looked for no further than this. */
const TRIES_FOR_MORE = 100;
/** How far it is is told every so many tries. */
const TOLD_EVERY = 8;
/** Steps of one size toward where nothing is wrong. */
const STEPS = 6;
/** A way that lessens what is wrong by less than this share leads nowhere. */
const WORTH = 0.02;
/** Places of a size that are looked at where no way leads anywhere, as shares of what is allowed, and of how many sizes two by two. */
const PLACES = [0, 1 / 3, 2 / 3, 1];
const MOST_LEADING = 8;
/** All sizes together are tried so many times as large. */
const SCALES = [0.9, 1.1, 0.8, 1.25, 0.7, 1.5, 0.6, 2, 0.5, 0.4];
const HALF_A_DEGREE = toRadians(0.5);
/** So many ways are enough. */
export const ENOUGH_WAYS = 3;

/** A card on the way, with what was changed. */
export interface State extends Tried {
  changes: SizeChange[];
  cost: number;
}

/** Looks for sizes with which nothing is wrong with a card, however many cards it may try. */
export class Search {
  tries = 0;
  private readonly known = new Map<string, Tried>();
  /** of the card that it began with: what is changed is counted from there */
  private readonly rows: readonly SizeRow[];

  constructor(
    readonly begun: CardDocument,
    readonly workshop: Workshop,
    readonly aim: Aim,
    private readonly most: number,
    private readonly told: (share: number) => void = () => undefined,
  ) {
    this.rows = freeRows(begun);
  }

  /** States in which nothing is wrong, of different sizes, the cheapest first. */
  run(start: Tried): State[] {
    const solved: State[] = [];
    let open: State[] = [{ ...start, changes: [], cost: 0 }];
    // All that was set left to follow: where that is whole, as much of it as is needed.
    const asItFollows = this.allFollowing(start.card);
    if (asItFollows?.trouble === 0) solved.push(this.withoutIdle(asItFollows));
    for (let depth = 1; depth <= MOST_CHANGED && !this.isSpent && !this.isContent(solved); depth++) {
      const next: State[] = [];
      for (const state of open) {
        const cheapest = Math.min(...solved.map(({ cost }) => cost));
        for (const found of this.goOn(state)) {
          if (found.trouble === 0) solved.push(this.withoutIdle(found));
          else if (found.cost < cheapest && found.trouble < (1 - WORTH) * state.trouble) next.push(found);
        }
      }
      const wayLeft = ({ trouble, cost }: State): number => trouble + 0.2 * cost;
      open = distinct(next.sort((a, b) => wayLeft(a) - wayLeft(b))).slice(0, FOLLOWED_UP);
    }
    if (solved.length === 0 && this.aim === 'fail') solved.push(...this.coarsely(start).map((state) => this.withoutIdle(state)));
    const cheapestFirst = (states: readonly State[]): State[] => [...states].sort((a, b) => a.cost - b.cost);
    const drawnBack = distinct(cheapestFirst(solved))
      .slice(0, ENOUGH_WAYS)
      .map((state) => this.drawnBack(state));
    return cheapestFirst([...new Set([...drawnBack, ...solved])]);
  }

  /** One size moved on the same way, by one mark, two, four and eight more: what a quick look does not see may end there. */
  farther({ card, changes }: State): State[] {
    return changes.flatMap((change, i) => {
      const row = freeRows(card).find(({ owner, name }) => owner === change.owner && name === change.size);
      if (!row?.range) return [];
      const step = row.kind === 'angle' ? HALF_A_DEGREE : rulerStep(this.begun.notation);
      return [1, 2, 4, 8].flatMap((marks) => {
        const to = change.to + Math.sign(change.to - change.from) * marks * step;
        return to < row.range!.min || to > row.range!.max ? [] : [this.stateOf(changes.with(i, { ...change, to }))];
      });
    });
  }

  private get isSpent(): boolean {
    return this.tries >= this.most;
  }

  private isContent(solved: readonly State[]): boolean {
    return solved.length >= ENOUGH_WAYS || (solved.length > 0 && this.tries >= TRIES_FOR_MORE);
  }

  private allFollowing(card: CardDocument): State | undefined {
    const given = freeRows(card).filter((row) => isMovable(row) && row.given);
    const left = freeRows(given.reduce((less, { owner, name }) => unsetSize(less, owner, name), card));
    const changes = given.flatMap((row): SizeChange[] => {
      const to = left.find((other) => isSame(other, row))?.value;
      if (typeof to !== 'number' || to === row.value) return [];
      return [{ owner: row.owner, size: row.name, label: row.label, from: Number(row.value), to }];
    });
    return changes.length > 1 ? this.stateOf(changes) : undefined;
  }

  /** Every single size led to where least is wrong. */
  private goOn(state: State): State[] {
    const rows = freeRows(state.card).filter((row) => isMovable(row) && !state.changes.some((change) => isOf(change, row)));
    return rows.flatMap((row) => (this.isSpent ? [] : this.along(state, row)));
  }

  /** What comes of one size: set as it would follow, and led to where least is wrong. */
  private along(state: State, row: SizeRow): State[] {
    const found: State[] = [];
    const value = Number(row.value);
    const { min, max } = row.range!;
    const inside = (to: number): number => Math.min(max, Math.max(min, to));
    const at = (to: number): State => this.changed(state, row, to);
    if (row.given) {
      const follows = freeRows(unsetSize(state.card, row.owner, row.name)).find((other) => isSame(other, row));
      if (follows && typeof follows.value === 'number' && follows.value !== value) found.push(at(follows.value));
    }
    if (row.asCut || max < min) return found;
    // Outside its limits there is but one way, and from the limit on any.
    const limit = inside(value);
    const first = limit === value ? state : at(limit);
    if (first !== state) {
      if (first.trouble === 0) return [...found, this.nearest(state, row, value, limit)];
      found.push(first);
    }
    const nudge = row.kind === 'angle' ? HALF_A_DEGREE : Math.min(0.5, Math.max(0.05, (max - min) / 40));
    const beside = inside(limit + nudge) > limit ? inside(limit + nudge) : inside(limit - nudge);
    if (beside === limit) return found;
    const slope = (at(beside).trouble - first.trouble) / (beside - limit);
    if (Math.abs(slope) < 1e-6) return found;
    const way = slope < 0 ? 1 : -1;
    let [from, to] = [{ value: limit, trouble: first.trouble }, inside(limit + way * (first.trouble / Math.abs(slope)) * 1.01)];
    let best: State | undefined;
    for (let step = 0; step < STEPS && !this.isSpent && way * (to - from.value) > 1e-6; step++) {
      const here = at(to);
      if (here.trouble === 0) {
        found.push(this.nearest(state, row, from.value, to));
        return found;
      }
      if (best && here.trouble >= best.trouble) break;
      best = here;
      const gained = (from.trouble - here.trouble) / Math.abs(to - from.value);
      const before = to;
      to = gained > 1e-9 ? inside(to + way * (here.trouble / gained) * 1.05) : (from.value + to) / 2;
      from = { value: before, trouble: here.trouble };
    }
    return best ? [...found, best] : found;
  }

  /** The value nearest to where it began at which nothing is wrong, between one where something is and one where nothing is: a mark, where one will do. */
  private nearest(state: State, row: SizeRow, bad: number, good: number): State {
    const at = (to: number): State => this.changed(state, row, to);
    const step = row.kind === 'angle' ? HALF_A_DEGREE : rulerStep(this.begun.notation);
    const way = Math.sign(good - bad);
    // Marks between both, counted away from where it began.
    const first = way > 0 ? Math.floor(bad / step + 1e-9) + 1 : Math.ceil(bad / step - 1e-9) - 1;
    const last = way > 0 ? Math.ceil(good / step - 1e-9) : Math.floor(good / step + 1e-9);
    let [low, high] = [0, Math.abs(last - first)];
    const inside = (mark: number): boolean => mark >= row.range!.min - 1e-9 && mark <= row.range!.max + 1e-9;
    const markAt = (n: number): number => (first + way * n) * step;
    let found: State | undefined;
    while (low <= high && !this.isSpent) {
      const middle = low + ((high - low) >> 1);
      const here = inside(markAt(middle)) ? at(markAt(middle)) : undefined;
      if (here?.trouble === 0) {
        found = here;
        high = middle - 1;
      } else low = middle + 1;
    }
    return found ?? at(good);
  }

  /**
   * Where no way led anywhere: places from one end of what is allowed to the other, of each size and of every two of those that
   * lessen most of what is wrong; last, all together made smaller and larger.
   */
  private coarsely(start: Tried): State[] {
    return this.coarselyAmong(start, MOST_LEADING);
  }

  /** The same for every two sizes, the most promising first: nothing is said to conflict before it was looked at so. */
  everywhere(start: Tried): State[] {
    const scaled = this.scaled().filter((state) => state.trouble === 0);
    return (scaled.length > 0 ? scaled : this.coarselyAmong(start, Infinity)).map((state) => this.withoutIdle(state));
  }

  private coarselyAmong({ card, outcome, trouble }: Tried, most: number): State[] {
    const start: State = { card, outcome, trouble, changes: [], cost: 0 };
    const singles = freeRows(card)
      .filter(isLookedAt)
      .map((row) => this.atPlaces(start, row))
      .filter((states) => states.length > 0);
    const inOrder = [...singles];
    const whole = singles.flat().filter((state) => state.trouble === 0);
    if (whole.length > 0) return whole;
    const least = (states: readonly State[]): number => Math.min(...states.map((state) => state.trouble));
    const leading = singles.sort((a, b) => least(a) - least(b)).slice(0, most);
    for (let sum = 1; sum < 2 * leading.length - 2; sum++) {
      for (let i = Math.max(0, sum - leading.length + 1); 2 * i < sum; i++) {
        if (most === Infinity && this.isSpent) return [];
        // As sizes are listed, those come first that others follow.
        const [states, other] = [leading[i]!, leading[sum - i]!].sort((a, b) => inOrder.indexOf(a) - inOrder.indexOf(b)) as [
          State[],
          State[],
        ];
        const [{ owner, size }] = other[0]!.changes as [SizeChange];
        // What the second may be follows the first.
        const both = states.flatMap((state) => {
          const row = freeRows(state.card).find((each) => each.owner === owner && each.name === size);
          return row && isLookedAt(row) ? this.atPlaces(state, row) : [];
        });
        const found = both.filter((state) => state.trouble === 0);
        if (found.length > 0) return found;
      }
    }
    return this.scaled().filter((state) => state.trouble === 0);
  }

  /** All lengths together made smaller and larger. */
  private scaled(): State[] {
    const rows = this.rows.filter((row) => row.kind === 'length' && isLookedAt(row));
    return SCALES.map((share) =>
      this.stateOf(
        rows.map(({ owner, name, label, value }) => ({ owner, size: name, label, from: Number(value), to: share * Number(value) })),
      ),
    );
  }

  private atPlaces(state: State, row: SizeRow): State[] {
    const { min, max } = row.range!;
    const step = row.kind === 'angle' ? HALF_A_DEGREE : rulerStep(this.begun.notation);
    return PLACES.map((share) => {
      const place = min + share * (max - min);
      const mark = Math.round(place / step) * step;
      return this.changed(state, row, mark >= min && mark <= max ? mark : place);
    });
  }

  /** A change that turns out not to be needed is taken back. */
  private withoutIdle(state: State): State {
    if (state.changes.length < 2) return state;
    for (const idle of state.changes) {
      const changes = state.changes.filter((change) => change !== idle);
      const without = this.stateOf(changes);
      if (without.trouble === 0) return this.withoutIdle(without);
    }
    return state;
  }

  /** Each of several changes drawn back toward where it began, as far as nothing is wrong: before the others were made it may have had to go farther. */
  private drawnBack(state: State): State {
    if (state.changes.length < 2) return state;
    return state.changes.reduce((now, { owner, size }) => {
      const mine = now.changes.find((change) => change.owner === owner && change.size === size)!;
      const others = this.stateOf(now.changes.filter((change) => change !== mine));
      const row = freeRows(others.card).find((each) => each.owner === owner && each.name === size);
      if (!row?.range || this.isSpent) return now;
      const back = this.nearest(others, row, Number(row.value), mine.to);
      return back.trouble === 0 && back.cost < now.cost ? back : now;
    }, state);
  }

  private changed(state: State, row: SizeRow, to: number): State {
    const value = Math.round(to * 1e9) / 1e9;
    return this.stateOf([...state.changes, { owner: row.owner, size: row.name, label: row.label, from: Number(row.value), to: value }]);
  }

  private stateOf(changes: SizeChange[]): State {
    const card = changes.reduce((changed, { owner, size, to }) => setSize(changed, owner, size, to), this.begun);
    const key = JSON.stringify(card.parts);
    let known = this.known.get(key);
    if (!known) {
      this.tries++;
      if (this.tries % TOLD_EVERY === 0) this.told(Math.min(1, this.tries / this.most));
      known = tried(card, this.workshop, this.aim);
      this.known.set(key, known);
    }
    return { ...known, changes, cost: costAmong(this.rows, changes) };
  }
}

/** How much is changed, seen from the card that it began with. */
export const costOf = (begun: CardDocument, changes: readonly Pick<SizeChange, 'owner' | 'size' | 'to'>[]): number =>
  costAmong(freeRows(begun), changes);

function costAmong(rows: readonly SizeRow[], changes: readonly Pick<SizeChange, 'owner' | 'size' | 'to'>[]): number {
  return changes.reduce((sum, { owner, size, to }) => {
    const row = rows.find((other) => other.owner === owner && other.name === size);
    if (!row) return sum;
    return sum + Math.abs(to - Number(row.value)) * (row.kind === 'angle' ? LEVER : 1) * (row.given ? 1 : UNSET_WEIGHT);
  }, 0);
}

/** Sizes that are free whatever the card is cut from. */
const isLookedAt = (row: SizeRow): boolean => isMovable(row) && !row.asCut && row.range!.max > row.range!.min;

const isMovable = ({ kind, range, insteadOf, asCut, given }: SizeRow): boolean =>
  (kind === 'length' || kind === 'angle') && range !== undefined && insteadOf === undefined && (!asCut || given);

const isSame = (a: SizeRow, b: SizeRow): boolean => a.owner === b.owner && a.name === b.name;
const isOf = ({ owner, size }: SizeChange, row: SizeRow): boolean => owner === row.owner && size === row.name;

/** Which sizes a state changes, as one word. */
export const sizesChanged = ({ changes }: State): string =>
  changes
    .map(({ owner, size }) => `${owner}/${size}`)
    .sort()
    .join(' ');

/** Of states that change the same sizes the first. */
function distinct(states: readonly State[]): State[] {
  const seen = new Set<string>();
  return states.filter((state) => !seen.has(sizesChanged(state)) && seen.add(sizesChanged(state)));
}
