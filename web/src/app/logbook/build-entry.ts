import { ChangeDetectionStrategy, Component, computed, effect, inject, input, OnDestroy, output, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { parseLength, plainMm, plannedMeasures, sayLength, secondsOf, type Build, type Mm, type PlannedMeasure } from '@diptychon/core';
import { firstValueFrom } from 'rxjs';
import { CardStore } from '../cards/card-store';
import { Evaluator } from '../evaluation/evaluator';
import { WorkshopStore } from '../workshop/workshop-store';
import { LogbookStore, type WrittenField } from './logbook-store';
import { dayOf, durationOf } from './spoken-time';

/** Farther off than this a measured length is hardly what was planned: it may be another line. */
const FAR_OFF: Mm = 15;

/** A change of a build, as a function on it. */
export interface BuildChange {
  id: string;
  apply: (build: Build) => Build;
}

/** What is typed into a field of a build. */
export interface BuildWriting {
  id: string;
  field: WrittenField;
  text: string;
}

/** One build: how long it took, what came out, what went wrong, and what was thought of it. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-build-entry',
  imports: [RouterLink],
  templateUrl: './build-entry.html',
  styleUrl: './build-entry.scss',
})
export class BuildEntry implements OnDestroy {
  readonly build = input.required<Build>();
  readonly changed = output<BuildChange>();
  readonly written = output<BuildWriting>();
  readonly photosAdded = output<readonly File[]>();
  readonly photoRemoved = output<string>();
  readonly removed = output();

  private readonly logbook = inject(LogbookStore);
  private readonly store = inject(CardStore);
  private readonly evaluator = inject(Evaluator);
  private readonly workshop = inject(WorkshopStore).workshop;

  protected readonly day = dayOf;
  protected readonly duration = durationOf;
  protected readonly total = computed(() => secondsOf(this.build()));
  protected readonly notation = computed(() => this.build().as.notation);
  /** what of the card can be measured; nothing while it is worked out */
  protected readonly planned = signal<readonly PlannedMeasure[] | undefined>(undefined);
  protected readonly refused = signal<string | undefined>(undefined);
  protected readonly photos = signal<readonly { id: string; url: string }[]>([]);
  protected readonly onShelf = signal<string | undefined>(undefined);
  private readonly buildId = computed(() => this.build().id);
  private readonly photoKey = computed(() => `${this.build().id} ${this.build().photos.join(' ')}`);

  constructor() {
    effect(() => {
      this.buildId();
      untracked(() => void this.plan());
    });
    effect(() => {
      this.photoKey();
      untracked(() => void this.showPhotos());
    });
  }

  ngOnDestroy(): void {
    this.letGo();
  }

  protected say(mm: Mm): string {
    return sayLength(mm, this.notation());
  }

  /** How far a measured length is from the planned one, with its sign. */
  protected off({ planned, measured }: Build['measures'][number]): string {
    const by = measured - planned;
    return Math.abs(by) < 0.005 ? 'as planned' : `${by > 0 ? '+' : '−'}${this.fine(Math.abs(by))}`;
  }

  /** Less than the marks of a ruler tell apart. */
  private fine(mm: Mm): string {
    return this.notation().startsWith('inch') ? this.say(mm) : plainMm(mm, this.notation());
  }

  protected write(field: WrittenField, text: string): void {
    const most = field === 'forWhom' ? 200 : 4000;
    this.written.emit({ id: this.build().id, field, text: text.slice(0, most) });
  }

  /** Takes a measured length, or says why not. @returns whether it was taken */
  protected measure(nth: number, typed: string): boolean {
    const planned = this.planned()?.[nth];
    if (!planned) return false;
    const reading = parseLength(typed, this.notation(), 'Measured');
    if (!reading.ok) {
      this.refused.set(reading.problem);
      return false;
    }
    if (!(reading.value >= 0) || Math.abs(reading.value - planned.planned) > FAR_OFF) {
      this.refused.set(
        `Measured: ${this.say(reading.value)} is more than ${this.say(FAR_OFF)} from the ${this.say(planned.planned)} that were planned: is it another line?`,
      );
      return false;
    }
    this.refused.set(undefined);
    const measured = reading.value;
    this.changed.emit({ id: this.build().id, apply: (build) => ({ ...build, measures: [...build.measures, { ...planned, measured }] }) });
    return true;
  }

  protected forget(list: 'measures' | 'faults', nth: number): void {
    this.changed.emit({ id: this.build().id, apply: (build) => ({ ...build, [list]: build[list].filter((_, i) => i !== nth) }) });
  }

  protected addPhotos(field: HTMLInputElement): void {
    this.photosAdded.emit([...(field.files ?? [])]);
    field.value = '';
  }

  /** The card as it was when it was made, beside the one that has gone on. */
  protected async asThen(): Promise<void> {
    const { as, begunAt } = this.build();
    const id = crypto.randomUUID();
    try {
      await this.store.addAll([{ ...as, id, name: `${as.name}, as made on ${dayOf(begunAt)}` }]);
      this.onShelf.set(id);
    } catch {
      this.refused.set('The card could not be put on the shelf: the browser’s storage may be full.');
    }
  }

  private async plan(): Promise<void> {
    const { id, as } = this.build();
    this.planned.set(undefined);
    this.onShelf.set(undefined);
    this.refused.set(undefined);
    const answer = await firstValueFrom(this.evaluator.once(as));
    if (this.build().id !== id) return;
    this.planned.set(answer.ok === true ? plannedMeasures(answer.evaluation, this.workshop()) : []);
  }

  private async showPhotos(): Promise<void> {
    const { id, photos } = this.build();
    const kept = await this.logbook.photosOf(id);
    if (this.build().id !== id) return;
    this.letGo();
    this.photos.set(
      photos.flatMap((photo) => {
        const found = kept.find((each) => each.id === photo);
        return found ? [{ id: photo, url: URL.createObjectURL(new Blob([found.bytes], { type: found.type })) }] : [];
      }),
    );
  }

  private letGo(): void {
    for (const { url } of this.photos()) URL.revokeObjectURL(url);
  }
}
