import 'fake-indexeddb/auto';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { CATALOGUE } from '@diptychon/core';
import { GLOSSARY } from '../words/glossary';
import { GuidePage } from './guide-page';
import { MovementGuide } from './movement-guide';

describe('the guide', () => {
  let fixture: ComponentFixture<GuidePage>;
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const find = async (words: string): Promise<void> => {
    const field = element().querySelector<HTMLInputElement>('#guide-words')!;
    field.value = words;
    field.dispatchEvent(new Event('input'));
    await fixture.whenStable();
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideRouter([])] });
    fixture = TestBed.createComponent(GuidePage);
    await fixture.whenStable();
  });

  it('has a first card with its steps, every movement and every word', () => {
    expect(element().querySelectorAll('.pages li')).toHaveLength(CATALOGUE.length);
    expect(element().querySelectorAll('dip-word-card')).toHaveLength(GLOSSARY.length);
    const first = element().querySelector('.first')!.textContent!;
    // A step is two slits and folds; nothing of it is glued.
    expect(first).toContain('slit');
    expect(first).not.toMatch(/Glue:/);
    expect(first).toContain('cut away from your fingers');
  });

  it('is searched by whole sentences: only what has all words is left', async () => {
    await find('fibres grain');
    expect([...element().querySelectorAll('dip-word-card strong')].map(({ textContent }) => textContent)).toEqual(['Grain']);
    expect(element().querySelector('.pages')).toBeNull();
    await find('no such word anywhere');
    expect(element().querySelector('[role=status]')!.textContent).toContain('Nothing in the guide');
  });

  it.each(CATALOGUE.map(({ id, name }) => [id, name] as const))('has a page of %s with every size that is set', async (id, name) => {
    URL.createObjectURL = () => 'blob:drawing';
    URL.revokeObjectURL = () => undefined;
    const page = TestBed.createComponent(MovementGuide);
    page.componentRef.setInput('id', id);
    await page.whenStable();
    const host = page.nativeElement as HTMLElement;
    expect(host.querySelector('h1')!.textContent).toBe(name);
    const said = [...host.querySelectorAll('dt')].map(({ textContent }) => textContent!.trim());
    for (const size of CATALOGUE.find((each) => each.id === id)!.sizes) expect(said).toContain(size.label);
    page.destroy();
  });
});
