import { firstValueFrom, lastValueFrom, take, toArray } from 'rxjs';
import type { CutterProgress } from '@diptychon/core';
import { OwnMachine } from './cutter-machine';

const SQUARE =
  '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="120mm" viewBox="0 0 120 120"><g class="score"><path d="M 60 10 V 110"/></g><g class="cut"><rect x="10" y="10" width="100" height="100"/></g></svg>';

describe('the cutter in the page', () => {
  let time = 0;
  const machine = (): OwnMachine => new OwnMachine(1, () => time);

  it('refuses what is no drawing with a sentence', async () => {
    await expect(machine().send('<html></html>')).rejects.toThrow(/./);
  });

  it('is followed to its end, held on the way, and says what came of it', async () => {
    const own = machine();
    const { id, of } = await own.send(SQUARE);
    time += 1000 * (of / 4);
    expect(((await firstValueFrom(own.follow(id))) as CutterProgress).done).toBeCloseTo(0.25, 6);
    await own.turn(id, 'pause');
    time += 60_000;
    expect(((await firstValueFrom(own.follow(id))) as CutterProgress).done).toBeCloseTo(0.25, 6);
    await own.turn(id, 'resume');
    time += 1000 * of;
    const heard = await lastValueFrom(own.follow(id).pipe(take(3), toArray()));
    expect(heard).toMatchObject([{ state: 'done', done: 1 }]);
    expect((await own.report(id)).piecesFree).toBe(1);
    expect(await own.picture(id)).toContain('class="cut"');
    expect(await own.holds(id)).toBe(true);
    expect(await own.holds('another')).toBe(false);
  });

  it('is called off where it is', async () => {
    const own = machine();
    const { id, of } = await own.send(SQUARE);
    time += 1000 * (of / 2);
    expect(await own.turn(id, 'cancel')).toMatchObject({ state: 'cancelled' });
    await expect(own.turn(id, 'resume')).rejects.toThrow('cancelled');
  });
});
