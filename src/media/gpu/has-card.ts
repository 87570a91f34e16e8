/** Names of what paints in place of a graphics card. */
const isSoftware = /swiftshader|llvmpipe|software|basic render/i;

/** What the browser says of the card that a context paints by. */
export function nameOfCard(gl: WebGL2RenderingContext): string {
  const said = gl.getExtension('WEBGL_debug_renderer_info');
  return String(gl.getParameter(said ? said.UNMASKED_RENDERER_WEBGL : gl.RENDERER));
}

/** True where there is a graphics card, and not the processor in its place. */
export function hasCard(): boolean {
  if (typeof OffscreenCanvas === 'undefined') return false;
  const gl = new OffscreenCanvas(1, 1).getContext('webgl2');
  if (!gl) return false;
  const name = nameOfCard(gl);
  gl.getExtension('WEBGL_lose_context')?.loseContext();
  return !isSoftware.test(name);
}
