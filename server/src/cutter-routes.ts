import express, { Router, type Request, type Response } from 'express';
import { LARGEST_SVG, NoSuchPlot, NotTaken, USUAL_CUTTER, type Cutter, type CutterProgress } from '@diptychon/core';

/** How often progress is told (ms). */
const TELL_EVERY = 150;
/** So many listeners at once: each holds a connection open. */
const MOST_LISTENERS = 32;

/**
 * The machine over HTTP. Drawings are taken as `image/svg+xml` only: a page of another origin cannot send that without being asked for
 * leave first, which it does not get.
 */
export function cutterRoutes(cutter: Cutter): Router {
  const routes = Router();
  let listeners = 0;
  routes.post('/jobs', express.text({ type: 'image/svg+xml', limit: LARGEST_SVG }), (request, response) => {
    const { body } = request as { body: unknown };
    if (typeof body !== 'string' || body === '') {
      response.status(415).json({ error: 'Only a drawing is taken: send it as image/svg+xml.' });
      return;
    }
    answer(response, () => cutter.take(body), 201);
  });
  routes.get('/', (_, response) => answer(response, () => ({ machine: USUAL_CUTTER })));
  routes.get('/jobs', (_, response) => answer(response, () => ({ jobs: cutter.all() })));
  routes.get('/jobs/:id', (request, response) => answer(response, () => cutter.progress(idOf(request))));
  routes.get('/jobs/:id/report', (request, response) => answer(response, () => cutter.report(idOf(request))));
  routes.get('/jobs/:id/picture.svg', (request, response) => {
    try {
      response
        .type('image/svg+xml')
        .setHeader('Cache-Control', 'no-store')
        .send(cutter.picture(idOf(request)));
    } catch (error) {
      refuse(response, error);
    }
  });
  for (const what of ['pause', 'resume', 'cancel'] as const) {
    // A body is asked for by its kind, so that no page of another origin can send it unasked.
    routes.post(`/jobs/:id/${what}`, (request, response) => {
      if (!request.is('application/json')) response.status(415).json({ error: 'Only JSON is taken.' });
      else answer(response, () => cutter[what](idOf(request)));
    });
  }
  routes.get('/jobs/:id/events', (request, response) => {
    let first: CutterProgress;
    try {
      first = cutter.progress(idOf(request));
    } catch (error) {
      refuse(response, error);
      return;
    }
    if (listeners >= MOST_LISTENERS) {
      response.status(503).json({ error: 'Too many listen to the machine just now.' });
      return;
    }
    listeners++;
    response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
    // Whoever comes back after a lost connection is told where it is now: nothing before that matters.
    let told = '';
    const tell = (progress: CutterProgress): void => {
      const says = JSON.stringify(progress);
      if (says === told) return;
      told = says;
      response.write(`event: progress\nid: ${Math.round(progress.done * 10_000)}\ndata: ${says}\n\n`);
      // Small events must not wait to be compressed together.
      (response as Response & { flush?: () => void }).flush?.();
    };
    const clock = setInterval(() => look(), TELL_EVERY);
    const end = (): void => {
      clearInterval(clock);
      listeners--;
      response.end();
    };
    const look = (): void => {
      try {
        const now = cutter.progress(first.id);
        tell(now);
        if (now.state === 'done' || now.state === 'cancelled') response.end();
      } catch {
        response.end();
      }
    };
    response.on('close', end);
    tell(first);
    look();
  });
  return routes;
}

const idOf = ({ params }: Request): string => String(params['id']);

function answer(response: Response, work: () => object, status = 200): void {
  try {
    response.status(status).setHeader('Cache-Control', 'no-store').json(work());
  } catch (error) {
    refuse(response, error);
  }
}

function refuse(response: Response, error: unknown): void {
  if (error instanceof NotTaken) response.status(422).json({ error: error.message });
  else if (error instanceof NoSuchPlot) response.status(409).json({ error: error.message });
  else throw error;
}
