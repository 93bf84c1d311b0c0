import type { Bond } from '../../linkage/structure.js';
import { composed, place, shifted, type Placement } from '../../plane/placement.js';
import type { Mark } from '../../sheet/piece.js';
import type { FoldSite } from '../sites.js';
import { inFront } from './lift-arm.js';
import type { SmallTabHost } from './loose-panel.js';
import { armOn, armSide, figureSide, heightOf, numberOf, panelOf, type Placed, tabsOf } from './placed-arm.js';

/** Brace and figure are put on the arm before it comes into the card: folded flat, all of it lies on the table. */
export function onTheTable(id: string, one: Placed): Bond[] {
  const { arm, hand, end, braceTurn } = one;
  const [low] = arm.mount;
  const front = inFront(arm.hinge);
  const height = heightOf(arm);
  const line = -hand * arm.brace;
  const upright = shifted([line + hand * figureSide(one), low]);
  // A fold out of parallel is still laid on its line.
  const turnedAbout = place([-hand * armSide(one), height / 2], { to: [0, 0], turn: braceTurn, flipped: false });
  const onArm: Placement = { to: [line - turnedAbout[0], low + height / 2 - turnedAbout[1]], turn: braceTurn, flipped: false };
  const made = 'on the table' as const;
  return [
    {
      id: `${id}/${end}-brace-on-figure`,
      name: `brace on figure ${numberOf(end)}`,
      panel: panelOf(id, end, 'brace-figure-tab'),
      face: front ? 'up' : 'down',
      partner: panelOf(id, end, 'figure'),
      partnerFace: front ? 'down' : 'up',
      zone: 'figure-glue',
      placement: upright,
      made,
    },
    {
      id: `${id}/${end}-brace-on-arm`,
      name: `brace on arm ${numberOf(end)}`,
      panel: panelOf(id, end, 'brace-arm-tab'),
      face: front ? 'down' : 'up',
      partner: panelOf(id, end, 'second-wing'),
      partnerFace: front ? 'up' : 'down',
      zone: 'arm-glue',
      placement: onArm,
      made,
    },
    {
      id: `${id}/${end}-figure-on-arm`,
      name: `figure on arm ${numberOf(end)}`,
      panel: panelOf(id, end, 'figure-tab'),
      face: 'down',
      partner: panelOf(id, end, 'first-wing'),
      partnerFace: 'down',
      zone: 'tab-glue',
      placement: { to: [hand * arm.hinge, 0], turn: 0, flipped: true },
      made,
      says: ['Do it with the arm folded flat along its slanting crease: figure and brace then lie flat too.'],
    },
  ];
}

function tabBond(id: string, one: Placed, leaf: SmallTabHost, i: 0 | 1): Omit<Bond, 'made' | 'says'> {
  const tab = i === 0 ? 'large' : 'small';
  return {
    id: `${id}/${one.end}-${tab}-tab`,
    name: `${tab} tab of arm ${numberOf(one.end)} on the ${leaf.name}`,
    panel: panelOf(id, one.end, `${tab}-tab`),
    face: 'up',
    partner: leaf.panel,
    partnerFace: leaf.face,
    zone: `${tab}-glue`,
    placement: composed(leaf.frame, armOn(one, i)),
  };
}

/** @param host the leaf, or the loose panel that goes onto it */
export const smallTab = (id: string, one: Placed, host: SmallTabHost): Bond => ({
  ...tabBond(id, one, host, 1),
  made: 'on the table',
  says: [
    'Fold the arm flat, figure and all, and lay it so that its tab hides both crosses.',
    ...(one.end === 'upper' ? ['Hold arm 1 down with a clip while this one is made.'] : []),
  ],
});

/** Both at once: the second leaf comes down on both large tabs. */
export const largeTab = (id: string, one: Placed, site: FoldSite): Bond => ({
  ...tabBond(id, one, site.leaves[1], 0),
  made: one.end === 'lower' ? 'with the next' : 'by closing',
  says:
    one.end === 'lower'
      ? ['Both arms lie folded flat on the other leaf, their large tabs up.']
      : [`The ${site.leaves[1].name} comes down on both large tabs in one go; take the clip off only then.`],
});

/** Where the corners of a tab come to lie: crosses that the tab hides, in the site's own axes. */
export function crossesOf(id: string, one: Placed, which: 'large' | 'small'): Mark[] {
  const i = which === 'large' ? 0 : 1;
  const tab = tabsOf(one)[i];
  const name = `${which} tab of arm ${numberOf(one.end)}`;
  const cross = (where: 'outer' | 'far', says: string): Mark => {
    const at = place(tab[where], armOn(one, i));
    return { id: `${id}-${one.end}-${which}-${where}`, from: at, to: at, cross: true, says };
  };
  return [cross('far', `the far end of the crease of the ${name} lies here`), cross('outer', `the outer corner of the ${name} lies here`)];
}
