import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ThemeButton } from './theme-button';

type Screen = 'shelf' | 'movements' | 'workshop' | 'logbook' | 'guide';

const SCREENS: readonly { id: Screen; title: string; path: string }[] = [
  { id: 'shelf', title: 'Shelf', path: '/' },
  { id: 'movements', title: 'Movements', path: '/movements' },
  { id: 'workshop', title: 'Workshop', path: '/workshop' },
  { id: 'logbook', title: 'Logbook', path: '/logbook' },
  { id: 'guide', title: 'Guide', path: '/guide' },
];

/** The bar on top of the screens that belong to no single card. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-screen-bar',
  imports: [RouterLink, ThemeButton],
  template: `
    <header>
      <p class="mark">Diptychon</p>
      <nav aria-label="Screens">
        @for (screen of screens; track screen.id) {
          <a [routerLink]="screen.path" [attr.aria-current]="screen.id === at() ? 'page' : null">{{ screen.title }}</a>
        }
      </nav>
      <ng-content />
      <dip-theme-button />
    </header>
  `,
  styles: `
    header {
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem 1.5rem;
      align-items: center;
      padding: 0.9rem 0;
      border-bottom: 1px solid var(--line);
    }
    .mark {
      margin: 0;
      font-family: var(--titles);
      font-weight: 600;
      font-size: 1.5rem;
    }
    nav {
      display: flex;
      flex: 1;
      flex-wrap: wrap;
      gap: 0 1rem;
    }
    a {
      padding: 0.4rem 0.2rem;
      color: var(--ink);
    }
    a[aria-current] {
      font-weight: 700;
      text-decoration: none;
      border-bottom: 3px solid var(--moss);
    }
  `,
})
export class ScreenBar {
  readonly at = input.required<Screen>();
  protected readonly screens = SCREENS;
}
