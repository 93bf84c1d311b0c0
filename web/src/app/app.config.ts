import { provideBrowserGlobalErrorListeners, provideZonelessChangeDetection, type ApplicationConfig } from '@angular/core';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { MessageService } from 'primeng/api';
import { providePrimeNG } from 'primeng/config';
import { routes } from './app.routes';
import { paperTheme } from './paper-theme';

const nonce = document.querySelector('[ngCspNonce]')?.getAttribute('ngCspNonce') ?? '';

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    provideZonelessChangeDetection(),
    provideRouter(routes, withComponentInputBinding()),
    providePrimeNG({
      theme: { preset: paperTheme, options: { darkModeSelector: '.dark' } },
      csp: { nonce },
      translation: { aria: { close: 'Close' } },
    }),
    MessageService,
  ],
};
