import {
  begunOnBoard,
  bentRows,
  couldBe,
  cardPictures,
  drawingsOf,
  evaluate,
  exerciseOf,
  KeptGeometry,
  materialsOf,
  picturesOf,
  readOutlineSvg,
  reconcile,
  repair,
  cuttingPlan,
  rescue,
  resized,
  sampled,
  standingPicture,
  thicknessMap,
  toleranceModel,
  toleranceStudy,
  verdictLine,
  whatShows,
  withOffers,
  type BentRow,
  type CardDocument,
  type CardPictures,
  type Evaluation,
  type Finding,
  type CuttingPlan,
  type Made,
  type PlanAsked,
  type Material,
  type Outcome,
  type PaperId,
  type Reconciled,
  type Repair,
  type Rescue,
  type Resized,
  type SaidNumber,
  type SampleCounts,
  type StandingPicture,
  type ThicknessMap,
  type ToleranceModel,
  type ToleranceStudy,
  type VerdictLine,
  type Wanted,
  type WhatShows,
  type Workshop,
} from '@diptychon/core';
import type { PdfFonts } from '@diptychon/core/files';
import { transfer } from 'comlink';

/** Files that need large writers. */
export type HeavyFile =
  { kind: 'dxf'; folds: 'score' | 'perforation' } | { kind: 'one-page' | 'templates' | 'arrangement'; paper: PaperId; fonts: PdfFonts };

/** One file; `suffix` tells it from others of the same card. */
export interface WrittenFile {
  bytes: Uint8Array;
  suffix?: string;
}

/** What is seen of a card at three moments, with its pictures. */
export interface Sides {
  shows: WhatShows;
  closed: StandingPicture;
  half: StandingPicture;
  open: StandingPicture;
}

/** What comes of a card before it is taken to the bench. */
export interface BegunCard extends CardPictures {
  card: CardDocument;
  /** what was changed to bring it to the grooves of its board */
  says?: string;
  openHeight: number;
  materials: Material[];
  verdict: VerdictLine;
}

/** The last card that was worked out here: what is asked of it next needs no second evaluation. */
let last: { card: string; workshop: string; outcome: Outcome } | undefined;
/** How it moves: what is changed of its dressing only changes nothing of that. */
const kept = new KeptGeometry();

function outcomeOf(card: CardDocument, workshop: Workshop): Outcome {
  const [own, mine] = [JSON.stringify(card), JSON.stringify(workshop)];
  if (last?.card === own && last.workshop === mine) return last.outcome;
  const outcome = evaluate(card, workshop, kept);
  last = { card: own, workshop: mine, outcome };
  return outcome;
}

function evaluationOf(card: CardDocument, workshop: Workshop): Evaluation | undefined {
  const outcome = outcomeOf(card, workshop);
  return outcome.ok ? outcome.evaluation : undefined;
}

/** How far long work is told by steps of this share. */
const TOLD_APART = 0.03;

/** So many mechanisms that a list could be of are told. */
const MOST_KINDS = 3;

/** The last card that samples were made of: how it follows errors is worked out once. */
let studied: { key: string; model: ToleranceModel | { says: string } } | undefined;

function modelOf(card: CardDocument, workshop: Workshop): ToleranceModel | { says: string } {
  const key = JSON.stringify([card, workshop.hand]);
  if (studied?.key !== key) studied = { key, model: toleranceModel(card, workshop) };
  return studied.model;
}

/** What runs beside the page, so that a drag never waits for a calculation. */
export const evaluationApi = {
  /** Answers once the thread has started. */
  here: (): true => true,

  evaluate: outcomeOf,

  /** A question to practise on, the same for the same seed. */
  exercise: exerciseOf,

  /** The findings once more, with the fixes that have to be searched for. Nothing when the card's sizes are refused. */
  offers(card: CardDocument, workshop: Workshop): Finding[] | undefined {
    const evaluation = evaluationOf(card, workshop);
    return evaluation && withOffers(evaluation, workshop);
  },

  /**
   * What comes of a card that is about to be begun, on the grooves of its board where that is wanted and can be. Nothing when its
   * sizes are refused.
   */
  begun(card: CardDocument, workshop: Workshop, onBoard: boolean, openings: readonly number[]): BegunCard | undefined {
    const begun = onBoard ? begunOnBoard(card, workshop) : { card };
    const evaluation = evaluationOf(begun.card, workshop);
    if (!evaluation) return undefined;
    return {
      ...begun,
      ...picturesOf(evaluation, openings),
      openHeight: evaluation.openHeight,
      materials: materialsOf(evaluation, workshop),
      verdict: verdictLine(evaluation),
    };
  },

  sides(card: CardDocument, workshop: Workshop): Sides | undefined {
    const evaluation = evaluationOf(card, workshop);
    if (!evaluation) return undefined;
    const { design, motion, closed } = evaluation;
    const { at } = design.base.rest;
    const [shut, half, open] = [0, at / 2, at].map((s) => standingPicture(evaluation, s));
    return { shows: whatShows(design, motion, closed), closed: shut!, half: half!, open: open! };
  },

  /** The least changes of sizes that put a card right. @param told how much of the search is done at the most, 0 … 1 */
  repair: (card: CardDocument, workshop: Workshop, told: (share: number) => void): Repair => repair(card, workshop, told),

  /** How all pieces of so many cards are cut from sheets. @param told how much of it is done, 0 … 1 */
  cuttingPlan(card: CardDocument, workshop: Workshop, asked: PlanAsked, told: (share: number) => void): CuttingPlan | undefined {
    const evaluation = evaluationOf(card, workshop);
    let last = 0;
    const toldSeldom = (share: number): boolean => {
      if (share - last >= TOLD_APART) told((last = share));
      return true;
    };
    return evaluation && cuttingPlan(evaluation, asked, workshop, toldSeldom);
  },

  /** Ways to go on from what was really made. */
  rescue: (card: CardDocument, workshop: Workshop, made: readonly Made[]): Rescue | { says: string } => rescue(card, made, workshop),

  /** The same card for another size or envelope. */
  resized: (card: CardDocument, workshop: Workshop, wanted: Wanted): Resized | { says: string } => resized(card, wanted, workshop),

  /** A list held against a mechanism; without one, against every base, those first with which it agrees. */
  reconcile(mechanism: string | undefined, said: readonly SaidNumber[], workshop: Workshop): Reconciled[] {
    const given = { notation: workshop.notation };
    return mechanism ? [reconcile(mechanism, said, workshop, given)] : couldBe(said, workshop, given).slice(0, MOST_KINDS);
  },

  /** Samples of a card as this hand makes it, from one number up to another. */
  samples(card: CardDocument, workshop: Workshop, seed: number, from: number, to: number): SampleCounts | { says: string } {
    const model = modelOf(card, workshop);
    return 'says' in model ? model : sampled(model, seed, from, to);
  },

  /** What comes of all samples of a card. */
  study(card: CardDocument, workshop: Workshop, seed: number, counts: SampleCounts): ToleranceStudy | { says: string } {
    const model = modelOf(card, workshop);
    return 'says' in model ? model : toleranceStudy(model, seed, counts);
  },

  thickness(card: CardDocument, workshop: Workshop, cell: number): ThicknessMap | undefined {
    const evaluation = evaluationOf(card, workshop);
    return evaluation && thicknessMap(evaluation.design, evaluation.closed, cell);
  },

  /**
   * How the panels of a card bend that no stiff motion opens; seconds of work. Nothing when its sizes are refused.
   * @param told how much of it is done, 0 … 1
   */
  bends(card: CardDocument, workshop: Workshop, told: (share: number) => void): BentRow[] | undefined {
    const evaluation = evaluationOf(card, workshop);
    return evaluation && bentRows(evaluation.design, evaluation.motion, told);
  },

  /** Pictures of a card at some openings (shares of how far it is opened to be put down). Nothing when its sizes are refused. */
  pictures(card: CardDocument, openings: readonly number[]): CardPictures | undefined {
    return cardPictures(card, openings);
  },

  /** Reads an outline out of a drawing that may hold anything. */
  outline: readOutlineSvg,

  /**
   * Makes files of a card: one, or for a cutter one for each stock and bed. The writers load when first asked for.
   * @throws Error when the card cannot be worked out
   */
  async write(card: CardDocument, workshop: Workshop, file: HeavyFile): Promise<WrittenFile[]> {
    const outcome = outcomeOf(card, workshop);
    if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
    const { evaluation } = outcome;
    const written = await writtenFiles(evaluation, workshop, file);
    return transfer(
      written,
      written.map(({ bytes }) => bytes.buffer as ArrayBuffer),
    );
  },
};

async function writtenFiles(evaluation: Evaluation, workshop: Workshop, file: HeavyFile): Promise<WrittenFile[]> {
  const { writeArrangement, writeDxf, writeOnePage, writeTemplates } = await import('@diptychon/core/files');
  if (file.kind !== 'dxf') {
    const { paper, fonts } = file;
    return [
      {
        bytes:
          file.kind === 'one-page'
            ? await writeOnePage(evaluation, paper, fonts, workshop)
            : (await (file.kind === 'templates' ? writeTemplates : writeArrangement)(evaluation, paper, fonts)).bytes,
      },
    ];
  }
  return drawingsOf(evaluation, workshop).map((drawing) => ({
    suffix: drawing.suffix,
    bytes: new TextEncoder().encode(writeDxf(drawing, { folds: file.folds })),
  }));
}

export type EvaluationApi = typeof evaluationApi;
