/** What a mechanism is called and does, without its geometry: enough to read a card, and to choose what to start. */
export interface Introduction {
  id: string;
  kind: 'base' | 'movement';
  name: string;
  summary: string;
}

/** All there are, in the order of the catalogue. */
export const MECHANISMS = [
  {
    id: 'folded-card',
    kind: 'base',
    name: 'Folded card',
    summary: 'Two leaves and one fold. Carries movements that stand up as it opens.',
  },
  {
    id: 'rising-strip-doors',
    kind: 'base',
    name: 'Doors with a rising strip',
    summary: 'Two doors meet in the middle. Laid open, a strip between them rises on two slopes.',
  },
  {
    id: 'tucked-display',
    kind: 'base',
    name: 'Tucked-wing display',
    summary: 'Doors open, wings slide out from behind a band, and the band with its picture steps forward.',
  },
  {
    id: 'bellows-box',
    kind: 'base',
    name: 'Bellows box with a window',
    summary: 'Squeeze it and it stands as a box; let the sides in and it lies flat. The scene is seen through a window.',
  },
  {
    id: 'layered-stage',
    kind: 'base',
    name: 'Layered stage',
    summary: 'Framed layers one behind the other between two walls. Pushed sideways they lie flat.',
  },
  {
    id: 'easel-folded-front',
    kind: 'base',
    name: 'Easel, folded front',
    summary: 'The front folds at half; the display glued to its lower half stands against a stop inside.',
  },
  {
    id: 'easel-strip',
    kind: 'base',
    name: 'Easel, one long strip',
    summary: 'Display, flap, strut and base in one strip. It stands against a stop and folds on itself.',
  },
  {
    id: 'easel-shape',
    kind: 'base',
    name: 'Easel, hung shape',
    summary: 'A shape cut double, hung from a chord at its top; a whole shape covers the front and stands.',
  },
  {
    id: 'easel-row',
    kind: 'base',
    name: 'Easels in a row',
    summary: 'Several easels on one board, the taller behind. Each one’s foot stands against the one in front.',
  },
  {
    id: 'step-easel',
    kind: 'base',
    name: 'Step easel with a floating panel',
    summary: 'The front folds into two steps against a stop; a panel on a clear strip floats in its window.',
  },
  {
    id: 'half-turn-stand',
    kind: 'base',
    name: 'Half-turn stand',
    summary: 'Three cuts, and one end of the card turned over: a panel stands up from a floor made of the rest.',
  },
  {
    id: 'swing',
    kind: 'base',
    name: 'Swing card',
    summary: 'Drawn out, its panel swings round and shows its other face, framed by the arms it was cut from.',
  },
  {
    id: 'film-stand',
    kind: 'base',
    name: 'Film stand',
    summary: 'A clear film rises out of a slot in a low box; pressed together, box and film lie flat.',
  },
  {
    id: 'box-card',
    kind: 'base',
    name: 'Four-wall box',
    summary: 'Four walls open into a box with figures on dividers; pressed at two corners it lies flat.',
  },
  {
    id: 'rising-pocket',
    kind: 'base',
    name: 'Rising pocket',
    summary: 'Two flaps turned out draw a folded strip straight: a platform with a pocket on it rises between them.',
  },
  {
    id: 'v-fold',
    kind: 'movement',
    name: 'V-fold figure',
    summary: 'A figure folded down its middle, glued as a V across the fold. It stands up and leans as the card opens.',
  },
  {
    id: 'step',
    kind: 'movement',
    name: 'Step',
    summary: 'A box across the fold that opens with the card. Others can stand on its three folds; several in a row make stairs.',
  },
  {
    id: 'floating-layer',
    kind: 'movement',
    name: 'Floating layer',
    summary: 'A picture held in front of a leaf, parallel to it, by two supports that do not show. One on another makes a tower.',
  },
  {
    id: 'push-through',
    kind: 'movement',
    name: 'Push-through shape',
    summary: 'A shape cut into the fold but for its bridges: a ring comes forward, its core goes back. Nothing is glued.',
  },
  {
    id: 'meeting-pair',
    kind: 'movement',
    name: 'Meeting pair',
    summary: 'Two slanting arms, each with a figure. As the card opens they swing toward each other, and the figures meet.',
  },
  {
    id: 'twist-carrier',
    kind: 'movement',
    name: 'Twist carrier',
    summary: 'Two legs turn out of the fold, and between them a picture folded in quarters twists open and lies down flat along it.',
  },
] as const satisfies readonly Introduction[];

export type MechanismId = (typeof MECHANISMS)[number]['id'];

/** What one mechanism is called and does. */
export function introduced<I extends MechanismId>(id: I): Extract<(typeof MECHANISMS)[number], { id: I }> {
  return introduction(id) as Extract<(typeof MECHANISMS)[number], { id: I }>;
}

/** The same for a name out of a file. @throws RangeError naming the id and listing what there is */
export function introduction(id: string): (typeof MECHANISMS)[number] {
  const found = MECHANISMS.find((mechanism) => mechanism.id === id);
  if (!found) throw new RangeError(`mechanism: “${id}” is not in the catalogue; there are ${MECHANISMS.map((m) => m.id).join(', ')}`);
  return found;
}
