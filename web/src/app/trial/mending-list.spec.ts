import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { setSize, type CardDocument, type Finding, type Repair } from '@diptychon/core';
import { DEMO_CARDS } from '@diptychon/core/records';
import { beforeEach, describe, expect, it } from 'vitest';
import type { CardChange } from '../bench/card-change';
import { Evaluator } from '../evaluation/evaluator';
import { MendingList } from './mending-list';
import { TrialWork } from './trial-work';

const CARD = DEMO_CARDS[0]! as CardDocument;
const MENDED = setSize(CARD, 'base', 'depth', 140);
const finding = (id: string, severity: Finding['severity']): Finding => ({
  id,
  check: id,
  severity,
  says: `${id} is so.`,
  owner: 'base',
  shortfall: 1,
});
const offer = (leaves: Finding[]): Repair['offers'][number] => ({
  says: 'Change depth from 150 mm to 140 mm.',
  changes: [{ owner: 'base', size: 'depth', label: 'Depth', from: 150, to: 140 }],
  cost: 10,
  card: MENDED,
  leaves,
});

describe('the least change that mends a card', () => {
  let answer: Repair;
  let repair: TrialWork['repair'];
  let fixture: ComponentFixture<MendingList>;
  const changes: CardChange[] = [];
  const text = (): string => (fixture.nativeElement as HTMLElement).textContent;
  const press = async (label: string): Promise<void> => {
    const button = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')].find((each) => each.textContent.includes(label));
    button!.click();
    await fixture.whenStable();
  };

  beforeEach(() => {
    changes.length = 0;
    repair = () => Promise.resolve(answer);
    answer = { aim: 'fail', offers: [], conflict: [], tries: 9 };
    TestBed.configureTestingModule({
      providers: [
        { provide: TrialWork, useValue: { repair: (...given: Parameters<TrialWork['repair']>) => repair(...given) } },
        { provide: Evaluator, useValue: { pictures: () => Promise.resolve(undefined) } },
      ],
    });
    fixture = TestBed.createComponent(MendingList);
    fixture.componentRef.setInput('card', CARD);
    fixture.componentRef.setInput('findings', [finding('meets', 'fail')]);
    fixture.componentInstance.changed.subscribe((change) => changes.push(change));
    fixture.detectChanges();
  });

  it('is offered with what it leaves, and taken as one change that is named', async () => {
    answer = { ...answer, offers: [offer([finding('gape', 'warn')])] };
    await press('Look for the least change');
    expect(text()).toContain('Change depth from 150 mm to 140 mm.');
    expect(text()).toContain('Leaves one thing to look at.');
    await press('Change it so');
    expect(changes[0]!.what).toBe('Change depth from 150 mm to 140 mm');
    expect(changes[0]!.apply(CARD)).toBe(MENDED);
  });

  it('is shown beside the card as it is, with what is said besides', async () => {
    answer = { ...answer, offers: [offer([finding('gape', 'warn'), finding('meets', 'warn')])] };
    await press('Look for the least change');
    await press('Before and after');
    expect(text()).toContain('As it is: 1 must change, 0 to look at');
    expect(text()).toContain('Changed: 0 must change, 2 to look at');
    expect(text()).toContain('gape is so.');
    expect(text()).not.toContain('meets is so.');
  });

  it('is none where wishes conflict, and those are named', async () => {
    answer = { ...answer, conflict: [{ owner: 'envelope', says: 'that it goes into the envelope C6' }] };
    await press('Look for the least change');
    expect(text()).toContain('No sizes were found with which these can be had together');
    expect(text()).toContain('that it goes into the envelope C6');
  });

  it('says so where nothing was found, and where nothing is wrong', async () => {
    await press('Look for the least change');
    expect(text()).toContain('No change of up to three sizes was found');
    fixture.componentRef.setInput('findings', []);
    answer = { ...answer, aim: 'warn' };
    fixture.componentRef.setInput('card', MENDED);
    fixture.detectChanges();
    await press('Look for the least change');
    expect(text()).toContain('Nothing is wrong with it.');
  });

  it('is forgotten as soon as the card is another', async () => {
    answer = { ...answer, offers: [offer([])] };
    await press('Look for the least change');
    fixture.componentRef.setInput('card', MENDED);
    fixture.detectChanges();
    expect(text()).not.toContain('Change depth');
    expect(text()).toContain('Look for the least change');
  });

  it('says how far the search is, and ends it when it is told to, or when the card is another', async () => {
    const signals: AbortSignal[] = [];
    repair = (_card, told, signal) => {
      signals.push(signal);
      told(0.25);
      return new Promise((done) => signal.addEventListener('abort', () => done(undefined)));
    };
    await press('Look for the least change');
    expect((fixture.nativeElement as HTMLElement).querySelector('progress')!.value).toBe(0.25);
    await press('Stop looking');
    expect(signals[0]!.aborted).toBe(true);
    expect(text()).toContain('Look for the least change');
    await press('Look for the least change');
    fixture.componentRef.setInput('card', MENDED);
    await fixture.whenStable();
    expect(signals[1]!.aborted).toBe(true);
    expect(text()).not.toContain('Trying sizes out');
  });
});
