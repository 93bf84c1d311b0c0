import { inject, Injectable } from '@angular/core';
import { MOST_PHOTOS, readBuild, type Build, type BuildReading, type CardDocument, type FileProblem } from '@diptychon/core/records';
import { Subject } from 'rxjs';
import { Database, type KeptPhoto } from '../cards/database';
import { scaledPhoto } from './scaled-photo';

/** A build that cannot be read, and what is wrong with it. */
export interface UnreadableBuild {
  id: string;
  problems: readonly FileProblem[];
  raw: unknown;
}

/** Fields that are typed, and where they wait in local storage until they are kept. */
const WRITTEN = ['forWhom', 'wouldChange'] as const;
export type WrittenField = (typeof WRITTEN)[number];
const TYPED = 'diptychon-logbook-typed/';

/** A change of the logbook that could not be. */
export class NotLogged extends Error {}

/**
 * What was made, and how it went. Every change is made within one transaction upon what is kept by then, so that two tabs never
 * overwrite each other, and is on the disk before it counts.
 */
@Injectable({ providedIn: 'root' })
export class LogbookStore {
  private readonly database = inject(Database);
  private turn: Promise<unknown> = Promise.resolve();
  private readonly channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('diptychon-logbook');
  /** another tab has changed the logbook */
  readonly elsewhere = new Subject<void>();

  constructor() {
    this.channel?.addEventListener('message', () => this.elsewhere.next());
  }

  /** All builds, begun last first, and those that cannot be read. */
  async all(): Promise<{ builds: Build[]; unreadable: UnreadableBuild[] }> {
    await this.turn;
    await this.takeUp();
    const kept = await this.database.look(['builds'], (tray) => tray.all('builds'));
    const builds: Build[] = [];
    const unreadable: UnreadableBuild[] = [];
    for (const raw of kept) {
      const reading = this.reading(raw);
      if (reading.ok) builds.push(reading.build);
      else unreadable.push({ id: raw.id, problems: reading.problems, raw });
    }
    return { builds: builds.sort((a, b) => b.begunAt - a.begunAt), unreadable };
  }

  /** The build of a card that is still being made. */
  async begun(card: string): Promise<Build | undefined> {
    return (await this.all()).builds.find((build) => build.card === card && build.endedAt === undefined);
  }

  /** Begins to make a card, as it is now. */
  async begin(card: CardDocument, copies: number): Promise<Build> {
    const build: Build = {
      ...{ id: crypto.randomUUID(), card: card.id, name: card.name, as: card, copies, begunAt: Date.now() },
      ...{ steps: [], measures: [], faults: [], photos: [], forWhom: '', wouldChange: '' },
    };
    this.refuse(build);
    await this.inTurn(() => this.database.change(['builds'], (tray) => tray.add('builds', build)));
    return build;
  }

  /**
   * Changes a build as it is kept by then.
   * @throws NotLogged when it is gone, or what would be kept could not be read again
   */
  change(id: string, apply: (build: Build) => Build): Promise<Build> {
    return this.inTurn(() =>
      this.database.change(['builds'], async (tray) => {
        const next = apply(this.read(await tray.get('builds', id)));
        this.refuse(next);
        await tray.put('builds', next);
        return next;
      }),
    );
  }

  /**
   * Writes a field of a build. The text is in local storage before this returns, which a page that is closed just then leaves behind.
   * @throws NotLogged
   */
  write(id: string, field: WrittenField, text: string): Promise<Build> {
    const key = `${TYPED}${id}/${field}`;
    leave(key, text);
    const kept = this.change(id, (build) => ({ ...build, [field]: text }));
    kept.then(
      () => left(key) === text && forget(key),
      () => undefined,
    );
    return kept;
  }

  /** What a page typed that was closed before it was kept. */
  private async takeUp(): Promise<void> {
    for (const key of leftBehind()) {
      const [id, field] = key.slice(TYPED.length).split('/') as [string, WrittenField];
      let text: string | undefined;
      try {
        // Read within the change: a page that is still typing has written more of it meanwhile.
        if (WRITTEN.includes(field)) await this.change(id, (build) => ({ ...build, [field]: (text = left(key)) ?? build[field] }));
        if (left(key) === text) forget(key);
      } catch (error) {
        // Of a build that is gone nothing is left to write; full storage may have room the next time.
        if (error instanceof NotLogged) forget(key);
      }
    }
  }

  /** Takes a build out of the logbook, its photos with it. */
  remove(id: string): Promise<void> {
    return this.inTurn(() =>
      this.database.change(['builds', 'photos'], async (tray) => {
        await tray.remove('builds', id);
        for (const photo of await tray.all('photos')) if (photo.build === id) await tray.remove('photos', photo.id);
      }),
    );
  }

  /** Puts a build back that was taken out just now, with its photos. */
  putBack(build: Build, photos: readonly KeptPhoto[]): Promise<void> {
    return this.inTurn(() =>
      this.database.change(['builds', 'photos'], async (tray) => {
        await tray.add('builds', build);
        for (const photo of photos) await tray.put('photos', photo);
      }),
    );
  }

  /**
   * Keeps a photo with a build: both, or neither.
   * @throws NotLogged when it is no picture, or there are as many as there may be
   */
  async addPhoto(id: string, file: Blob): Promise<Build> {
    const bytes = await scaledPhoto(file);
    if (!bytes) throw new NotLogged('This file is not a picture that this browser can show; allowed: JPEG, PNG or WebP of up to 40 MB.');
    const photo: KeptPhoto = { id: crypto.randomUUID(), build: id, type: 'image/jpeg', bytes };
    return this.inTurn(() =>
      this.database.change(['builds', 'photos'], async (tray) => {
        const build = this.read(await tray.get('builds', id));
        if (build.photos.length >= MOST_PHOTOS)
          throw new NotLogged(`There are ${MOST_PHOTOS} photos already; allowed: at most ${MOST_PHOTOS}.`);
        const next = { ...build, photos: [...build.photos, photo.id] };
        await tray.put('photos', photo);
        await tray.put('builds', next);
        return next;
      }),
    );
  }

  /** Takes builds of a file up, all or none; those that are here already stay as they are. @returns how many were taken */
  takeAll(builds: readonly Build[], photos: readonly KeptPhoto[]): Promise<number> {
    return this.inTurn(() =>
      this.database.change(['builds', 'photos'], async (tray) => {
        let taken = 0;
        for (const build of builds) {
          if ((await tray.get('builds', build.id)) !== undefined) continue;
          await tray.put('builds', build);
          for (const photo of photos) if (photo.build === build.id) await tray.put('photos', photo);
          taken++;
        }
        return taken;
      }),
    );
  }

  async allPhotos(): Promise<KeptPhoto[]> {
    return this.database.look(['photos'], (tray) => tray.all('photos'));
  }

  removePhoto(id: string, photo: string): Promise<Build> {
    return this.inTurn(() =>
      this.database.change(['builds', 'photos'], async (tray) => {
        const build = this.read(await tray.get('builds', id));
        const next = { ...build, photos: build.photos.filter((each) => each !== photo) };
        await tray.put('builds', next);
        await tray.remove('photos', photo);
        return next;
      }),
    );
  }

  async photosOf(id: string): Promise<KeptPhoto[]> {
    return (await this.allPhotos()).filter(({ build }) => build === id);
  }

  /** The card of a build never changes: once read, it is known again by its text. */
  private readonly cards = new Map<string, CardDocument>();

  private read(raw: unknown): Build {
    const build = raw === undefined ? undefined : this.reading(raw);
    if (!build?.ok) throw new NotLogged('This build is no longer in the logbook.');
    return build.build;
  }

  private refuse(build: Build): void {
    const reading = this.reading(build);
    if (!reading.ok) throw new NotLogged(reading.problems.map(({ path, says }) => `${path} ${says}.`).join(' '));
  }

  private reading(raw: unknown): BuildReading {
    const reading = readBuild(raw, (as) => this.cards.get(JSON.stringify(as)));
    if (reading.ok) this.cards.set(JSON.stringify((raw as Build).as), reading.build.as);
    return reading;
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.turn.then(work);
    this.turn = turn.then(
      () => this.channel?.postMessage('changed'),
      () => undefined,
    );
    return turn;
  }
}

/** Local storage may be full or forbidden: then what is typed is on its way to the disk alone. */
function leave(key: string, text: string): void {
  try {
    localStorage.setItem(key, text);
  } catch {
    // See above.
  }
}

function left(key: string): string | undefined {
  try {
    return localStorage.getItem(key) ?? undefined;
  } catch {
    return undefined;
  }
}

function forget(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // Where nothing can be read nothing has to go.
  }
}

function leftBehind(): string[] {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(TYPED));
  } catch {
    return [];
  }
}
