import type { Base, Mechanism, Movement } from './contract.js';
import { bellowsBox } from './bases/bellows-box.js';
import { boxCard } from './bases/box-card.js';
import { easelFoldedFront } from './bases/easel-folded-front.js';
import { easelRow } from './bases/easel-row.js';
import { easelShape } from './bases/easel-shape.js';
import { easelStrip } from './bases/easel-strip.js';
import { filmStand } from './bases/film-stand.js';
import { foldedCard } from './bases/folded-card.js';
import { halfTurnStand } from './bases/half-turn-stand.js';
import { layeredStage } from './bases/layered-stage.js';
import { risingStripDoors } from './bases/rising-strip-doors.js';
import { stepEasel } from './bases/step-easel.js';
import { swingCard } from './bases/swing.js';
import { tuckedDisplay } from './bases/tucked-display.js';
import { step } from './movements/step.js';
import { vFold } from './movements/v-fold.js';

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
  step,
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
