import { newCard, withClosure, type Workshop } from '@diptychon/core';
import { EnvelopeMaker } from './envelope-maker';
import { MagnetList } from './magnet-list';
import { RibbonList } from './ribbon-list';
import { CardUnderHand, folded } from './testing/card-under-hand';

const none: Workshop = { stocks: [], boards: [], envelopes: [] } as never;

describe('MagnetList', () => {
  let hand: CardUnderHand<MagnetList>;

  beforeEach(async () => {
    hand = new CardUnderHand(MagnetList);
    await hand.show();
  });

  it('puts a pair near the free edge, and tells where the other lies and how far they are apart', async () => {
    await hand.press(/^Add a pair of magnets$/);
    // 14 mm inside the free edge, half way up; on either leaf.
    expect(hand.card.dressing!.closures).toEqual([expect.objectContaining({ kind: 'magnet', along: 70, disc: 10, thick: 0.6 })]);
    expect(hand.text).toMatch(/blank layers ?2/);
    expect(hand.text).toMatch(/The other: (front|back) leaf\./);
    expect(hand.text).toContain('can kill');
  });

  it('takes other sizes, refuses what no disc has, and goes away without a trace', async () => {
    await hand.press(/^Add a pair of magnets$/);
    await hand.type('magnet-1-thick', '2mm');
    expect(hand.text).toMatch(/blank layers ?6/);
    await hand.type('magnet-1-disc', '90mm');
    expect(hand.element.querySelector('#magnet-1-disc-note')!.textContent).toContain('allowed is 3 mm to 25 mm');
    await hand.press(/^Take it away$/);
    expect(hand.card).toEqual(folded);
  });

  it('has one list of closures: when it is full none of a kind can be added', async () => {
    const band = { kind: 'band', around: 'across', wide: 6, at: 20, stock: 'card-250' } as const;
    await hand.show(Array.from({ length: 6 }).reduce<typeof folded>((card) => withClosure(card, band, none), folded));
    expect(hand.text).not.toContain('Add a pair');
  });
});

describe('RibbonList', () => {
  it('ties one round the middle, out of slits if wished, and tells how long it is', async () => {
    const hand = new CardUnderHand(RibbonList);
    await hand.show();
    await hand.press(/^Add a ribbon$/);
    // 2 · 100.62, six widths of 10 for the knot, four times 40 and twice 100.
    expect(hand.text).toContain('621.2 mm');
    await hand.type('ribbon-1-loop', '0');
    expect(hand.text).toContain('461.2 mm');
    const list = hand.fixture.componentInstance as unknown as { rows(): never[]; setWay(row: never, way: string): void };
    list.setWay(list.rows()[0]!, 'slits');
    await hand.show();
    expect(hand.card.dressing!.closures).toEqual([expect.objectContaining({ way: 'slits', around: 'across' })]);
    list.setWay(list.rows()[0]!, 'panel');
    await hand.show();
    // Over the 140 mm of a leaf and down its back, round one sheet of 0.31 mm; six widths for the knot, and both ends.
    expect(hand.card.dressing!.closures).toEqual([expect.objectContaining({ way: 'panel', around: 'along', panel: 'base/front-leaf' })]);
    expect(hand.text).toContain('540.6 mm');
    expect(hand.text).toContain('its upper and lower edge');
    await hand.press(/^Take it away$/);
    expect(hand.card).toEqual(folded);
  });
});

describe('EnvelopeMaker', () => {
  it('works out the square for the closed card, larger with more room, and goes away without a trace', async () => {
    const hand = new CardUnderHand(EnvelopeMaker);
    const card = newCard({ id: 'e', name: 'e', base: { mechanism: 'folded-card', sizes: { depth: 105, length: 148 } } });
    await hand.show(card);
    await hand.press(/^Fold an envelope for it$/);
    // (105 + 0.62 + 3) ÷ √2 is 76.8 and (148 + 3.62) ÷ √2 is 107.2: 77 + 108 mm, and twice 6 for the overlap.
    expect(hand.text).toMatch(/square ?197 mm/);
    expect(hand.text).toMatch(/first fold ?83 mm/);
    await hand.type('envelope-ease', '10mm');
    expect(hand.text).toMatch(/square ?207 mm/);
    await hand.press(/^Take the envelope away$/);
    expect(hand.card).toEqual(card);
  });
});
