import { ComponentFixture, TestBed } from '@angular/core/testing';
import { LengthField, nextMark } from './length-field';
import { RefusedFields } from './refused-fields';

describe('LengthField', () => {
  let fixture: ComponentFixture<LengthField<unknown>>;
  let emitted: number[];
  const box = (): HTMLInputElement => fixture.nativeElement.querySelector('input');
  const note = (): string => fixture.nativeElement.querySelector('.note').textContent.trim();

  async function type(text: string): Promise<void> {
    box().value = text;
    box().dispatchEvent(new Event('input'));
    box().dispatchEvent(new Event('change'));
    await fixture.whenStable();
  }

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [RefusedFields] });
    fixture = TestBed.createComponent(LengthField);
    emitted = [];
    fixture.componentRef.setInput('fieldId', 'depth');
    fixture.componentRef.setInput('label', 'Depth');
    fixture.componentRef.setInput('kind', 'length');
    fixture.componentRef.setInput('value', 92.075);
    fixture.componentRef.setInput('notation', 'inch/8');
    fixture.componentRef.setInput('refusal', (_of: unknown, mm: number) => (mm > 200 ? `Depth: ${mm} mm is too much.` : undefined));
    fixture.componentInstance.changed.subscribe((value) => emitted.push(value));
    await fixture.whenStable();
  });

  it('shows the value in the maker’s notation', () => {
    expect(box().value).toBe('3 5/8 in');
  });

  it('takes what is typed in any unit', async () => {
    await type('54mm');
    expect(emitted).toEqual([54]);
  });

  it('takes what reads while it is typed, and holds nothing half typed against anyone', async () => {
    const typed: number[] = [];
    fixture.componentInstance.typing.subscribe((value) => typed.push(value));
    for (const text of ['1', '15', '150', '1500', '150 m', '150 mm']) {
      box().value = text;
      box().dispatchEvent(new Event('input'));
      await fixture.whenStable();
      expect([box().value, note().includes('not a length'), box().getAttribute('aria-invalid')]).toEqual([text, false, null]);
    }
    // Inches: 1 is within the limit of 200 mm, 15 and more are not; 150 m is 150 metres or nonsense.
    expect(typed).toEqual([25.4, 150]);
  });

  it('shows what was typed where the card’s unit has no mark for it', async () => {
    await type('1/16');
    fixture.componentRef.setInput('value', emitted[0]);
    await fixture.whenStable();
    expect([emitted[0], box().value]).toEqual([25.4 / 16, '1/16 in']);
    await type('1/32');
    fixture.componentRef.setInput('value', emitted[1]);
    await fixture.whenStable();
    expect([emitted[1], box().value]).toEqual([25.4 / 32, '1/32']);
    fixture.componentRef.setInput('notation', 'mm');
    await fixture.whenStable();
    expect(box().value).not.toBe('1/32');
  });

  it('counts among the refused fields of its screen until it is cleared or put right', async () => {
    const fields = TestBed.inject(RefusedFields);
    await type('three and a bit');
    expect(fields.any()).toBe(true);
    fields.clear();
    await fixture.whenStable();
    expect([fields.any(), box().value, note()]).toEqual([false, '3 5/8 in', '']);
    await type('300 mm');
    expect(fields.any()).toBe(true);
    await type('100 mm');
    expect(fields.any()).toBe(false);
    await type('nonsense');
    fixture.destroy();
    expect(fields.any()).toBe(false);
  });

  it('keeps nonsense in the field with a sentence, and changes nothing', async () => {
    await type('three and a bit');
    expect(emitted).toEqual([]);
    expect(box().value).toBe('three and a bit');
    expect(note()).toContain('Depth: “three and a bit” is not a length');
  });

  it('keeps a refused value in the field with the reason', async () => {
    await type('300 mm');
    expect(emitted).toEqual([]);
    expect(note()).toBe('Depth: 300 mm is too much.');
    expect(box().getAttribute('aria-invalid')).toBe('true');
  });

  it('takes the value it shows, where what the card holds is refused', async () => {
    fixture.componentRef.setInput('refused', 'Depth: “wide” is not a number.');
    await type('3 5/8 in');
    expect(emitted).toHaveLength(1);
    expect(emitted[0]).toBeCloseTo(92.075, 9);
  });

  it('asks for nothing when the value it shows is typed again', async () => {
    await type('3 5/8 in');
    expect(emitted).toEqual([]);
  });

  it('forgets a half-typed value when the card changes from outside', async () => {
    await type('300 mm');
    fixture.componentRef.setInput('value', 101.6);
    await fixture.whenStable();
    expect(box().value).toBe('4 in');
    expect(note()).toBe('');
  });

  it('steps from mark to mark with the arrow keys', async () => {
    fixture.componentRef.setInput('value', 93);
    await fixture.whenStable();
    box().dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp' }));
    box().dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown' }));
    expect(emitted.map((mm) => Number(mm.toFixed(4)))).toEqual([95.25, 92.075]);
  });

  it('says how far a length is from the nearest mark', async () => {
    fixture.componentRef.setInput('value', 93);
    await fixture.whenStable();
    expect(box().value).toBe('3.661 in');
    expect(note()).toBe('Not on a mark; the nearest is 3 5/8 in.');
  });
});

describe('nextMark', () => {
  it('goes on by a whole step from a mark, and to the mark from between two', () => {
    expect(nextMark(10, 5, 1)).toBe(15);
    expect(nextMark(11, 5, 1)).toBe(15);
    expect(nextMark(11, 5, -1)).toBe(10);
    expect(nextMark(10, 5, -1)).toBe(5);
  });
});
