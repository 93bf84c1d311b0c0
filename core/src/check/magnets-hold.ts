import { inSentence } from '../card/part-titles.js';
import { closuresOf } from '../card/dressing.js';
import { FROM_EDGE, type PlacedMagnet, type SunkDisc } from '../dress/magnets.js';
import { spoken, type Sentence } from '../measure/sentence.js';
import type { Mm } from '../measure/units.js';
import type { Check, Verdict } from './finding.js';

/** Discs farther apart than this hardly pull: our estimate for small discs of the trade, which each maker tries out. */
const PULLS_OVER: Mm = 1.5;

/** Does every magnet find its other, and may it be sunk where it is wished? */
export const magnetsHold: Check = ({ card, dressed }) => {
  const missing = closuresOf(card.dressing, 'magnet').filter(({ id }) => !dressed.magnets.some(({ closure }) => closure.id === id));
  return [
    ...missing.map(({ id, panel }): Verdict => ({
      id: `dressing-placed/${id}`,
      check: 'dressing-placed',
      severity: 'warn',
      says: `A magnet was put on ${panel}, which this card has not any more: it is left out until the panel is there again.`,
    })),
    ...dressed.magnets.flatMap(judged),
  ];
};

function judged(magnet: PlacedMagnet): Verdict[] {
  const { closure, number, first, second, still, apart } = magnet;
  const about = (what: string, severity: Verdict['severity'], says: Sentence, more: Partial<Verdict> = {}): Verdict => ({
    id: `dressing-placed/${closure.id}/${what}`,
    check: 'dressing-placed',
    severity,
    panels: [first, second].flatMap((disc) => (disc ? [disc.panel] : [])),
    at: 0,
    says,
    ...more,
  });
  if (!second)
    return [
      about(
        'alone',
        'fail',
        `The magnet ${number} has no other: nothing lies on the ${face(first)} there when the card is closed. Move it to where two panels lie on one another.`,
      ),
    ];
  const discs = [first, second];
  const found = [
    ...(still
      ? [
          about(
            'still',
            'fail',
            `The magnets ${number} lie on panels that never part, the ${face(first)} and the ${face(second)}: they close nothing. Move them to where the card opens.`,
          ),
        ]
      : []),
    ...discs.flatMap((disc, i): Verdict[] => {
      const key = i === 0 ? 'first' : 'second';
      if (disc.film)
        return [
          about(
            `${key}-film`,
            'fail',
            `A disc of ${number} would lie on clear film, the ${face(disc)}: it is seen, and nothing covers it. Move it to paper.`,
          ),
        ];
      if (!disc.patch)
        return [
          about(
            `${key}-paper`,
            'fail',
            `There is no free paper for a disc of ${number} on the ${face(disc)}: it lies over an opening or on what is glued there. Move it.`,
          ),
        ];
      if (disc.fromEdge >= FROM_EDGE) return [];
      return [
        about(
          `${key}-edge`,
          'fail',
          disc.fromEdge < 0
            ? `A disc of ${number} reaches ${spoken(-disc.fromEdge)} past an edge or a fold of the ${face(disc)}: move it at least ${spoken(FROM_EDGE - disc.fromEdge)} inward.`
            : `A disc of ${number} lies only ${spoken(disc.fromEdge)} from an edge or a fold of the ${face(disc)}, where it tears out: move it ${spoken(FROM_EDGE - disc.fromEdge)} inward.`,
          { value: disc.fromEdge, limit: FROM_EDGE, unit: 'mm' },
        ),
      ];
    }),
    ...discs.flatMap((disc) =>
      disc.under.map((topper) =>
        about(
          `under-${topper.topper.id}`,
          'warn',
          `${topper.number} (${topper.topper.name ?? topper.outlineName}) is glued on over the magnet ${number} on the ${face(disc)}, and keeps it ${spoken(topper.stands)} farther from the other: move one of them.`,
          { value: topper.stands, limit: 0, unit: 'mm' },
        ),
      ),
    ),
  ];
  if (apart > PULLS_OVER)
    found.push(
      about(
        'apart',
        'warn',
        `The magnets ${number} are ${spoken(apart)} apart when the card is closed, and hardly pull: over ${spoken(PULLS_OVER)} try them out first. Cover them with thinner paper, or take what lies over them away.`,
        {
          value: apart,
          limit: PULLS_OVER,
          unit: 'mm',
        },
      ),
    );
  if (found.length > 0) return found;
  return [
    about(
      'meet',
      'pass',
      `The magnets ${number} meet when the card closes, ${spoken(apart)} apart: on the ${face(first)} and the ${face(second)}.`,
    ),
  ];
}

const face = ({ panelName, face: side }: SunkDisc): string => `${inSentence(panelName)}${side === 'down' ? ', its back' : ''}`;
