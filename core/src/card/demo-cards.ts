import { toRadians } from '../measure/units.js';
import { newCard, type CardDocument } from './document.js';

/** Cards of the Wendlebrook Fungus Foray, a club of mushroom walkers, to begin with. */
export const DEMO_CARDS: readonly CardDocument[] = [
  newCard({
    id: 'foray-guide-easel',
    name: 'Thank-you easel for the foray guide',
    foldEdge: 'top',
    notation: 'mm',
    board: 'five-mm-300',
    envelope: 'c5',
    stocks: { base: 'card-250', mechanism: 'light-card-160', display: 'card-250' },
    base: {
      mechanism: 'easel-folded-front',
      sizes: { depth: 150, length: 150, stopDistance: 75, displayHeight: 150, stopHeight: 2, spine: 'fitted' },
    },
    state: 'tested',
    note: 'Basket and fern on the display, the greeting doubles as the stop.',
  }),
  newCard({
    id: 'chanterelle-birthday',
    name: 'Chanterelle birthday card',
    foldEdge: 'side',
    notation: 'inch/16',
    board: 'eighths-12',
    envelope: 'c5',
    base: { mechanism: 'folded-card', sizes: { depth: 127, length: 177.8 } },
    movements: [
      {
        id: 'figure',
        mechanism: 'v-fold',
        host: 'main-fold',
        sizes: {
          rayAngle: toRadians(45),
          wingAngle: toRadians(60),
          wingLength: 76.2,
          crestLength: 95.25,
          tabWidth: 12.7,
          apex: 63.5,
          outline: 'cap',
        },
      },
    ],
    state: 'idea',
    note: 'A cap that leans over the greeting as the card opens.',
  }),
];
