import * as THREE from 'three';
import { litMaterial } from '../light/lit-by.ts';
import { numbersFrom } from '../seeded.ts';
import { cardTowards, facing, twig } from './leaves.ts';
import { joined } from './metric.ts';
import { inScene } from './parts.ts';
import { type Piece, Pieces } from './pieces.tsx';

/** Cypresses beyond the walls: where, how high and how wide, in metres. */
const CYPRESSES: [number, number, number, number][] = [
  [-7.5, -5, 5.2, 0.62],
  [-9.5, -7, 6, 0.7],
  [-6.6, -8.5, 5.6, 0.6],
  [-12, -5.5, 5, 0.66],
  [-10.5, 0.5, 5.4, 0.7],
  [6.4, -6.5, 6.2, 0.7],
  [8.2, -4.5, 5.4, 0.66],
  [9.6, -8, 6.4, 0.75],
];
/** A hedge along the low wall: from, to, height. */
const HEDGES: [number, number, number, number, number][] = [
  [-6.4, -7, -5.2, 5, 1.25],
  [4.9, -4, 5.9, 5, 1.5],
];

/** Unevenness of leaves, always the same. */
const uneven = (a: number, b: number): number =>
  0.5 * Math.sin(12.9 * a + 4.1 * b) + 0.3 * Math.sin(31.7 * a - 17.3 * b) + 0.2 * Math.sin(67 * b + 5 * a);

function cypress([x, z, high, wide]: (typeof CYPRESSES)[number], k: number): THREE.BufferGeometry {
  const made = new THREE.SphereGeometry(1, 26, 40);
  const place = made.getAttribute('position');
  for (let i = 0; i < place.count; i++) {
    const [px, py, pz] = [place.getX(i), place.getY(i), place.getZ(i)];
    const t = (py + 1) / 2;
    const body = Math.min(1, 3.2 * t) * (1 - t) ** 0.6 * 1.5;
    const angle = Math.atan2(pz, px);
    const rough = 1 + 0.16 * uneven(3 * angle + k, 9 * t);
    const flat = Math.hypot(px, pz) || 1;
    place.setXYZ(i, x + (px / flat) * wide * body * rough, t * high, z + (pz / flat) * wide * body * rough);
  }
  made.computeVertexNormals();
  return made;
}

function hedge([x0, z0, x1, z1, high]: (typeof HEDGES)[number]): THREE.BufferGeometry {
  const made = new THREE.BoxGeometry(x1 - x0, high, z1 - z0, 8, 8, 60).translate(
    (x0 + x1) / 2,
    high / 2,
    (z0 + z1) / 2,
  );
  const place = made.getAttribute('position');
  for (let i = 0; i < place.count; i++) {
    const [x, y, z] = [place.getX(i), place.getY(i), place.getZ(i)];
    const by = 0.09 * uneven(2.3 * z + x, 2.9 * y + x);
    place.setXYZ(i, x + by, y + (y > 0.1 ? by : 0), z);
  }
  made.computeVertexNormals();
  return made;
}

/** Twigs for each square metre of a body, and their size in metres. */
const TWIGS = 38;
const TWIG = 0.34;

/** About where viewers stand. Twigs that grow farther away from there than this, as a cosine, are seen from none of the places. */
const VIEWER = new THREE.Vector3(0, 1.6, 1);
const AVERTED = -0.4;

/** Twigs over a body, growing out of it; `upright` as cypresses grow. */
function twigsOn(body: THREE.BufferGeometry, upright: number, seed: number): THREE.BufferGeometry[] {
  const next = numbersFrom(seed);
  const whole = body.index ? body.toNonIndexed() : body;
  const place = whole.getAttribute('position');
  const triangle = new THREE.Triangle();
  const [out, at, towards] = [new THREE.Vector3(), new THREE.Vector3(), new THREE.Vector3()];
  const cards: THREE.BufferGeometry[] = [];
  let due = 0;
  for (let i = 0; i < place.count; i += 3) {
    triangle.setFromAttributeAndIndices(place as THREE.BufferAttribute, i, i + 1, i + 2);
    for (due += TWIGS * triangle.getArea(); due >= 1; due--) {
      triangle.getNormal(out);
      const [u, v] = [Math.sqrt(next()), next()];
      at.copy(triangle.a)
        .multiplyScalar(1 - u)
        .addScaledVector(triangle.b, u * (1 - v))
        .addScaledVector(triangle.c, u * v);
      const grown = out
        .clone()
        .setY(out.y + upright)
        .normalize();
      const size = TWIG * (0.7 + 0.6 * next());
      if (out.dot(towards.copy(VIEWER).sub(at).normalize()) < AVERTED) continue;
      cards.push(facing(cardTowards(grown, size, next), out).translate(at.x, at.y, at.z));
    }
  }
  return cards;
}

function beyond(): Piece[] {
  const [trees, hedges] = [CYPRESSES.map(cypress), HEDGES.map(hedge)];
  const twigs = joined([
    ...trees.flatMap((tree, k) => twigsOn(tree, 0.8, 101 + k)),
    ...hedges.flatMap((one, k) => twigsOn(one, 0.15, 201 + k)),
  ]);
  const bodies = litMaterial({ color: '#222d13', roughness: 1 });
  const leaves = litMaterial({
    map: twig(),
    color: '#9fae8e',
    alphaTest: 0.5,
    side: THREE.DoubleSide,
    roughness: 0.7,
  });
  return [
    { geometry: inScene(joined([...trees, ...hedges])), material: bodies, casts: false, receives: false },
    { geometry: inScene(twigs), material: leaves, casts: false, receives: false },
  ];
}

/** What is seen over the walls: bodies in their own shade, and twigs on them. */
export const Beyond = () => <Pieces make={beyond} />;
