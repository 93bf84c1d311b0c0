import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, contentChild, input, model, output, TemplateRef } from '@angular/core';

/** One thing that a card wears, as it stands in a list. */
export interface WornEntry {
  id: string;
  /** as it stands on drawings; none where it has no place now */
  number: string | undefined;
  title: string;
}

/** A list of what a card wears: each entry opens to what can be changed of it, which the list around it fills in. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-worn-entries',
  imports: [NgTemplateOutlet],
  template: `
    <h3>{{ heading() }}</h3>
    <ul class="faces" [attr.aria-label]="heading()">
      @for (entry of entries(); track entry.id) {
        <li (pointerenter)="lit.emit(entry)" (pointerleave)="lit.emit(undefined)">
          <button
            type="button"
            class="face"
            [attr.aria-expanded]="chosen() === entry.id"
            [attr.aria-controls]="'worn-' + entry.id"
            (click)="toggle(entry)"
            (focus)="lit.emit(entry)"
            (blur)="lit.emit(undefined)"
          >
            <span class="numbers"
              ><b>{{ entry.number ?? '–' }}</b></span
            >
            <span class="of">{{ entry.title }}</span>
          </button>
          <div [id]="'worn-' + entry.id" [hidden]="chosen() !== entry.id">
            @if (chosen() === entry.id) {
              <ng-container [ngTemplateOutlet]="body()" [ngTemplateOutletContext]="{ $implicit: entry }" />
              <button type="button" class="more" (click)="taken.emit(entry)">Take it away</button>
            }
          </div>
        </li>
      }
    </ul>
    @if (!full()) {
      <button type="button" class="more" (click)="added.emit()">{{ entries().length ? another() : first() }}</button>
    }
  `,
  styleUrl: './dressing-panel.scss',
})
export class WornEntries<E extends WornEntry> {
  readonly heading = input.required<string>();
  readonly entries = input.required<readonly E[]>();
  /** what the button says that adds one: where there is none yet, and where there is */
  readonly first = input.required<string>();
  readonly another = input.required<string>();
  readonly full = input(false);
  /** id of the entry that is open */
  readonly chosen = model<string>();
  readonly added = output<void>();
  readonly taken = output<E>();
  /** the entry that is pointed at or opened */
  readonly lit = output<E | undefined>();

  protected readonly body = contentChild.required(TemplateRef);

  protected toggle(entry: E): void {
    const opens = this.chosen() !== entry.id;
    this.chosen.set(opens ? entry.id : undefined);
    this.lit.emit(opens ? entry : undefined);
  }
}
