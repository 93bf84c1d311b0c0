import { frameBetween, type Motion } from '../linkage/motion.js';
import type { ClosedCard } from './closed-card.js';
import type { Design } from './join.js';
import { visibleFaces, type SeenFace } from './visibility.js';

/** What shows of a card at the three moments that matter for two-sided stock and for the message. */
export interface WhatShows {
  closed: { front: SeenFace[]; behind: SeenFace[] };
  half: { front: SeenFace[] };
  open: { front: SeenFace[]; behind: SeenFace[] };
}

/** Looked at closed from both sides, half open from the front, and as it is put down from both sides. */
export function whatShows(design: Design, motion: Motion, closed: ClosedCard): WhatShows {
  const { at } = design.base.rest;
  const seen = (s: number, look: 'front' | 'behind'): SeenFace[] =>
    visibleFaces(design, motion, closed, s === 0 ? motion.frames[0]! : frameBetween(motion, s), look);
  return {
    closed: { front: seen(0, 'front'), behind: seen(0, 'behind') },
    half: { front: seen(at / 2, 'front') },
    open: { front: seen(at, 'front'), behind: seen(at, 'behind') },
  };
}
