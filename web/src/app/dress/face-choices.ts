import type { Evaluation } from '@diptychon/core';

/** A face of a panel as it stands in a list: the panel and the face, parted by a space. */
export interface FaceChoice {
  value: string;
  label: string;
}

/** Every face of a card that can wear something, those that are seen first. */
export function faceChoices(known: Evaluation | undefined): FaceChoice[] {
  if (!known) return [];
  const seen = new Set(known.dressed.sides.map(({ panel, face }) => `${panel} ${face}`));
  const all = known.design.panels
    .filter(({ piece }) => piece.thickness === undefined)
    .flatMap(({ id, name }) =>
      (['up', 'down'] as const).map((face) => ({
        value: `${id} ${face}`,
        label: `${capital(name)}${face === 'down' ? ', its back' : ''}`,
      })),
    );
  return [...all.filter(({ value }) => seen.has(value)), ...all.filter(({ value }) => !seen.has(value))];
}

/** The panel and the face of a choice. */
export function faceOf(value: string): { panel: string; face: 'up' | 'down' } {
  const [panel, face] = value.split(' ') as [string, 'up' | 'down'];
  return { panel, face };
}

export const capital = (words: string): string => `${words[0]!.toUpperCase()}${words.slice(1)}`;
