import { TestBed } from '@angular/core/testing';
import { Preferences } from './preferences';

const KEY = 'diptychon-preferences';

describe('Preferences', () => {
  let dark: boolean;
  let tellSystem: (matches: boolean) => void;

  /** Preferences of a page that is opened with this kept. */
  function opened(kept?: string): Preferences {
    localStorage.clear();
    if (kept !== undefined) localStorage.setItem(KEY, kept);
    TestBed.resetTestingModule();
    const preferences = TestBed.inject(Preferences);
    TestBed.tick();
    return preferences;
  }
  const isDark = (): boolean => {
    TestBed.tick();
    return document.documentElement.classList.contains('dark');
  };

  beforeEach(() => {
    dark = false;
    window.matchMedia = ((query: string) => ({
      get matches() {
        return query.includes('dark') && dark;
      },
      addEventListener: (_: string, listener: (event: { matches: boolean }) => void) => (tellSystem = (matches) => listener({ matches })),
    })) as unknown as typeof matchMedia;
  });

  it('follow the system until the maker chooses', () => {
    const preferences = opened();
    expect(isDark()).toBe(false);
    tellSystem(true);
    expect(isDark()).toBe(true);
    preferences.theme.set('light');
    expect(isDark()).toBe(false);
  });

  it('are kept, and come back', () => {
    const preferences = opened();
    preferences.theme.set('dark');
    TestBed.tick();
    preferences.paper.set('legal');
    TestBed.tick();
    const again = opened(localStorage.getItem(KEY)!);
    expect([again.theme(), again.paper()]).toEqual(['dark', 'legal']);
  });

  it.each(['', 'not json', '[]', '{"theme":"furlong"}', '{"theme":3}'])('of a page that kept “%s” are the usual ones', (kept) => {
    const preferences = opened(kept);
    expect(preferences.theme()).toBe('system');
  });

  it('lose no more than what cannot be read of them', () => {
    const preferences = opened('{"theme":"dark","paper":["a4"]}');
    expect([preferences.theme(), preferences.paper()]).toEqual(['dark', undefined]);
  });
});
