import type { CardDocument } from '../card/document.js';
import { draw, type Drawing } from '../card/draw.js';
import { join } from '../card/join.js';
import { inSentence } from '../card/part-titles.js';
import { closeUp, judge, move, type Evaluation } from '../evaluate.js';
import type { Workshop } from '../supplies/workshop.js';

/** A card as it was made: judged, or why it cannot be. */
export type Judged = { ok: true; evaluation: Evaluation } | { ok: false; says: string };

/** A card with its drawing as it was made, joined and judged again. */
export function judgedAsMade(card: CardDocument, made: (drawing: Drawing) => Drawing, workshop: Workshop): Judged {
  const drawn = draw(card);
  if (!drawn.ok) return { ok: false, says: drawn.problems[0]!.says };
  const joined = join(made(drawn.drawing));
  if (!joined.ok) return { ok: false, says: joined.problems[0]!.says };
  const meant = join(drawn.drawing);
  const lost = meant.ok ? meant.design.panels.find(({ id }) => !joined.design.linkage.bodyOf.has(id)) : undefined;
  if (lost)
    return {
      ok: false,
      says: `Made so, the ${inSentence(lost.name)} is no panel any more: two lines run over each other, or one off its paper.`,
    };
  return { ok: true, evaluation: judge(closeUp(move(joined.design)), workshop) };
}
