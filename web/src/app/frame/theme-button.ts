import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Button } from 'primeng/button';
import { Preferences, type ThemeChoice } from './preferences';

const NEXT: Record<ThemeChoice, ThemeChoice> = { system: 'light', light: 'dark', dark: 'system' };
const ICON: Record<ThemeChoice, string> = { system: 'icon icon-desktop', light: 'icon icon-sun', dark: 'icon icon-moon' };
const WORDS: Record<ThemeChoice, string> = { system: 'as the system', light: 'light', dark: 'dark' };
const NAMES: Record<ThemeChoice, string> = { system: 'Light or dark', light: 'Light', dark: 'Dark' };

/** Light, dark, or as the system has it. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-theme-button',
  imports: [Button],
  template: `<p-button
    size="small"
    severity="secondary"
    [text]="true"
    [icon]="icon()"
    [label]="word()"
    [ariaLabel]="label()"
    (onClick)="next()"
  />`,
})
export class ThemeButton {
  private readonly preferences = inject(Preferences);
  protected readonly icon = computed(() => ICON[this.preferences.theme()]);
  protected readonly word = computed(() => NAMES[this.preferences.theme()]);
  protected readonly label = computed(() => `Light and dark: ${WORDS[this.preferences.theme()]}. Change`);

  protected next(): void {
    this.preferences.theme.update((theme) => NEXT[theme]);
  }
}
