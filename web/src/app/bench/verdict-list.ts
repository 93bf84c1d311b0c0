import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import type { Finding } from '@diptychon/core';

/** Verdicts as sentences: what must change, what to look at, what is fine. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-verdict-list',
  template: `
    <p class="summary" role="status" [class]="instead() ? 'unjudged' : worst()">
      <span class="sign" aria-hidden="true"></span>
      {{ instead() ?? summary() }}
    </p>
    <ul [class.old]="instead()">
      @for (finding of notable(); track finding.id) {
        <li [class]="finding.severity" [class.shown]="shown() === finding.id" [class.follows]="finding.followsFrom">
          <span class="sign" aria-hidden="true"></span>
          <div>
            <p class="word">
              {{ words[finding.severity] + (finding.followsFrom ? ', follows from the above' : '') }}
            </p>
            <p class="says">{{ finding.says }}</p>
            @if (finding.fix; as fix) {
              <button type="button" class="fix" (click)="fixed.emit(finding)">{{ fix.says }}</button>
            }
            @if (finding.panels?.length || finding.creases?.length || finding.at !== undefined) {
              <button type="button" class="show" [attr.aria-label]="'Show where: ' + finding.says" (click)="show.emit(finding)">
                Show where
              </button>
            }
          </div>
        </li>
      }
    </ul>
    @if (fine().length) {
      <details [class.old]="instead()" [open]="fineShown()" (toggle)="fineShown.set($any($event.target).open)">
        <summary>{{ fine().length === 1 ? 'One check passes' : fine().length + ' checks pass' }}</summary>
        <ul>
          @for (finding of fine(); track finding.id) {
            <li class="pass" [class.shown]="shown() === finding.id">
              <span class="sign" aria-hidden="true"></span>
              <p class="says">{{ finding.says }}</p>
            </li>
          }
        </ul>
      </details>
    }
  `,
  styleUrl: './verdict-list.scss',
})
export class VerdictList {
  readonly findings = input.required<readonly Finding[]>();
  readonly shown = input<string>();
  /** why these are not the findings of the card as it is now; said in place of the verdict */
  readonly instead = input<string>();
  readonly show = output<Finding>();
  readonly fixed = output<Finding>();

  protected readonly words = { fail: 'Must change', warn: 'Look at this', pass: 'Fine' };
  protected readonly notable = computed(() => this.findings().filter((f) => f.severity !== 'pass'));
  protected readonly fine = computed(() => this.findings().filter((f) => f.severity === 'pass'));
  /** With nothing to look at, what passed is what there is to read. */
  protected readonly fineShown = linkedSignal(() => this.notable().length === 0);
  protected readonly worst = computed(() => this.findings()[0]?.severity ?? 'pass');
  protected readonly summary = computed(() => summarise(this.findings()));
}

/** One sentence for the whole list. */
export function summarise(findings: readonly Finding[]): string {
  const count = (severity: Finding['severity']): number => findings.filter((f) => f.severity === severity).length;
  const [fails, warns] = [count('fail'), count('warn')];
  if (fails > 0) return `${fails === 1 ? 'One thing' : `${fails} things`} must change before you cut.`;
  if (warns > 0) return `Ready to make; ${warns === 1 ? 'one thing' : `${warns} things`} to look at.`;
  return 'Ready to make: every check passes.';
}
