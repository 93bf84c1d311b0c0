import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { Button } from 'primeng/button';

/** Back and forth through what was changed, each named. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-undo-buttons',
  imports: [Button],
  template: `
    <p-button
      size="small"
      severity="secondary"
      icon="icon icon-undo"
      [text]="true"
      [label]="undoes()"
      [disabled]="!undoWhat()"
      (onClick)="undo.emit()"
    />
    <p-button
      size="small"
      severity="secondary"
      icon="icon icon-redo"
      [text]="true"
      label="Redo"
      [ariaLabel]="redoes()"
      [disabled]="!redoWhat()"
      (onClick)="redo.emit()"
    />
  `,
  styles: ':host { display: contents; }',
})
export class UndoButtons {
  readonly undoWhat = input<string>();
  readonly redoWhat = input<string>();
  readonly undo = output();
  readonly redo = output();
  protected readonly undoes = computed(() => (this.undoWhat() ? `Undo: ${this.undoWhat()}` : 'Undo'));
  protected readonly redoes = computed(() => (this.redoWhat() ? `Redo: ${this.redoWhat()}` : 'Redo'));
}
