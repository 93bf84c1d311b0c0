import type { Base, Mechanism, Movement } from './contract.js';
import { bellowsBox } from './bellows-box.js';
import { boxCard } from './box-card.js';
import { easelFoldedFront } from './easel-folded-front.js';
import { easelRow } from './easel-row.js';
import { easelShape } from './easel-shape.js';
import { easelStrip } from './easel-strip.js';
import { filmStand } from './film-stand.js';
import { foldedCard } from './folded-card.js';
import { halfTurnStand } from './half-turn-stand.js';
import { layeredStage } from './layered-stage.js';
import { risingStripDoors } from './rising-strip-doors.js';
import { stepEasel } from './step-easel.js';
import { swingCard } from './swing.js';
import { tuckedDisplay } from './tucked-display.js';
import { vFold } from './v-fold.js';

/** Every movement Diptychon knows. A new one is a file of its own and a line here. */
export const CATALOGUE: readonly Mechanism[] = [
  foldedCard,
  risingStripDoors,
  tuckedDisplay,
  bellowsBox,
  layeredStage,
  easelFoldedFront,
  easelStrip,
  easelShape,
  easelRow,
  stepEasel,
  halfTurnStand,
  swingCard,
  filmStand,
  boxCard,
  vFold,
];

/** @throws RangeError naming the id and listing what there is */
export function mechanismById(id: string): Mechanism {
  const found = CATALOGUE.find((mechanism) => mechanism.id === id);
  if (!found) throw new RangeError(`mechanism: “${id}” is not in the catalogue; there are ${CATALOGUE.map((m) => m.id).join(', ')}`);
  return found;
}

export function baseById(id: string): Base {
  const found = mechanismById(id);
  if (found.kind !== 'base') throw new RangeError(`base: “${id}” stands on a card, it is not one`);
  return found;
}

export function movementById(id: string): Movement {
  const found = mechanismById(id);
  if (found.kind !== 'movement') throw new RangeError(`movement: “${id}” is a card, it does not stand on one`);
  return found;
}
