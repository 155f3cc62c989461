import type * as THREE from 'three';

/** Names of what represents the current tile, and of what is held beside it. */
export const MINE = 'mine';
export const OTHER = 'other';

export interface Split {
  by: 'halves' | 'line';
  /** Where the line stands, 0…1. */
  line: number;
}

/** A rectangle of a whole picture, in its pixels from its top left, fractions to look between them. */
export interface Part {
  whole: { width: number; height: number };
  x: number;
  y: number;
  width: number;
  height: number;
}

/** What of the whole picture one of both versions takes, and where its own view begins and how wide that is. */
interface Field {
  from: number;
  to: number;
  start: number;
  wide: number;
}

function draw(
  gl: THREE.WebGLRenderer,
  scene: THREE.Scene,
  camera: THREE.PerspectiveCamera,
  target: THREE.WebGLRenderTarget,
  { whole, x, y, width, height }: Part,
  { from, to, start, wide }: Field,
): void {
  const left = Math.max(0, Math.round(from - x));
  const right = Math.min(width, Math.round(to - x));
  if (right <= left) return;
  camera.aspect = wide / whole.height;
  camera.setViewOffset(wide, whole.height, x - start, y, width, height);
  target.scissorTest = true;
  target.scissor.set(left, 0, right - left, height);
  gl.setRenderTarget(target);
  gl.render(scene, camera);
}

/** Draws a part of the Sill's picture into a target as large as that part: whole, or both versions in one light and one camera. */
export function drawSill(
  gl: THREE.WebGLRenderer,
  scene: THREE.Scene,
  camera: THREE.PerspectiveCamera,
  split: Split | null,
  part: Part,
  target: THREE.WebGLRenderTarget,
): void {
  const { width } = part.whole;
  const mine = scene.getObjectByName(MINE);
  const other = scene.getObjectByName(OTHER);
  if (!split || !mine || !other) {
    draw(gl, scene, camera, target, part, { from: 0, to: width, start: 0, wide: width });
  } else {
    const isHalf = split.by === 'halves';
    const edge = Math.round(width * (isHalf ? 0.5 : split.line));
    const wide = isHalf ? width / 2 : width;
    mine.visible = false;
    draw(gl, scene, camera, target, part, { from: 0, to: edge, start: 0, wide });
    mine.visible = true;
    other.visible = false;
    draw(gl, scene, camera, target, part, { from: edge, to: width, start: isHalf ? edge : 0, wide });
    other.visible = true;
  }
  gl.setRenderTarget(null);
  // What asks the camera for places looks through all of it.
  camera.clearViewOffset();
}
