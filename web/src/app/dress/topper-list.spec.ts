import { By } from '@angular/platform-browser';
import { TopperList } from './topper-list';
import { TopperMount } from './topper-mount';
import { TopperOutline } from './topper-outline';
import { CardUnderHand, folded } from './testing/card-under-hand';

describe('TopperList', () => {
  let hand: CardUnderHand<TopperList>;

  beforeEach(async () => {
    hand = new CardUnderHand(TopperList);
    await hand.show();
  });

  it('puts one in the middle of a panel, half as high as that is wide, opened to be changed', async () => {
    await hand.press(/^Add a topper$/);
    expect(hand.card.dressing!.toppers).toEqual([expect.objectContaining({ id: 'topper-1', across: 50, along: 70, height: 50 })]);
    expect(hand.input('topper-1-height').value).toBe('50 mm');
    expect(hand.element.querySelector('.numbers')!.textContent).toContain('T1');
  });

  it('takes sizes, places and a turn as they are typed, and refuses what cannot be', async () => {
    await hand.press(/^Add a topper$/);
    await hand.type('topper-1-height', '6 cm');
    await hand.type('topper-1-across', '33mm');
    await hand.type('topper-1-turn', '30');
    expect(hand.card.dressing!.toppers![0]).toMatchObject({ height: 60, across: 33, turn: expect.closeTo(Math.PI / 6, 9) });
    await hand.type('topper-1-height', '900mm');
    expect(hand.card.dressing!.toppers![0]!.height).toBe(60);
    expect(hand.element.querySelector('#topper-1-height-note')!.textContent).toContain('allowed is 4 mm to 400 mm');
  });

  it('is cut so often and glued together, and once again leaves nothing of it', async () => {
    await hand.press(/^Add a topper$/);
    const list = hand.fixture.componentInstance as unknown as { rows(): never[]; set(row: never, change: object): void };
    for (const times of [3, undefined]) {
      list.set(list.rows()[0]!, { times });
      expect(hand.card.dressing!.toppers![0]!.times).toBe(times);
    }
    expect(Object.keys(hand.card.dressing!.toppers![0]!)).not.toContain('times');
  });

  it('takes it away again without a trace', async () => {
    await hand.press(/^Add a topper$/);
    await hand.press(/^Take it away$/);
    expect(hand.card).toEqual(folded);
    expect(hand.heard).toEqual(['One more topper', 'Take away the topper: mushroom cap']);
  });

  it('is glued along one side or as a pocket, whose tag is told, and all over again', async () => {
    await hand.press(/^Add a topper$/);
    const list = hand.fixture.componentInstance as unknown as { rows(): never[]; setGlue(row: never, as: string): void };
    const glue = async (as: string): Promise<void> => {
      list.setGlue(list.rows()[0]!, as);
      await hand.show();
    };
    await glue('strip');
    expect(hand.card.dressing!.toppers![0]!.glued).toEqual({ as: 'strip', side: 'left', deep: 13 });
    await hand.type('topper-1-glue-deep', '20mm');
    expect(hand.card.dressing!.toppers![0]!.glued).toEqual({ as: 'strip', side: 'left', deep: 20 });
    await glue('pocket');
    expect(hand.element.textContent!.replace(/\s+/g, ' ')).toMatch(/Takes a tag [\d.]+ mm.* wide that goes in [\d.]+ mm/);
    await glue('all');
    expect(hand.card.dressing!.toppers![0]).not.toHaveProperty('glued');
  });

  it('is drawn out to a width, and goes back to that of its outline', async () => {
    await hand.press(/^Add a topper$/);
    await hand.type('topper-1-width', '70mm');
    expect(hand.fixture.componentInstance.evaluation()!.dressed.toppers[0]!.sheet.width).toBeCloseTo(70, 9);
    await hand.press(/^as wide as its outline asks$/);
    expect(hand.card.dressing!.toppers![0]).not.toHaveProperty('width');
  });

  it('is what a die of mine cuts: its outline, as wide as that cuts', async () => {
    await hand.press(/^Add a topper$/);
    const list = hand.fixture.debugElement.query(By.directive(TopperOutline)).componentInstance as unknown as {
      dies(): { value: string; label: string }[];
      setDie(value: string): void;
    };
    const [, largest] = list.dies();
    expect(largest!.label).toBe('Nested circles, 90 mm');
    list.setDie(largest!.value);
    await hand.show();
    expect(hand.card.dressing!.toppers![0]).toMatchObject({ outline: 'circle', height: expect.closeTo(90, 6) });
    expect(hand.text).toContain('Nested circles, 90 mm');
  });

  it('carries a greeting that is typed, larger if wished, and none again once it is wiped out', async () => {
    await hand.press(/^Add a topper$/);
    await hand.type('topper-1-greeting', 'Thank you');
    expect(hand.card.dressing!.toppers![0]!.greeting).toEqual({ words: 'Thank you', letters: 'serif', capital: 10 });
    await hand.type('topper-1-capital', '6mm');
    expect(hand.card.dressing!.toppers![0]!.greeting!.capital).toBe(6);
    await hand.type('topper-1-greeting', ' ');
    expect(hand.card.dressing!.toppers![0]).not.toHaveProperty('greeting');
  });
});

describe('TopperMount in the list of toppers', () => {
  let hand: CardUnderHand<TopperList>;
  type Mount = { setCount(count: number): void; setMount(mount: string): void };

  beforeEach(async () => {
    hand = new CardUnderHand(TopperList);
    await hand.show();
    await hand.press(/^Add a topper$/);
  });

  const mount = (): Mount => hand.fixture.debugElement.query(By.directive(TopperMount)).componentInstance as unknown as Mount;
  const topper = () => hand.card.dressing!.toppers![0]!;

  it('gives it papers behind it that are changed one by one, and takes the last away first', async () => {
    mount().setCount(2);
    await hand.show();
    expect(topper().backings).toEqual([
      { border: 3, stock: folded.stocks.display },
      { border: 3, stock: folded.stocks.display },
    ]);
    await hand.type('topper-1-border-1', '5 mm');
    expect(topper().backings!.map(({ border }) => border)).toEqual([3, 5]);
    expect(hand.element.querySelector('.size')!.textContent).toContain('3 pieces');
    mount().setCount(1);
    await hand.show();
    expect(topper().backings!.map(({ border }) => border)).toEqual([3]);
    mount().setCount(0);
    await hand.show();
    expect(topper()).not.toHaveProperty('backings');
  });

  it('puts it on film without foam or glue of its own, and back on foam without film', async () => {
    mount().setMount('film');
    await hand.show();
    // 50 mm high, and 20 mm under it for the glue.
    expect(topper().film).toEqual({ wide: 10, long: 70, stock: folded.stocks.film });
    await hand.type('topper-1-film-long', '90 mm');
    expect(topper().film!.long).toBe(90);
    expect(hand.element.querySelector('#topper-1-glue')).toBeNull();
    mount().setMount('foam');
    await hand.show();
    expect(topper()).toMatchObject({ foam: 2 });
    expect(topper()).not.toHaveProperty('film');
    expect(hand.element.querySelector('#topper-1-glue')).not.toBeNull();
  });
});
