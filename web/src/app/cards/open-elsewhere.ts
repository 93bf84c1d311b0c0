import { Injectable, OnDestroy, signal } from '@angular/core';

interface Word {
  about: string;
  says: 'opened' | 'here' | 'left';
}

/** Notices when the card that is open here is open in another tab too. */
@Injectable()
export class OpenElsewhere implements OnDestroy {
  private readonly channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('diptychon-open-cards');
  private id: string | undefined;
  private readonly leave = (): void => this.say('left');
  readonly elsewhere = signal(false);

  constructor() {
    this.channel?.addEventListener('message', ({ data }: MessageEvent<Word>) => {
      if (data.about !== this.id) return;
      if (data.says === 'opened') this.say('here');
      this.elsewhere.set(data.says !== 'left');
    });
    addEventListener('pagehide', this.leave);
  }

  /** Says that a card is open here now, and asks who else has it. */
  open(id: string): void {
    if (this.id) this.say('left');
    this.id = id;
    this.elsewhere.set(false);
    this.say('opened');
  }

  ngOnDestroy(): void {
    this.say('left');
    removeEventListener('pagehide', this.leave);
    this.channel?.close();
  }

  private say(says: Word['says']): void {
    if (this.id) this.channel?.postMessage({ about: this.id, says } satisfies Word);
  }
}
