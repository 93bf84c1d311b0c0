import { ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { CATALOGUE } from '@diptychon/core';
import { MessageService } from 'primeng/api';
import { Evaluator } from '../evaluation/evaluator';
import { pictureAt } from '../drawings/moving-picture';
import { MovementsPage } from './movements-page';

describe('the pictures of a live card', () => {
  it('go from closed to open, rest, go back and rest, over and over', () => {
    const shown = [0, 800, 1600, 2400, 2500 + 800, 2500 + 1600, 2500 + 2400, 5000].map((ms) => pictureAt(ms, 17));
    expect(shown).toEqual([0, 8, 16, 16, 8, 0, 0, 0]);
  });

  it('never leave the list', () => {
    for (let ms = 0; ms < 12000; ms += 37) {
      expect(pictureAt(ms, 5)).toBeGreaterThanOrEqual(0);
      expect(pictureAt(ms, 5)).toBeLessThanOrEqual(4);
    }
  });
});

describe('MovementsPage', () => {
  let fixture: ComponentFixture<MovementsPage>;
  const element = (): HTMLElement => fixture.nativeElement;
  const names = (): string[] => [...element().querySelectorAll('h3')].map((h) => h.textContent!);
  const check = async (label: string): Promise<void> => {
    const found = [...element().querySelectorAll('fieldset label')].find((l) => l.textContent!.trim() === label)!;
    found.querySelector('input')!.dispatchEvent(new Event('change'));
    await fixture.whenStable();
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({
      imports: [MovementsPage],
      providers: [provideRouter([]), MessageService, { provide: Evaluator, useValue: { pictures: () => Promise.resolve(undefined) } }],
    });
    await TestBed.compileComponents();
    fixture = TestBed.createComponent(MovementsPage);
    await fixture.whenStable();
  });

  it('shows the whole catalogue with what each needs and what may go wrong', () => {
    expect(names()).toEqual(CATALOGUE.map((mechanism) => mechanism.name));
    const [first] = CATALOGUE;
    expect(element().querySelector('article')!.textContent).toContain(first!.mayGoWrong[0]);
  });

  it('keeps only what has every wish', async () => {
    await check('stands upright');
    await check('a window');
    expect(names()).toEqual(['Bellows box with a window', 'Layered stage']);
    await check('a window');
    expect(names().length).toBeGreaterThan(2);
  });

  it('leaves out what needs something that is not at hand, and what is too hard', async () => {
    await check('clear film');
    expect(names()).not.toContain('Film stand');
    await check('easy');
    expect(names().length).toBeGreaterThan(0);
    for (const name of names()) expect(CATALOGUE.find((m) => m.name === name)!.difficulty).toBe('easy');
  });

  it('never asks for what every maker has', () => {
    const asked = [...element().querySelectorAll('fieldset')].find((f) => f.textContent!.includes('I have'))!.textContent!;
    expect(asked).not.toMatch(/base card|light card/);
    expect(asked).toContain('foam or layers for a stop');
  });
});
