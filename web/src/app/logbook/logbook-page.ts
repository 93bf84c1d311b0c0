import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { mentions, secondsOf, type Build } from '@diptychon/core/records';
import type { KeptPhoto } from '../cards/database';
import { ScreenBar } from '../frame/screen-bar';
import { download } from '../frame/download';
import { AccuracyView } from './accuracy-view';
import { BuildEntry, type BuildWriting } from './build-entry';
import { LogbookStore, NotLogged, type UnreadableBuild } from './logbook-store';
import { dayOf, durationOf } from './spoken-time';

/** What was made: each build with how it went, and what all of them say about tools and hands. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-logbook-page',
  imports: [AccuracyView, BuildEntry, ScreenBar],
  templateUrl: './logbook-page.html',
  styleUrl: './logbook-page.scss',
})
export class LogbookPage {
  private readonly logbook = inject(LogbookStore);

  protected readonly builds = signal<readonly Build[] | undefined>(undefined);
  protected readonly unreadable = signal<readonly UnreadableBuild[]>([]);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly wanted = signal('');
  protected readonly found = computed(() => this.builds()?.filter((build) => mentions(build, this.wanted())));
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly open = computed(() => this.builds()?.find(({ id }) => id === this.chosen()));
  protected readonly removed = signal<{ build: Build; photos: readonly KeptPhoto[] } | undefined>(undefined);

  protected readonly taken = signal<string | undefined>(undefined);
  protected readonly day = dayOf;
  /** changes that are on their way to the disk */
  private waiting = 0;

  constructor() {
    void this.load();
    const heard = this.logbook.elsewhere.subscribe(() => this.waiting === 0 && void this.load());
    inject(DestroyRef).onDestroy(() => heard.unsubscribe());
  }

  protected line(build: Build): string {
    const copies = build.copies > 1 ? `${build.copies} cards` : '1 card';
    const time = secondsOf(build);
    return [
      build.endedAt === undefined ? `${copies}, being made` : copies,
      ...(time > 0 ? [durationOf(time)] : []),
      ...(build.forWhom ? [`for ${build.forWhom}`] : []),
    ].join(' · ');
  }

  /** A build is shown as changed at once, and as it is kept next. */
  protected change({ id, apply }: { id: string; apply: (build: Build) => Build }): void {
    this.builds.update((all) => all?.map((build) => (build.id === id ? apply(build) : build)));
    void this.attempt(() => this.logbook.change(id, apply));
  }

  protected write({ id, field, text }: BuildWriting): void {
    this.builds.update((all) => all?.map((build) => (build.id === id ? { ...build, [field]: text } : build)));
    void this.attempt(() => this.logbook.write(id, field, text));
  }

  protected async addPhotos(id: string, files: readonly File[]): Promise<void> {
    for (const file of files) await this.attempt(() => this.logbook.addPhoto(id, file));
  }

  protected removePhoto(id: string, photo: string): void {
    void this.attempt(() => this.logbook.removePhoto(id, photo));
  }

  protected async remove(build: Build): Promise<void> {
    try {
      const photos = await this.logbook.photosOf(build.id);
      await this.logbook.remove(build.id);
      this.removed.set({ build, photos });
      this.chosen.set(undefined);
      await this.load();
    } catch (error) {
      this.tell(error);
    }
  }

  protected async putBack(): Promise<void> {
    const gone = this.removed();
    if (!gone) return;
    try {
      await this.logbook.putBack(gone.build, gone.photos);
      this.removed.set(undefined);
      await this.load();
      this.chosen.set(gone.build.id);
    } catch (error) {
      this.tell(error);
    }
  }

  /** All builds and photos as a file; photos whose build cannot be read stay where they are. */
  protected async toFile(): Promise<void> {
    try {
      const { archiveOf } = await import('./logbook-archive');
      const builds = this.builds() ?? [];
      const photos = (await this.logbook.allPhotos()).filter(({ id }) => builds.some((build) => build.photos.includes(id)));
      download('logbook.zip', 'application/zip', await archiveOf({ builds, photos }));
    } catch (error) {
      this.tell(error);
    }
  }

  protected async fromFile(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    const { readArchive } = await import('./logbook-archive');
    const reading = await readArchive(file);
    if (!reading.ok) {
      this.trouble.set(reading.says);
      return;
    }
    const { builds, photos } = reading.file;
    try {
      const taken = await this.logbook.takeAll(builds, photos);
      this.trouble.set(undefined);
      const here = builds.length - taken;
      this.taken.set(
        `${taken} ${taken === 1 ? 'build was' : 'builds were'} taken from the file${here > 0 ? `; ${here} ${here === 1 ? 'was' : 'were'} here already` : ''}.`,
      );
      await this.load();
    } catch (error) {
      this.tell(error);
    }
  }

  /** What cannot be read is taken away as a file: nothing of it is thrown away. */
  protected take({ id, raw }: UnreadableBuild): void {
    download(`build-${id}.json`, 'application/json', JSON.stringify(raw, null, 2));
  }

  private async attempt(work: () => Promise<Build>): Promise<void> {
    this.waiting++;
    try {
      const build = await work().finally(() => this.waiting--);
      this.trouble.set(undefined);
      // What was typed meanwhile is newer than what was kept just now.
      if (this.waiting === 0) this.builds.update((all) => all?.map((each) => (each.id === build.id ? build : each)));
    } catch (error) {
      this.tell(error);
    }
  }

  private async load(): Promise<void> {
    try {
      const { builds, unreadable } = await this.logbook.all();
      this.builds.set(builds);
      this.unreadable.set(unreadable);
    } catch {
      this.trouble.set('This browser’s storage could not be read.');
    }
  }

  private tell(error: unknown): void {
    this.trouble.set(
      error instanceof NotLogged
        ? error.message
        : 'This could not be kept: the browser’s storage may be full. What was kept before is untouched.',
    );
  }
}
