import { DestroyRef, inject, Injectable } from '@angular/core';
import { NavigationEnd, Router } from '@angular/router';
import { filter, skip } from 'rxjs';

const MOST_REMEMBERED = 12;
/** How long a new screen may take to have its heading (ms). */
const PATIENCE = 8000;

/**
 * The focus never falls back to nowhere: it goes to a new screen's heading and, when what had it is gone with its dialog or
 * list, back to where it was before that.
 */
@Injectable({ providedIn: 'root' })
export class KeptFocus {
  /** what had the focus, the latest last */
  private before: HTMLElement[] = [];
  private headingBy = 0;

  constructor() {
    const remember = ({ target }: FocusEvent): void => {
      if (!(target instanceof HTMLElement)) return;
      this.before = [...this.before.filter((other) => other !== target), target].slice(-MOST_REMEMBERED);
    };
    const watch = new MutationObserver(() => this.mend());
    document.addEventListener('focusin', remember);
    watch.observe(document.body, { childList: true, subtree: true });
    const visits = inject(Router)
      .events.pipe(
        filter((event) => event instanceof NavigationEnd),
        skip(1),
      )
      .subscribe(() => {
        this.before = [];
        this.headingBy = performance.now() + PATIENCE;
        this.toHeading();
      });
    inject(DestroyRef).onDestroy(() => {
      document.removeEventListener('focusin', remember);
      watch.disconnect();
      visits.unsubscribe();
    });
  }

  /** Past what is the same on every screen. */
  toMain(): void {
    const main = document.querySelector<HTMLElement>('main');
    if (!main) return;
    main.tabIndex = -1;
    main.focus();
  }

  private mend(): void {
    if (document.activeElement && document.activeElement !== document.body) return;
    const last = this.before.at(-1);
    // What is still there was left by a click beside it: that is no loss.
    if (last && !last.isConnected) {
      const back = this.before.findLast((element) => element.isConnected && element.checkVisibility?.() !== false);
      this.before = back ? [back] : [];
      if (back) back.focus();
      else this.toHeading();
    } else if (performance.now() < this.headingBy) this.toHeading();
  }

  private toHeading(): void {
    const heading = document.querySelector<HTMLElement>('h1');
    if (!heading) return;
    heading.tabIndex = -1;
    heading.focus({ preventScroll: true });
  }
}
