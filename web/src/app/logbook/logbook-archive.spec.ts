import { DEMO_CARDS, type Build } from '@diptychon/core';
import { strToU8, zipSync } from 'fflate';
import { archiveOf, readArchive } from './logbook-archive';

const build: Build = {
  ...{ id: 'b1', card: 'c1', name: 'Foray invitation', as: DEMO_CARDS[0]!, copies: 10, begunAt: 1, steps: [], measures: [], faults: [] },
  ...{ photos: ['p1'], forWhom: 'Moss walkers', wouldChange: 'thinner stock' },
};
const bytes = new Uint8Array([0xff, 0xd8, 0xff, 7, 7]);
const photo = { id: 'p1', build: 'b1', type: 'image/jpeg', bytes: bytes.buffer };
const fileOf = (data: Uint8Array): File => new File([data as Uint8Array<ArrayBuffer>], 'logbook.zip');
const zipped = (entries: Record<string, Uint8Array>): File => fileOf(zipSync(entries));
const list = (builds: unknown[]): Uint8Array => strToU8(JSON.stringify({ format: 'diptychon-logbook', version: 1, builds }));

describe('a logbook in a file', () => {
  it('comes back with its photos as it went in', async () => {
    const reading = await readArchive(fileOf(await archiveOf({ builds: [build], photos: [photo] })));
    if (!reading.ok) throw new Error(reading.says);
    expect(reading.file.builds).toEqual([build]);
    expect([...new Uint8Array(reading.file.photos[0]!.bytes)]).toEqual([...bytes]);
  });

  it.each([
    ['is no archive', () => new File(['PK nonsense'], 'logbook.zip'), /not an archive/],
    ['holds no list', () => zipped({ 'photos/p1.jpg': bytes }), /no list of builds/],
    ['holds a list of something else', () => zipped({ 'logbook.json': strToU8('[1]') }), /no logbook of this version/],
    ['holds a damaged build', () => zipped({ 'logbook.json': list([{ ...build, copies: 'many' }]) }), /builds\.0\.copies/],
    ['lacks a photo', () => zipped({ 'logbook.json': list([build]) }), /a photo of “Foray invitation” is missing/],
    ['has a page for a photo', () => zipped({ 'logbook.json': list([build]), 'photos/p1.jpg': strToU8('<html>') }), /no JPEG/],
    ['unpacks to more than may be', () => zipped({ 'logbook.json': new Uint8Array(33 * 1024 * 1024) }), /larger than 32 MB/],
  ])('is refused in a line when it %s', async (_, file, says) => {
    const reading = await readArchive(file());
    expect(reading.ok ? '' : reading.says).toMatch(says);
  });
});
