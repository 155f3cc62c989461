import * as THREE from 'three';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';

/** A custom shape: fitted into a ball of radius 1, its v running downwards. */
export interface OwnShape {
  name: string;
  geometry: THREE.BufferGeometry;
  /** Length of the tile's longer edge on it: the mean over its surface, in its units. */
  edge: number;
}

/** How long the edge of a tile is on a geometry without an index, by the areas of its triangles there and in the tile. */
export function edgeOn(geometry: THREE.BufferGeometry): number {
  const { position, uv } = geometry.attributes;
  const place = (k: number) => new THREE.Vector3().fromBufferAttribute(position, k);
  const inTile = (k: number) => new THREE.Vector3(uv.getX(k), uv.getY(k), 0);
  const areaOf = (at: typeof place, k: number) => new THREE.Triangle(at(k), at(k + 1), at(k + 2)).getArea();
  let [onShape, ofTile] = [0, 0];
  for (let k = 0; k < position.count; k += 3) {
    onShape += areaOf(place, k);
    ofTile += areaOf(inTile, k);
  }
  return ofTile > 0 && onShape > 0 ? Math.sqrt(onShape / ofTile) : 1;
}

/** What is said of a shape that a texture cannot be laid on. */
export const NO_COORDINATES =
  'No part of this shape has texture coordinates. Unwrap it, then export it again.';

/** Everything a file holds as one geometry, in its own place, with what the Sill needs of it. @throws Error in plain words. */
function wholeOf(root: THREE.Object3D, flipV: boolean): THREE.BufferGeometry {
  root.updateMatrixWorld(true);
  const parts: THREE.BufferGeometry[] = [];
  root.traverse((object) => {
    const { geometry, isMesh } = object as THREE.Mesh;
    if (!isMesh || !geometry?.getAttribute('uv')) return;
    const plain = geometry.index ? geometry.toNonIndexed() : geometry.clone();
    const part = new THREE.BufferGeometry();
    part.setAttribute('position', plain.getAttribute('position'));
    part.setAttribute('uv', plain.getAttribute('uv'));
    const normal = plain.getAttribute('normal');
    if (normal) part.setAttribute('normal', normal);
    else part.computeVertexNormals();
    parts.push(part.applyMatrix4(object.matrixWorld));
  });
  if (parts.length === 0) {
    throw new Error(NO_COORDINATES);
  }
  const whole = mergeGeometries(parts);
  for (const part of parts) part.dispose();
  whole.computeBoundingSphere();
  const { center, radius } = whole.boundingSphere!;
  if (!(radius > 0)) throw new Error('The shape has no size.');
  whole.translate(-center.x, -center.y, -center.z).scale(1 / radius, 1 / radius, 1 / radius);
  if (flipV) {
    const uv = whole.getAttribute('uv');
    for (let i = 0; i < uv.count; i++) uv.setY(i, 1 - uv.getY(i));
  }
  return whole;
}

/** A file of a shape as it was read; `flipV` where its v runs upwards. @throws Error in plain words. */
export async function readScene(file: File): Promise<{ root: THREE.Object3D; flipV: boolean }> {
  const { name } = file;
  if (/\.obj$/i.test(name)) {
    const { OBJLoader } = await import('three/examples/jsm/loaders/OBJLoader.js');
    return { root: new OBJLoader().parse(await file.text()), flipV: true };
  }
  if (!/\.(glb|gltf)$/i.test(name)) {
    throw new Error(`${name} is not a supported shape file. Choose a glTF (.glb, .gltf) or an OBJ file.`);
  }
  const { GLTFLoader } = await import('three/examples/jsm/loaders/GLTFLoader.js');
  try {
    const { scene } = await new GLTFLoader().parseAsync(await file.arrayBuffer(), '');
    return { root: scene, flipV: false };
  } catch {
    throw new Error(`${name} cannot be read. Give it as .glb, or as .gltf with everything inside.`);
  }
}

/** Reads a glTF (binary, or with everything in it) or an OBJ file. @throws Error in plain words. */
export async function readShape(file: File): Promise<OwnShape> {
  const { root, flipV } = await readScene(file);
  const geometry = wholeOf(root, flipV);
  return { name: file.name, geometry, edge: edgeOn(geometry) };
}
