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

  it('takes it away without a trace', async () => {
    await hand.press(/^Add a band$/);
    await hand.press(/^Take it away$/);
    expect(hand.card).toEqual(folded);
  });
});
