import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { printAngle, sayInWords, type Evaluation } from '@diptychon/core';
import { BentCard, type ToldBend } from './bent-card';

/** Openings of the table are about this far apart (radians). */
const STEP = Math.PI / 12;

/** How the panels bend that no stiff motion opens: in sentences, a table of openings, and what each stock takes. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-bend-view',
  template: `
    <div class="told" tabindex="0" role="region" aria-label="How it bends">
      @for (bend of shown(); track bend.id) {
        <section>
          @for (sentence of bend.sentences; track $index) {
            <p>{{ sentence }}</p>
          }
          <div class="tables">
            <table>
              <caption>
                Bent by
              </caption>
              <thead>
                <tr>
                  <th scope="col">Open</th>
                  <th scope="col">as it opens</th>
                  <th scope="col">as it closes</th>
                </tr>
              </thead>
              <tbody>
                @for (line of bend.lines; track line.opening) {
                  <tr class="numerals">
                    <th scope="row">{{ line.opening }}</th>
                    <td>{{ line.opens }}</td>
                    <td>{{ line.closes }}</td>
                  </tr>
                }
              </tbody>
            </table>
            <table>
              <caption>
                Stocks, opened from closed
              </caption>
              <thead>
                <tr>
                  <th scope="col">Stock</th>
                  <th scope="col">least radius</th>
                  <th scope="col">creases from</th>
                </tr>
              </thead>
              <tbody>
                @for (stock of bend.stocks; track stock.name) {
                  <tr>
                    <th scope="row">{{ stock.name }}{{ stock.own ? ' (this card)' : '' }}</th>
                    <td class="numerals">{{ stock.radius }}</td>
                    <td class="numerals">{{ stock.creases }}</td>
                  </tr>
                }
              </tbody>
            </table>
          </div>
        </section>
      } @empty {
        @if (bent.failed()) {
          <p role="status">How it bends could not be worked out.</p>
        } @else if (bent.rows()) {
          <p role="status">How it bends is not worked out, because it does not come together: the verdicts say where, and by how much.</p>
        } @else {
          <p role="status">Working out how it bends: {{ percent() }} %…</p>
          <progress [value]="bent.share()" max="1" aria-label="Worked out so far"></progress>
        }
      }
      <p class="hint">
        Worked out for a sheet that does not stretch, between panels that stay flat: real card gives a little everywhere, so take angles as
        within ten degrees. How sharply a stock can be bent is an estimate from its thickness; try a scrap.
      </p>
    </div>
  `,
  styleUrl: './bend-view.scss',
})
export class BendView {
  readonly evaluation = input.required<Evaluation>();
  protected readonly bent = inject(BentCard);
  protected readonly percent = computed(() => Math.floor(this.bent.share() * 100));
  protected readonly shown = computed(() => this.bent.told()?.map((told) => this.laidOut(told)) ?? []);

  private laidOut({ row, reading, sentences }: ToldBend) {
    const { notation } = this.evaluation().design.card;
    const angle = (radians: number): string => printAngle(Math.round((radians * 180) / Math.PI) * (Math.PI / 180), notation);
    const lines = row.openings.flatMap((opening, i) => {
      const isNext = i === 0 || Math.floor(opening / STEP + 1e-6) > Math.floor(row.openings[i - 1]! / STEP + 1e-6);
      if (!isNext) return [];
      const { creasesFrom = Infinity, snapsAt = Infinity, closingCreasesBelow = -1 } = reading;
      const shut = opening === 0;
      return [
        {
          opening: angle(opening),
          opens: opening >= creasesFrom && opening < snapsAt ? 'creased' : angle(row.opening.shapes[i]!.angle),
          closes: opening <= closingCreasesBelow && !shut ? 'creased' : angle(row.closing.shapes[i]!.angle),
        },
      ];
    });
    const stocks = reading.stocks.map(({ name, own, leastRadius, creasesFrom }) => ({
      name,
      own,
      radius: sayInWords(leastRadius, notation),
      creases: creasesFrom === undefined ? 'never' : angle(creasesFrom),
    }));
    return { id: row.claim.id, sentences, lines, stocks };
  }
}
