import { computed, inject, Injectable, OnDestroy, signal } from '@angular/core';
import { Tabs } from './tabs';

interface Word {
  about: string;
  says: 'opened' | 'here' | 'left';
  /** the screen that says it, and the tab that it is in */
  from: string;
  tab: string;
}

/** Notices when the card that is open here is open in other tabs too, and when the last of them has gone. */
@Injectable()
export class OpenElsewhere implements OnDestroy {
  private readonly tabs = inject(Tabs);
  private readonly channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('diptychon-open-cards');
  private readonly from = crypto.randomUUID();
  private readonly others = signal<ReadonlySet<string>>(new Set());
  private readonly ended = new AbortController();
  private readonly leave = (): void => this.say('left');
  private id: string | undefined;
  readonly elsewhere = computed(() => this.others().size > 0);

  constructor() {
    this.channel?.addEventListener('message', ({ data }: MessageEvent<Word>) => this.hear(data));
    addEventListener('pagehide', this.leave);
  }

  /** Says that a card is open here now, and asks who else has it. */
  open(id: string): void {
    if (this.id) this.say('left');
    this.id = id;
    this.others.set(new Set());
    this.say('opened');
  }

  ngOnDestroy(): void {
    this.say('left');
    this.ended.abort();
    removeEventListener('pagehide', this.leave);
    this.channel?.close();
  }

  private hear({ about, says, from, tab }: Word): void {
    if (about !== this.id) return;
    if (says === 'left') return this.forget(from);
    if (says === 'opened') this.say('here');
    this.others.update((known) => new Set(known).add(from));
    // A tab that crashes says nothing.
    this.tabs.gone(tab, this.ended.signal).then(
      () => this.forget(from),
      () => undefined,
    );
  }

  private forget(from: string): void {
    this.others.update((known) => new Set([...known].filter((other) => other !== from)));
  }

  private say(says: Word['says']): void {
    if (this.id) this.channel?.postMessage({ about: this.id, says, from: this.from, tab: this.tabs.own } satisfies Word);
  }
}
