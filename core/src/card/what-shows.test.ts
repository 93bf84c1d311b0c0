import { describe, expect, it } from 'vitest';
import { cardOn, evaluated } from '../testing/evaluated.js';
import type { Sizes } from '../mechanism/sizes.js';
import type { SeenFace } from './visibility.js';
import { whatShows, type WhatShows } from './what-shows.js';

function shown(mechanism: string, sizes: Sizes = {}): WhatShows {
  const { design, motion, closed } = evaluated(cardOn(mechanism, sizes));
  return whatShows(design, motion, closed);
}
const faces = (seen: readonly SeenFace[]): string[] => seen.map(({ panel, face }) => `${panel} ${face}`).sort();
const share = (seen: readonly SeenFace[], panel: string): number => seen.find((s) => s.panel === panel)?.share ?? 0;

describe('what shows of a card', () => {
  it('closed is the outside of one leaf on each side, open the inside of both', () => {
    const { closed, open } = shown('folded-card', { depth: 100, length: 80, shown: 'lying' });
    expect(closed.front).toHaveLength(1);
    expect(closed.behind).toHaveLength(1);
    expect([closed.front[0]!.face, closed.behind[0]!.face]).toEqual(['down', 'down']);
    expect(closed.front[0]!.panel).not.toBe(closed.behind[0]!.panel);
    expect(open.front.map(({ face }) => face)).toEqual(['up', 'up']);
    // Nobody looks up from under the table: from behind a card that lies shows the same.
    expect(open.behind.map(({ face }) => face)).toEqual(['up', 'up']);
  });

  it('of a card that stands is its outside from behind, seen from as high above the table', () => {
    const { open } = shown('folded-card', { depth: 100, length: 80, shown: 'standing' });
    expect(open.behind.map(({ face }) => face)).toEqual(['down', 'down']);
  });

  it('of two doors is all of both doors’ outside when closed', () => {
    const { closed } = shown('rising-strip-doors', { closedWidth: 120, strip: 30, length: 80 });
    expect(faces(closed.front)).toEqual(['base/left-door down', 'base/right-door down']);
    for (const { share: seen } of closed.front) expect(seen).toBeGreaterThan(0.97);
    // The middle lies behind the doors, its outside away from them.
    expect(faces(closed.behind)).toEqual(['base/left-slope down', 'base/right-slope down', 'base/strip down']);
  });

  it('of doors that leave a gap is the middle, too, as wide as the gap', () => {
    const gap = 24;
    const { closed } = shown('rising-strip-doors', { closedWidth: 120, strip: 40, length: 80, gap });
    expect(share(closed.front, 'base/strip')).toBeCloseTo(gap / 40, 1);
    expect(closed.front.find((s) => s.panel === 'base/strip')!.face).toBe('up');
  });

  it('through a window is what lies behind it, as large as the window', () => {
    const window = { windowShape: 'rectangle', windowWidth: 50, windowHeight: 60 };
    const { closed } = shown('bellows-box', { frontWidth: 110, length: 150, bellows: 18, ...window });
    const back = closed.front.find((s) => s.panel === 'base/back')!;
    expect(back.area / (50 * 60)).toBeGreaterThan(0.9);
    expect(back.area / (50 * 60)).toBeLessThan(1.1);
  });

  it.each([
    ['wrapped', 'up'],
    ['zigzag', 'down'],
  ])('a %s strip shows its display’s %s face when it stands', (form, face) => {
    const { open } = shown('easel-strip', { form });
    expect(open.front.find((s) => s.panel === 'base/display')!.face).toBe(face);
  });

  it('is never more of a panel than there is', () => {
    for (const mechanism of ['swing', 'half-turn-stand', 'layered-stage', 'box-card', 'film-stand']) {
      const { closed, half, open } = shown(mechanism);
      for (const seen of [closed.front, closed.behind, half.front, open.front, open.behind]) {
        expect(seen.length).toBeGreaterThan(0);
        for (const one of seen) {
          expect(one.share).toBeGreaterThan(0);
          expect(one.share).toBeLessThanOrEqual(1);
        }
      }
    }
  });

  it('of clear film is nothing: what stands behind it is seen', () => {
    const { open } = shown('film-stand');
    expect(open.front.some((s) => s.panel.startsWith('film/'))).toBe(false);
  });
});
