import { Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Toast } from 'primeng/toast';
import { CommandSearch } from './frame/command-search';
import { Preferences } from './frame/preferences';

/** The frame round every screen. */
@Component({
  selector: 'dip-root',
  imports: [CommandSearch, RouterOutlet, Toast],
  template: `
    <router-outlet />
    @defer (on idle) {
      <dip-command-search />
    }
    <p-toast position="bottom-left" />
  `,
})
export class App {
  // Made here so that theme and motion preferences hold before any screen is drawn.
  protected readonly preferences = inject(Preferences);
}
