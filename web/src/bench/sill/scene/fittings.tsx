import * as THREE from 'three';
import { litMaterial } from '../light/lit-by.ts';
import { joined } from './metric.ts';
import { BASIN, inScene, LANTERN_AT, PANE_AT, PANES } from './parts.ts';
import { type Piece, Pieces } from './pieces.tsx';

function panes(): THREE.BufferGeometry {
  return joined(
    PANES.map(({ x, wide, high }) => new THREE.PlaneGeometry(wide, high).translate(x, high / 2, PANE_AT)),
  );
}

/** The back wall and the floor of the room behind the panes. */
const room = () =>
  joined([
    new THREE.PlaneGeometry(5, 2.6).translate(1.4, 1.3, PANE_AT - 1.1),
    new THREE.PlaneGeometry(5, 1.2).rotateX(-Math.PI / 2).translate(1.4, 0.004, PANE_AT - 0.6),
  ]);

function water(): THREE.BufferGeometry {
  const { x, z, wide, deep, high, under } = BASIN;
  return new THREE.PlaneGeometry(wide, deep).rotateX(-Math.PI / 2).translate(x, high - under, z);
}

/** An iron bracket with a frame of four bars, a roof and a floor. */
function iron(): THREE.BufferGeometry {
  const [x, y, z] = LANTERN_AT;
  const bars = [-1, 1].flatMap((a) =>
    [-1, 1].map((b) => new THREE.BoxGeometry(0.012, 0.26, 0.012).translate(x + 0.075 * a, y, z + 0.075 * b)),
  );
  return joined([
    ...bars,
    new THREE.BoxGeometry(0.18, 0.018, 0.18).translate(x, y - 0.135, z),
    new THREE.ConeGeometry(0.145, 0.1, 4, 1).rotateY(Math.PI / 4).translate(x, y + 0.18, z),
    new THREE.BoxGeometry(0.02, 0.02, 0.26).translate(x, y + 0.25, z - 0.11),
    new THREE.BoxGeometry(0.06, 0.16, 0.015).translate(x, y + 0.2, z - 0.22),
  ]);
}

const flame = () => new THREE.CapsuleGeometry(0.028, 0.07, 6, 12).translate(...LANTERN_AT);

/** How bright the lantern's flame is, as surroundings are measured. */
const FLAME = 3.2;

function fittings(): Piece[] {
  const glass = litMaterial({ color: '#20302c', roughness: 0.04, transparent: true, opacity: 0.42 });
  const wet = litMaterial({ color: '#0e1a18', roughness: 0.03, transparent: true, opacity: 0.82 });
  const light = litMaterial({ color: '#201408', emissive: '#ffb45a', emissiveIntensity: FLAME });
  const made: Omit<Piece, 'receives'>[] = [
    { geometry: inScene(panes()), material: glass, casts: false, part: 'joinery' },
    { geometry: inScene(room()), material: litMaterial({ color: '#8a7a5e', roughness: 1 }), casts: true },
    { geometry: inScene(water()), material: wet, casts: false, part: 'basin' },
    { geometry: inScene(iron()), material: litMaterial({ color: '#1b1b1b', roughness: 0.5 }), casts: true },
    { geometry: inScene(flame()), material: light, casts: false },
  ];
  return made.map((one) => ({ ...one, receives: true }));
}

/** What of the terrace no tile lies on: panes, water, and the lantern with its light. */
export const Fittings = () => <Pieces make={fittings} />;
