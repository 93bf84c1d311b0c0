/**
 * A canvas to draw on. Where the processor draws, smoothed edges cost a sixth of every picture and are done without: what
 * draws shows only in a context, so that the first one is made without them.
 * @throws Error when the browser has no WebGL
 */
export function drawingPlace(): { canvas: HTMLCanvasElement; context: WebGL2RenderingContext; slow: boolean } {
  const [plain, smooth] = [document.createElement('canvas'), document.createElement('canvas')];
  const context = plain.getContext('webgl2', { alpha: true, antialias: false });
  if (!context) throw new Error('This browser draws nothing in 3D.');
  if (drawnByProcessor(context)) return { canvas: plain, context, slow: true };
  const smoothed = smooth.getContext('webgl2', { alpha: true, antialias: true });
  if (!smoothed) return { canvas: plain, context, slow: false };
  context.getExtension('WEBGL_lose_context')?.loseContext();
  return { canvas: smooth, context: smoothed, slow: false };
}

/** Browsers do not own up to drawing without a graphics chip when asked for speed; the name of what draws does. */
function drawnByProcessor(context: WebGL2RenderingContext): boolean {
  const known = context.getExtension('WEBGL_debug_renderer_info');
  const name: unknown = context.getParameter(known?.UNMASKED_RENDERER_WEBGL ?? context.RENDERER);
  return /swiftshader|llvmpipe|softpipe|software|basic render/i.test(String(name));
}
