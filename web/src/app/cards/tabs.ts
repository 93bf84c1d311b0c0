import { Injectable } from '@angular/core';

const PREFIX = 'diptychon-tab:';

/**
 * Which tabs of this browser are open. Each holds a lock of its own for as long as it lives, however it ends: a tab that
 * was killed never says that it left.
 */
@Injectable({ providedIn: 'root' })
export class Tabs {
  readonly own = crypto.randomUUID();
  private readonly locks = typeof navigator === 'undefined' ? undefined : navigator.locks;

  constructor() {
    this.locks?.request(PREFIX + this.own, () => new Promise<never>(() => undefined)).catch(() => undefined);
  }

  /** The tabs that live, this one among them; nothing where the browser cannot tell. */
  async living(): Promise<ReadonlySet<string> | undefined> {
    if (!this.locks) return undefined;
    try {
      const { held = [] } = await this.locks.query();
      return new Set([this.own, ...held.flatMap(({ name }) => (name?.startsWith(PREFIX) ? [name.slice(PREFIX.length)] : []))]);
    } catch {
      return undefined;
    }
  }

  /** Resolves when another tab is no more. Never where the browser cannot tell. */
  async gone(tab: string, nevermind: AbortSignal): Promise<void> {
    if (!this.locks) return new Promise(() => undefined);
    await this.locks.request(PREFIX + tab, { signal: nevermind, mode: 'shared' }, () => undefined);
  }
}
