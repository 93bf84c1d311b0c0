/** A name that an outline may have: at most 60 characters, the last one whole. */
export function shortName(name: string): string {
  let short = '';
  for (const letter of name) {
    if (short.length + letter.length > 60) break;
    short += letter;
  }
  return short || 'own outline';
}

/** The id of an outline of its own, from the name of the file that it comes from. */
export const outlineId = (name: string): string => `own-${slug(name)}`;

function slug(name: string): string {
  const plain = name
    .toLowerCase()
    .replace(/\.(svg|png|jpe?g)$/, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 36);
  // Letters that an id cannot hold still tell one drawing from another.
  const isWhole = [...name].every((letter) => letter.codePointAt(0)! < 128);
  return isWhole && plain ? plain : `${plain.slice(0, 28) || 'outline'}-${hashed(name)}`;
}

/** A short number for words, by which two are told apart (FNV-1a, 32 bits). */
function hashed(words: string): string {
  let hash = 0x811c9dc5;
  for (const letter of words) hash = Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193);
  return (hash >>> 0).toString(36);
}
