import {
  inject,
  isDevMode,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
  type ApplicationConfig,
} from '@angular/core';
import { provideRouter, withComponentInputBinding, withNavigationErrorHandler } from '@angular/router';
import { provideServiceWorker } from '@angular/service-worker';
import { MessageService } from 'primeng/api';
import { providePrimeNG } from 'primeng/config';
import { routes } from './app.routes';
import { paperTheme } from './paper-theme';

const nonce = document.querySelector('[ngCspNonce]')?.getAttribute('ngCspNonce') ?? '';

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    provideZonelessChangeDetection(),
    provideRouter(
      routes,
      withComponentInputBinding(),
      withNavigationErrorHandler(() => {
        inject(MessageService).add({
          severity: 'error',
          summary: 'This screen could not be loaded',
          detail: 'Diptychon’s server does not answer. Start it again, then try once more; what you made is safe.',
          sticky: true,
        });
      }),
    ),
    // What it keeps for later is fetched once what is wanted now is there.
    provideServiceWorker('ngsw-worker.js', { enabled: !isDevMode(), registrationStrategy: 'registerWithDelay:3000' }),
    providePrimeNG({
      theme: { preset: paperTheme, options: { darkModeSelector: '.dark' } },
      csp: { nonce },
      translation: { aria: { close: 'Close' } },
      // The field itself opens its list: what is drawn inside it is no second button with a name of its own.
      pt: { select: { dropdown: { role: 'presentation', 'aria-hidden': 'true', 'aria-label': null } } },
    }),
    MessageService,
  ],
};
