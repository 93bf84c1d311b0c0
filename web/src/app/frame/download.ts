/** Gives the maker a file. Nothing leaves the machine. */
export function download(name: string, type: string, content: string | Uint8Array<ArrayBuffer> | Blob): void {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A file name from a card’s name: letters without their accents, digits and hyphens. */
export function fileName(cardName: string, ending: string): string {
  const stem = cardName
    .toLowerCase()
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return `${stem || 'card'}.${ending}`;
}
