import { ComponentFixture, TestBed } from '@angular/core/testing';
import type { Finding } from '@diptychon/core';
import { summarise, VerdictList } from './verdict-list';

const finding = (id: string, severity: Finding['severity'], more: Partial<Finding> = {}): Finding => ({
  id,
  check: id.split('/')[0]!,
  severity,
  says: `${id} says so.`,
  owner: 'base',
  shortfall: 0,
  ...more,
});

describe('VerdictList', () => {
  let fixture: ComponentFixture<VerdictList>;
  const text = (): string => fixture.nativeElement.textContent;
  const buttons = (): HTMLButtonElement[] => [...fixture.nativeElement.querySelectorAll('button')];

  async function show(findings: Finding[]): Promise<void> {
    fixture.componentRef.setInput('findings', findings);
    await fixture.whenStable();
  }

  beforeEach(() => (fixture = TestBed.createComponent(VerdictList)));

  it('says why there is no verdict, in its place, and never that the card is ready', async () => {
    fixture.componentRef.setInput('instead', 'Working it out…');
    await show([finding('bulk', 'pass')]);
    expect(text()).toContain('Working it out…');
    expect(text()).not.toContain('Ready to make');
    expect(fixture.nativeElement.querySelector('ul').classList).toContain('old');
  });

  it('puts what must change before what passes, which folds away', async () => {
    await show([finding('stays-inside/x', 'fail'), finding('bulk', 'pass'), finding('meets', 'pass')]);
    expect(text()).toContain('Must change');
    expect(text()).toContain('2 checks pass');
    expect(fixture.nativeElement.querySelector('details').open).toBe(false);
  });

  it('opens the passed checks when there is nothing else to read', async () => {
    await show([finding('bulk', 'pass')]);
    expect(fixture.nativeElement.querySelector('details').open).toBe(true);
    expect(text()).toContain('One check passes');
  });

  it('says which finding follows from another', async () => {
    await show([finding('closes-loop', 'fail'), finding('folds-flat', 'fail', { followsFrom: 'closes-loop' })]);
    expect(text()).toContain('Must change, follows from the above');
  });

  it('offers to show the place only where there is one, and to mend only where that is known', async () => {
    await show([finding('a', 'fail'), finding('b', 'warn', { panels: ['base/strut'], fix: { says: 'Raise the stop.', changes: [] } })]);
    expect(buttons().map((b) => b.textContent!.trim())).toEqual(['Raise the stop.', 'Show where']);
  });

  it('hands over the finding to show and to mend', async () => {
    const low = finding('b', 'warn', { panels: ['base/strut'], fix: { says: 'Raise the stop.', changes: [] } });
    const heard: string[] = [];
    fixture.componentInstance.show.subscribe((f) => heard.push(`show ${f.id}`));
    fixture.componentInstance.fixed.subscribe((f) => heard.push(`fix ${f.id}`));
    await show([low]);
    buttons().forEach((button) => button.click());
    expect(heard).toEqual(['fix b', 'show b']);
  });
});

describe('the summary of verdicts', () => {
  it('counts in words', () => {
    expect(summarise([finding('a', 'pass')])).toBe('Ready to make: every check passes.');
    expect(summarise([finding('a', 'warn'), finding('b', 'pass')])).toBe('Ready to make; one thing to look at.');
    expect(summarise([finding('a', 'fail'), finding('b', 'warn')])).toBe('One thing must change before you cut.');
    expect(summarise([finding('a', 'fail'), finding('b', 'fail')])).toBe('2 things must change before you cut.');
  });
});
