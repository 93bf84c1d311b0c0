import type { Bond } from '../../linkage/structure.js';
import { spoken } from '../../measure/sentence.js';
import type { Mm } from '../../measure/units.js';
import { rectangle } from '../../plane/outline.js';
import { composed, shifted, type Placement } from '../../plane/placement.js';
import { blankPiece, type Mark, type Piece } from '../../sheet/piece.js';
import type { Face } from '../../sheet/piece.js';
import { leastDepth, type FoldSite } from '../sites.js';
import { num, type PlainSize, type Sizes } from '../sizes.js';

/** A panel on a leaf stops so far short of the fold: nearer it holds the card open. */
const SHORT_OF_FOLD: Mm = 1;

const isLoose = (sizes: Sizes): boolean => sizes['lowerPanel'] === 'loose';

/** Whether both arms are built on a panel off the card, and how much of the leaf shows round it. */
export const LOOSE_PANEL_SIZES: readonly PlainSize[] = [
  {
    name: 'lowerPanel',
    label: 'Small tabs are glued to',
    kind: 'choice',
    default: 'leaf',
    help: 'On a loose panel both arms are built off the card, and the panel is set in when they work.',
    options: [
      { value: 'leaf', label: 'the leaf itself' },
      { value: 'loose', label: 'a loose panel, set in afterwards' },
    ],
  },
  {
    name: 'panelBorder',
    label: 'Border of the loose panel',
    kind: 'length',
    default: 4,
    help: 'How much of the leaf shows round it, but along the fold.',
    range: ({ site }) => ({
      min: 0,
      max: Math.min(leastDepth(site!), site!.length) / 6,
      because: 'a panel with a wider border does not reach under both arms',
    }),
    shown: isLoose,
  },
];

/** What the small tabs are glued to: where it is, and how the site's plane lies on its piece. */
export interface SmallTabHost {
  panel: string;
  face: Face;
  name: string;
  frame: Placement;
}

/** The first leaf of a site, or the loose panel that goes onto it. */
export function smallTabHost(id: string, sizes: Sizes, { leaves: [leaf] }: FoldSite): SmallTabHost {
  if (!isLoose(sizes)) return leaf;
  const border = num(sizes, 'panelBorder');
  return { panel: `${id}-panel/panel`, face: 'up', name: 'loose panel', frame: shifted([leaf.depth - border, -border]) };
}

/** The loose panel, if there is one: beside the fold, a border in from the leaf's other edges. @param marks on its upper face */
export function loosePanel(id: string, sizes: Sizes, site: FoldSite, marks: Mark[]): { piece: Piece; bond: Bond } | undefined {
  if (!isLoose(sizes)) return undefined;
  const { leaves, length, name } = site;
  const [leaf] = leaves;
  const border = num(sizes, 'panelBorder');
  const [across, along] = [leaf.depth - border - SHORT_OF_FOLD, length - 2 * border];
  const piece = blankPiece({
    id: `${id}-panel`,
    name: 'Loose panel',
    stock: 'mechanism',
    faceUp: 'crosses up, the fold’s side at the right',
    outline: rectangle(0, 0, across, along),
    because: `the ${leaf.name} less the border on three sides, and ${spoken(SHORT_OF_FOLD)} short of the fold`,
    marks,
    zones: [
      {
        id: 'panel-glue',
        kind: 'glue',
        face: 'down',
        outline: rectangle(0.5, 0.5, across - 1, along - 1),
        says: `to the ${leaf.name}, all over`,
      },
    ],
    anchors: [{ panel: 'panel', name: 'loose panel', at: [across / 2, along / 2] }],
  });
  const bond: Bond = {
    id: `${id}/panel-on-leaf`,
    name: `loose panel on the ${leaf.name}`,
    panel: `${id}-panel/panel`,
    face: 'down',
    partner: leaf.panel,
    partnerFace: leaf.face,
    zone: 'panel-glue',
    placement: composed(leaf.frame, shifted([border - leaf.depth, border])),
    made: 'on the table',
    says: [
      `Both arms are on it, folded flat. Lay it in its place and run low-tack tape along its edge beside the ${name}, half on the panel and half on the other leaf: that is its hinge.`,
      'Turn it up on the tape, put on the glue, turn it down again and press; then take the tape off.',
    ],
  };
  return { piece, bond };
}
