/** Colours in which papers are drawn, red green blue: as near to the packet as a screen needs. */
export const SHADES = {
  white: [250, 249, 245],
  cream: [243, 233, 208],
  straw: [230, 208, 150],
  chanterelle: [222, 160, 66],
  rust: [178, 92, 58],
  bark: [132, 104, 80],
  moss: [128, 146, 96],
  pine: [74, 98, 84],
  lichen: [176, 190, 164],
  mist: [178, 190, 198],
  slate: [104, 118, 130],
  night: [58, 64, 82],
  heather: [164, 138, 160],
  blush: [226, 188, 176],
} as const satisfies Readonly<Record<string, readonly [number, number, number]>>;

export type Shade = keyof typeof SHADES;
export const SHADE_IDS = Object.keys(SHADES) as [Shade, ...Shade[]];

/** A colour as style sheets write it. */
export const shadeHex = (shade: Shade): string => `#${SHADES[shade].map((c) => c.toString(16).padStart(2, '0')).join('')}`;
