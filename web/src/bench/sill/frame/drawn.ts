import type * as THREE from 'three';

/** So often it is asked: frames of the page would measure no finer than they come. */
const BETWEEN_MS = 2;

/** Ends when the graphics card has drawn everything up to here, without holding up the page. */
export function drawn(gl: THREE.WebGLRenderer): Promise<void> {
  const context = gl.getContext() as WebGL2RenderingContext;
  const fence = context.fenceSync(context.SYNC_GPU_COMMANDS_COMPLETE, 0);
  context.flush();
  return new Promise((resolve) => {
    const look = () => {
      if (!fence || context.isContextLost()) return resolve();
      const state = context.getSyncParameter(fence, context.SYNC_STATUS);
      if (state === context.UNSIGNALED) return setTimeout(look, BETWEEN_MS);
      context.deleteSync(fence);
      resolve();
    };
    setTimeout(look, BETWEEN_MS);
  });
}
