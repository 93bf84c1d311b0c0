import { describe, expect, it } from 'vitest';
import type { CardPart } from '../../card/document.js';
import { minus, norm } from '../../linkage/rigid.js';
import { benchSteps } from '../../plan/bench-steps.js';
import { boxOf } from '../../plane/outline.js';
import { at, evaluated, failing, finding } from '../../testing/evaluated.js';
import { card, LEAF } from '../../testing/folded-card-with.js';

const pairOf = (sizes: CardPart['sizes']) => evaluated(card({ id: 'pair', mechanism: 'meeting-pair', on: 'base/main-fold', sizes }));
const LOOSE = { lowerPanel: 'loose', panelBorder: 5 };

describe('a meeting pair on a loose panel', () => {
  const plain = pairOf({});
  const loose = pairOf(LOOSE);

  it('moves as it does on the leaf, with nothing said against it', () => {
    expect(failing(loose)).toEqual([]);
    expect(loose.motion.worstMisfit).toBeLessThan(1e-6);
    for (const [i, frame] of loose.motion.frames.entries()) {
      for (const end of ['lower', 'upper']) {
        for (const point of [
          [0, 30],
          [-20, 50],
        ] as const) {
          const [here, there] = [
            at(loose, `pair-${end}-figure/figure`, point, frame),
            at(plain, `pair-${end}-figure/figure`, point, plain.motion.frames[i]!),
          ];
          expect(norm(minus(here, there))).toBeLessThan(1e-6);
        }
      }
    }
  });

  it('lies on the leaf 1 mm short of the fold, its border in on the other sides, and stays there', () => {
    const panel = loose.sheets.find(({ piece }) => piece.id === 'pair-panel')!;
    expect([panel.width, panel.height]).toEqual([LEAF - 5 - 1, 150 - 10]);
    for (const frame of loose.motion.frames) {
      // The front leaf is drawn from its free edge, x = 0, to the fold.
      expect(norm(minus(at(loose, 'pair-panel/panel', [0, 0], frame), at(loose, 'base/front-leaf', [5, 5], frame)))).toBeLessThan(1e-9);
      const [farOn, farUnder] = [
        at(loose, 'pair-panel/panel', [panel.width, panel.height], frame),
        at(loose, 'base/front-leaf', [LEAF - 1, 145], frame),
      ];
      expect(norm(minus(farOn, farUnder))).toBeLessThan(1e-9);
    }
  });

  it('carries the crosses that the small tabs hide, and leaves the other leaf its own', () => {
    const marksOn = (id: string) => loose.sheets.find(({ piece }) => piece.id === id)!.piece.marks.filter(({ cross }) => cross);
    expect(marksOn('pair-panel')).toHaveLength(4);
    expect(marksOn('base')).toHaveLength(4);
    const [frame] = loose.motion.frames;
    for (const end of ['lower', 'upper']) {
      const tab = loose.design.panels.find(({ id }) => id === `pair-${end}-arm/small-tab`)!;
      const corners = tab.area.outer.map((point) => at(loose, tab.id, point, frame!));
      for (const mark of marksOn('pair-panel').filter(({ id }) => id.includes(end))) {
        const here = at(loose, 'pair-panel/panel', mark.from, frame!);
        expect(Math.min(...corners.map((corner) => norm(minus(corner, here))))).toBeLessThan(1e-6);
      }
    }
  });

  it('is built off the card: both arms, then the panel on its tape hinge, then both large tabs at once', () => {
    const glued = benchSteps(loose).flatMap(({ glues }) => glues ?? []);
    const place = (id: string): number => glued.indexOf(`pair/${id}`);
    expect(place('lower-small-tab')).toBeGreaterThan(place('lower-figure-on-arm'));
    expect(place('panel-on-leaf')).toBeGreaterThan(place('upper-small-tab'));
    expect(place('lower-large-tab')).toBeGreaterThan(place('panel-on-leaf'));
    expect(place('upper-large-tab')).toBeGreaterThan(place('lower-large-tab'));
    const words = benchSteps(loose)
      .find(({ glues }) => glues?.includes('pair/panel-on-leaf'))!
      .says.join(' ');
    expect(words).toMatch(/low-tack tape along its edge beside the main fold/);
  });

  it('says of a border that bares the glue of a tab how far that reaches past the panel', () => {
    expect(failing(pairOf({ lowerPanel: 'loose', panelBorder: 0 }))).toEqual([]);
    // Moved 27 mm down the fold, the lower arm’s small tab begins far below the panel’s lower edge.
    const short = pairOf({ lowerPanel: 'loose', panelBorder: 16, middle: 48 });
    expect(failing(short).find(({ id }) => id === 'glue-clear/pair/lower-small-tab/past')?.says).toMatch(/reaches past its panel/);
    expect(failing(short).some(({ id }) => id === 'glue-clear/pair/upper-small-tab/past')).toBe(false);
    expect(boxOf(short.sheets.find(({ piece }) => piece.id === 'pair-panel')!.outline).maxY).toBeCloseTo(150 - 32, 6);
    expect(finding(short, 'closes-loop').severity).toBe('pass');
  });
});
