import { ChangeDetectionStrategy, Component, computed, effect, inject, input, OnDestroy, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { factsOf, mechanismById, MECHANISMS, sayLength } from '@diptychon/core';
import { ScreenBar } from '../frame/screen-bar';
import { WorkshopStore } from '../workshop/workshop-store';

/** The page of one movement: its drawing, its sizes with their limits, its pieces, and every number with its reason. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-movement-guide',
  imports: [RouterLink, ScreenBar],
  templateUrl: './movement-guide.html',
  styleUrl: './movement-guide.scss',
})
export class MovementGuide implements OnDestroy {
  readonly id = input.required<string>();
  private readonly workshop = inject(WorkshopStore).workshop;

  protected readonly mechanism = computed(() => {
    const known = MECHANISMS.find(({ id }) => id === this.id());
    return known && mechanismById(known.id);
  });
  protected readonly facts = computed(() => {
    const mechanism = this.mechanism();
    const { notation } = this.workshop();
    return mechanism && factsOf(mechanism, (mm) => sayLength(mm, notation));
  });
  protected readonly drawing = signal<string | undefined>(undefined);

  constructor() {
    effect(() => {
      const svg = this.facts()?.drawing;
      this.letGo();
      this.last = svg && URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
      this.drawing.set(this.last);
    });
  }

  ngOnDestroy(): void {
    this.letGo();
  }

  private last: string | undefined;

  private letGo(): void {
    if (this.last) URL.revokeObjectURL(this.last);
    this.last = undefined;
  }
}
