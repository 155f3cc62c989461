import * as THREE from 'three';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';

/** Pieces as one geometry; they are freed. */
export function joined(pieces: THREE.BufferGeometry[]): THREE.BufferGeometry {
  const flat = pieces.map((piece) => (piece.index ? piece.toNonIndexed() : piece));
  const whole = mergeGeometries(flat);
  for (const piece of [...pieces, ...flat]) piece.dispose();
  return whole;
}

/**
 * Gives each triangle metres as coordinates, seen from the side it faces most: u to the right and v downwards, so that pieces
 * that touch carry the tile on.
 */
export function metric(geometry: THREE.BufferGeometry): THREE.BufferGeometry {
  const flat = geometry.index ? geometry.toNonIndexed() : geometry;
  const place = flat.getAttribute('position');
  const uv = new THREE.Float32BufferAttribute(new Float32Array(2 * place.count), 2);
  const [a, b, c] = [new THREE.Vector3(), new THREE.Vector3(), new THREE.Vector3()];
  const faces = new THREE.Triangle(a, b, c);
  const n = new THREE.Vector3();
  for (let i = 0; i < place.count; i += 3) {
    [a, b, c].forEach((corner, k) => {
      corner.fromBufferAttribute(place, i + k);
    });
    faces.getNormal(n);
    const [x, y, z] = [Math.abs(n.x), Math.abs(n.y), Math.abs(n.z)];
    [a, b, c].forEach((corner, k) => {
      if (y >= x && y >= z) uv.setXY(i + k, corner.x, Math.sign(n.y) * corner.z);
      else if (z >= x) uv.setXY(i + k, Math.sign(n.z) * corner.x, -corner.y);
      else uv.setXY(i + k, -Math.sign(n.x) * corner.z, -corner.y);
    });
  }
  flat.setAttribute('uv', uv);
  return flat;
}

/** Rotates coordinates by quarter turns, clockwise. */
export function turnedBy(geometry: THREE.BufferGeometry, turns: number): THREE.BufferGeometry {
  const uv = geometry.getAttribute('uv');
  const [c, s] = [
    [1, 0],
    [0, 1],
    [-1, 0],
    [0, -1],
  ][turns % 4];
  for (let i = 0; i < uv.count; i++) {
    const [u, v] = [uv.getX(i), uv.getY(i)];
    uv.setXY(i, c * u + s * v, c * v - s * u);
  }
  return geometry;
}
