import { DRESSING_WORDS } from './dressing-words';
import type { Word } from './word';

export type { Word } from './word';

const SHEET = 'M10 10H86V46H10Z';
const TENT = 'M12 48L48 12L84 48';

/** One word for one thing, on every screen, in every step and in print. `docs/words.md` is this list. */
export const GLOSSARY: readonly Word[] = [
  {
    id: 'score',
    word: 'Score',
    forms: ['score', 'scores', 'scored', 'scoring'],
    says: 'A line pressed into the card, so that it folds there and nowhere else. It is not cut.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'valley', d: 'M48 10V46' },
    ],
  },
  {
    id: 'valley',
    word: 'Valley',
    forms: ['valley', 'valleys'],
    says: 'A fold toward you: seen from the face that lies up, the line sinks and both sides rise.',
    drawing: [
      { as: 'paper', d: 'M12 14L48 44L84 14' },
      { as: 'valley', d: 'M48 40V50' },
    ],
  },
  {
    id: 'mountain',
    word: 'Mountain',
    forms: ['mountain', 'mountains'],
    says: 'A fold away from you: seen from the face that lies up, the line rises and both sides sink.',
    drawing: [
      { as: 'paper', d: TENT },
      { as: 'mountain', d: 'M48 6V16' },
    ],
  },
  {
    id: 'across',
    word: 'Across',
    forms: ['across'],
    says: 'At right angles to the fold: how far a card or a blank reaches from the fold to the free edge.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'valley', d: 'M48 10V46' },
      { as: 'measure', d: 'M48 28H86' },
    ],
  },
  {
    id: 'along',
    word: 'Along',
    forms: ['along'],
    says: 'In the direction of the fold: how long the fold is from one end to the other.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'valley', d: 'M48 10V46' },
      { as: 'measure', d: 'M56 10V46' },
    ],
  },
  {
    id: 'depth',
    word: 'Depth',
    forms: ['depth'],
    says: 'Of a closed card, from its fold to its free edge: across. Of a box or a step, from front to back.',
    drawing: [
      { as: 'paper', d: 'M20 46H80M20 46L34 16H94' },
      { as: 'measure', d: 'M20 52H80' },
    ],
  },
  {
    id: 'height',
    word: 'Height',
    forms: ['height', 'high'],
    says: 'How far something reaches up from the table when the card is put down, or from its own foot on a flat piece.',
    drawing: [
      { as: 'paper', d: 'M10 48H86M30 48L52 12' },
      { as: 'measure', d: 'M62 12V48' },
    ],
  },
  {
    id: 'width',
    word: 'Width',
    forms: ['width'],
    says: 'How far something reaches from side to side as it is looked at: a display, a window, a closed card held upright. Of a strip or a tab, its narrow way.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'measure', d: 'M10 52H86' },
    ],
  },
  {
    id: 'blank',
    word: 'Blank',
    forms: ['blank', 'blanks'],
    says: 'A piece trimmed to its rectangle, before its outline or anything inside is cut.',
    drawing: [{ as: 'meant', d: SHEET }],
  },
  {
    id: 'leaf',
    word: 'Leaf',
    forms: ['leaf', 'leaves'],
    says: 'One side of a folded sheet, from the fold to the free edge. The back leaf lies on the table; the front leaf is opened.',
    drawing: [
      { as: 'paper', d: 'M10 48H48' },
      { as: 'meant', d: 'M48 48L78 12' },
    ],
  },
  {
    id: 'base',
    word: 'Base',
    forms: ['base'],
    says: 'The card that everything else stands on; of an easel, the leaf that lies on the table.',
    drawing: [
      { as: 'meant', d: 'M10 48H86' },
      { as: 'paper', d: 'M86 48L52 22L30 48' },
    ],
  },
  {
    id: 'free-edge',
    word: 'Free edge',
    forms: ['free edge', 'free edges'],
    says: 'The edge of a leaf that lies opposite the fold.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'valley', d: 'M10 10V46' },
      { as: 'meant', d: 'M86 10V46' },
    ],
  },
  {
    id: 'face-up',
    word: 'Face up',
    forms: ['inside up', 'inside down', 'outside up', 'picture up', 'picture down'],
    says: 'Which side of a piece you look at while it lies on the table. The inside is what is seen when the card is open.',
    drawing: [
      { as: 'paper', d: 'M14 40L34 18H90L70 40Z' },
      { as: 'measure', d: 'M52 6V24' },
    ],
  },
  {
    id: 'zero',
    word: 'Zero, fence',
    forms: ['at zero', 'fence'],
    says: 'Where a scoring board or a ruler begins. The fence is the ledge that the edge of the blank is pushed against.',
    drawing: [
      { as: 'paper', d: 'M16 20H86V46H16Z' },
      { as: 'meant', d: 'M16 8V50' },
      { as: 'measure', d: 'M16 14H60' },
    ],
  },
  {
    id: 'groove',
    word: 'Groove',
    forms: ['groove', 'grooves'],
    says: 'A furrow of a scoring board. A score that falls into one needs no pencil mark.',
    drawing: [
      { as: 'paper', d: 'M10 20H26L30 30L34 20H50L54 30L58 20H74L78 30L82 20H88' },
      { as: 'meant', d: 'M54 6V28' },
    ],
  },
  {
    id: 'thickness',
    word: 'Thickness',
    forms: ['thick', 'thickness'],
    says: 'How thick one sheet is, or all that lies on top of each other in the closed card. Measure ten sheets at once and divide by ten.',
    drawing: [
      { as: 'paper', d: 'M14 20H70V26H14ZM14 30H70V36H14Z' },
      { as: 'measure', d: 'M80 20V36' },
    ],
  },
  {
    id: 'spine',
    word: 'Spine',
    forms: ['spine'],
    says: 'Two scores side by side in place of one fold, as far apart as what lies between the leaves is thick.',
    drawing: [
      { as: 'paper', d: 'M84 14H20V42H84' },
      { as: 'measure', d: 'M12 14V42' },
    ],
  },
  {
    id: 'caliper',
    word: 'Caliper',
    forms: ['caliper'],
    says: 'How thick one sheet of a stock is. Card of 250 g is about three tenths of a millimetre.',
    drawing: [
      { as: 'paper', d: 'M10 24H86V32H10Z' },
      { as: 'measure', d: 'M92 24V32' },
    ],
  },
  {
    id: 'grain',
    word: 'Grain',
    forms: ['grain'],
    says: 'The way the fibres of a sheet run. A fold along the grain is clean; across it, heavy card cracks.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'meant', d: 'M22 14V42M34 14V42M46 14V42M58 14V42M70 14V42' },
    ],
  },
  {
    id: 'gutter',
    word: 'Gutter',
    forms: ['gutter'],
    says: 'The inside of the main fold, where both leaves meet. What lies over it bends each time the card is opened.',
    drawing: [
      { as: 'paper', d: 'M10 16L48 40L86 16' },
      { as: 'valley', d: 'M48 34V46' },
    ],
  },
  {
    id: 'gape',
    word: 'Gape',
    forms: ['gape', 'gapes', 'gaping'],
    says: 'How far the free edges of a closed card stand apart because something thick lies inside.',
    drawing: [
      { as: 'paper', d: 'M12 30L84 14M12 30L84 46' },
      { as: 'measure', d: 'M84 14V46' },
    ],
  },
  {
    id: 'tab',
    word: 'Tab',
    forms: ['tab', 'tabs'],
    says: 'A narrow strip beyond a fold that carries the glue.',
    drawing: [
      { as: 'paper', d: 'M10 12H64V44H10Z' },
      { as: 'glue', d: 'M64 12H84V44H64Z' },
      { as: 'valley', d: 'M64 12V44' },
    ],
  },
  {
    id: 'strut',
    word: 'Strut',
    forms: ['strut', 'struts'],
    says: 'The panel behind a display that holds it up, from the hinge to the base.',
    drawing: [
      { as: 'paper', d: 'M10 48H88M24 48L48 10' },
      { as: 'meant', d: 'M40 24L78 48' },
    ],
  },
  {
    id: 'stop',
    word: 'Stop',
    forms: ['stop', 'stops'],
    says: 'A raised strip glued to the base, or a topper placed there, against which the foot of a display rests.',
    drawing: [
      { as: 'paper', d: 'M10 48H88M40 48L60 12' },
      { as: 'meant', d: 'M30 42H40V48H30Z' },
    ],
  },
  {
    id: 'display',
    word: 'Display',
    forms: ['display', 'displays'],
    says: 'The panel of an easel that is looked at. Its lower edge is its foot.',
    drawing: [
      { as: 'paper', d: 'M10 48H88M46 24L78 48' },
      { as: 'meant', d: 'M28 48L54 10' },
    ],
  },
  {
    id: 'lean',
    word: 'Lean',
    forms: ['lean', 'leans'],
    says: 'The angle between what stands and the table. Upright is 90°.',
    drawing: [
      { as: 'paper', d: 'M10 48H88M24 48L56 10' },
      { as: 'measure', d: 'M46 48A22 22 0 0 0 38 31' },
    ],
  },
  {
    id: 'crest',
    word: 'Crest',
    forms: ['crest'],
    says: 'The fold down the middle of a V-fold, between its two wings.',
    drawing: [
      { as: 'paper', d: 'M14 44L48 12L82 44L48 50Z' },
      { as: 'meant', d: 'M48 12V50' },
    ],
  },
  {
    id: 'ray',
    word: 'Ray',
    forms: ['ray', 'rays'],
    says: 'The line on a leaf along which a wing of a V-fold is glued. Its angle is counted from the fold of the card.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'valley', d: 'M48 10V46' },
      { as: 'meant', d: 'M48 40L80 16' },
      { as: 'measure', d: 'M48 24A16 16 0 0 1 61 30' },
    ],
  },
  {
    id: 'wing',
    word: 'Wing',
    forms: ['wing', 'wings'],
    says: 'A panel of a movement that swings with a leaf: half of a V-fold, or what is tucked behind a band.',
    drawing: [
      { as: 'paper', d: 'M48 12L82 44L48 50Z' },
      { as: 'meant', d: 'M48 12L14 44L48 50Z' },
    ],
  },
  {
    id: 'leg',
    word: 'Leg',
    forms: ['leg', 'legs'],
    says: 'Half of a strip that lies along a fold, folded down its middle: it turns up out of the fold as the leaves close.',
    drawing: [
      { as: 'paper', d: 'M8 34H88V46H8Z' },
      { as: 'meant', d: 'M36 46L48 10L60 46' },
      { as: 'mountain', d: 'M48 10V46' },
    ],
  },
  {
    id: 'carrier',
    word: 'Carrier',
    forms: ['carrier', 'carriers'],
    says: 'A strip folded in quarters. Its outer quarters are glued to one half of a leg each, the middle two bend and carry the picture.',
    drawing: [
      { as: 'paper', d: 'M8 20H88V38H8Z' },
      { as: 'valley', d: 'M28 20V38' },
      { as: 'mountain', d: 'M48 20V38' },
      { as: 'valley', d: 'M68 20V38' },
    ],
  },
  {
    id: 'slit',
    word: 'Slit',
    forms: ['slit', 'slits'],
    says: 'A cut that takes nothing away.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'cut', d: 'M28 28H68' },
    ],
  },
  {
    id: 'opening',
    word: 'Opening',
    forms: ['window', 'windows'],
    says: 'What is cut out of a panel and taken away, to look through. Of a whole card, how far it is opened.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'cut', d: 'M34 18H62V38H34Z' },
    ],
  },
  {
    id: 'slot',
    word: 'Slot',
    forms: ['slot', 'slots'],
    says: 'A narrow opening that something slides through.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'cut', d: 'M24 26H72V30H24Z' },
    ],
  },
  {
    id: 'clearance',
    word: 'Clearance',
    forms: ['clearance'],
    says: 'What is left free on purpose between parts that pass each other.',
    drawing: [
      { as: 'paper', d: 'M10 14H40V44H10ZM56 14H86V44H56Z' },
      { as: 'measure', d: 'M40 28H56' },
    ],
  },
  {
    id: 'film',
    word: 'Film',
    forms: ['film'],
    says: 'A clear sheet that carries what seems to float. It is taped, never glued.',
    drawing: [
      { as: 'meant', d: 'M26 8H70V48H26Z' },
      { as: 'paper', d: 'M36 16H60V30H36Z' },
    ],
  },
  {
    id: 'keep-clear',
    word: 'Keep clear',
    forms: ['keep clear', 'keep it clear'],
    says: 'Where nothing raised may be put, because something passes or lies there when the card closes.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'glue', d: 'M40 10H60V46H40Z' },
    ],
  },
  ...DRESSING_WORDS,
];

const FORMS = GLOSSARY.map((word) => ({ word, found: new RegExp(`\\b(${word.forms.join('|')})\\b`, 'i') }));

/** The words of the list that some sentences use, in the order of the list. */
export function wordsIn(sentences: readonly string[]): Word[] {
  const text = sentences.join(' ');
  return FORMS.flatMap(({ word, found }) => (found.test(text) ? [word] : []));
}
