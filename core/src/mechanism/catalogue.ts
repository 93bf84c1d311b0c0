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
import { risingPocket } from './bases/rising-pocket.js';
import { risingStripDoors } from './bases/rising-strip-doors.js';
import { stepEasel } from './bases/step-easel.js';
import { swingCard } from './bases/swing.js';
import { tuckedDisplay } from './bases/tucked-display.js';
import { introduction, MECHANISMS, type MechanismId } from './introductions.js';
import { floatingLayer } from './movements/floating-layer.js';
import { meetingPair } from './movements/meeting-pair.js';
import { pushThrough } from './movements/push-through.js';
import { step } from './movements/step.js';
import { twistCarrier } from './movements/twist-carrier.js';
import { vFold } from './movements/v-fold.js';

/** The geometry of each. A new one is a file of its own, its introduction, and a line here. */
const MADE: Readonly<Record<MechanismId, Mechanism>> = {
  'folded-card': foldedCard,
  'rising-strip-doors': risingStripDoors,
  'tucked-display': tuckedDisplay,
  'bellows-box': bellowsBox,
  'layered-stage': layeredStage,
  'easel-folded-front': easelFoldedFront,
  'easel-strip': easelStrip,
  'easel-shape': easelShape,
  'easel-row': easelRow,
  'step-easel': stepEasel,
  'half-turn-stand': halfTurnStand,
  swing: swingCard,
  'film-stand': filmStand,
  'box-card': boxCard,
  'rising-pocket': risingPocket,
  'v-fold': vFold,
  step,
  'floating-layer': floatingLayer,
  'push-through': pushThrough,
  'meeting-pair': meetingPair,
  'twist-carrier': twistCarrier,
};

/** Every mechanism Diptychon knows. */
export const CATALOGUE: readonly Mechanism[] = MECHANISMS.map(({ id }) => MADE[id]);

/** @throws RangeError naming the id and listing what there is */
export function mechanismById(id: string): Mechanism {
  return MADE[introduction(id).id];
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
