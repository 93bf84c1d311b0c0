import { TestBed } from '@angular/core/testing';
import { OpenElsewhere } from './open-elsewhere';

const heard = (): Promise<void> => new Promise((done) => setTimeout(done, 60));

/** Two tabs are two instances that talk over the same channel. */
function tab(): OpenElsewhere {
  return TestBed.runInInjectionContext(() => new OpenElsewhere());
}

describe('OpenElsewhere', () => {
  let [first, second]: [OpenElsewhere, OpenElsewhere] = [undefined!, undefined!];

  beforeEach(() => ([first, second] = [tab(), tab()]));
  afterEach(() => {
    first.ngOnDestroy();
    second.ngOnDestroy();
  });

  it('both tabs know when a card is open twice', async () => {
    first.open('easel');
    await heard();
    expect(first.elsewhere()).toBe(false);
    second.open('easel');
    await heard();
    expect([first.elsewhere(), second.elsewhere()]).toEqual([true, true]);
  });

  it('another card in another tab is nobody’s business', async () => {
    first.open('easel');
    second.open('chanterelle');
    await heard();
    expect([first.elsewhere(), second.elsewhere()]).toEqual([false, false]);
  });

  it('it is over when the other tab goes to another card', async () => {
    first.open('easel');
    second.open('easel');
    await heard();
    second.open('chanterelle');
    await heard();
    expect(first.elsewhere()).toBe(false);
  });

  it('goes on while one other tab has it, when another leaves', async () => {
    const third = tab();
    for (const one of [first, second, third]) one.open('easel');
    await heard();
    third.ngOnDestroy();
    await heard();
    expect([first.elsewhere(), second.elsewhere()]).toEqual([true, true]);
  });
});
