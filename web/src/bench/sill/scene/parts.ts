import * as THREE from 'three';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';

/** Parts of the terrace that tiles lie on. */
export const SCENE_PARTS = ['floor', 'wall', 'steps', 'pot'] as const;
export type ScenePart = (typeof SCENE_PARTS)[number];

export const PART_WORDS: Record<ScenePart, string> = {
  floor: 'Floor',
  wall: 'Wall',
  steps: 'Steps',
  pot: 'Pot',
};

/** Units of the scene for each metre. */
export const PER_METRE = 0.6;

const FLOOR = { wide: 4.4, deep: 3.2 };
const WALL = 2.3;
const STEP = { wide: 1.3, deep: 0.34, high: 0.17, count: 4 };

/** A plane whose coordinates are metres, v downwards. */
function metred(wide: number, high: number): THREE.BufferGeometry {
  const made = new THREE.PlaneGeometry(wide, high);
  const uv = made.getAttribute('uv');
  for (let i = 0; i < uv.count; i++) uv.setXY(i, uv.getX(i) * wide, (1 - uv.getY(i)) * high);
  return made;
}

function joined(pieces: THREE.BufferGeometry[]): THREE.BufferGeometry {
  const whole = mergeGeometries(pieces);
  for (const piece of pieces) piece.dispose();
  return whole;
}

/** Steps that climb along the wall towards the right, seen from their open side. */
function steps(): THREE.BufferGeometry {
  const left = FLOOR.wide / 2 - STEP.count * STEP.deep;
  const back = -FLOOR.deep / 2;
  const middle = back + STEP.wide / 2;
  const pieces: THREE.BufferGeometry[] = [];
  for (let k = 0; k < STEP.count; k++) {
    const x = left + k * STEP.deep;
    const top = (k + 1) * STEP.high;
    pieces.push(
      metred(STEP.deep, STEP.wide)
        .rotateX(-Math.PI / 2)
        .translate(x + STEP.deep / 2, top, middle),
      metred(STEP.wide, STEP.high)
        .rotateY(-Math.PI / 2)
        .translate(x, top - STEP.high / 2, middle),
      metred(STEP.deep, top).translate(x + STEP.deep / 2, top / 2, back + STEP.wide),
    );
  }
  return joined(pieces);
}

/** The outline of a pot for a lemon tree, in metres: radius and height from the foot to the inside of the rim. */
const OUTLINE: [number, number][] = [
  [0.19, 0],
  [0.23, 0.1],
  [0.29, 0.28],
  [0.32, 0.42],
  [0.32, 0.47],
  [0.36, 0.49],
  [0.36, 0.56],
  [0.31, 0.56],
  [0.29, 0.46],
];

function pot(): THREE.BufferGeometry {
  const made = new THREE.LatheGeometry(
    OUTLINE.map(([r, y]) => new THREE.Vector2(r, y)),
    64,
  );
  const round = 2 * Math.PI * 0.32;
  let length = 0;
  const along = OUTLINE.map(([r, y], k) => {
    if (k > 0) length += Math.hypot(r - OUTLINE[k - 1][0], y - OUTLINE[k - 1][1]);
    return length;
  });
  const uv = made.getAttribute('uv');
  for (let i = 0; i < uv.count; i++) uv.setXY(i, uv.getX(i) * round, length - along[i % OUTLINE.length]);
  return made.translate(-1.15, 0, 0.35);
}

/** A part of the terrace in units of the scene; its coordinates are metres, v downwards. */
export function partOf(part: ScenePart): THREE.BufferGeometry {
  const body = (): THREE.BufferGeometry => {
    switch (part) {
      case 'floor':
        return metred(FLOOR.wide, FLOOR.deep).rotateX(-Math.PI / 2);
      case 'wall':
        return metred(FLOOR.wide, WALL).translate(0, WALL / 2, -FLOOR.deep / 2);
      case 'steps':
        return steps();
      case 'pot':
        return pot();
    }
  };
  return body().translate(0, -0.75, 0).scale(PER_METRE, PER_METRE, PER_METRE);
}

/** Where the figure stands on the terrace's floor, in units of the scene. */
export const FIGURE_AT: [number, number, number] = [0.1 * PER_METRE, -0.75 * PER_METRE, -0.7 * PER_METRE];
