import { arrange, type LabelledSegment } from './arrangement.js';
import { areaOf, signedArea, type Loop } from './outline.js';

/**
 * The line round all that a line encloses, without its crossings: of the parts that hang together by more than a corner, the
 * largest. What lies inside, and what is drawn twice, leaves no mark.
 * @returns counter-clockwise; nothing where the line encloses nothing
 */
export function outerLine(loop: Loop): Loop {
  const { faces, edges } = arrange(around(loop));
  const group = faces.map((_, i) => i);
  const groupOf = (face: number): number => (group[face] === face ? face : (group[face] = groupOf(group[face]!)));
  for (const { left, right } of edges) if (left >= 0 && right >= 0) group[groupOf(left)] = groupOf(right);
  const areas = new Map<number, number>();
  faces.forEach((face, i) => areas.set(groupOf(i), (areas.get(groupOf(i)) ?? 0) + areaOf(face)));
  const largest = [...areas].reduce((most, [one, area]) => (area > (areas.get(most) ?? 0) ? one : most), -1);
  const within = (face: number): boolean => face >= 0 && groupOf(face) === largest;
  const border = edges.filter(({ left, right }) => within(left) !== within(right));
  const outer = arrange(border.map(({ from, to }): LabelledSegment<''> => ({ from, to, label: '' }))).faces.map((face) => face.outer);
  return outer.reduce<Loop>((most, one) => (Math.abs(signedArea(one)) > Math.abs(signedArea(most)) ? one : most), []);
}

const around = (loop: Loop): LabelledSegment<''>[] => loop.map((from, i) => ({ from, to: loop[(i + 1) % loop.length]!, label: '' }));
