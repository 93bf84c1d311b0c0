import { LARGEST_SHELF_FILE } from '@diptychon/core/records';

/** An archive holds no more files than that, each no larger than a file by itself may be. */
const MOST_FILES = 64;
const LARGEST_ARCHIVE = 64 * 1024 * 1024;

/** A file that was opened, or one out of an archive. */
export interface NamedText {
  name: string;
  text: string;
}

/** Several shelf files in one archive, numbered. */
export async function archived(files: readonly string[]): Promise<Uint8Array<ArrayBuffer>> {
  const { strToU8, zipSync } = await import('fflate');
  const named = files.map((text, i) => [`diptychon-shelf-${i + 1}-of-${files.length}.json`, strToU8(text)] as const);
  return zipSync(Object.fromEntries(named)) as Uint8Array<ArrayBuffer>;
}

/** The texts in a file: its own, or those of an archive. @returns a sentence when it is too large or no archive after all */
export async function textsOf(file: File): Promise<NamedText[] | string> {
  const isArchive = file.name.toLowerCase().endsWith('.zip');
  const limit = isArchive ? LARGEST_ARCHIVE : LARGEST_SHELF_FILE;
  if (file.size > limit)
    return `${file.name}: larger than ${limit / 1024} kB, which no ${isArchive ? 'archive of cards' : 'card file'} is.`;
  if (!isArchive) return [{ name: file.name, text: await file.text() }];
  const { strFromU8, unzipSync } = await import('fflate');
  try {
    let refused: string | undefined;
    let count = 0;
    const entries = unzipSync(new Uint8Array(await file.arrayBuffer()), {
      filter: ({ name, originalSize }) => {
        if (!name.toLowerCase().endsWith('.json')) return false;
        if (++count > MOST_FILES) refused = `${file.name}: holds more than ${MOST_FILES} card files.`;
        else if (originalSize > LARGEST_SHELF_FILE)
          refused = `${file.name}: ${name.slice(0, 80)} in it is larger than ${LARGEST_SHELF_FILE / 1024} kB, which no card file is.`;
        return refused === undefined;
      },
    });
    if (refused) return refused;
    const texts = Object.entries(entries).map(([name, bytes]) => ({ name, text: strFromU8(bytes) }));
    return texts.length > 0 ? texts : `${file.name}: holds no card file.`;
  } catch {
    return `${file.name}: is not an archive that can be read.`;
  }
}
