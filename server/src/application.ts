import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';

/** Stands in the built page where each answer puts its own nonce. */
const NONCE_MARK = 'NONCE_OF_THIS_REQUEST';
const A_YEAR = 31_536_000;
/** Build names such as main-ABC123.js carry a hash of their content and never change. */
const HASHED = /-[A-Z0-9]{8}\.(?:js|css|woff2?|svg|ttf|eot)$/;

/**
 * The web application that serves the built page.
 * @param pageFolder where the build put index.html
 * @throws Error when there is no index.html in it
 */
export function application(pageFolder: string): Express {
  const page = readFileSync(join(pageFolder, 'index.html'), 'utf8');
  const app = express();
  app.disable('x-powered-by');
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
          styleSrc: ["'self'", (_request, response) => `'nonce-${String((response as express.Response).locals['nonce'])}'`],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
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
  app.use(
    express.static(pageFolder, {
      index: false,
      setHeaders: (response, file) => {
        response.setHeader('Cache-Control', HASHED.test(file) ? `public, max-age=${A_YEAR}, immutable` : 'no-cache');
      },
    }),
  );
  app.get(/^\/(?!.*\.[a-z0-9]+$).*/i, (_request, response) => {
    response.type('html').setHeader('Cache-Control', 'no-store');
    response.send(page.replaceAll(NONCE_MARK, String(response.locals['nonce'])));
  });
  app.use((_request, response) => {
    response.status(404).type('text').send('There is nothing here.\n');
  });
  return app;
}
