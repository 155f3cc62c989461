/** Whether this drawing context is computed by the processor instead of a graphics card. */
export function isSoftware(context: WebGLRenderingContext | WebGL2RenderingContext): boolean {
  const names = context.getExtension('WEBGL_debug_renderer_info');
  const renderer = names ? String(context.getParameter(names.UNMASKED_RENDERER_WEBGL)) : '';
  return /swiftshader|llvmpipe|software|basic render/i.test(renderer);
}
