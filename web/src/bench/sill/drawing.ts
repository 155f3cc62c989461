import * as THREE from 'three';

/** Names of what represents the current tile, and of what is held beside it. */
export const MINE = 'mine';
export const OTHER = 'other';

export interface Split {
  by: 'halves' | 'line';
  /** Where the line stands, 0…1. */
  line: number;
}

function aspectOf(camera: THREE.PerspectiveCamera, aspect: number): void {
  if (camera.aspect === aspect) return;
  camera.aspect = aspect;
  camera.updateProjectionMatrix();
}

function part(gl: THREE.WebGLRenderer, x: number, width: number, height: number, isHalf: boolean): void {
  if (isHalf) gl.setViewport(x, 0, width, height);
  gl.setScissor(x, 0, width, height);
}

const size = new THREE.Vector2();

/** Draws the Sill once: whole, or both versions in one light and one camera, each in its part. */
export function drawSill(
  gl: THREE.WebGLRenderer,
  scene: THREE.Scene,
  camera: THREE.PerspectiveCamera,
  split: Split | null,
): void {
  const { x: width, y: height } = gl.getSize(size);
  const mine = scene.getObjectByName(MINE);
  const other = scene.getObjectByName(OTHER);
  gl.setScissorTest(false);
  gl.setViewport(0, 0, width, height);
  if (!split || !mine || !other) {
    aspectOf(camera, width / height);
    gl.render(scene, camera);
    return;
  }
  const isHalf = split.by === 'halves';
  const edge = Math.round(width * (isHalf ? 0.5 : split.line));
  aspectOf(camera, (isHalf ? width / 2 : width) / height);
  gl.setScissorTest(true);
  mine.visible = false;
  part(gl, 0, edge, height, isHalf);
  gl.render(scene, camera);
  mine.visible = true;
  other.visible = false;
  part(gl, edge, width - edge, height, isHalf);
  gl.render(scene, camera);
  other.visible = true;
  gl.setScissorTest(false);
}
