import { CATALOGUE, fillSizes, stockById, toDegrees, type Mechanism, type Report } from '@diptychon/core';

const CALIPERS = { baseCaliper: stockById('card-250').caliper, mechanismCaliper: stockById('light-card-160').caliper };

/** The catalogue with every free size at its default, and its limits there. Lengths mm, angles degrees. */
export function catalogueRecord() {
  return CATALOGUE.map((mechanism) => ({
    id: mechanism.id,
    name: mechanism.name,
    kind: mechanism.kind,
    summary: mechanism.summary,
    sizes: sizeRecords(mechanism),
    alternatives: mechanism.alternatives.map(({ name, kind, insteadOf, help }) => ({ name, kind, insteadOf, help })),
  }));
}

function sizeRecords(mechanism: Mechanism) {
  const host = mechanism.kind === 'movement' ? fillSizes(CATALOGUE[0]!.sizes, {}, CALIPERS) : {};
  const sizes = fillSizes(mechanism.sizes, {}, CALIPERS, host);
  return mechanism.sizes.map((size) => {
    const { name, label, kind, help } = size;
    if (size.kind === 'choice') return { name, label, kind, help, default: size.default, allowed: size.options.map((o) => o.value) };
    const shown = (value: number): number => Number((size.kind === 'angle' ? toDegrees(value) : value).toFixed(4));
    const { min, max, because } = size.range({ ...CALIPERS, sizes });
    return {
      name,
      label,
      kind,
      help,
      unit: size.kind === 'angle' ? 'deg' : 'mm',
      default: shown(sizes[name] as number),
      min: shown(min),
      max: shown(max),
      because,
    };
  });
}

export function printCatalogue(): string {
  const lines = catalogueRecord().flatMap(({ id, name, kind, summary, sizes, alternatives }) => [
    `${id}  (${kind}) ${name}: ${summary}`,
    ...sizes.map((size) =>
      'allowed' in size
        ? `    ${size.name} = ${size.default}; one of ${size.allowed?.join(', ')}. ${size.help}`
        : `    ${size.name} = ${size.default} ${size.unit}; ${size.min} to ${size.max} ${size.unit}. ${size.help}`,
    ),
    ...alternatives.map((a) => `    ${a.name}, instead of ${a.insteadOf}. ${a.help}`),
    '',
  ]);
  return `${lines.join('\n')}\n`;
}

/** The report for reading at a terminal. */
export function printReport({ pieces, measures, closed, open, findings, motion }: Report): string {
  const n = (value: number): string => String(Number(value.toFixed(2)));
  const lines = [
    'Pieces',
    ...pieces.flatMap((piece) => [
      `  ${piece.name}: ${n(piece.width)} × ${n(piece.height)} mm, ${piece.faceUp}`,
      ...piece.scores.map((s) => `    ${s.name} (${s.fold}): ${n(s.from[0])}, ${n(s.from[1])} to ${n(s.to[0])}, ${n(s.to[1])}`),
    ]),
    'Measures',
    ...measures.map((m) => `  ${m.label}: ${n(m.value)} ${m.unit}, because ${m.because}`),
    `Closed  ${n(closed.width)} × ${n(closed.height)} mm, ${n(closed.thickness)} mm thick`,
    `Open    ${n(open.height)} mm high`,
    `Motion  ${motion.frames} frames, worst misfit ${motion.worstMisfit.toExponential(1)} mm, reachable ${n(motion.reachable.from)}° to ${n(motion.reachable.to)}°`,
    'Verdicts',
    ...findings.map((f) => `  ${f.severity.toUpperCase().padEnd(4)} ${f.says}`),
  ];
  return `${lines.join('\n')}\n`;
}
