import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { CATALOGUE } from '../mechanism/catalogue.js';
import { handbookIndex, handbookPage } from './handbook.js';

const kept = (name: string): string => readFileSync(new URL(`../../../docs/mechanisms/${name}`, import.meta.url), 'utf8');

describe('the handbook', () => {
  it.each(CATALOGUE.map((mechanism) => [mechanism.id, mechanism] as const))(
    'of %s in docs/ is what the catalogue says today (npm run handbook writes it)',
    (id, mechanism) => {
      const { markdown, drawing } = handbookPage(mechanism);
      expect(kept(`${id}.md`)).toBe(markdown);
      expect(kept(`${id}.svg`)).toBe(drawing);
    },
  );

  it('lists every mechanism', () => {
    expect(kept('README.md')).toBe(handbookIndex(CATALOGUE));
  });

  it.each(CATALOGUE.map((mechanism) => [mechanism.id, mechanism] as const))(
    'of %s names every size, and gives every number a reason',
    (_, mechanism) => {
      const { markdown } = handbookPage(mechanism);
      for (const size of mechanism.sizes) expect(markdown).toContain(`\`${size.name}\``);
      const numbers = markdown
        .slice(markdown.indexOf('| number |'))
        .split('\n')
        .filter((line) => line.startsWith('| '))
        .slice(2);
      expect(numbers.length).toBeGreaterThan(0);
      for (const line of numbers) expect(line.split('|')[3]!.trim().length).toBeGreaterThan(10);
    },
  );
});
