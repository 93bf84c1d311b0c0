import { shifted } from '../../plane/placement.js';
import { rectangle } from '../../plane/outline.js';
import { blankPiece, type Piece } from '../../sheet/piece.js';
import { TAB_CLEARANCE } from '../../supplies/limits.js';
import type { Bond } from '../../linkage/structure.js';
import { num, type PlainSize, type Sizes } from '../sizes.js';
import { panelBelow, takesTread, windowOf } from './step-window.js';

/** Whether the strip that carries the panel is of card: it is seen, but it is stiffer and takes any glue. */
const ofCard = (sizes: Sizes): boolean => sizes['stripStock'] === 'mechanism';
const stripName = (sizes: Sizes): string => (ofCard(sizes) ? 'cross strip' : 'clear strip');
export const hasTwin = (sizes: Sizes): boolean => sizes['twin'] === 'behind';

/** What carries the panel, and what covers its back. */
export const CARRYING_SIZES: readonly PlainSize[] = [
  {
    name: 'stripStock',
    label: 'Strip across the rails',
    kind: 'choice',
    default: 'film',
    help: 'Clear film does not show; light card is stiffer and takes any glue.',
    options: [
      { value: 'film', label: 'of clear film' },
      { value: 'mechanism', label: 'of light card' },
    ],
  },
  {
    name: 'twin',
    label: 'Back of the panel',
    kind: 'choice',
    default: 'none',
    help: 'A twin of the panel behind the strip covers the glue; it is a place for the message.',
    options: [
      { value: 'none', label: 'left bare' },
      { value: 'behind', label: 'a twin behind the strip' },
    ],
  },
];

/** A strip across both rails, as wide as the upper riser, on the inside. */
export function clearStrip(sizes: Sizes, u2: number): { piece: Piece; bonds: Bond[] } {
  const [across, rail] = [num(sizes, 'upperRiser'), num(sizes, 'rail')];
  const inset = num(sizes, 'stripInset');
  const along = num(sizes, 'length') - 2 * inset;
  const glued = rail - inset - 1.5;
  const zone = (y: number) => rectangle(TAB_CLEARANCE, y, across - 2 * TAB_CLEARANCE, glued);
  const zones = [zone(0.5), zone(along - 0.5 - glued)];
  const piece = blankPiece({
    id: 'strip',
    name: ofCard(sizes) ? 'Cross strip' : 'Clear strip',
    stock: ofCard(sizes) ? 'mechanism' : 'film',
    faceUp: 'either face up',
    outline: rectangle(0, 0, across, along),
    because: 'as wide as the upper riser, as long as the card less its inset at both ends',
    zones: zones.map((outline, i) => ({
      id: i === 0 ? 'near-glue' : 'far-glue',
      kind: 'glue' as const,
      face: 'up' as const,
      outline,
      says: `${ofCard(sizes) ? 'glue' : 'tape'} to the inside of the ${i === 0 ? 'near' : 'far'} rail`,
    })),
    anchors: [{ panel: 'strip', name: stripName(sizes), at: [across / 2, along / 2] }],
  });
  const bond = (i: 0 | 1): Bond => ({
    id: i === 0 ? 'strip-near' : 'strip-far',
    name: `${stripName(sizes)} inside the ${i === 0 ? 'near' : 'far'} rail`,
    panel: 'strip/strip',
    face: 'up',
    partner: `base/${i === 0 ? 'near' : 'far'}-rail`,
    partnerFace: 'down',
    zone: i === 0 ? 'near-glue' : 'far-glue',
    placement: shifted([u2, inset]),
    atOnce: `${stripName(sizes)} inside both rails`,
    flat: true,
  });
  return { piece, bonds: [bond(0), bond(1)] };
}

/** The panel, a little smaller than its window, its back on the strip; where wished its twin on the strip's other side. */
export function floatingPanel(sizes: Sizes): { piece: Piece; bond: Bond }[] {
  const window = windowOf(sizes);
  const clearance = num(sizes, 'panelClearance');
  const below = panelBelow(sizes);
  const [width, height] = [window.along - 2 * clearance, below + num(sizes, 'upperRiser') + num(sizes, 'windowAbove') - clearance];
  const from = Math.max(1, below + 1);
  const glue = rectangle(2, from, width - 4, Math.max(2, Math.min(num(sizes, 'upperRiser') - 2, height - from - 1)));
  const [x, y] = [-below, num(sizes, 'rail') - num(sizes, 'stripInset') + clearance];
  const verb = ofCard(sizes) ? 'glue' : 'tape';
  const made = (
    id: string,
    name: string,
    more: Pick<Piece, 'faceUp' | 'because'>,
    says: string,
    on: Pick<Bond, 'partnerFace' | 'placement'>,
  ) => ({
    piece: blankPiece({
      id,
      name,
      stock: 'display',
      outline: rectangle(0, 0, width, height),
      zones: [{ id: 'panel-glue', kind: 'glue', face: 'down', outline: glue, says }],
      anchors: [{ panel: id, name: name.toLowerCase(), at: [width / 2, height / 2] }],
      ...more,
    }),
    bond: {
      id: `${id}-on-strip`,
      name: `${name.toLowerCase()} on the ${stripName(sizes)}`,
      panel: `${id}/${id}`,
      face: 'down',
      partner: 'strip/strip',
      zone: 'panel-glue',
      flat: true,
      ...on,
    } satisfies Bond,
  });
  const twin = hasTwin(sizes);
  return [
    made(
      'panel',
      'Floating panel',
      {
        faceUp: 'picture up, foot at the bottom',
        because: takesTread(sizes)
          ? 'its window less the clearance at the sides and the top, and as far below the tread as it hangs'
          : 'its window less the clearance on every side',
      },
      `${verb} to the ${stripName(sizes)} only${twin ? '' : '; cover its back with a twin'}`,
      { partnerFace: 'up', placement: { to: [x, y + width], turn: -Math.PI / 2, flipped: false } },
    ),
    ...(twin
      ? [
          made(
            'twin',
            'Twin of the panel',
            { faceUp: 'message up, foot at the bottom', because: 'as large as the panel that it backs' },
            `${verb} to the ${stripName(sizes)}, edges level with the panel in front of it`,
            { partnerFace: 'down', placement: { to: [x, y], turn: -Math.PI / 2, flipped: true } },
          ),
        ]
      : []),
  ];
}
