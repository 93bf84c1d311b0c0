import {
  cardToTry,
  CATALOGUE,
  contextFor,
  filledSizes,
  items,
  placesOf,
  ROOT,
  toDegrees,
  type BenchStep,
  sayLength,
  type Mechanism,
  type Notation,
  type PlainSize,
  type Report,
  type SizeContext,
  type SizeItem,
} from '@diptychon/core';

/** The catalogue with every free size at its default, its limits there, and the folds that each offers. Lengths mm, angles degrees. */
export function catalogueRecord() {
  return CATALOGUE.map((mechanism) => ({
    id: mechanism.id,
    name: mechanism.name,
    kind: mechanism.kind,
    summary: mechanism.summary,
    sizes: sizeRecords(mechanism),
    alternatives: (mechanism.alternatives ?? []).map(({ name, kind, insteadOf, help }) => ({ name, kind, insteadOf, help })),
    sites: siteRecords(mechanism),
  }));
}

const ownerIn = (mechanism: Mechanism): string => (mechanism.kind === 'base' ? ROOT : mechanism.usualId);

/** The folds that a mechanism offers at its own sizes, and which movements can stand there. */
function siteRecords(mechanism: Mechanism) {
  return placesOf(cardToTry(mechanism))
    .filter(({ part }) => part === ownerIn(mechanism))
    .map(({ site, takes }) => ({
      id: site.id,
      name: site.name,
      kind: site.kind,
      shape: site.shape,
      length: Number(site.length.toFixed(4)),
      depths: site.leaves.map(({ depth }) => Number(depth.toFixed(4))),
      closedAt: Number(toDegrees(site.closedAt).toFixed(4)),
      opensTo: Number(toDegrees(site.opensTo).toFixed(4)),
      takes: takes.filter(({ cannot }) => cannot === undefined).map(({ id }) => id),
    }));
}

function sizeRecords(mechanism: Mechanism) {
  const card = cardToTry(mechanism);
  const sizes = filledSizes(card, ownerIn(mechanism));
  const context = { ...contextFor(card, ownerIn(mechanism)), sizes };
  return mechanism.sizes.map((size) => {
    if (size.kind !== 'list') return sizeRecord(size, sizes[size.name] as number | string, context);
    const { name, label, kind, help, itemLabel, least, most } = size;
    const entries = items(sizes, name);
    // Sizes of an entry are shown as the first has them, or as a new one would.
    const item: SizeItem = entries[0] ?? {};
    const each = entries.length > 0 ? size.item.map((own) => sizeRecord(own, item[own.name]!, { ...context, item, index: 0 })) : [];
    return { name, label, kind, help, itemLabel, default: entries.length, min: least, max: most, each };
  });
}

function sizeRecord(size: PlainSize, value: number | string, context: SizeContext) {
  const { name, label, kind, help } = size;
  if (size.kind === 'choice' || size.kind === 'outline') {
    return { name, label, kind, help, default: value, allowed: size.options.map((o) => o.value) };
  }
  const shown = (n: number): number => Number((size.kind === 'angle' ? toDegrees(n) : n).toFixed(4));
  const { min, max, because } = size.range(context);
  const unit = { angle: 'deg', length: 'mm', count: '', weight: 'g' }[size.kind];
  return { name, label, kind, help, unit, default: shown(value as number), min: shown(min), max: shown(max), because };
}

export function printCatalogue(): string {
  const lines = catalogueRecord().flatMap(({ id, name, kind, summary, sizes, alternatives, sites }) => [
    `${id}  (${kind}) ${name}: ${summary}`,
    ...sizes.flatMap((size) =>
      'each' in size
        ? [
            `    ${size.name} = ${size.default}; ${size.min} to ${size.max} entries. ${size.help}`,
            ...size.each.map((own) => `    ${lineOf(own, `${size.name}[1].`)}`),
          ]
        : [lineOf(size)],
    ),
    ...alternatives.map((a) => `    ${a.name}, instead of ${a.insteadOf}. ${a.help}`),
    ...sites.filter(({ takes }) => takes.length > 0).map((site) => `    fold ${site.id}: ${site.name}; takes ${site.takes.join(', ')}`),
    '',
  ]);
  return `${lines.join('\n')}\n`;
}

function lineOf(size: ReturnType<typeof sizeRecord>, prefix = ''): string {
  if ('allowed' in size) return `    ${prefix}${size.name} = ${size.default}; one of ${size.allowed?.join(', ')}. ${size.help}`;
  const unit = size.unit ? ` ${size.unit}` : '';
  return `    ${prefix}${size.name} = ${size.default}${unit}; ${size.min} to ${size.max}${unit}. ${size.help}`;
}

/** A layer and its panel, each with its size: they are mixed up easily. */
function layerLine(
  {
    id,
    number,
    panel,
    face,
    width,
    height,
    panelWidth,
    panelHeight,
    upWhenOpen,
    shows,
    twinOf,
    twinBy,
    liner,
    cut,
  }: Report['layers'][number],
  notation: Notation,
): string {
  const size = (w: number, h: number): string => `${sayLength(w, notation)} × ${sayLength(h, notation)}`;
  const twin = twinOf === null ? '' : twinBy === 'same' ? `; cut like ${twinOf}` : `; ${twinBy} of ${twinOf}`;
  const whole = liner === null ? '' : `; cut in one piece of ${size(cut.width, cut.height)}, ${liner.of.join(', ')}`;
  return `${number} on ${panel}, ${face === 'up' ? 'upper face' : 'back'} (${id}): layer ${size(width, height)}, panel ${size(panelWidth, panelHeight)}; ${upWhenOpen} edge up; seen ${shows.join(', ')}${twin}${whole}`;
}

function topperLine(
  { number, name, panel, face, width, height, mount, pads, glued, under }: Report['toppers'][number],
  notation: Notation,
): string {
  const part = glued === 'all' ? '' : glued.as === 'strip' ? ` only along its ${glued.side} side` : `, a pocket open at its ${glued.side}`;
  const held =
    mount === 'flat' ? 'glued flat' : mount === 'film' ? 'on film' : `on ${pads.length} foam ${pads.length === 1 ? 'pad' : 'pads'}`;
  return `${number}, ${name}, on ${panel}, ${face === 'up' ? 'upper face' : 'back'}: ${sayLength(width, notation)} × ${sayLength(height, notation)}, ${held}${part}${under.map((each) => `; ${each.number} ${sayLength(each.cut.width, notation)} × ${sayLength(each.cut.height, notation)}`).join('')}`;
}

function closureLine(closure: Report['closures'][number], notation: Notation): string {
  const say = (mm: number): string => sayLength(mm, notation);
  if (closure.kind === 'magnet') {
    const { number, first, second, disc, thick, apart } = closure;
    const other = second ? `the other on ${second.panel}, ${say(apart)} apart` : 'no other lies there';
    return `${number}, magnet ${say(disc)} across, ${say(thick)} thick, in ${first.blanks} blank layers on ${first.panel}; ${other}`;
  }
  if (closure.kind === 'ribbon') return `${closure.number}, ribbon ${say(closure.wide)} wide, ${say(closure.length)} long`;
  const { number, length, wide, folds, slidesOff } = closure;
  const off = slidesOff.filter(({ free }) => free).map(({ toward }) => toward);
  const way = off.length > 0 ? `slides off toward ${off.join(' and ')}` : 'cannot slide off';
  return `${number}, band: ${say(length)} × ${say(wide)}, folds at ${folds.map(say).join(', ')}; ${way}`;
}

/** The report for reading at a terminal. */
export function printReport(
  { pieces, layers, toppers, closures, envelope, measures, closed, open, findings, motion }: Report,
  notation: Notation,
): string {
  const n = (value: number): string => String(Number(value.toFixed(2)));
  // A place on a metric piece is a plain number of mm, on one in inches a mark of its ruler.
  const place = (mm: number): string => (notation.startsWith('inch') ? sayLength(mm, notation) : n(mm));
  const lines = [
    'Pieces',
    ...pieces.flatMap((piece) => [
      `  ${piece.name}: ${sayLength(piece.width, notation)} × ${sayLength(piece.height, notation)}, ${piece.faceUp}`,
      ...piece.scores.map(
        (s) => `    ${s.name} (${s.fold}): ${place(s.from[0])}, ${place(s.from[1])} to ${place(s.to[0])}, ${place(s.to[1])}`,
      ),
    ]),
    ...(layers.length > 0 ? ['Layers', ...layers.map((layer) => `  ${layerLine(layer, notation)}`)] : []),
    ...(toppers.length > 0 ? ['Toppers', ...toppers.map((topper) => `  ${topperLine(topper, notation)}`)] : []),
    ...(closures.length > 0 ? ['Closures', ...closures.map((closure) => `  ${closureLine(closure, notation)}`)] : []),
    ...(envelope.folded
      ? [
          `Envelope  a square of ${sayLength(envelope.folded.square, notation)}, first fold ${sayLength(envelope.folded.firstFold, notation)}`,
        ]
      : []),
    'Measures',
    ...measures.map((m) => `  ${m.label}: ${m.unit === 'mm' ? sayLength(m.value, notation) : `${n(m.value)}°`}, because ${m.because}`),
    `Closed  ${sayLength(closed.width, notation)} × ${sayLength(closed.height, notation)}, ${n(closed.thickness)} mm thick`,
    `Open    ${sayLength(open.height, notation)} high`,
    `Motion  ${motion.frames} frames, worst misfit ${motion.worstMisfit.toExponential(1)} mm, reachable ${n(motion.reachable.from)}° to ${n(motion.reachable.to)}°`,
    'Verdicts',
    ...findings.map((f) => `  ${f.severity.toUpperCase().padEnd(4)} ${f.says}`),
  ];
  return `${lines.join('\n')}\n`;
}

/** The steps for reading at a terminal. */
export function printSteps(steps: readonly BenchStep[]): string {
  const lines = steps.flatMap(({ title, says, scores = [], materials = [], cautions }, i) => [
    `${i + 1}. ${title}`,
    ...says.map((sentence) => `   ${sentence}`),
    ...materials.map(({ what, detail }) => `   ${what}: ${detail}`),
    ...scores.map(({ words, fold }, k) => `   ${k + 1}: ${words}; ${fold}`),
    ...cautions.map((caution) => `   ! ${caution}`),
  ]);
  return `${lines.join('\n')}\n`;
}
