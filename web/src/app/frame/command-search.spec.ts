import { ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { CommandSearch } from './command-search';
import { Commands } from './commands';

describe('CommandSearch', () => {
  let fixture: ComponentFixture<CommandSearch>;
  let ran: string[];
  const field = (): HTMLInputElement => document.querySelector('#command-words')!;
  const options = (): string[] => [...document.querySelectorAll('#command-list li')].map((li) => li.textContent!.trim());

  async function type(words: string): Promise<void> {
    field().value = words;
    field().dispatchEvent(new Event('input'));
    await fixture.whenStable();
  }

  /** The list’s keys are told by their codes. */
  const CODES: Readonly<Record<string, number>> = { ArrowUp: 38, ArrowDown: 40 };

  async function press(key: string, more: KeyboardEventInit = {}): Promise<void> {
    (field() ?? document.body).dispatchEvent(new KeyboardEvent('keydown', { key, keyCode: CODES[key] ?? 0, bubbles: true, ...more }));
    await fixture?.whenStable();
  }

  const heard = (event: KeyboardEvent): void => TestBed.inject(Commands).shortcut(event);

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideRouter([])] });
    ran = [];
    TestBed.inject(Commands).offered.set([
      { words: 'Open the card', run: () => ran.push('open') },
      { words: 'Print and files', run: () => ran.push('print') },
    ]);
    document.addEventListener('keydown', heard);
    await press('k', { ctrlKey: true });
    // As on the page it is made when it is first asked for.
    fixture = TestBed.createComponent(CommandSearch);
    await fixture.whenStable();
  });

  afterEach(() => {
    document.removeEventListener('keydown', heard);
    fixture.destroy();
  });

  it('has the focus as soon as it is there, before it has moved into its place', () => {
    expect(document.activeElement).toBe(field());
  });

  it('opens with its key and lists what the screen offers first', () => {
    expect(options().slice(0, 2)).toEqual(['Open the card', 'Print and files']);
    expect(options().length).toBeGreaterThan(4);
  });

  it('finds by any of the words, in any order', async () => {
    await type('files pri');
    expect(options()).toEqual(['Print and files']);
    await type('no such thing');
    expect(options()).toEqual(['Nothing by those words.']);
  });

  it('chooses with the arrow keys and runs with Enter', async () => {
    await press('ArrowDown');
    await press('Enter');
    expect(ran).toEqual(['print']);
  });

  it('shows the keys at a question mark, but not at one that is typed', async () => {
    const open = () => TestBed.inject(Commands).shown();
    await press('?');
    expect(open()).toBe('search');
    TestBed.inject(Commands).shown.set(undefined);
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '?', bubbles: true }));
    expect(open()).toBe('keys');
  });

  it('goes round at both ends', async () => {
    await type('card');
    await press('ArrowUp');
    await press('ArrowDown');
    await press('Enter');
    expect(ran).toEqual(['open']);
  });
});
