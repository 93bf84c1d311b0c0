import type { Word } from './word';

const SHEET = 'M10 10H86V46H10Z';

/** What a card wears, word by word. */
export const DRESSING_WORDS: readonly Word[] = [
  {
    id: 'layer',
    word: 'Layer',
    forms: ['layer', 'layers'],
    says: 'A sheet glued flat on a panel, smaller than it by a border, to show its paper. Of a stage, one of the upright pictures.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'meant', d: 'M16 16H80V40H16Z' },
    ],
  },
  {
    id: 'topper',
    word: 'Topper',
    forms: ['topper', 'toppers'],
    says: 'A small outline glued on last, flat, on pads of foam or on film; papers behind it show round it.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'meant', d: 'M36 30A12 12 0 0 1 60 30ZM45 30H51V40H45Z' },
    ],
  },
  {
    id: 'greeting',
    word: 'Greeting',
    forms: ['greeting', 'greetings'],
    says: 'Words on a topper. They are outlines: drawn, traced or cut.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'meant', d: 'M24 34V22M24 28H34M34 22V34M44 34V22H54M44 28H52M44 34H54M62 34V22M72 22V34' },
    ],
  },
  {
    id: 'blank-layer',
    word: 'Blank layer',
    forms: ['blank layer', 'blank layers'],
    says: 'A layer with a hole in which a magnet lies, hidden under another: together they are as thick as the magnet.',
    drawing: [
      { as: 'paper', d: SHEET },
      { as: 'meant', d: 'M42 28A6 6 0 0 1 54 28A6 6 0 0 1 42 28Z' },
    ],
  },
  {
    id: 'twin',
    word: 'Twin',
    forms: ['twin', 'twins'],
    says: 'A layer of the same outline as another: cut alike, or its mirror image, or half a turn of it. With one-sided paper that matters. Of a topper, the mirror image that covers its back.',
    drawing: [
      { as: 'paper', d: 'M12 14H40V44H24Z' },
      { as: 'meant', d: 'M84 14H56V44H72Z' },
    ],
  },
];
