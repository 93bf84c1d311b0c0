import { Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Toast } from 'primeng/toast';
import { Preferences } from './frame/preferences';

/** The frame round every screen. */
@Component({
  selector: 'dip-root',
  imports: [RouterOutlet, Toast],
  template: `
    <router-outlet />
    <p-toast position="bottom-left" />
  `,
})
export class App {
  // Made here so that theme and motion preferences hold before any screen is drawn.
  protected readonly preferences = inject(Preferences);
}
