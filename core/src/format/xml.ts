/** Characters that no XML document may hold, however they are written. */
const FORBIDDEN =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/** Words as they stand in XML, between tags or in quotes. What XML cannot hold is left out. */
export function escaped(text: string): string {
  return text.replace(FORBIDDEN, '').replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
}
