import * as THREE from 'three';
import { litMaterial } from '../light/lit-by.ts';
import { numbersFrom } from '../seeded.ts';
import { cardTowards, twig } from './leaves.ts';
import { joined } from './metric.ts';
import { inScene } from './parts.ts';
import { type Piece, Pieces } from './pieces.tsx';

/** A crown's measures, in metres above the floor it stands on. */
interface Tree {
  at: readonly [number, number, number];
  /** Where the pot ends and the trunk begins, and the middle of the crown. */
  foot: number;
  crown: number;
  radius: number;
  seed: number;
}

const CARDS = 420;
const LEMONS = 12;

/** Cards over a crown, their normals from its middle, so that it is shaded as one body. */
function crownOf({ at, crown, radius, seed }: Tree): THREE.BufferGeometry {
  const next = numbersFrom(seed);
  const middle = new THREE.Vector3(at[0], at[1] + crown, at[2]);
  const cards = Array.from({ length: CARDS }, () => {
    const [turn, rise] = [2 * Math.PI * next(), 2 * next() - 0.85];
    const flat = Math.sqrt(Math.max(0, 1 - rise * rise));
    const out = new THREE.Vector3(flat * Math.cos(turn), rise, flat * Math.sin(turn));
    const far = radius * (0.4 + 0.6 * Math.sqrt(next())) * (0.9 + 0.2 * Math.sin(3 * turn + 2 * rise));
    const size = 0.15 + 0.1 * next();
    const card = cardTowards(out, size, next);
    card.translate(middle.x + out.x * far, middle.y + out.y * far * 0.85, middle.z + out.z * far);
    const [place, normal] = [card.getAttribute('position'), card.getAttribute('normal')];
    const n = new THREE.Vector3();
    for (let i = 0; i < place.count; i++) {
      n.fromBufferAttribute(place, i).sub(middle).normalize();
      normal.setXYZ(i, n.x, n.y, n.z);
    }
    return card;
  });
  return joined(cards);
}

/** Trunk and branches, and lemons among the leaves. */
function woodOf({ at, foot, crown, radius, seed }: Tree): THREE.BufferGeometry {
  const next = numbersFrom(seed + 1);
  const top = crown - radius * 0.35;
  const trunk = new THREE.CylinderGeometry(0.025, 0.038, top - foot, 10).translate(
    at[0],
    at[1] + (foot + top) / 2,
    at[2],
  );
  const branches = Array.from({ length: 6 }, (_, k) => {
    const long = radius * (0.7 + 0.3 * next());
    return new THREE.CylinderGeometry(0.008, 0.018, long, 6)
      .translate(0, long / 2, 0)
      .rotateZ(0.5 + 0.5 * next())
      .rotateY((2 * Math.PI * (k + next())) / 6)
      .translate(at[0], at[1] + top - 0.03, at[2]);
  });
  return joined([trunk, ...branches]);
}

function fruitOf({ at, crown, radius, seed }: Tree): THREE.BufferGeometry {
  const next = numbersFrom(seed + 2);
  return joined(
    Array.from({ length: LEMONS }, () => {
      const [turn, rise] = [2 * Math.PI * next(), 1.5 * next() - 0.85];
      const flat = Math.sqrt(Math.max(0, 1 - rise * rise));
      return new THREE.SphereGeometry(0.034, 14, 10)
        .scale(1, 1.28, 1)
        .rotateZ(0.6 * (next() - 0.5))
        .translate(
          at[0] + flat * Math.cos(turn) * radius * 0.97,
          at[1] + crown + rise * radius * 0.8,
          at[2] + flat * Math.sin(turn) * radius * 0.97,
        );
    }),
  );
}

const TREES: readonly Tree[] = [
  { at: [-1.15, 0, 0.35], foot: 0.46, crown: 1.42, radius: 0.52, seed: 3 },
  { at: [0.7, 0, -2.45], foot: 0.5, crown: 1.62, radius: 0.56, seed: 21 },
  { at: [-2.95, 0, 1.5], foot: 0.37, crown: 1.12, radius: 0.42, seed: 40 },
  // Behind the panes.
  { at: [-0.2, 0, -3.86], foot: 0.37, crown: 1.2, radius: 0.36, seed: 57 },
  { at: [1.6, 0, -3.86], foot: 0.37, crown: 1.05, radius: 0.34, seed: 63 },
  { at: [2.85, 0, -3.86], foot: 0.37, crown: 1.25, radius: 0.36, seed: 78 },
];

function lemonTrees(): Piece[] {
  const earth = TREES.map(({ at, foot }) =>
    new THREE.CircleGeometry(0.3 * (foot / 0.46), 32)
      .rotateX(-Math.PI / 2)
      .translate(at[0], at[1] + foot + 0.03, at[2]),
  );
  const leaves = litMaterial({ map: twig(), alphaTest: 0.5, side: THREE.DoubleSide, roughness: 0.5 });
  const made: [THREE.BufferGeometry[], THREE.MeshPhysicalMaterial][] = [
    [TREES.map(crownOf), leaves],
    [TREES.map(woodOf), litMaterial({ color: '#6d5b45', roughness: 0.9 })],
    [TREES.map(fruitOf), litMaterial({ color: '#e9c21d', roughness: 0.42 })],
    [earth, litMaterial({ color: '#4a3626', roughness: 1 })],
  ];
  return made.map(([ones, material]) => ({
    geometry: inScene(joined(ones)),
    material,
    casts: true,
    receives: true,
  }));
}

/** Lemon trees in the terrace's pots: leaves on cards that are cut out, wood, earth and fruit. */
export const LemonTrees = () => <Pieces make={lemonTrees} />;
