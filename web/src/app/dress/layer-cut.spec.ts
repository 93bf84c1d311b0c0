import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { OwnDress } from '@diptychon/core';
import { folded } from './testing/card-under-hand';
import { LayerCut } from './layer-cut';

/** What is asked of a face, as its fields ask it. */
interface Asked {
  setCut(cut: string): void;
  setCover(change: { stock?: string; wide?: number }): void;
}

describe('LayerCut', () => {
  let fixture: ComponentFixture<LayerCut>;
  let own: OwnDress;
  const asked = (): Asked => fixture.componentInstance as unknown as Asked;
  const element = (): HTMLElement => fixture.nativeElement;

  async function show(): Promise<void> {
    fixture.componentRef.setInput('own', own);
    await fixture.whenStable();
  }
  async function type(id: string, text: string): Promise<void> {
    const input = element().querySelector<HTMLInputElement>(`#${id}`)!;
    input.value = text;
    input.dispatchEvent(new Event('input'));
    input.dispatchEvent(new Event('change'));
    await show();
  }

  beforeEach(async () => {
    own = { panel: 'base/front-leaf', face: 'up' };
    fixture = TestBed.createComponent(LayerCut);
    fixture.componentInstance.changed.subscribe(({ change }) => (own = { ...own, ...change }));
    const given = {
      fieldId: 'leaf',
      title: 'Front leaf',
      card: folded,
      rule: { border: 3, steps: 1, stock: 'a' },
      panelBox: { width: 100, height: 140 },
      papers: [
        { value: 'a', label: 'Moss' },
        { value: 'b', label: 'Bark' },
      ],
    };
    for (const [name, value] of Object.entries(given)) fixture.componentRef.setInput(name, value);
    await show();
  });

  it('cuts four strips with a gap, and one piece again', async () => {
    asked().setCut('strips along');
    await show();
    expect(own.strips).toEqual({ corners: 'along', gap: 3, wide: 12 });
    await type('leaf-gap', '5mm');
    expect(own.strips).toEqual({ corners: 'along', gap: 5, wide: 12 });
    asked().setCut('whole');
    expect([own.strips, own.joint]).toEqual([undefined, undefined]);
  });

  it('cuts two papers that meet a third of the way, the second another one, with a strip over the line', async () => {
    asked().setCut('joint across');
    await show();
    // A third of 140 mm on the mm.
    expect(own.joint).toEqual({ runs: 'across', at: 47, stock: 'b' });
    await type('leaf-joint', '50mm');
    asked().setCover({ stock: 'a' });
    await show();
    await type('leaf-cover-wide', '12mm');
    expect(own.joint).toEqual({ runs: 'across', at: 50, stock: 'b', cover: { stock: 'a', wide: 12 } });
    asked().setCover({ stock: '' });
    await show();
    expect(own.joint).toEqual({ runs: 'across', at: 50, stock: 'b' });
    expect(element().querySelector('#leaf-cover-wide')).toBeNull();
  });

  it('asks strips or two papers, not both', async () => {
    asked().setCut('joint along');
    await show();
    expect(own.joint).toMatchObject({ runs: 'along', at: 33 });
    asked().setCut('strips across');
    await show();
    expect(own.joint).toBeUndefined();
    expect(element().querySelector('#leaf-joint')).toBeNull();
  });
});
