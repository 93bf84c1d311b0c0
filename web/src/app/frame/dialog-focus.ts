import { Directive, effect, inject } from '@angular/core';
import { Dialog } from 'primeng/dialog';

const TAKES_FOCUS = ':is(a[href], button, input, select, textarea, [tabindex="0"]):not(:disabled)';

/**
 * Gives a dialog the focus at once. Of itself it takes it only after it has moved into place and a while more: whoever
 * pressed a key meanwhile was still on the screen behind it, and with enough of them never came in.
 */
@Directive({ selector: 'p-dialog' })
export class DialogFocus {
  constructor() {
    const dialog = inject(Dialog);
    dialog.focusOnShow = false;
    effect(() => {
      const shown = dialog.container() as HTMLElement | null;
      // What the dialog is about comes before the cross that closes it.
      const first = shown?.querySelector<HTMLElement>(`.p-dialog-content ${TAKES_FOCUS}`) ?? shown?.querySelector<HTMLElement>(TAKES_FOCUS);
      first?.focus({ preventScroll: true });
    });
  }
}
