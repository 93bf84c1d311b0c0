import { download, fileName } from './download';

describe('the name of a file', () => {
  it.each([
    ['Thank-you easel for the foray guide', 'svg', 'thank-you-easel-for-the-foray-guide.svg'],
    ['  Bärlauch & Brätling!  ', 'pdf', 'barlauch-bratling.pdf'],
    ['../../etc', 'card.json', 'etc.card.json'],
    ['きのこ', 'csv', 'card.csv'],
    ['', 'dxf', 'card.dxf'],
    ['Row ½', 'fold', 'row-1-2.fold'],
  ])('for “%s” as %s is %s', (name, ending, expected) => {
    expect(fileName(name, ending)).toBe(expected);
  });

  it('never holds what a file system minds', () => {
    for (const name of ['a/b\\c:d*e?f"g<h>i|j', 'con\u0000trol', 'dots...', '-- dashes --'])
      expect(fileName(name, 'svg')).toMatch(/^[a-z0-9]+(-[a-z0-9]+)*\.svg$/);
  });
});

describe('giving a file', () => {
  it('offers it under its name with its bytes and lets the address go later', async () => {
    vi.useFakeTimers();
    const [made, revoked]: [Blob[], string[]] = [[], []];
    URL.createObjectURL = (blob: Blob) => `blob:${made.push(blob)}`;
    URL.revokeObjectURL = (url: string) => void revoked.push(url);
    const clicked: string[] = [];
    const click = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      clicked.push(`${this.download} from ${this.href}`);
    });
    download('card.csv', 'text/csv', 'a,b');
    expect(clicked).toEqual(['card.csv from blob:1']);
    expect([made[0]!.type, made[0]!.size]).toEqual(['text/csv', 3]);
    expect(revoked).toEqual([]);
    vi.runAllTimers();
    expect(revoked).toEqual(['blob:1']);
    click.mockRestore();
    vi.useRealTimers();
  });
});
