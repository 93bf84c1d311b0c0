import { inject, Injectable, signal } from '@angular/core';
import { SwUpdate } from '@angular/service-worker';

const ASK_EVERY_MS = 60 * 60 * 1000;

/** Notices a new version of the program, which waits until the maker wants it. */
@Injectable({ providedIn: 'root' })
export class NewVersion {
  private readonly updates = inject(SwUpdate);
  /** `ready`: loaded, and taken when the page is loaded again; `broken`: what this browser keeps of the program is damaged */
  readonly state = signal<'ready' | 'broken' | undefined>(undefined);

  constructor() {
    if (!this.updates.isEnabled) return;
    this.updates.versionUpdates.subscribe(({ type }) => {
      if (type === 'VERSION_READY') this.state.set('ready');
    });
    this.updates.unrecoverable.subscribe(() => this.state.set('broken'));
    // Without the server there is nothing new to be had, and nothing to complain of.
    setInterval(() => void this.updates.checkForUpdate().catch(() => undefined), ASK_EVERY_MS);
  }

  /** Takes the new version. What is typed and not saved goes the way of any page that is left: nothing of it is lost. */
  async take(): Promise<void> {
    await this.updates.activateUpdate().catch(() => undefined);
    location.reload();
  }
}
