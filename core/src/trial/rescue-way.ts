import type { CardDocument } from '../card/document.js';
import type { Finding } from '../check/finding.js';
import type { Evaluation } from '../evaluate.js';
import type { SizeChange } from './size-search.js';

export type RescueKind =
  | 'leave'
  | 'turn'
  | 'fold-back'
  | 'go-on'
  | 'change-size'
  | 'trim'
  | 'stiffen'
  | 'glue-again'
  | 'second-score'
  | 'another-part'
  | 'start-again';

/** One way of going on from what was made. */
export interface RescueWay {
  kind: RescueKind;
  says: string;
  /** how dear it is: mm of change, or what a hand would rather not do */
  cost: number;
  changes: SizeChange[];
  /** the card to go on with, where its sizes change */
  card?: CardDocument;
  /** what is said against the card then */
  leaves: Finding[];
}

/** A hand would rather turn a piece than change sizes by a mm, and change sizes rather than score twice. */
export const COST = {
  turn: 0.5,
  goOn: 0.5,
  foldBack: 1,
  trim: 2,
  offMark: 4,
  stiffen: 6,
  glueAgain: 15,
  secondScore: 25,
  anotherPart: 60,
  startAgain: 100,
};

/** What is said against a card. */
export const against = ({ findings }: Pick<Evaluation, 'findings'>): Finding[] => findings.filter(({ severity }) => severity !== 'pass');

export const fails = (findings: readonly Finding[]): boolean => findings.some(({ severity }) => severity === 'fail');

/** Whether a card fails by more than glue that stands out beside a piece that was glued beside its place: that is wiped off. */
export const failsButForGlue = (findings: readonly Finding[], joints: readonly string[]): boolean =>
  findings.some(({ severity, id }) => severity === 'fail' && !joints.some((joint) => id === `glue-clear/${joint}/past`));

/** A way that changes no size. */
export const byHand = (kind: RescueKind, cost: number, says: string, leaves: Finding[]): RescueWay => ({
  kind,
  says,
  cost,
  changes: [],
  leaves,
});
