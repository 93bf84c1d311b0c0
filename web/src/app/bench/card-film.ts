import type { PaperScene } from './paper-scene';

/** A film of a card that opens: how long it takes, how long it rests at both ends, and pictures in a second. */
const OPENING = 3.2;
const REST = 0.6;
const RATE = 25;
const WHOLE = OPENING + 2 * REST;
/** Where drawing is slow pictures are left out, so that the film lasts as long as it should, but never more of it than this at once (s). */
const LONGEST_STEP = 0.35;
const LONGEST_SIDE = 1280;
/** Under pictures that are kept, in whichever theme they were made. */
const GROUND = '#f6f1e6';
const KINDS = ['video/webm;codecs=vp9', 'video/webm;codecs=vp8', 'video/webm'] as const;

type Drawn = Pick<PaperScene, 'at' | 'pose' | 'shown'>;

const NOT_DRAWN = 'The card is not drawn in the round: open the bench where it stands, and try again.';

/** The standing card as it is drawn now, as a PNG. @throws Error where there is no drawing, or it cannot be kept */
export async function pictureOf(scene: Drawn): Promise<Blob> {
  const page = pageFor(scene);
  const blob = await new Promise<Blob | null>((done) => page.canvas.toBlob(done, 'image/png'));
  if (!blob) throw new Error('This browser cannot keep the picture.');
  return blob;
}

/**
 * A film of the card as it opens, seen from where it is looked at now, as WebM. Afterwards it stands as it stood.
 * @param to where it comes to rest (0 closed … 1 open)  @param told how much of it is done, 0 to 1
 * @throws Error where there is no drawing, or the browser records no film
 */
export async function filmOf(scene: Drawn, to: number, told: (done: number) => void = () => undefined): Promise<Blob> {
  const mimeType = typeof MediaRecorder === 'undefined' ? undefined : KINDS.find((kind) => MediaRecorder.isTypeSupported(kind));
  if (!mimeType) throw new Error('This browser records no films.');
  const before = scene.at;
  const page = pageFor(scene);
  const stream = page.canvas.captureStream(0);
  const [track] = stream.getVideoTracks() as CanvasCaptureMediaStreamTrack[];
  const recorder = new MediaRecorder(stream, { mimeType, videoBitsPerSecond: 4_000_000 });
  const parts: Blob[] = [];
  recorder.ondataavailable = ({ data }) => parts.push(data);
  const ended = new Promise<void>((done) => (recorder.onstop = () => done()));
  try {
    recorder.start();
    const begun = performance.now();
    for (let t = 0; ; t = nextMoment(t, (performance.now() - begun) / 1000)) {
      scene.pose(to * opened(t));
      page.draw();
      track!.requestFrame();
      told(t / WHOLE);
      await new Promise((next) => setTimeout(next, 1000 / RATE));
      if (t >= WHOLE) break;
    }
  } finally {
    recorder.stop();
    await ended;
    track!.stop();
    scene.pose(before);
  }
  return new Blob(parts, { type: 'video/webm' });
}

/** The moment of the next picture, s: one picture on, or as late as it is by now, at most one long step on. */
export const nextMoment = (t: number, elapsed: number): number => Math.min(WHOLE, t + LONGEST_STEP, Math.max(t + 1 / RATE, elapsed));

/** How far a card is opened after some seconds, as a share: slowly at first and at last. */
export function opened(seconds: number): number {
  const t = Math.min(1, Math.max(0, (seconds - REST) / OPENING));
  return t * t * (3 - 2 * t);
}

/** A page with a ground of its own, on which the drawing is laid as it is each time. */
function pageFor(scene: Drawn): { canvas: HTMLCanvasElement; draw: () => void } {
  const first = scene.shown();
  if (!first) throw new Error(NOT_DRAWN);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(first.width, first.height));
  const canvas = document.createElement('canvas');
  // Films want whole pairs of dots.
  canvas.width = 2 * Math.round((first.width * scale) / 2);
  canvas.height = 2 * Math.round((first.height * scale) / 2);
  const pen = canvas.getContext('2d');
  if (!pen) throw new Error('This browser cannot keep the picture.');
  const draw = (): void => {
    const drawn = scene.shown();
    if (!drawn) throw new Error(NOT_DRAWN);
    pen.fillStyle = GROUND;
    pen.fillRect(0, 0, canvas.width, canvas.height);
    pen.drawImage(drawn, 0, 0, canvas.width, canvas.height);
  };
  draw();
  return { canvas, draw };
}
