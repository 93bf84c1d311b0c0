import { randomUUID } from 'node:crypto';
import { Cutter } from '@diptychon/core';

/** The machine that stands on this server. @param pace how many times faster than itself @param now the time, ms */
export const cutterHere = (pace = 1, now: () => number = () => performance.now()): Cutter => new Cutter({ pace, now, newId: randomUUID });
