import {
  closedSizeOf,
  evaluate,
  standingPicture,
  type CardDocument,
  type ClosedSize,
  type Outcome,
  type StandingPicture,
} from '@diptychon/core';
import type { PaperId, PdfFonts } from '@diptychon/core/files';
import { expose, transfer } from 'comlink';

/** Files that need large writers. */
export type HeavyFile =
  { kind: 'dxf'; folds: 'score' | 'perforation' } | { kind: 'one-page' | 'templates'; paper: PaperId; fonts: PdfFonts };

/** What a small picture of a card needs; a fraction of the whole evaluation to hand over. */
export interface CardPictures {
  size: ClosedSize;
  /** one for each opening asked for, or one of the card as it is put down */
  pictures: StandingPicture[];
}

/** What runs beside the page, so that a drag never waits for a calculation. */
const api = {
  evaluate: (card: CardDocument): Outcome => evaluate(card),

  /** Pictures of a card at some openings (shares of how far it is opened to be put down). Nothing when its sizes are refused. */
  pictures(card: CardDocument, openings: readonly number[]): CardPictures | undefined {
    const outcome = evaluate(card);
    if (!outcome.ok) return undefined;
    const { evaluation } = outcome;
    const { at } = evaluation.design.base.rest;
    return { size: closedSizeOf(evaluation), pictures: openings.map((share) => standingPicture(evaluation, share * at)) };
  },

  /** Makes a file of a card. The writers load when first asked for. @throws Error when the card cannot be worked out */
  async write(card: CardDocument, file: HeavyFile): Promise<Uint8Array> {
    const outcome = evaluate(card);
    if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
    const { evaluation } = outcome;
    const { writeDxf, writeOnePage, writeTemplates } = await import('@diptychon/core/files');
    const bytes =
      file.kind === 'dxf'
        ? new TextEncoder().encode(writeDxf(evaluation.sheets, { folds: file.folds }))
        : file.kind === 'one-page'
          ? await writeOnePage(evaluation, file.paper, file.fonts)
          : (await writeTemplates(evaluation.sheets, card.name, file.paper, file.fonts)).bytes;
    return transfer(bytes, [bytes.buffer]);
  },
};

export type EvaluationApi = typeof api;

expose(api);
