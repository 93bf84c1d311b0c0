import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import staticCompressed from 'express-static-gzip';
import helmet from 'helmet';
import type { Cutter } from '@diptychon/core';
import { cutterRoutes } from './cutter-routes.js';

/** Stands in the built page where each answer puts its own nonce. */
const NONCE_MARK = 'NONCE_OF_THIS_REQUEST';
const A_YEAR = 31_536_000;
/** Build names such as main-ABC123.js carry a hash of their content and never change. */
const HASHED = /-[A-Z0-9]{8}\.(?:js|css|woff2?|svg)(?:\.br)?$/;

/** Abilities of a browser that no part of the program asks for. */
const NOT_NEEDED = [
  'accelerometer',
  'camera',
  'display-capture',
  'geolocation',
  'gyroscope',
  'magnetometer',
  'microphone',
  'midi',
  'payment',
  'usb',
];

/** What is wrong, in words that tell nothing of this machine. */
const SAYS: Readonly<Record<number, string>> = {
  400: 'This could not be read.',
  413: 'This is too large: at most 64 kB are taken.',
  415: 'Only JSON is taken.',
};

const LOOPBACK = /^(?:localhost|127(?:\.\d{1,3}){3}|\[::1\])(?::\d+)?$/i;

/**
 * Asked over this machine's own address, the server answers only to this machine's own names: a page of another origin whose
 * name was pointed here gets nothing.
 */
function onlyForThisMachine(request: Request, response: Response, next: NextFunction): void {
  const overLoopback = /^(?:::1|(?:::ffff:)?127\.)/.test(request.socket.localAddress ?? '');
  if (overLoopback && !LOOPBACK.test(request.headers.host ?? '')) response.status(421).json({ error: 'This server answers to localhost.' });
  else next();
}

/**
 * The web application that serves the built page.
 * @param pageFolder where the build put index.html
 * @param cutter a machine that follows drawings, where there is one
 * @throws Error when there is no index.html in it
 */
export function application(pageFolder: string, cutter?: Cutter): Express {
  const page = readFileSync(join(pageFolder, 'index.html'), 'utf8');
  const app = express();
  app.disable('x-powered-by');
  app.use(onlyForThisMachine);
  app.use(compression());
  app.use((_request, response, next) => {
    response.locals['nonce'] = randomBytes(18).toString('base64');
    next();
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          workerSrc: ["'self'"],
          styleSrc: ["'self'", (_request, response) => `'nonce-${String((response as Response).locals['nonce'])}'`],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          manifestSrc: ["'self'"],
          baseUri: ["'self'"],
          formAction: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      // The page is served over plain HTTP on this machine only.
      strictTransportSecurity: false,
    }),
  );
  app.use(express.json({ limit: '64kb' }));
  if (cutter) app.use('/cutter', cutterRoutes(cutter));
  app.get('/index.html', (_request, response) => sendPage(response));
  app.use(
    // The build put a compressed file beside each that gains by it.
    staticCompressed(pageFolder, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br'],
      serveStatic: {
        setHeaders: (response, file) => {
          response.setHeader('Cache-Control', HASHED.test(file) ? `public, max-age=${A_YEAR}, immutable` : 'no-cache');
        },
      },
    }),
  );
  app.get(/^\/(?!.*\.[a-z0-9]+$).*/i, (_request, response) => sendPage(response));
  app.use((_request, response) => {
    response.status(404).json({ error: 'There is nothing here.' });
  });
  // Four arguments mark this as the place where errors end.
  app.use((error: { status?: number; expose?: boolean }, _request: Request, response: Response, _next: NextFunction) => {
    const status = error.status ?? 500;
    response.status(status).json({ error: SAYS[status] ?? (status < 500 ? 'This cannot be taken.' : 'Something went wrong here.') });
  });

  function sendPage(response: Response): void {
    response.type('html').setHeader('Cache-Control', 'no-store');
    response.setHeader('Permissions-Policy', NOT_NEEDED.map((feature) => `${feature}=()`).join(', '));
    response.send(page.replaceAll(NONCE_MARK, String(response.locals['nonce'])));
  }
  return app;
}
