import { TestBed } from '@angular/core/testing';
import { INCH_WORKSHOP, type Supply } from '@diptychon/core';
import { SupplyEditor, type SupplyChange } from './supply-editor';

describe('SupplyEditor', () => {
  it('changes an entry as it is by then: a second change made before the first is drawn keeps both', async () => {
    const [board] = INCH_WORKSHOP.boards;
    const fixture = TestBed.createComponent(SupplyEditor);
    fixture.componentRef.setInput('list', 'boards');
    fixture.componentRef.setInput('entry', board);
    fixture.componentRef.setInput('notation', 'mm');
    await fixture.whenStable();
    const changes: SupplyChange[] = [];
    fixture.componentInstance.changed.subscribe((change) => changes.push(change));
    const inputs = [...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLInputElement>('input[type="text"]')];
    for (const [i, text] of [
      [0, 'Pear-wood plank'],
      [1, '4 mm'],
    ] as const) {
      inputs[i]!.value = text;
      inputs[i]!.dispatchEvent(new Event('change'));
    }
    const after = changes.reduce<Supply>((entry, { apply }) => apply(entry), board!);
    expect(after).toEqual({ ...board, name: 'Pear-wood plank', pitch: 4 });
    expect(changes.map(({ id }) => id)).toEqual([board!.id, board!.id]);
  });
});
