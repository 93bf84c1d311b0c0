import { describe, expect, it } from 'vitest';
import { cardOn, evaluated } from '../testing/evaluated.js';
import { METRIC_WORKSHOP } from '../supplies/starter-workshops.js';
import { benchSteps } from './bench-steps.js';

const gluing = (id: string, part: RegExp, sizes = {}): string =>
  benchSteps(evaluated(cardOn(id, sizes)), METRIC_WORKSHOP)
    .find(({ kind, title }) => kind === 'glue' && part.test(title))!
    .says.join(' ');

describe('where a glued part sits', () => {
  it('is told from the edges and folds under it', () => {
    // Easel of 150 by 105: the base from the fold at 150 to 300. A stop of 8 by 63 begins at 225: 300 − 225 − 8 = 67 from the end;
    // (105 − 63) ÷ 2 = 21 in from both.
    const stop = gluing('easel-folded-front', /stop on the base/);
    expect(stop).toContain('67 mm in from the right edge; centred between the lower edge and the upper edge, 21 mm in from each');
    expect(stop).toContain('Its side lies on the pencil line: the stop begins here');
    expect(gluing('easel-folded-front', /display/)).toContain('flush with the left edge; flush with the lower edge and the upper edge');
  });

  it('is told from a fold where one is nearer', () => {
    // Walls 37 deep; layer 2 is 25 behind the front, its tab of 10 lies 2 from the fold of the back.
    expect(gluing('layered-stage', /layer 2 inside the right wall/)).toContain('2 mm in from the right wall fold');
  });

  it('is told as edge to edge where a shape lies on the same shape', () => {
    expect(gluing('easel-shape', /cover/)).toContain('edge to edge with the outline there');
  });

  it('is made with glue that can be slid where parts find their place as the card moves, with tape on film', () => {
    expect(gluing('layered-stage', /layer 1 inside the left wall/)).toContain('Use liquid glue.');
    expect(gluing('film-stand', /layer on the film/)).toContain('Use strong tape for film, not glue');
    expect(gluing('box-card', /glue tab/)).toContain('Use strong double-sided tape or fast tacky glue.');
  });
});
