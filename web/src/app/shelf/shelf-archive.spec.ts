import { DEMO_CARDS, LARGEST_SHELF_FILE, readShelfFile, writeShelfFiles } from '@diptychon/core';
import { strToU8, zipSync } from 'fflate';
import { archived, textsOf } from './shelf-archive';

const zip = (entries: Record<string, string>): File =>
  new File(
    [zipSync(Object.fromEntries(Object.entries(entries).map(([name, text]) => [name, strToU8(text)]))) as Uint8Array<ArrayBuffer>],
    'cards.zip',
  );

describe('an archive of shelf files', () => {
  it('gives back all cards that went into it', async () => {
    const halves = [DEMO_CARDS.slice(0, 4), DEMO_CARDS.slice(4)].map((cards) => writeShelfFiles(cards)[0]!);
    const texts = await textsOf(new File([await archived(halves)], 'shelf.ZIP'));
    if (typeof texts === 'string') throw new Error(texts);
    const cards = texts.flatMap(({ text }) => {
      const reading = readShelfFile(text);
      return reading.ok ? reading.cards : [];
    });
    expect(cards).toEqual(DEMO_CARDS);
    expect(texts.map(({ name }) => name)).toEqual(['diptychon-shelf-1-of-2.json', 'diptychon-shelf-2-of-2.json']);
  });

  it.each([
    ['is no archive', () => new File(['PK nonsense'], 'cards.zip'), 'cards.zip: is not an archive that can be read.'],
    ['holds no card', () => zip({ 'picture.png': 'x' }), 'cards.zip: holds no card file.'],
    [
      'holds too many files',
      () => zip(Object.fromEntries(Array.from({ length: 65 }, (_, i) => [`${i}.json`, '{}']))),
      'cards.zip: holds more than 64 card files.',
    ],
    [
      'holds a file that unpacks to more than may be',
      () => zip({ 'bomb.json': ' '.repeat(LARGEST_SHELF_FILE + 1) }),
      /bomb\.json in it is larger than 8192 kB/,
    ],
  ])('is refused in a line when it %s', async (_, file, says) => {
    expect(await textsOf(file())).toMatch(says);
  });

  it('is not needed for one file', async () => {
    expect(await textsOf(new File(['{}'], 'a.json'))).toEqual([{ name: 'a.json', text: '{}' }]);
    expect(await textsOf(new File([' '.repeat(LARGEST_SHELF_FILE + 1)], 'a.json'))).toMatch(/larger than 8192 kB/);
  });
});
