import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Toast } from 'primeng/toast';
import { Database, notKeptWords } from './cards/database';
import { CommandSearch } from './frame/command-search';
import { Commands } from './frame/commands';
import { KeptFocus } from './frame/kept-focus';
import { NewVersion } from './frame/new-version';
import { Preferences } from './frame/preferences';

/** The frame round every screen. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-root',
  imports: [CommandSearch, RouterOutlet, Toast],
  template: `
    <button type="button" class="skip" (click)="focus.toMain()">Skip to the main part</button>
    @if (notKept(); as why) {
      <p class="not-kept" role="alert">{{ words(why) }}</p>
    }
    @if (newVersion.state(); as state) {
      <p class="new-version" role="status">
        {{
          state === 'ready'
            ? 'A new version of Diptychon is here. Nothing you made is lost by taking it.'
            : 'What this browser keeps of the program is damaged. Loading it again mends that; nothing you made is lost.'
        }}
        <button type="button" (click)="newVersion.take()">{{ state === 'ready' ? 'Take it now' : 'Load it again' }}</button>
      </p>
    }
    <router-outlet />
    @defer (when commands.shown() !== undefined) {
      <dip-command-search />
    }
    <p-toast position="bottom-left" />
  `,
  styles: `
    .new-version {
      margin: 0;
      padding: 0.5rem 1rem;
      background: var(--moss-wash);
      color: var(--ink);
    }
    .new-version button {
      min-height: 32px;
      margin-left: 0.4rem;
      border: 1px solid var(--line);
      border-radius: 0.4rem;
      background: var(--sheet);
      color: var(--ink);
      cursor: pointer;
    }
    .not-kept {
      margin: 0;
      padding: 0.5rem 1rem;
      background: var(--rust-wash);
      color: var(--ink);
    }
  `,
  host: { '(document:keydown)': 'commands.shortcut($event)', '(window:beforeunload)': 'warn($event)', '(window:pagehide)': 'leaveField()' },
})
export class App {
  protected readonly notKept = inject(Database).notKept;
  protected readonly words = notKeptWords;
  protected readonly newVersion = inject(NewVersion);
  protected readonly commands = inject(Commands);
  protected readonly focus = inject(KeptFocus);

  // Made here so that theme and motion preferences hold before any screen is drawn.
  protected readonly preferences = inject(Preferences);

  /** What is typed and not left yet counts when the page goes: leaving its field takes it. */
  protected leaveField(): void {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
  }

  /** Leaving loses what this page alone holds: the browser asks first. */
  protected warn(event: BeforeUnloadEvent): void {
    if (this.notKept()) event.preventDefault();
  }
}
