/** What a page tells of itself while it is used. Times are of the page's own clock, ms. */
export interface Marks {
  /** when something was typed, pressed or moved: as the browser took it in */
  given: number[];
  /** when sizes, numbers or verdicts on the page changed */
  committed: number[];
  /** pictures of the standing card: when drawing began, and when the drawing program had finished it */
  drawn: { began: number; done: number }[];
}

/**
 * Runs in the page before anything of it does: notes what is given to it, when its numbers change, and when each picture in the
 * round is really finished. The last is asked of the drawing program without waiting for it, so that asking costs nothing.
 */
export function stopwatch(): void {
  const marks: Marks = { given: [], committed: [], drawn: [] };
  (window as unknown as { marks: Marks }).marks = marks;
  for (const kind of ['input', 'pointermove']) {
    window.addEventListener(kind, ({ timeStamp }) => marks.given.push(timeStamp), { capture: true });
  }
  let underway = false;
  const pending: (() => boolean)[] = [];
  const look = (): void => {
    while (pending[0]?.()) pending.shift();
    if (pending.length > 0) setTimeout(look, 3);
  };
  const watch = (gl: WebGL2RenderingContext): void => {
    if (underway) return;
    underway = true;
    const began = performance.now();
    queueMicrotask(() => {
      underway = false;
      const sync = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0)!;
      gl.flush();
      pending.push(() => {
        if (gl.getSyncParameter(sync, gl.SYNC_STATUS) !== gl.SIGNALED) return false;
        gl.deleteSync(sync);
        marks.drawn.push({ began, done: performance.now() });
        return true;
      });
      if (pending.length === 1) setTimeout(look, 3);
    });
  };
  for (const name of ['drawElements', 'drawArrays', 'drawElementsInstanced', 'drawArraysInstanced'] as const) {
    const draw = WebGL2RenderingContext.prototype[name] as (...given: unknown[]) => void;
    Object.assign(WebGL2RenderingContext.prototype, {
      [name](this: WebGL2RenderingContext, ...given: unknown[]) {
        watch(this);
        draw.apply(this, given);
      },
    });
  }
  document.addEventListener('DOMContentLoaded', () => {
    // Lines and grips on the flat piece are drawn of a card that was judged, and of no other.
    new MutationObserver((changes) => {
      if (changes.some(({ target }) => (target as Element).closest('dip-flat-view'))) marks.committed.push(performance.now());
    }).observe(document.body, { subtree: true, attributes: true, attributeFilter: ['cx', 'cy', 'd'] });
  });
}

/** The share-th of what was measured, 0 to 1. */
export function quantile(times: readonly number[], share: number): number {
  const sorted = [...times].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
}
