/** A picture as it is read: four bytes a pixel (red, green, blue, how opaque), rows from the top. */
export interface Pixels {
  width: number;
  height: number;
  rgba: Uint8Array | Uint8ClampedArray;
}

/** A pixel counts as paper that shows from this opacity on. */
const OPAQUE = 128;
/** So many pixels of a hundred must be clear before a picture has a shape of its own. */
const CLEAR_SHARE = 0.005;
/** A plain ground may differ so much in each colour: scans and compressed pictures are never quite even. */
const SAME_GROUND = 26;
/** So much of the picture's edge must be of one colour before that is its ground. */
const GROUND_SHARE = 0.9;

/**
 * Which pixels show something, one byte each (1 or 0): those that are opaque; of a picture without clear pixels what is left when
 * the plain ground that runs in from its edge is taken off. Nothing where it has neither: then all of it shows.
 */
export function whatShows({ width, height, rgba }: Pixels): Uint8Array | undefined {
  const count = width * height;
  const shows = new Uint8Array(count);
  let clear = 0;
  for (let i = 0; i < count; i++) {
    if (rgba[4 * i + 3]! >= OPAQUE) shows[i] = 1;
    else clear++;
  }
  if (clear > CLEAR_SHARE * count) return clear < count ? shows : undefined;
  return withoutGround({ width, height, rgba });
}

/** Takes off all of one colour that reaches the edge. */
function withoutGround({ width, height, rgba }: Pixels): Uint8Array | undefined {
  const edge: number[] = [];
  for (let x = 0; x < width; x++) edge.push(x, (height - 1) * width + x);
  for (let y = 1; y < height - 1; y++) edge.push(y * width, y * width + width - 1);
  const middle = (channel: number): number => edge.map((i) => rgba[4 * i + channel]!).sort((a, b) => a - b)[edge.length >> 1]!;
  const ground = [middle(0), middle(1), middle(2)];
  const isGround = (i: number): boolean => ground.every((of, channel) => Math.abs(rgba[4 * i + channel]! - of) <= SAME_GROUND);
  const plain = edge.filter(isGround);
  if (plain.length < GROUND_SHARE * edge.length) return undefined;
  const shows = new Uint8Array(width * height).fill(1);
  const left = plain;
  for (const i of left) shows[i] = 0;
  let taken = left.length;
  while (left.length > 0) {
    const i = left.pop()!;
    const x = i % width;
    for (const next of [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width]) {
      if (next < 0 || next >= shows.length || shows[next] === 0 || !isGround(next)) continue;
      shows[next] = 0;
      taken++;
      left.push(next);
    }
  }
  return taken < width * height ? shows : undefined;
}
