import { inject, Injectable } from '@angular/core';
import type { CardPictures } from '@diptychon/core';
import { DEMO_CARDS, writeCardFile } from '@diptychon/core/records';
import * as v from 'valibot';
import { Database } from './database';
import type { OpenedCard } from './kept-card';

/** Counts up when pictures come to be drawn differently: older ones are drawn anew. */
const DRAWN_AS = 2;

const finite = v.pipe(v.number(), v.finite());
const facet = v.object({
  // The samples of the program leave out what nobody paints.
  panel: v.optional(v.pipe(v.string(), v.maxLength(200)), ''),
  face: v.optional(v.picklist(['up', 'down']), 'up'),
  path: v.pipe(v.string(), v.maxLength(40_000), v.regex(/^[MLZ\d .-]*$/)),
  fill: v.pipe(v.string(), v.regex(/^(rgb\(\d+ \d+ \d+\)|#[\da-f]{6})$/)),
  opacity: finite,
  bent: v.optional(v.literal(true)),
  worn: v.optional(v.literal(true)),
});
const picturesSchema = v.object({
  size: v.object({ depth: finite, length: finite }),
  pictures: v.pipe(
    v.array(
      v.object({
        facets: v.pipe(v.array(facet), v.maxLength(2000)),
        box: v.object({ x: finite, y: finite, width: finite, height: finite }),
      }),
    ),
    v.length(1),
  ),
});
const keptSchema = v.object({ of: v.string(), pictures: picturesSchema });
const samplesSchema = v.record(v.string(), picturesSchema);
type Samples = v.InferOutput<typeof samplesSchema>;

/** Small pictures of cards, kept with them: a shelf that was seen before is there without any calculation. */
@Injectable({ providedIn: 'root' })
export class KeptPictures {
  private readonly database = inject(Database);
  /** asked for while the shelf is still being read */
  private readonly samples = samplesOfTheProgram();

  /** The picture of a card as it is now, where one is kept. */
  async of(kept: OpenedCard): Promise<CardPictures | undefined> {
    if (kept.takes.length > 0) return undefined;
    const ready = isSampleAsItComes(kept) ? (await this.samples)[kept.card.id] : undefined;
    if (ready) return ready;
    try {
      const raw = await this.database.look(['notes'], (tray) => tray.get('notes', keyOf(kept.card.id)));
      const reading = v.safeParse(keptSchema, raw);
      return reading.success && reading.output.of === stateOf(kept) ? reading.output.pictures : undefined;
    } catch {
      return undefined;
    }
  }

  /** Keeps a picture. Where that cannot be done it is drawn anew next time. */
  async keep(kept: OpenedCard, pictures: CardPictures): Promise<void> {
    if (kept.takes.length > 0) return;
    await this.database.put('notes', { of: stateOf(kept), pictures }, keyOf(kept.card.id)).catch(() => undefined);
  }

  async forget(id: string): Promise<void> {
    await this.database.change(['notes'], (tray) => tray.remove('notes', keyOf(id))).catch(() => undefined);
  }
}

/** A sample nobody changed, as this version of the program has it. */
const isSampleAsItComes = ({ card, revision }: OpenedCard): boolean => {
  const sample = revision === 1 ? DEMO_CARDS.find(({ id }) => id === card.id) : undefined;
  return sample !== undefined && writeCardFile(sample) === writeCardFile(card);
};

/** Drawn when the program was built. Where they do not come each is drawn anew. */
async function samplesOfTheProgram(): Promise<Samples> {
  try {
    const answer = await fetch('sample-pictures.json');
    const reading = v.safeParse(samplesSchema, await answer.json());
    return reading.success ? reading.output : {};
  } catch {
    return {};
  }
}

const keyOf = (id: string): string => `picture:${id}`;

/** Which state of a card a picture is of. */
const stateOf = ({ revision, savedAt }: OpenedCard): string => `${DRAWN_AS}/${revision}/${savedAt}`;
