/**
 * The rooms of `core/src`, from the ground up: a room uses only those before it. `blindTo` adds what it must not know although
 * it stands below. Lint enforces this for every room, and `prove-floors` compares the list with the folders.
 */
export const ROOMS = [
  { room: 'measure' },
  { room: 'plane' },
  { room: 'letters' },
  { room: 'image' },
  { room: 'supplies' },
  { room: 'sheet' },
  { room: 'linkage' },
  { room: 'bending' },
  { room: 'claim' },
  { room: 'mechanism' },
  { room: 'card' },
  { room: 'dress' },
  { room: 'check', blindTo: ['mechanism'] },
  { room: 'trial' },
  { room: 'plan', blindTo: ['trial'] },
  { room: 'logbook', blindTo: ['trial'] },
  { room: 'format', blindTo: ['trial'] },
  { room: 'practice', blindTo: ['format'] },
];

/** Helps tests only. */
export const FOR_TESTS = 'testing';

/** `evaluate.ts` stands between the rooms that it runs and those that run it. */
const BELOW_EVALUATE = new Set([
  'measure',
  'plane',
  'letters',
  'image',
  'supplies',
  'sheet',
  'linkage',
  'claim',
  'mechanism',
  'card',
  'dress',
  'check',
]);

/** @param {string} room @returns {string[]} import patterns that a room may not use */
export function forbiddenTo(room) {
  const at = ROOMS.findIndex((each) => each.room === room);
  const above = ROOMS.slice(at + 1).map((each) => each.room);
  return [
    ...[...above, ...(ROOMS[at].blindTo ?? []), FOR_TESTS].map((each) => `**/${each}/**`),
    ...(BELOW_EVALUATE.has(room) ? ['**/evaluate.js'] : []),
  ];
}
