import { baseById, movementById } from '../mechanism/catalogue.js';
import type { ClaimKind, ClaimOf, Claim } from '../claim/claims.js';
import type { Base, BaseContribution, BuildContext, Contribution, Measure, Movement, PartWords, Tracked } from '../mechanism/contract.js';
import { turnedSite, type FoldSite } from '../mechanism/sites.js';
import { checkSizes, fillSizes, type SizeContext, type SizeProblem, type Sizes } from '../mechanism/sizes.js';
import type { Bond, Coupling, Touch } from '../linkage/structure.js';
import type { Schedule } from '../linkage/schedule.js';
import type { Piece } from '../sheet/piece.js';
import { stocksOf, type CardStocks } from './card-stocks.js';
import { editedPieces, overlapsOf, type Overlap, type PlacedEdits } from './edits.js';
import { foldSitesOf } from './fold-sites.js';
import { movementsOf, ROOT, rootOf, type CardDocument, type CardPart, type Place } from './document.js';
import { outlineNamed, ownOutlines } from './own-outlines.js';
import { titlesOf, withTitle } from './part-titles.js';

/** A part of a card, and where it stands. */
export interface DrawnPart {
  id: string;
  mechanism: string;
  /** what a maker calls it, unlike any other part of the card */
  title: string;
  on?: Place;
  site?: FoldSite;
}

/** A part as it is built: what it is, all its sizes, and what it gives. */
export interface BuiltPart extends Omit<DrawnPart, 'mechanism'> {
  mechanism: Base | Movement;
  /** defaults filled in */
  sizes: Sizes;
  contribution: Contribution;
  /** folds that others may stand on; looked for when first asked for */
  sites: () => readonly FoldSite[];
}

/** What a base says of the whole card. */
export type CardBody = Pick<BaseContribution, 'ground' | 'closedOutline' | 'rest' | 'openHeight' | 'sides' | 'flush'>;

export type Owned<T> = T & { owner: string };

/** Flat pieces, joins, places to build on and claims of a card, before anything is folded. Plain data throughout. */
export interface Drawing {
  card: CardDocument;
  stocks: CardStocks;
  /** in the order of building: what carries a part stands before it */
  parts: readonly DrawnPart[];
  base: CardBody;
  /** words for the steps, of all parts in order */
  words: Required<Omit<PartWords, 'posting'>> & Pick<PartWords, 'posting'>;
  pieces: readonly Piece[];
  bonds: readonly Owned<Bond>[];
  touches: readonly Owned<Touch>[];
  couplings: readonly Owned<Coupling>[];
  schedule: Schedule;
  claims: readonly Owned<Claim>[];
  measures: readonly Owned<Measure>[];
  tracked: readonly Tracked[];
  /** all sizes by owner */
  sizes: Readonly<Record<string, Sizes>>;
  /** parts that take the same paper: they are left out, with what stands on them, until one is moved */
  overlaps: readonly Overlap[];
}

/** A size that cannot be built, or a place that is not there, and whose it is. */
export interface CardProblem extends SizeProblem {
  owner: string;
}

export type DrawingOutcome = { ok: true; drawing: Drawing } | { ok: false; problems: CardProblem[] };

/** Claims of one kind, with their owners. */
export function claimsOf<K extends ClaimKind>({ claims }: Pick<Drawing, 'claims'>, kind: K): Owned<ClaimOf<K>>[] {
  return claims.filter((claim): claim is Owned<ClaimOf<K>> => claim.kind === kind);
}

const DRAWN = new WeakMap<CardDocument, DrawingOutcome>();

/**
 * Draws a card: the base first, then every part on its site. A part sees only the geometry of its site; from that its
 * sizes get their limits, and then it draws. All changes to the paper of others are put on their pieces at the end.
 * Cards are never changed, so each is drawn once however often it is asked for.
 */
export function draw(card: CardDocument): DrawingOutcome {
  const known = DRAWN.get(card);
  if (known) return known;
  const outcome = drawAnew(card);
  DRAWN.set(card, outcome);
  return outcome;
}

function drawAnew(card: CardDocument): DrawingOutcome {
  const built = partsOf(card);
  const problems = [...built.problems, ...piecesTwice(built.parts)];
  if (problems.length > 0) return { ok: false, problems };
  const overlaps = overlapsOf(built.parts.flatMap(placedEdits), carriersOf(built.parts));
  const parts = built.parts.filter((part) => !isLeftOut(part, built.parts, overlaps));
  const placed = parts.flatMap(placedEdits);
  const { schedule, ...base } = parts[0]!.contribution as BaseContribution;
  const { ground, closedOutline, rest, openHeight, sides, flush } = base;
  const owned = <T>(list: (contribution: Contribution) => readonly T[] | undefined): Owned<T>[] =>
    parts.flatMap((part) => (list(part.contribution) ?? []).map((item) => ({ ...item, owner: part.id })));
  return {
    ok: true,
    drawing: {
      card,
      stocks: stocksOf(card),
      parts: built.parts.map(({ id, mechanism, title, on, site }) => ({
        id,
        mechanism: mechanism.id,
        title,
        ...(on && { on }),
        ...(site && { site }),
      })),
      base: { ground, closedOutline, rest, openHeight, ...(sides && { sides }), ...(flush && { flush }) },
      words: wordsOf(parts),
      pieces: editedPieces(piecesOf(parts), placed),
      bonds: owned(({ bonds }) => bonds),
      touches: owned(({ touches }) => touches),
      couplings: owned(({ couplings }) => couplings),
      schedule: { ...schedule, phases: [...schedule.phases, ...parts.slice(1).flatMap(({ contribution }) => contribution.phases ?? [])] },
      claims: owned(({ claims }) => claims),
      measures: owned(({ measures }) => measures),
      tracked: owned(({ tracked }) => tracked),
      sizes: Object.fromEntries(built.parts.map(({ id, sizes }) => [id, sizes])),
      overlaps,
    },
  };
}

function wordsOf(parts: readonly BuiltPart[]): Drawing['words'] {
  const words = parts.flatMap(({ contribution }) => contribution.words ?? []);
  const posting = words.map((said) => said.posting).filter((says) => says !== undefined);
  return {
    settingUp: words.flatMap(({ settingUp }) => settingUp ?? []),
    fitting: words.flatMap(({ fitting }) => fitting ?? []),
    ...(posting.length > 0 && { posting: posting.join(' ') }),
  };
}

/** A part whose id makes a piece that is called like one of another part: names of pieces tell panels and folds apart. */
function piecesTwice(parts: readonly BuiltPart[]): CardProblem[] {
  const owners = new Map<string, BuiltPart>();
  return parts.flatMap((part) =>
    (part.contribution.pieces ?? []).flatMap(({ id }): CardProblem[] => {
      const first = owners.get(id);
      owners.set(id, first ?? part);
      return first && first !== part
        ? [
            {
              owner: part.id,
              size: '',
              says: `${part.title}: a part may not be called “${part.id}” here; ${first.title} has a piece of that name.`,
            },
          ]
        : [];
    }),
  );
}

const piecesOf = (parts: readonly BuiltPart[]): Piece[] => parts.flatMap(({ contribution }) => contribution.pieces ?? []);

/** A part's changes to the paper it stands on, with where that is. */
function placedEdits({ id, title, site, contribution }: BuiltPart): PlacedEdits[] {
  return site && contribution.edits?.length ? [{ part: id, title, site, edits: contribution.edits }] : [];
}

/** For every part the parts that carry it, from the one it stands on down to the base. */
function carriersOf(parts: readonly BuiltPart[]): ReadonlyMap<string, readonly string[]> {
  const carriers = new Map<string, readonly string[]>();
  for (const { id, on } of parts) carriers.set(id, on ? [on.part, ...carriers.get(on.part)!] : []);
  return carriers;
}

function isLeftOut({ id }: BuiltPart, parts: readonly BuiltPart[], overlaps: readonly Overlap[]): boolean {
  const out = new Set(overlaps.flatMap(({ parts: both }) => both));
  return [id, ...carriersOf(parts).get(id)!].some((part) => out.has(part));
}

/** Parts built so far, and what is wrong with the rest. */
interface Built {
  parts: BuiltPart[];
  problems: CardProblem[];
}

const BY_ID = new Intl.Collator('en', { numeric: true });

const BUILT = new WeakMap<CardDocument, Built>();

/** The parts of a card as far as they can be built, in the order of building. */
export function partsOf(card: CardDocument): Built {
  const known = BUILT.get(card);
  if (known) return known;
  const built = buildParts(card);
  BUILT.set(card, built);
  return built;
}

function buildParts(card: CardDocument): Built {
  const titles = titlesOf(card);
  const parts: BuiltPart[] = [];
  const problems: CardProblem[] = [];
  // In whatever order they were placed, they are built in one: a card that is strained gives way alike, and is told alike.
  const waiting: CardPart[] = [...movementsOf(card)].sort((a, b) => BY_ID.compare(a.id, b.id));
  const put = (part: CardPart): void => {
    const mechanism = part.on ? movementById(part.mechanism) : baseById(part.mechanism);
    const site = part.on ? siteOf(part.on, parts) : undefined;
    if (typeof site === 'string') {
      problems.push({ owner: part.id, size: '', says: `${titles.get(part.id)!}: ${site}` });
      return;
    }
    const cannot = site && mechanism.kind === 'movement' ? mechanism.cannotStand(site) : undefined;
    if (cannot) {
      problems.push({ owner: part.id, size: '', says: `${titles.get(part.id)!} cannot stand on the ${site!.name}: ${cannot}.` });
      return;
    }
    const given = sizesGiven(card, part.id);
    const context = { ...sizeContextOf(card), ...(site && { site }) };
    const sizes = fillSizes(mechanism.sizes, given, context);
    const wrong = [
      ...unknownSizes(
        part.id,
        part.sizes,
        mechanism.sizes.map((size) => size.name),
      ),
      ...checkSizes(mechanism.sizes, given, { ...context, sizes }).map((problem) => ({ ...problem, owner: part.id })),
    ];
    problems.push(...wrong);
    if (wrong.length > 0) return;
    parts.push(built(card, part, titles.get(part.id)!, mechanism, sizes, site));
  };
  put(rootOf(card));
  // Parts may stand in any order in the document: each is built once what carries it is there.
  for (let before = -1; parts.length > 0 && before !== waiting.length;) {
    before = waiting.length;
    const ready = waiting.filter(({ on }) => parts.some(({ id }) => id === on!.part));
    for (const part of ready) {
      waiting.splice(waiting.indexOf(part), 1);
      put(part);
    }
  }
  return { parts, problems };
}

function built(card: CardDocument, part: CardPart, title: string, mechanism: Base | Movement, sizes: Sizes, site?: FoldSite): BuiltPart {
  const context: BuildContext = { ...sizeContextOf(card), sizes, id: part.id, outline: (name) => outlineNamed(card, name) };
  const raw = mechanism.kind === 'base' ? mechanism.build(context) : mechanism.build(context, site!);
  const contribution = withTitle(raw, { id: part.id, title, isOneOfSeveral: isOneOfSeveral(card, part), notation: card.notation });
  const own = { id: part.id, mechanism, title, sizes, contribution, ...(part.on && { on: part.on }), ...(site && { site }) };
  return { ...own, sites: once(() => sitesGiven(card, part.id, contribution)) };
}

/** Folds are looked for along the creases of a base only when something asks where a part could stand. */
function sitesGiven(card: CardDocument, id: string, contribution: Contribution): readonly FoldSite[] {
  const found = id === ROOT ? foldSitesOf(contribution as BaseContribution, stocksOf(card)) : [];
  return [...found, ...(contribution.sites ?? [])].map((site) => ({ ...site, part: id }));
}

function once<T>(make: () => T): () => T {
  let made: { value: T } | undefined;
  return () => (made ??= { value: make() }).value;
}

function isOneOfSeveral(card: CardDocument, { mechanism }: CardPart): boolean {
  return card.parts.filter((part) => part.mechanism === mechanism).length > 1;
}

function siteOf({ part, site, turned }: Place, parts: readonly BuiltPart[]): FoldSite | string {
  const host = parts.find(({ id }) => id === part)!;
  const sites = host.sites();
  const found = sites.find(({ id }) => id === site);
  if (!found) {
    const there = sites.map(({ id }) => id);
    return `${host.title} has no fold “${site}” to stand on; it has ${there.length > 0 ? there.join(', ') : 'none'}.`;
  }
  return turned ? turnedSite(found) : found;
}

/** The fold that a part stands on, where what carries it can be built. */
export function siteFor(card: CardDocument, owner: string): FoldSite | undefined {
  const { parts } = partsOf(card);
  const on = card.parts.find(({ id }) => id === owner)?.on;
  const site = on && parts.some(({ id }) => id === on.part) ? siteOf(on, parts) : undefined;
  return typeof site === 'string' ? undefined : site;
}

/** Sizes given in a card, for one part. The edge of the fold belongs to the card as a whole, and is a size of its base. */
export function sizesGiven(card: CardDocument, owner: string): Sizes {
  const part = card.parts.find(({ id }) => id === owner);
  if (!part) return {};
  const keepsFoldEdge = !part.on && baseById(part.mechanism).sizes.some((size) => size.name === 'foldEdge');
  return keepsFoldEdge ? { ...part.sizes, foldEdge: card.foldEdge } : part.sizes;
}

/** What limits may depend on besides the sizes and the site: calipers, and the outlines a card brings. */
export function sizeContextOf(card: CardDocument): Omit<SizeContext, 'sizes' | 'item' | 'index' | 'site'> {
  const stocks = stocksOf(card);
  return {
    baseCaliper: stocks.base.caliper,
    mechanismCaliper: stocks.mechanism.caliper,
    displayCaliper: stocks.display.caliper,
    filmCaliper: stocks.film.caliper,
    marks: card.marks ?? 'mm',
    ownOutlines: ownOutlines(card),
  };
}

function unknownSizes(owner: string, given: Sizes, known: readonly string[]): CardProblem[] {
  return Object.keys(given)
    .filter((name) => !known.includes(name))
    .map((size) => ({ owner, size, says: `${size}: there is no such size; there are ${known.join(', ')}.` }));
}
