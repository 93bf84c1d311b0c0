import { StepClock } from './step-clock';
import { spelled } from './reading-voice';

describe('StepClock', () => {
  it('counts what is on screen, once', () => {
    const clock = new StepClock();
    clock.begin(0, true);
    clock.seen(false, 10_000);
    clock.seen(true, 70_000);
    // Ten seconds, a minute away, and five more.
    expect(clock.take(75_000)).toBe(15);
    expect(clock.take(77_000)).toBe(2);
  });

  it('takes nobody to work for a night at one step', () => {
    const clock = new StepClock();
    clock.begin(0, true);
    expect(clock.take(9 * 3_600_000)).toBe(7200);
  });
});

describe('what is read aloud', () => {
  it('is spelled as it is said', () => {
    expect(spelled('Cut it to 360 mm across × 100 mm along.')).toBe('Cut it to 360 millimetres across by 100 millimetres along.');
    expect(spelled('L3 is 57 × 144, leaning 60°.')).toBe('layer 3 is 57 by 144, leaning 60 degrees.');
  });
});
