import type { RibbonClosure } from '../card/dressing.js';
import { inSentence } from '../card/part-titles.js';
import type { PlacedRibbon } from '../dress/ribbons.js';
import type { Evaluation } from '../evaluate.js';
import { sayLength } from '../measure/print.js';
import type { Mm } from '../measure/units.js';
import { plainStep, type BenchStep } from './step.js';

/** Cutting the ribbons to length and tying them, last of all. */
export const ribbonsTied = ({ dressed, design }: Evaluation): BenchStep[] =>
  dressed.ribbons.map((placed) => tied(placed, (mm) => sayLength(mm, design.card.notation)));

function tied({ closure, number, ribbon, slits, panel }: PlacedRibbon, say: (mm: Mm) => string): BenchStep {
  const bow = closure.loop > 0;
  const across = closure.way === 'slits' || closure.around === 'across';
  const where = `its middle ${say(closure.at)} from ${across ? 'the lower end' : 'the fold'}`;
  return plainStep({
    id: `tie-${closure.id}`,
    kind: 'dress',
    title: `Tie the ribbon: ${number}`,
    says: [
      `Cut ${say(ribbon.length)} of ribbon ${say(closure.wide)} wide: ${say(ribbon.round)} for its way, ${say(ribbon.knot)} for the knot, ${bow ? `${say(ribbon.loops)} for both loops, ` : ''}${say(ribbon.ends)} for both ends. Cut the ends slanting, so that they do not fray.`,
      panel
        ? roundPanel(panel.name, closure, say)
        : slits.length > 0
          ? `Lead it from inside out through both slits of the fold, ${where}: one half goes over the front, the other over the back, and both meet at the free edge.`
          : closure.way === 'slits'
            ? 'There is no whole fold for its slits: see the verdicts before you cut it.'
            : `Close the card and lay the ribbon round it, ${across ? 'over the fold and the free edge' : 'over both ends of the fold'}, ${where}.`,
      bow
        ? `Tie a bow, each loop ${say(closure.loop)} high. Not tighter than the card lies by itself.`
        : 'Tie a plain knot. Not tighter than the card lies by itself.',
    ],
    picture: { kind: 'standing', at: panel ? 1 : 0 },
  });
}

/** Where a ribbon lies on its panel, the card open. */
function roundPanel(name: string, { around, at }: RibbonClosure, say: (mm: Mm) => string): string {
  const isAcross = around === 'across';
  const [one, other] = isAcross ? ['right', 'left'] : ['upper', 'lower'];
  return `Open the card. Lay the ribbon over the ${inSentence(name)}, its middle ${say(at)} from the ${isAcross ? 'lower' : 'left'} edge of the panel as its piece is drawn: round the ${one} edge, over the back, and round the ${other} edge to the front again.`;
}
