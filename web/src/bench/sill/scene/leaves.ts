import * as THREE from 'three';
import { numbersFrom } from '../seeded.ts';

const PICTURE = 128;

/** Leaves of one twig on a card: pointed ovals about a stalk, cut out by alpha. */
export function twig(): THREE.DataTexture {
  const data = new Uint8Array(4 * PICTURE * PICTURE);
  const next = numbersFrom(11);
  const leaves = Array.from({ length: 9 }, (_, k) => ({
    x: 0.5 + 0.02 * (next() - 0.5),
    y: 0.08 + 0.085 * k,
    angle: (k % 2 ? 1 : -1) * (0.65 + 0.35 * next()) * (1 - 0.06 * k),
    long: 0.36 + 0.1 * next(),
    shade: 0.75 + 0.5 * next(),
  }));
  leaves.push({ x: 0.5, y: 0.72, angle: 0, long: 0.27, shade: 1.1 });
  for (let j = 0; j < PICTURE; j++) {
    for (let i = 0; i < PICTURE; i++) {
      const [x, y] = [(i + 0.5) / PICTURE, (j + 0.5) / PICTURE];
      const at = 4 * (j * PICTURE + i);
      // Under the leaves the same green, so that edges show no other colour.
      data.set([62, 80, 34, 0], at);
      if (Math.abs(x - 0.5) < 0.008 && y < 0.78) data.set([86, 92, 44, 255], at);
      for (const { x: x0, y: y0, angle, long, shade } of leaves) {
        const [dx, dy] = [x - x0, y - y0];
        const along = (dx * Math.sin(angle) + dy * Math.cos(angle)) / long;
        const across = (dx * Math.cos(angle) - dy * Math.sin(angle)) / long;
        if (along < 0 || along > 1) continue;
        const half = 0.24 * Math.sin(Math.PI * along ** 0.8) ** 0.9;
        if (Math.abs(across) > half) continue;
        const rib = Math.abs(across) < 0.018 ? 1.35 : 1;
        const light = shade * rib * (across > 0 ? 1.08 : 0.92);
        data.set(
          [66 * light, 88 * light, 36 * light, 255].map((value) => Math.min(255, value)),
          at,
        );
      }
    }
  }
  const made = new THREE.DataTexture(data, PICTURE, PICTURE);
  made.colorSpace = THREE.SRGBColorSpace;
  made.magFilter = THREE.LinearFilter;
  made.minFilter = THREE.LinearMipmapLinearFilter;
  made.generateMipmaps = true;
  made.needsUpdate = true;
  return made;
}

/** A square card with a twig on it, its foot at the origin, as if it grew towards a direction. */
export function cardTowards(out: THREE.Vector3, size: number, next: () => number): THREE.BufferGeometry {
  const card = new THREE.PlaneGeometry(size, size).translate(0, size * 0.35, 0);
  card.rotateX(1.5 * (next() - 0.5)).rotateZ(2 * Math.PI * next());
  return card.applyQuaternion(
    new THREE.Quaternion().setFromUnitVectors(new THREE.Vector3(0, 0.3, 0.954).normalize(), out),
  );
}

/** Turns all normals of a card one way, so that leaves are shaded as the body they grow on. */
export function facing(card: THREE.BufferGeometry, { x, y, z }: THREE.Vector3): THREE.BufferGeometry {
  const normal = card.getAttribute('normal');
  for (let i = 0; i < normal.count; i++) normal.setXYZ(i, x, y, z);
  return card;
}
