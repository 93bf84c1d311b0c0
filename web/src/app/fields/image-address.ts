import type { OwnImage } from '@diptychon/core';
import { bytesOf } from './image-file';

const ADDRESSES = new Map<string, string>();
/** More than cards under hand have; what was shown longest ago gives way. */
const MOST = 12;

/** Where the page finds a picture of a card: the same address as long as it is the same picture. */
export function imageAddress({ type, data }: OwnImage): string {
  const known = ADDRESSES.get(data);
  if (known) return known;
  const address = URL.createObjectURL(new Blob([bytesOf(data)], { type }));
  ADDRESSES.set(data, address);
  for (const oldest of [...ADDRESSES.keys()].slice(0, Math.max(0, ADDRESSES.size - MOST))) {
    URL.revokeObjectURL(ADDRESSES.get(oldest)!);
    ADDRESSES.delete(oldest);
  }
  return address;
}
