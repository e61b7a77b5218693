import {
  ErrorHandler,
  inject,
  isDevMode,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
  type ApplicationConfig,
} from '@angular/core';
import {
  provideRouter,
  UrlSerializer,
  withComponentInputBinding,
  withNavigationErrorHandler,
  withRouterConfig,
} from '@angular/router';
import { provideServiceWorker } from '@angular/service-worker';
import { en_US, provideNzI18n } from 'ng-zorro-antd/i18n';
import { from } from 'rxjs';
import { Workers } from '../platform/workers/workers';
import { Addresses } from './addresses';
import { routes } from './routes';
import { sayNotLoaded, Uncaught } from '../platform/state/uncaught';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    { provide: ErrorHandler, useClass: Uncaught },
    { provide: UrlSerializer, useClass: Addresses },
    provideRouter(
      routes,
      withComponentInputBinding(),
      withNavigationErrorHandler(sayNotLoaded),
      withRouterConfig({ resolveNavigationPromiseOnError: true }),
    ),
    provideNzI18n(en_US),
    // After the first visit everything, the engraver and the piano too, is there without a network. To fetch and check it all keeps a
    // small device busy for a while, so that it waits for the first sheet.
    provideServiceWorker('ngsw-worker.js', { enabled: !isDevMode(), registrationStrategy: () => from(inject(Workers).atRest) }),
  ],
};
