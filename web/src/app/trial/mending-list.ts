import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, input, output, signal } from '@angular/core';
import type { CardDocument, CardPictures, Finding, Repair, RepairOffer } from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { MovingPicture } from '../drawings/moving-picture';
import { Evaluator } from '../evaluation/evaluator';
import { TrialWork } from './trial-work';

/** An offer with what the card looks like before and after. */
interface Looked {
  offer: RepairOffer;
  before?: CardPictures;
  after?: CardPictures;
}

/** The least changes of sizes that put the card right, each tried out whole, to be looked at beside the card as it is, and taken. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-mending-list',
  imports: [MovingPicture],
  template: `
    @if (searching()) {
      <p role="status">Trying sizes out…</p>
      <progress [value]="share()" aria-label="How much of the search is done at the most"></progress>
      <button type="button" (click)="callOff()">Stop looking</button>
    } @else if (found(); as repair) {
      @for (offer of repair.offers; track offer.says) {
        <div class="offer">
          <p class="says">{{ offer.says }}</p>
          <p class="leaves">{{ leavesIn(offer) }}</p>
          <button type="button" class="fix" (click)="take(offer)">Change it so</button>
          <button type="button" [attr.aria-expanded]="looked()?.offer === offer" (click)="look(offer)">Before and after</button>
          @if (looked(); as both) {
            @if (both.offer === offer) {
              <div class="both">
                <figure>
                  <figcaption>As it is: {{ said(findings()) }}</figcaption>
                  @if (both.before; as pictures) {
                    <dip-moving-picture [pictures]="pictures.pictures" />
                  }
                </figure>
                <figure>
                  <figcaption>Changed: {{ said(offer.leaves) }}</figcaption>
                  @if (both.after; as pictures) {
                    <dip-moving-picture [pictures]="pictures.pictures" />
                  }
                </figure>
              </div>
              @if (besides(offer).length) {
                <p class="help">It is said besides:</p>
                <ul>
                  @for (says of besides(offer); track says) {
                    <li>{{ says }}</li>
                  }
                </ul>
              }
            }
          }
        </div>
      } @empty {
        @if (repair.conflict.length) {
          <p role="status">No sizes were found with which these can be had together:</p>
          <ul>
            @for (wish of repair.conflict; track wish.owner) {
              <li>{{ wish.says }}</li>
            }
          </ul>
        } @else {
          <p role="status">{{ nothing() }}</p>
        }
      }
    } @else {
      <p class="help">Sizes are changed as little as will do, inside their limits and on your marks. Each way is tried out whole.</p>
      <button type="button" class="fix" (click)="search()">Look for the least change</button>
    }
  `,
  styleUrl: './trial-panel.scss',
})
export class MendingList {
  readonly card = input.required<CardDocument>();
  readonly findings = input.required<readonly Finding[]>();
  readonly changed = output<CardChange>();

  private readonly evaluator = inject(Evaluator);
  private readonly work = inject(TrialWork);
  protected readonly searching = signal(false);
  /** how much of the search is done at the most */
  protected readonly share = signal(0);
  private underWay: AbortController | undefined;
  private readonly answer = signal<{ of: CardDocument; repair: Repair } | undefined>(undefined);
  /** what was found of another card is none of this one */
  protected readonly found = computed(() => (this.answer()?.of === this.card() ? this.answer()?.repair : undefined));
  protected readonly looked = signal<Looked | undefined>(undefined);
  protected readonly nothing = computed(() =>
    this.found()?.aim === 'warn' && this.findings().every(({ severity }) => severity !== 'warn')
      ? 'Nothing is wrong with it.'
      : 'No change of up to three sizes was found that mends it.',
  );

  constructor() {
    effect(() => {
      this.card();
      this.looked.set(undefined);
      // What is looked for of another card is none of this one.
      this.callOff();
    });
    inject(DestroyRef).onDestroy(() => this.callOff());
  }

  protected async search(): Promise<void> {
    const card = this.card();
    this.callOff();
    const own = new AbortController();
    this.underWay = own;
    this.share.set(0);
    this.searching.set(true);
    const repair = await this.work.repair(card, (share) => this.share.set(share), own.signal);
    if (this.underWay !== own) return;
    this.underWay = undefined;
    this.searching.set(false);
    if (repair) this.answer.set({ of: card, repair });
  }

  /** Ends a search that nobody waits for any more. */
  protected callOff(): void {
    this.underWay?.abort();
    this.underWay = undefined;
    this.searching.set(false);
  }

  protected take(offer: RepairOffer): void {
    this.changed.emit({ what: offer.says.replace(/\.$/, ''), apply: () => offer.card });
  }

  protected async look(offer: RepairOffer): Promise<void> {
    if (this.looked()?.offer === offer) {
      this.looked.set(undefined);
      return;
    }
    this.looked.set({ offer });
    const [before, after] = await Promise.all([this.evaluator.pictures(this.card()), this.evaluator.pictures(offer.card)]);
    if (this.looked()?.offer === offer) this.looked.set({ offer, ...(before && { before }), ...(after && { after }) });
  }

  protected leavesIn({ leaves }: RepairOffer): string {
    return leaves.length === 0
      ? 'Every check passes then.'
      : `Leaves ${leaves.length === 1 ? 'one thing' : `${leaves.length} things`} to look at.`;
  }

  protected said(findings: readonly Finding[]): string {
    const count = (severity: Finding['severity']): number => findings.filter((finding) => finding.severity === severity).length;
    const [fails, warns] = [count('fail'), count('warn')];
    return `${fails} must change, ${warns} to look at`;
  }

  /** What is said against the changed card and not against this one. */
  protected besides({ leaves }: RepairOffer): string[] {
    const now = new Set(this.findings().map(({ id }) => id));
    return leaves.filter(({ id }) => !now.has(id)).map(({ says }) => says);
  }
}
