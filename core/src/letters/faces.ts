/** The faces in which greetings are set. Whose letters they are, and under what licence, stands in docs/licences.md. */
export const FACES = {
  serif: { name: 'with serifs' },
  plain: { name: 'plain' },
  handwritten: { name: 'as if by hand' },
} as const;

export type FaceId = keyof typeof FACES;
export const FACE_IDS = Object.keys(FACES) as [FaceId, ...FaceId[]];
