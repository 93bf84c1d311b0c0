import { Injectable } from '@angular/core';
import { Cutter, type CutterProgress, type CutterReport } from '@diptychon/core';
import { interval, map, Observable, startWith, takeWhile } from 'rxjs';

/** What is heard of a drawing: how far it is, or nothing just now. */
export type Heard = CutterProgress | 'lost';

/** A machine that drawings are sent to, wherever it stands. Refusals are errors with a sentence. */
export interface Machine {
  /** what a maker calls it */
  name: string;
  send(svg: string): Promise<CutterProgress>;
  /** Follows a drawing to its end; where the connection is lost, that is told and it is taken up again. */
  follow(id: string): Observable<Heard>;
  turn(id: string, what: 'pause' | 'resume' | 'cancel'): Promise<CutterProgress>;
  report(id: string): Promise<CutterReport>;
  /** what has been cut by now, as the text of an SVG */
  picture(id: string): Promise<string>;
  /** whether it still holds a drawing */
  holds(id: string): Promise<boolean>;
}

/** How often the own machine is looked at (ms), and how many times faster than a real one it runs. */
const LOOK_EVERY = 150;
const PACE = 20;
/** A lost connection is taken up again after so long (ms). */
const AGAIN_AFTER = 1000;

const ended = ({ state }: CutterProgress): boolean => state === 'done' || state === 'cancelled';

/** The machine of the server that this page came from or, where there is none, one that runs in the page. */
@Injectable({ providedIn: 'root' })
export class Machines {
  private readonly own = new OwnMachine();

  async nearest(): Promise<Machine> {
    try {
      const answer = await fetch('/cutter?ngsw-bypass', { headers: { accept: 'application/json' } });
      if (answer.ok && answer.headers.get('content-type')?.includes('json')) return new ServerMachine();
    } catch {
      // No server answers: the page has a machine of its own.
    }
    return this.own;
  }
}

/** The same machine in the page. */
export class OwnMachine implements Machine {
  readonly name = 'the trial cutter in this page';
  private readonly cutter: Cutter;

  constructor(pace = PACE, now: () => number = () => performance.now()) {
    this.cutter = new Cutter({ pace, now, newId: () => crypto.randomUUID() });
  }

  send(svg: string): Promise<CutterProgress> {
    return Promise.resolve().then(() => this.cutter.take(svg));
  }

  follow(id: string): Observable<Heard> {
    return interval(LOOK_EVERY).pipe(
      startWith(0),
      map(() => this.cutter.progress(id)),
      takeWhile((progress) => !ended(progress), true),
    );
  }

  turn(id: string, what: 'pause' | 'resume' | 'cancel'): Promise<CutterProgress> {
    return Promise.resolve().then(() => this.cutter[what](id));
  }

  report(id: string): Promise<CutterReport> {
    return Promise.resolve().then(() => this.cutter.report(id));
  }

  picture(id: string): Promise<string> {
    return Promise.resolve().then(() => this.cutter.picture(id));
  }

  holds(id: string): Promise<boolean> {
    return Promise.resolve(this.cutter.all().some((progress) => progress.id === id));
  }
}

/** The one behind the server. */
class ServerMachine implements Machine {
  readonly name = 'the trial cutter of this server';

  async send(svg: string): Promise<CutterProgress> {
    return asked('jobs', { method: 'POST', headers: { 'content-type': 'image/svg+xml' }, body: svg });
  }

  follow(id: string): Observable<Heard> {
    return new Observable<Heard>((told) => {
      let source: EventSource | undefined;
      let again = 0;
      const listen = (): void => {
        source = new EventSource(`/cutter/jobs/${encodeURIComponent(id)}/events?ngsw-bypass`);
        source.addEventListener('progress', (event) => {
          const progress = JSON.parse((event as MessageEvent<string>).data) as CutterProgress;
          told.next(progress);
          if (!ended(progress)) return;
          source?.close();
          told.complete();
        });
        source.addEventListener('error', () => {
          source?.close();
          told.next('lost');
          again = window.setTimeout(listen, AGAIN_AFTER);
        });
      };
      listen();
      return () => {
        clearTimeout(again);
        source?.close();
      };
    });
  }

  turn(id: string, what: 'pause' | 'resume' | 'cancel'): Promise<CutterProgress> {
    return asked(`jobs/${encodeURIComponent(id)}/${what}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' });
  }

  report(id: string): Promise<CutterReport> {
    return asked(`jobs/${encodeURIComponent(id)}/report`);
  }

  async picture(id: string): Promise<string> {
    const answer = await fetch(`/cutter/jobs/${encodeURIComponent(id)}/picture.svg?ngsw-bypass`);
    if (!answer.ok) throw new Error('The picture of what was cut is not there any more.');
    return answer.text();
  }

  async holds(id: string): Promise<boolean> {
    const { jobs } = await asked<{ jobs: CutterProgress[] }>('jobs');
    return jobs.some((progress) => progress.id === id);
  }
}

async function asked<T>(path: string, request: RequestInit = {}): Promise<T> {
  let answer: Response;
  try {
    answer = await fetch(`/cutter/${path}?ngsw-bypass`, request);
  } catch {
    throw new Error('The cutter does not answer: is the server still there?');
  }
  const told = (await answer.json().catch(() => ({}))) as T & { error?: string };
  if (!answer.ok) throw new Error(told.error ?? `The cutter answered with ${answer.status}.`);
  return told;
}
