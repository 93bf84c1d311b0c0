import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import {
  compared,
  printArea,
  sayLength,
  verdictLine,
  type CardDocument,
  type CardPictures,
  type Comparison,
  type Evaluation,
} from '@diptychon/core';
import { firstValueFrom } from 'rxjs';
import { CardStore } from '../cards/card-store';
import { MovingPicture } from '../drawings/moving-picture';
import { Evaluator } from '../evaluation/evaluator';
import { ChoiceRow } from '../fields/choice-row';

/** What the card can be looked at beside. */
interface Other {
  value: string;
  label: string;
  card: CardDocument;
}

/** One line of the table: what, of the other card, and of this one. */
interface Line {
  what: string;
  other: string;
  own: string;
}

interface Looked {
  other: Other;
  of: Evaluation;
  comparison: Comparison;
  verdicts: { other: string; own: string };
  pictures: { other?: CardPictures; own?: CardPictures };
}

const NONE = '—';

/** The card beside what it was when it was opened, when nothing failed last, or beside another card of the shelf. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-beside-another',
  imports: [ChoiceRow, MovingPicture],
  template: `
    @if (chosen(); as chosen) {
      <dip-choice-row
        class="row choice"
        fieldId="beside-which"
        label="Beside"
        [options]="others()"
        [value]="chosen.value"
        (chosen)="wanted.set($event)"
      />
      @if (trouble(); as says) {
        <p class="bad" role="alert">{{ says }}</p>
      } @else if (looked(); as both) {
        <div class="both">
          <figure>
            <figcaption>{{ both.other.label }}: {{ both.verdicts.other }}</figcaption>
            @if (both.pictures.other; as pictures) {
              <dip-moving-picture [pictures]="pictures.pictures" />
            }
          </figure>
          <figure>
            <figcaption>As it is now: {{ both.verdicts.own }}</figcaption>
            @if (both.pictures.own; as pictures) {
              <dip-moving-picture [pictures]="pictures.pictures" />
            }
          </figure>
        </div>
        <table>
          <caption>
            Both beside each other
          </caption>
          <thead>
            <tr>
              <td></td>
              <th scope="col">{{ both.other.label }}</th>
              <th scope="col">Now</th>
            </tr>
          </thead>
          <tbody>
            @for (line of lines(); track line.what) {
              <tr>
                <th scope="row">{{ line.what }}</th>
                <td>{{ line.other }}</td>
                <td>{{ line.own }}</td>
              </tr>
            }
          </tbody>
        </table>
        @if (both.comparison.goes.length) {
          <p class="help">Said of the other only:</p>
          <ul>
            @for (finding of both.comparison.goes; track finding.id) {
              <li>{{ finding.says }}</li>
            }
          </ul>
        }
        @if (both.comparison.comes.length) {
          <p class="help">Said of this one only:</p>
          <ul>
            @for (finding of both.comparison.comes; track finding.id) {
              <li>{{ finding.says }}</li>
            }
          </ul>
        }
      } @else {
        <p role="status">Working the other card out…</p>
      }
    } @else {
      <p role="status">It is as it was when you opened it, and there is no other card on the shelf.</p>
    }
  `,
  styleUrl: './trial-panel.scss',
})
export class BesideAnother {
  readonly evaluation = input.required<Evaluation>();
  readonly opened = input<CardDocument>();
  readonly lastGood = input<CardDocument>();

  private readonly evaluator = inject(Evaluator);
  private readonly shelf = signal<readonly CardDocument[]>([]);
  protected readonly wanted = signal<string | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly looked = signal<Looked | undefined>(undefined);
  protected readonly others = computed((): Other[] => {
    const { card } = this.evaluation().design;
    const isOther = (other: CardDocument | undefined): other is CardDocument =>
      other !== undefined && JSON.stringify(other) !== JSON.stringify(card);
    const [good, opened] = [this.lastGood(), this.opened()];
    return [
      ...(isOther(good) ? [{ value: 'good', label: 'When nothing failed last', card: good }] : []),
      ...(isOther(opened) ? [{ value: 'opened', label: 'When you opened it', card: opened }] : []),
      ...this.shelf()
        .filter(({ id }) => id !== card.id)
        .map((other) => ({ value: other.id, label: other.name, card: other })),
    ];
  });
  protected readonly chosen = computed(
    (): Other | undefined => this.others().find(({ value }) => value === this.wanted()) ?? this.others()[0],
  );
  protected readonly lines = computed((): Line[] => {
    const looked = this.looked();
    return looked ? linesOf(looked.comparison, this.evaluation().design.card) : [];
  });

  constructor() {
    inject(CardStore)
      .all()
      .then(
        (cards) => this.shelf.set(cards.map(({ card }) => card)),
        // Without the shelf there are still its own states.
        () => undefined,
      );
    effect(() => {
      const [other, evaluation] = [this.chosen(), this.evaluation()];
      untracked(() => {
        if (other) void this.look(other, evaluation);
      });
    });
  }

  private async look(other: Other, of: Evaluation): Promise<void> {
    const isStill = (): boolean => this.chosen()?.value === other.value && this.evaluation() === of;
    const answer = await firstValueFrom(this.evaluator.once(other.card));
    if (!isStill()) return;
    if (answer.ok !== true) {
      this.looked.set(undefined);
      this.trouble.set(answer.ok === false ? answer.problems[0]!.says : answer.says);
      return;
    }
    this.trouble.set(undefined);
    const known: Looked = {
      other,
      of,
      comparison: compared(answer.evaluation, of),
      verdicts: { other: verdictLine(answer.evaluation).says, own: verdictLine(of).says },
      pictures: {},
    };
    this.looked.set(known);
    const [there, own] = await Promise.all([this.evaluator.pictures(other.card), this.evaluator.pictures(of.design.card)]);
    if (isStill()) this.looked.set({ ...known, pictures: { ...(there && { other: there }), ...(own && { own }) } });
  }
}

/** What two cards measure and take, and every size that differs. */
function linesOf({ closed, openHeight, pieces, stocks, sizes }: Comparison, { notation }: CardDocument): Line[] {
  const say = (mm: number): string => sayLength(Math.round(mm * 100) / 100, notation);
  const isSeveral = new Set(sizes.map(({ part }) => part)).size > 1;
  return [
    { what: 'Closed, wide', other: say(closed.before.width), own: say(closed.after.width) },
    { what: 'Closed, high', other: say(closed.before.height), own: say(closed.after.height) },
    { what: 'Thickness', other: say(closed.before.thickness), own: say(closed.after.thickness) },
    { what: 'Height when open', other: say(openHeight.before), own: say(openHeight.after) },
    { what: 'Pieces', other: String(pieces.before), own: String(pieces.after) },
    ...stocks.map(({ stock, before, after }) => ({
      what: `Blanks of ${stock}`,
      other: before > 0 ? printArea(before, notation) : NONE,
      own: after > 0 ? printArea(after, notation) : NONE,
    })),
    ...sizes.map(({ part, label, before, after }) => ({
      what: isSeveral ? `${part}: ${label.toLowerCase()}` : label,
      other: before ?? NONE,
      own: after ?? NONE,
    })),
  ];
}
