import { BandList } from './band-list';
import { CardUnderHand, folded } from './testing/card-under-hand';

describe('BandList', () => {
  let hand: CardUnderHand<BandList>;

  beforeEach(async () => {
    hand = new CardUnderHand(BandList);
    await hand.show();
  });

  it('puts a band round the middle of the card, and shows how long its strip is', async () => {
    await hand.press(/^Add a band$/);
    expect(hand.card.dressing!.closures).toEqual([expect.objectContaining({ kind: 'band', around: 'across', wide: 30, at: 70 })]);
    // 2 · 101 + 2 · 0.62 + 12 mm.
    expect(hand.element.querySelector('.pair')!.textContent!.replace(/\s+/g, ' ')).toContain('215.2 mm');
    expect(hand.input('band-1-slip').value).toBe('1 mm');
  });

  it('is held by a fastener, and carries a gift, each with its size; what cannot be is refused', async () => {
    await hand.press(/^Add a band$/);
    const list = hand.fixture.componentInstance as unknown as { rows(): unknown[]; set(row: unknown, change: object): void };
    list.set(list.rows()[0], { fastener: 1, gift: { thick: 5, grams: 10 } });
    await hand.show();
    await hand.type('band-1-fastener', '1.5mm');
    await hand.type('band-1-gift-thick', '8mm');
    await hand.type('band-1-gift-grams', '12 g');
    const band = (): object => hand.card.dressing!.closures![0]!;
    expect(band()).toMatchObject({ fastener: 1.5, gift: { thick: 8, grams: 12 } });
    await hand.type('band-1-gift-grams', '900');
    expect(band()).toMatchObject({ gift: { grams: 12 } });
    expect(hand.element.querySelector('#band-1-gift-grams-note')!.textContent).toContain('“900” does not work; allowed is 0 g to 500 g');
    list.set(list.rows()[0], { fastener: undefined, gift: undefined });
    await hand.show();
    expect(Object.keys(band())).not.toContain('gift');
    expect(hand.input('band-1-fastener')).toBeNull();
  });

  it('takes it away without a trace', async () => {
    await hand.press(/^Add a band$/);
    await hand.press(/^Take it away$/);
    expect(hand.card).toEqual(folded);
  });
});
