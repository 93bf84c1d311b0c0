import * as v from 'valibot';
import type { CardDocument } from '../card/document.js';
import { MEASURED, type Build } from '../logbook/build.js';
import { readCard } from './card-file.js';
import { complaints, type FileProblem } from './file-problem.js';

export const MOST_COPIES = 99;
/** Photos of one build. */
export const MOST_PHOTOS = 24;

const between = (min: number, max: number) =>
  v.pipe(v.number(`allowed: ${min} to ${max}`), v.minValue(min, `allowed: ${min} to ${max}`), v.maxValue(max, `allowed: ${min} to ${max}`));
const whole = (min: number, max: number) => v.pipe(between(min, max), v.integer('allowed: whole numbers'));
const text = (most: number) => v.pipe(v.string('allowed: text'), v.maxLength(most, `allowed: at most ${most} characters`));
const id = v.pipe(text(120), v.minLength(1, 'allowed: at least one character'));
const upTo = <S extends v.GenericSchema>(schema: S, most: number) => v.pipe(v.array(schema), v.maxLength(most, `allowed: at most ${most}`));
const lengthMm = between(0, 3000);
const moment = between(0, 8.64e15);

const schema = v.strictObject({
  id,
  card: id,
  name: text(200),
  as: v.unknown(),
  copies: whole(1, MOST_COPIES),
  begunAt: moment,
  endedAt: v.optional(moment),
  steps: upTo(v.strictObject({ id, title: text(300), done: whole(0, MOST_COPIES), seconds: between(0, 10_000_000) }), 2000),
  measures: upTo(
    v.strictObject({
      what: v.picklist(MEASURED, `allowed: ${MEASURED.join(', ')}`),
      says: text(300),
      planned: lengthMm,
      measured: lengthMm,
      tool: text(64),
      stock: text(64),
      mechanism: text(64),
      folds: v.optional(v.picklist([1, 2], 'allowed: 1, 2')),
    }),
    1000,
  ),
  faults: upTo(v.strictObject({ step: text(300), says: text(1000) }), 200),
  photos: upTo(id, MOST_PHOTOS),
  forWhom: text(200),
  wouldChange: text(4000),
});

export type BuildReading = { ok: true; build: Build } | { ok: false; problems: FileProblem[] };

/** Reads a build as it was kept, whole or not at all. @param known its card, where it was read before */
export function readBuild(raw: unknown, known: (as: unknown) => CardDocument | undefined = () => undefined): BuildReading {
  const parsed = v.safeParse(schema, raw);
  if (!parsed.success) return { ok: false, problems: complaints(parsed.issues, 'a build') };
  const before = known(parsed.output.as);
  if (before) return { ok: true, build: { ...parsed.output, as: before } };
  const card = readCard(parsed.output.as);
  if (!card.ok) return { ok: false, problems: card.problems.map(({ path, says }) => ({ path: `as.${path}`, says })) };
  return { ok: true, build: { ...parsed.output, as: card.card } };
}
