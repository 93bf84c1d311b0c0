import { mechanismById } from '../mechanism/catalogue.js';
import type { Contribution } from '../mechanism/contract.js';
import type { Anchor, Crease, Mark, Piece } from '../sheet/piece.js';
import type { Edit } from '../mechanism/sites.js';
import { told } from '../measure/sentence.js';
import type { Notation } from '../measure/units.js';
import type { CardDocument } from './document.js';

/**
 * What a maker calls each part: its own name, or the mechanism's, numbered where there are several of a kind. No two parts are
 * called alike: a name given twice carries a number too.
 */
export function titlesOf(card: CardDocument): ReadonlyMap<string, string> {
  const titles = new Map<string, string>();
  const taken = new Set<string>();
  for (const part of card.parts) {
    const { name } = mechanismById(part.mechanism);
    const alike = card.parts.filter((other) => other.mechanism === part.mechanism);
    const wished = part.name ?? (alike.length > 1 ? `${name} ${alike.indexOf(part) + 1}` : name);
    let title = wished;
    for (let n = 2; taken.has(title); n++) title = `${wished} (${n})`;
    taken.add(title);
    titles.set(part.id, title);
  }
  return titles;
}

/** A title inside a sentence: `V-fold figure 2`, but `step 2`. */
export function inSentence(title: string): string {
  return /^[A-Z][a-z]/.test(title) ? title.charAt(0).toLowerCase() + title.slice(1) : title;
}

/**
 * What a part gives, owned by it and told apart: where a card has several parts of a kind, or the maker named this one,
 * everything that is named after the mechanism carries the part's title too.
 */
export function withTitle<C extends Contribution>(
  given: C,
  { id, title, isOneOfSeveral, notation }: { id: string; title: string; isOneOfSeveral: boolean; notation: Notation },
): C {
  const telling = <T extends { says: string }>(item: T): T => ({ ...item, says: told(item.says, notation) });
  const of = <T extends { name: string }>(item: T): T => (isOneOfSeveral ? { ...item, name: `${item.name}, ${inSentence(title)}` } : item);
  const label = <T extends { label: string }>(item: T): T =>
    isOneOfSeveral ? { ...item, label: `${item.label}, ${inSentence(title)}` } : item;
  const crease = (item: Crease): Crease => ({ ...of(item), ...(item.standsFor && { standsFor: { part: id, ...item.standsFor } }) });
  const anchor = (item: Anchor): Anchor => ({ ...of(item), part: id });
  const mark = (item: Mark): Mark => telling(isOneOfSeveral ? { ...item, says: `${item.says} (${inSentence(title)})` } : item);
  return {
    ...given,
    pieces: given.pieces?.map((piece): Piece => ({
      ...of(piece),
      part: id,
      because: told(piece.because, notation),
      zones: piece.zones.map(telling),
      marks: piece.marks.map(telling),
      creases: piece.creases.map(crease),
      anchors: piece.anchors.map(of),
    })),
    edits: given.edits?.map((edit): Edit => ({
      ...edit,
      ...(edit.creases && { creases: edit.creases.map(crease) }),
      ...(edit.anchors && { anchors: edit.anchors.map(anchor) }),
      ...(edit.marks && { marks: edit.marks.map(mark) }),
      ...(edit.zones && { zones: edit.zones.map(telling) }),
    })),
    bonds: given.bonds?.map(of),
    measures: given.measures?.map(label),
    tracked: given.tracked?.map(label),
    sites: given.sites?.map(of),
  };
}
