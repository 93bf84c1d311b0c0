import { readFileSync } from 'node:fs';
import { TestBed } from '@angular/core/testing';
import { CATALOGUE } from '@diptychon/core';
import { GLOSSARY, wordsIn } from './glossary';
import { sizeDrawing } from './size-drawings';
import { WordsUsed } from './words-used';

describe('the words of the trade', () => {
  it('are found in sentences as whole words, once each, in the order of the list', () => {
    const found = wordsIn(['Two scores: a valley and a mountain.', 'The score lies in a groove; it is stopped.']);
    expect(found.map(({ id }) => id)).toEqual(['score', 'valley', 'mountain', 'groove']);
  });

  it('are told apart: no form means two words', () => {
    const forms = GLOSSARY.flatMap((word) => word.forms);
    expect(new Set(forms).size).toBe(forms.length);
  });

  it('stand in the handbook too, in the same words', () => {
    const page = readFileSync('../docs/words.md', 'utf8').replace(/\s+/g, ' ');
    const entries = [...page.matchAll(/- \*\*(.+?)\.\*\* (.+?)(?= - \*\*| ?$)/g)].map(([, word, says]) => ({ word, says: says!.trim() }));
    expect(entries).toEqual(GLOSSARY.map(({ word, says }) => ({ word, says })));
  });

  it('are opened one at a time where they were read', async () => {
    const fixture = TestBed.createComponent(WordsUsed);
    fixture.componentRef.setInput('sentences', ['The spine gapes.']);
    await fixture.whenStable();
    const host = fixture.nativeElement as HTMLElement;
    const [spine, gape] = [...host.querySelectorAll('button')];
    expect([spine, gape].map((button) => button!.textContent!.trim())).toEqual(['Spine', 'Gape']);
    for (const [button, says] of [
      [spine, 'Two scores side by side'],
      [gape, 'stand apart'],
    ] as const) {
      button!.click();
      await fixture.whenStable();
      expect(host.querySelectorAll('dip-word-card')).toHaveLength(1);
      expect(host.querySelector('dip-word-card')!.textContent).toContain(says);
      expect(button!.getAttribute('aria-expanded')).toBe('true');
    }
  });
});

describe('small pictures of sizes', () => {
  it.each(['v-fold', 'easel-folded-front', 'easel-strip', 'easel-shape'])('of %s: every length and angle has one', (id) => {
    const { sizes, alternatives = [] } = CATALOGUE.find((mechanism) => mechanism.id === id)!;
    const measured = [...sizes, ...alternatives].filter(({ kind }) => kind === 'length' || kind === 'angle');
    expect(measured.filter(({ name }) => sizeDrawing(id, name) === undefined).map(({ name }) => name)).toEqual([]);
  });

  it('differ from size to size', () => {
    const drawn = CATALOGUE.find(({ id }) => id === 'v-fold')!.sizes.flatMap(
      ({ name }) => JSON.stringify(sizeDrawing('v-fold', name)) ?? [],
    );
    expect(new Set(drawn).size).toBe(drawn.length);
  });
});
