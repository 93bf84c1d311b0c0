import { closuresOf } from '../card/dressing.js';
import { inSentence } from '../card/part-titles.js';
import { SLIT_GAP, SLIT_PLAY } from '../dress/ribbon.js';
import { spoken } from '../measure/sentence.js';
import type { Check, Verdict } from './finding.js';

/** Has every ribbon something to be tied round, and a whole fold for its slits? */
export const ribbonsTie: Check = ({ card, dressed, design: { panels } }) =>
  closuresOf(card.dressing, 'ribbon').map(({ id, way, wide, panel, around }): Verdict => {
    const placed = dressed.ribbons.find(({ closure }) => closure.id === id);
    const about = { id: `opens/${id}`, check: 'opens', at: 0 } as const;
    if (!placed && way === 'panel')
      return {
        ...about,
        severity: 'warn',
        says: panels.some((each) => each.id === panel)
          ? 'A ribbon lies beside the panel that it is to go round: it is left out. Move its middle onto the panel.'
          : 'The panel that a ribbon is to go round is not there: it is left out. Choose another panel for it.',
      };
    if (!placed)
      return { ...about, severity: 'warn', says: 'A ribbon lies beside the closed card: it is left out. Move its middle onto the card.' };
    if (way === 'slits' && placed.slits.length === 0)
      return {
        ...about,
        severity: 'fail',
        says: `No fold at the edge of the closed card is whole there for the slits of the ribbon ${placed.number}, which take ${spoken(2 * (wide + SLIT_PLAY) + SLIT_GAP)} of it: move it along the fold, take a narrower one, or tie it round.`,
      };
    if (placed.panel?.inTheWay)
      return {
        ...about,
        severity: 'fail',
        panels: [placed.panel.id],
        says: `The ribbon ${placed.number} cannot go round the ${inSentence(placed.panel.name)} there: ${placed.panel.inTheWay === 'fold' ? 'a fold is in its way' : 'something is glued to it in its way'}. Move it, take a narrower one, or let it go round ${around === 'across' ? 'the upper and lower' : 'the left and right'} edge of the panel.`,
      };
    if (placed.panel)
      return {
        ...about,
        severity: 'pass',
        says: `The ribbon ${placed.number} is ${spoken(placed.ribbon.length)} long, with its knot and ends, and stays on the ${inSentence(placed.panel.name)} when the card opens.`,
      };
    return {
      ...about,
      severity: 'pass',
      says: `The ribbon ${placed.number} is ${spoken(placed.ribbon.length)} long, with its knot and ends: untied, it frees the card.`,
    };
  });
