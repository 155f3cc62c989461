import * as THREE from 'three';
import { SKY } from '../light/sky-name.ts';
import type { TileOnMesh } from '../surface-rays.tsx';

/** A map of numbers that repeats, row 0 first. */
export interface Heights {
  width: number;
  height: number;
  data: ArrayLike<number>;
}

/** A map's value between its pixels, as the graphics card looks it up. */
export function heightAt({ width, height, data }: Heights, u: number, v: number): number {
  const [x, y] = [u * width - 0.5, v * height - 0.5];
  const [x0, y0] = [Math.floor(x), Math.floor(y)];
  const of = (i: number, j: number) =>
    data[(((j % height) + height) % height) * width + (((i % width) + width) % width)];
  const [a, b] = [x - x0, y - y0];
  const low = of(x0, y0) * (1 - a) + of(x0 + 1, y0) * a;
  return low * (1 - b) + (of(x0, y0 + 1) * (1 - a) + of(x0 + 1, y0 + 1) * a) * b;
}

/** Geometry with the tile's own coordinates, its points where relief moves them, in the scene's units. */
function settled(mesh: THREE.Mesh): THREE.BufferGeometry {
  const made = mesh.geometry.clone();
  const material = mesh.material as THREE.MeshPhysicalMaterial;
  const uv = made.getAttribute('uv');
  const tile = mesh.userData.tile as TileOnMesh | undefined;
  if (uv && tile)
    for (let i = 0; i < uv.count; i++) uv.setXY(i, uv.getX(i) * tile.repeat[0], uv.getY(i) * tile.repeat[1]);
  const { displacementMap: map, displacementScale: scale, displacementBias: bias } = material;
  const lift = made.getAttribute('zLift');
  if (map && lift && uv) {
    const heights = map.image as Heights;
    const place = made.getAttribute('position');
    for (let i = 0; i < place.count; i++) {
      const by = heightAt(heights, uv.getX(i), uv.getY(i)) * scale + bias;
      place.setXYZ(
        i,
        place.getX(i) + by * lift.getX(i),
        place.getY(i) + by * lift.getY(i),
        place.getZ(i) + by * lift.getZ(i),
      );
    }
  }
  return made.applyMatrix4(mesh.matrixWorld);
}

/** The same surface without what our own programs do with it. */
function plain(mesh: THREE.Mesh): THREE.MeshPhysicalMaterial {
  const made = new THREE.MeshPhysicalMaterial().copy(mesh.material as THREE.MeshPhysicalMaterial);
  // Light meets planes of a scene from both of their sides.
  made.side = THREE.DoubleSide;
  return made;
}

/** Everything that stands in the light as a scene of its own, for a path tracer; without the sky. */
export function standingIn(scene: THREE.Scene): THREE.Scene {
  const still = new THREE.Scene();
  scene.updateMatrixWorld();
  scene.traverseVisible((object) => {
    const mesh = object as THREE.Mesh;
    if (!mesh.isMesh || mesh.name === SKY) return;
    const copy = new THREE.Mesh(settled(mesh), plain(mesh));
    // What a path tracer sorts by, so that the same scene gives the same picture.
    copy.uuid = String(still.children.length).padStart(6, '0');
    still.add(copy);
  });
  return still;
}

/** Frees what a copy of the scene holds itself; textures are the Sill's. */
export function freeStanding(still: THREE.Scene): void {
  for (const object of still.children) {
    const { geometry, material } = object as THREE.Mesh;
    geometry.dispose();
    (material as THREE.Material).dispose();
  }
}
