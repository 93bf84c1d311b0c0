/** Longer than this at one step, somebody has gone away (s). */
const LONGEST = 2 * 3600;

/** How long a step is worked at, while it is on screen. */
export class StepClock {
  private since: number | undefined;
  private before = 0;

  /** @param now the time in ms @param visible whether the page is on screen */
  begin(now: number, visible: boolean): void {
    this.before = 0;
    this.since = visible ? now : undefined;
  }

  /** The page goes from the screen, or comes back. */
  seen(visible: boolean, now: number): void {
    if (visible === (this.since !== undefined)) return;
    if (visible) this.since = now;
    else {
      this.before += now - this.since!;
      this.since = undefined;
    }
  }

  /** Whole seconds since it was begun or taken last. */
  take(now: number): number {
    const ms = this.before + (this.since === undefined ? 0 : now - this.since);
    this.begin(now, this.since !== undefined);
    return Math.min(LONGEST, Math.round(ms / 1000));
  }
}
