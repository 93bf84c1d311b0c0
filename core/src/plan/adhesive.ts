import { stockOf } from '../card/card-stocks.js';
import { inSentence } from '../card/part-titles.js';
import type { Evaluation } from '../evaluate.js';
import type { BondJoint } from '../linkage/structure.js';
import { isClear } from '../supplies/stocks.js';
import type { Workshop } from '../supplies/workshop.js';

type Grip = 'film' | 'slidable' | 'strong';

/** What a joint is made with: its name in a sentence, and how long it takes to set. */
export interface JointAdhesive {
  grip: Grip;
  name: string;
  setMinutes: number;
}

/** What to use where the workshop has nothing of that kind. */
const ANY: Readonly<Record<Grip, JointAdhesive>> = {
  film: { grip: 'film', name: 'strong tape for film', setMinutes: 0 },
  slidable: { grip: 'slidable', name: 'a glue that can still be slid while it is wet', setMinutes: 20 },
  strong: { grip: 'strong', name: 'fast tacky glue or strong tape', setMinutes: 5 },
};

/** What a joint needs: tape on film, which no glue holds; glue that can be slid where parts find their place as the card moves. */
export function adhesiveFor({ design }: Evaluation, { a, b, source }: BondJoint, { adhesives }: Workshop): JointAdhesive {
  const onFilm = [a, b].some((panel) => isClear(stockOf(design, design.panels[panel]!.piece)));
  const grip: Grip = onFilm ? 'film' : source.slides ? 'slidable' : 'strong';
  const all = adhesives.filter((own) => own.grip === grip);
  if (all.length === 0) return ANY[grip];
  const names = all.map(({ name }) => inSentence(name));
  return { grip, name: names.join(' or '), setMinutes: Math.max(...all.map(({ setMinutes }) => setMinutes)) };
}
