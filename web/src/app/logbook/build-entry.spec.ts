import 'fake-indexeddb/auto';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { DEMO_CARDS, evaluate, type Build } from '@diptychon/core';
import { of } from 'rxjs';
import { Evaluator } from '../evaluation/evaluator';
import { BuildEntry, type BuildChange } from './build-entry';

const card = DEMO_CARDS.find(({ name }) => name === 'Logs at the doors')!;
const build: Build = {
  ...{ id: 'b1', card: card.id, name: card.name, as: card, copies: 10, begunAt: Date.UTC(2026, 9, 3, 12), faults: [], photos: [] },
  steps: [
    { id: 'trim', title: 'Trim', done: 10, seconds: 600 },
    { id: 'score', title: 'Score', done: 4, seconds: 75 },
  ],
  ...{ measures: [], forWhom: '', wouldChange: '' },
};

describe('BuildEntry', () => {
  let fixture: ComponentFixture<BuildEntry>;
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const said = (): string => element().textContent.replace(/\s+/g, ' ');
  const changes: BuildChange[] = [];

  beforeEach(async () => {
    TestBed.configureTestingModule({
      providers: [provideRouter([]), { provide: Evaluator, useValue: { once: (given: typeof card) => of(evaluate(given)) } }],
    });
    fixture = TestBed.createComponent(BuildEntry);
    fixture.componentRef.setInput('build', build);
    changes.length = 0;
    fixture.componentInstance.changed.subscribe((change) => {
      changes.push(change);
      fixture.componentRef.setInput('build', change.apply(fixture.componentInstance.build()));
    });
    await fixture.whenStable();
    await new Promise((done) => setTimeout(done, 30));
    await fixture.whenStable();
  });

  function enter(line: RegExp, typed: string): Promise<void> {
    const select = element().querySelector<HTMLSelectElement>('#line')!;
    const option = [...select.options].find(({ text }) => line.test(text))!;
    select.value = option.value;
    const field = element().querySelector<HTMLInputElement>('#measured')!;
    field.value = typed;
    element()
      .querySelector('form')!
      .dispatchEvent(new Event('submit', { cancelable: true }));
    return fixture.whenStable().then(() => undefined);
  }

  it('says how long it took, all of it and each step', () => {
    expect(said()).toContain('Begun on 3 October 2026, still being made; 10 cards, 11 min in all.');
    expect(said()).toContain('Score4 of 101 min');
  });

  it('takes what was measured beside what was planned, and says how far off', async () => {
    const [planned] = [...element().querySelectorAll<HTMLOptionElement>('#line option')].flatMap(({ text }) => {
      const match = /from the .* edge: ([\d.]+) mm$/.exec(text);
      return match ? [Number(match[1])] : [];
    });
    await enter(/from the .* edge/, `${planned! + 0.4}mm`);
    expect(changes).toHaveLength(1);
    expect(said()).toContain('+0.4 mm');
    expect(fixture.componentInstance.build().measures[0]).toMatchObject({ what: 'score', planned, tool: card.board });
  });

  it('refuses what is no length, or far from the line, and says so', async () => {
    await enter(/across/, 'about so');
    expect(said()).toContain('“about so” is not a length');
    await enter(/across/, '9mm');
    expect(said()).toMatch(/Measured: 9 mm is more than 15 mm from the [\d.]+ mm that were planned/);
    expect(changes).toEqual([]);
  });
});
