import { readBuild, type Build } from '@diptychon/core/records';
import type { KeptPhoto } from '../cards/database';

/** A logbook in a file, with its photos. */
export interface LogbookFile {
  builds: readonly Build[];
  photos: readonly KeptPhoto[];
}

export type LogbookReading = { ok: true; file: LogbookFile } | { ok: false; says: string };

const LIST = 'logbook.json';
const LARGEST_ARCHIVE = 256 * 1024 * 1024;
const LARGEST_LIST = 32 * 1024 * 1024;
const LARGEST_PHOTO = 4 * 1024 * 1024;
const MOST_FILES = 5000;
/** How a JPEG begins. */
const JPEG = [0xff, 0xd8, 0xff];

/** All builds and their photos as one archive. Photos are packed as they are: a JPEG does not become smaller. */
export async function archiveOf({ builds, photos }: LogbookFile): Promise<Uint8Array<ArrayBuffer>> {
  const { strToU8, zipSync } = await import('fflate');
  const list = JSON.stringify({ format: 'diptychon-logbook', version: 1, builds }, null, 1);
  const pictures = photos.map(({ id, bytes }) => [`photos/${id}.jpg`, [new Uint8Array(bytes), { level: 0 }]] as const);
  return zipSync({ [LIST]: strToU8(list), ...Object.fromEntries(pictures) } as Parameters<typeof zipSync>[0]) as Uint8Array<ArrayBuffer>;
}

/** A logbook file, whole or not at all. */
export async function readArchive(file: File): Promise<LogbookReading> {
  const refuse = (says: string): LogbookReading => ({ ok: false, says: `${file.name}: ${says}` });
  if (file.size > LARGEST_ARCHIVE) return refuse(`larger than ${LARGEST_ARCHIVE / 1024 / 1024} MB, which no logbook is.`);
  const { strFromU8, unzipSync } = await import('fflate');
  let entries: Record<string, Uint8Array>;
  let says: string | undefined;
  try {
    let count = 0;
    entries = unzipSync(new Uint8Array(await file.arrayBuffer()), {
      filter: ({ name, originalSize }) => {
        const limit = name === LIST ? LARGEST_LIST : LARGEST_PHOTO;
        if (name !== LIST && !/^photos\/[\w-]{1,120}\.jpg$/.test(name)) return false;
        if (++count > MOST_FILES) says = `holds more than ${MOST_FILES} files.`;
        else if (originalSize > limit)
          says = `${name.slice(0, 80)} in it is larger than ${limit / 1024 / 1024} MB, which nothing of a logbook is.`;
        return says === undefined;
      },
    });
  } catch {
    return refuse('is not an archive that can be read.');
  }
  if (says) return refuse(says);
  const list = entries[LIST];
  if (!list) return refuse('is no logbook: it holds no list of builds.');
  let raw: { format?: unknown; version?: unknown; builds?: unknown };
  try {
    raw = JSON.parse(strFromU8(list)) as typeof raw;
  } catch {
    return refuse('its list of builds cannot be read.');
  }
  if (raw?.format !== 'diptychon-logbook' || raw.version !== 1 || !Array.isArray(raw.builds))
    return refuse('is no logbook of this version; allowed: 1.');
  const builds: Build[] = [];
  const photos: KeptPhoto[] = [];
  for (const [i, entry] of raw.builds.entries()) {
    const reading = readBuild(entry);
    if (!reading.ok) return refuse(`builds.${i}.${reading.problems[0]!.path} ${reading.problems[0]!.says}.`);
    builds.push(reading.build);
    for (const id of reading.build.photos) {
      const bytes = entries[`photos/${id}.jpg`];
      if (!bytes || !JPEG.every((byte, k) => bytes[k] === byte)) return refuse(`a photo of “${reading.build.name}” is missing or no JPEG.`);
      photos.push({ id, build: reading.build.id, type: 'image/jpeg', bytes: bytes.slice().buffer });
    }
  }
  return { ok: true, file: { builds, photos } };
}
