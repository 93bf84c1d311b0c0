import { TestBed } from '@angular/core/testing';
import type { Notation } from '@diptychon/core';
import { NumberText } from './number-text';

async function set(value: number, notation: Notation, unit: 'mm' | 'rad' = 'mm'): Promise<HTMLElement> {
  const fixture = TestBed.createComponent(NumberText);
  fixture.componentRef.setInput('value', value);
  fixture.componentRef.setInput('notation', notation);
  fixture.componentRef.setInput('unit', unit);
  await fixture.whenStable();
  return fixture.nativeElement;
}
const seen = (element: HTMLElement): string => element.querySelector('[aria-hidden]')!.textContent!.replace(/\s+/g, ' ').trim();
const said = (element: HTMLElement): string => element.querySelector('.visually-hidden')!.textContent!;

describe('NumberText', () => {
  it('sets a real fraction and says it in words for those who listen', async () => {
    const element = await set(92.075, 'inch/8');
    expect(element.querySelector('sup')!.textContent).toBe('5');
    expect(element.querySelector('sub')!.textContent).toBe('8');
    expect(said(element)).toBe('3 5/8 in');
  });

  it('tells in decimals what lies between marks, in one unit', async () => {
    expect(seen(await set(93, 'inch/8'))).toBe('3.661in');
    expect(seen(await set(91, 'inch/8'))).toBe('3.583in');
    expect(said(await set(93, 'inch/8'))).toBe('3.661 in');
  });

  it('gives metric to a tenth and angles in degrees', async () => {
    expect(seen(await set(75, 'mm'))).toBe('75mm');
    expect(seen(await set(75.5, 'cm'))).toBe('7.55cm');
    expect((await set(Math.PI / 3, 'mm', 'rad')).textContent!.trim()).toBe('60°');
  });
});
