import { ListKeyManager, type ListKeyManagerOption } from '@angular/cdk/a11y';
import { ChangeDetectionStrategy, Component, computed, inject, Injector, OnDestroy, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { Commands, type Command } from './commands';
import { DialogFocus } from './dialog-focus';
import { Preferences } from './preferences';

const KEYS: readonly { keys: string; does: string }[] = [
  { keys: 'Ctrl + K', does: 'find something to do' },
  { keys: '?', does: 'this list' },
  { keys: 'Ctrl + Z', does: 'undo' },
  { keys: 'Ctrl + Shift + Z', does: 'redo' },
  { keys: '↑ ↓', does: 'in a size: one ruler step; with Shift ten' },
  { keys: '← →', does: 'on a score: move it one ruler step; on the opening: open and close' },
  { keys: 'Home, End', does: 'on the opening: closed, open' },
  { keys: 'Space', does: 'while making: done, next step' },
  { keys: '← →', does: 'while making: back and forth without ticking' },
];

/** Finds anything that can be done by its words, and shows the keys. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-command-search',
  imports: [Dialog, DialogFocus, InputText],
  template: `
    <p-dialog
      closeAriaLabel="Close"
      header="What would you like to do?"
      [visible]="commands.shown() === 'search'"
      (visibleChange)="close()"
      [modal]="true"
      [dismissableMask]="true"
      [draggable]="false"
    >
      <label for="command-words" class="visually-hidden">What to do</label>
      <input
        pInputText
        id="command-words"
        type="text"
        autocomplete="off"
        role="combobox"
        aria-expanded="true"
        aria-controls="command-list"
        [attr.aria-activedescendant]="'command-' + at()"
        [value]="wanted()"
        (input)="look($any($event.target).value)"
        (keydown)="key($event)"
      />
      <ul id="command-list" role="listbox" aria-label="What can be done">
        @for (command of found(); track command.words; let i = $index) {
          <li
            role="option"
            tabindex="-1"
            (keydown.enter)="run(command)"
            [id]="'command-' + i"
            [attr.aria-selected]="i === at()"
            (click)="run(command)"
          >
            {{ command.words }} <kbd>{{ command.keys }}</kbd>
          </li>
        } @empty {
          <li role="option" aria-selected="false">Nothing by those words.</li>
        }
      </ul>
    </p-dialog>
    <p-dialog
      closeAriaLabel="Close"
      header="Keys"
      [visible]="commands.shown() === 'keys'"
      (visibleChange)="close()"
      [modal]="true"
      [dismissableMask]="true"
      [draggable]="false"
    >
      <dl>
        @for (entry of keys; track entry.does) {
          <div>
            <dt>
              <kbd>{{ entry.keys }}</kbd>
            </dt>
            <dd>{{ entry.does }}</dd>
          </div>
        }
      </dl>
    </p-dialog>
  `,
  styles: `
    input {
      width: min(34rem, 80vw);
      font-size: 1.15rem;
    }
    ul {
      margin: 0.6rem 0 0;
      padding: 0;
      list-style: none;
      max-height: 22rem;
      overflow: auto;
    }
    li {
      display: flex;
      justify-content: space-between;
      gap: 2rem;
      padding: 0.55rem 0.7rem;
      border-radius: 0.3rem;
      cursor: pointer;
    }
    li[aria-selected='true'] {
      background: var(--moss-wash);
    }
    dl {
      margin: 0;
    }
    dl div {
      display: grid;
      grid-template-columns: 10rem 1fr;
      padding: 0.3rem 0;
      border-bottom: 1px dotted var(--line);
    }
    dd {
      margin: 0;
    }
    kbd {
      font: inherit;
      color: var(--ink-soft);
    }
  `,
})
export class CommandSearch implements OnDestroy {
  protected readonly commands = inject(Commands);
  private readonly router = inject(Router);
  private readonly preferences = inject(Preferences);
  protected readonly keys = KEYS;
  protected readonly wanted = signal('');

  private readonly always: readonly Command[] = [
    { words: 'Go to the shelf', run: () => void this.router.navigate(['/']) },
    { words: 'Go to the movements', run: () => void this.router.navigate(['/movements']) },
    { words: 'Go to my workshop', run: () => void this.router.navigate(['/workshop']) },
    { words: 'Light theme', run: () => this.preferences.theme.set('light') },
    { words: 'Dark theme', run: () => this.preferences.theme.set('dark') },
    { words: 'Theme as the system has it', run: () => this.preferences.theme.set('system') },
    { words: 'Show the keys', keys: '?', run: () => this.commands.shown.set('keys') },
  ];

  protected readonly found = computed(() => {
    const words = this.wanted().toLowerCase().split(/\s+/).filter(Boolean);
    return [...this.commands.offered(), ...this.always].filter((command) =>
      words.every((word) => command.words.toLowerCase().includes(word)),
    );
  });

  private readonly list = new ListKeyManager<Command & ListKeyManagerOption>(this.found, inject(Injector)).withWrap();
  protected readonly at = toSignal(this.list.change, { initialValue: 0 });

  constructor() {
    this.list.setActiveItem(0);
  }

  ngOnDestroy(): void {
    this.list.destroy();
  }

  protected close(): void {
    this.commands.shown.set(undefined);
    this.look('');
  }

  protected look(words: string): void {
    this.wanted.set(words);
    this.list.setActiveItem(0);
  }

  protected key(event: KeyboardEvent): void {
    this.list.onKeydown(event);
    const chosen = this.found()[this.at()];
    if (event.key === 'Enter' && chosen) this.run(chosen);
  }

  protected run(command: Command): void {
    this.close();
    command.run();
  }
}
