import * as THREE from 'three';
import { RoundedBoxGeometry } from 'three/examples/jsm/geometries/RoundedBoxGeometry.js';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';

export const SHAPES = ['slab', 'ball', 'block', 'post', 'nook', 'field', 'scene', 'own'] as const;
export type Shape = (typeof SHAPES)[number];
/** Shapes that the program makes as one piece. */
export type SolidShape = Exclude<Shape, 'own' | 'scene'>;

export const SHAPE_WORDS: Record<Shape, string> = {
  slab: 'Slab',
  ball: 'Ball',
  block: 'Block',
  post: 'Post',
  nook: 'Nook',
  field: 'Field',
  scene: 'Terrace',
  own: 'Own',
};

const BLOCK = 1.3;
const POST = { radius: 0.5, height: 1.9 };
const NOOK = 1.5;
/** Metres of open ground. */
const FIELD = 9000;
const SLAB = 2;
/** How wide edges are broken, so that light catches them, and how thick a slab is. */
const BEVEL = 0.03;
const THICK = 0.16;

/** How often the tile's longer edge goes over each shape, across and down. */
const REPEATS: Record<Shape, [number, number]> = {
  slab: [1, 1],
  ball: [4, 2],
  block: [1, 1],
  post: [3, (3 * POST.height) / (2 * Math.PI * POST.radius)],
  nook: [1, 1],
  field: [1, 1],
  scene: [1, 1],
  own: [1, 1],
};

/** How often the tile's longer edge goes over a shape, across and down. */
export function repeatsOf(shape: Shape, times: number): [number, number] {
  const [across, down] = REPEATS[shape];
  return [times * across, times * down];
}

/** Round shapes close only with whole counts. */
const isRound = (shape: Shape): boolean => shape === 'ball' || shape === 'post';

/** The nearest count at which a shape's tile still closes upon itself. */
export const closing = (shape: Shape, times: number): number =>
  isRound(shape) ? Math.max(1, Math.round(times * REPEATS[shape][0])) / REPEATS[shape][0] : times;

/** Length of the tile's longer edge in the shape's own units, for the true size of relief. */
export const TILE_EDGE: Record<Exclude<Shape, 'own'>, number> = {
  slab: SLAB,
  ball: Math.PI / 2,
  block: BLOCK,
  post: (2 * Math.PI * POST.radius) / 3,
  nook: NOOK,
  field: 1,
  scene: 1,
};

/** How wide each shape is in its own units, as it is said in metres. */
export const WIDTH: Record<Exclude<SolidShape, 'field'> | 'own', number> = {
  slab: SLAB,
  ball: 2,
  block: BLOCK,
  post: 2 * POST.radius,
  nook: NOOK,
  own: 2,
};

/** Shapes without sharp edges, which relief may move without tearing them. */
export const IS_WHOLE: Record<Shape, boolean> = {
  slab: true,
  ball: true,
  block: false,
  post: true,
  nook: false,
  field: false,
  scene: false,
  own: false,
};

/** How far a shape is turned about its upright axis, in radians. */
export const TURNED: Record<SolidShape | 'own', number> = {
  slab: 0,
  ball: 0,
  block: 0.62,
  post: 0,
  nook: -Math.PI / 4,
  field: 0,
  own: 0,
};

/** Where the ground is under a shape, and where on it the figure stands that gives its size. */
export const GROUNDS: Record<Exclude<Shape, 'field' | 'scene'>, { y: number; figure: [number, number] }> = {
  slab: { y: -SLAB / 2 - BEVEL, figure: [1.35, 0.2] },
  ball: { y: -1, figure: [1.25, 0] },
  block: { y: -BLOCK / 2, figure: [1.15, 0] },
  post: { y: -POST.height / 2, figure: [0.8, 0] },
  nook: { y: -NOOK / 2 - 0.08, figure: [0.35, 0.35] },
  own: { y: -1, figure: [1.2, 0] },
};

/** A grid of points by their row and column, each with its place, normal, coordinates and where relief moves it. */
function grid(
  columns: number,
  rows: number,
  at: (u: number, row: number) => { place: number[]; normal: number[]; uv: number[]; lift: number[] },
): THREE.BufferGeometry {
  const [places, normals, uvs, lifts]: number[][] = [[], [], [], []];
  const index: number[] = [];
  for (let j = 0; j < rows; j++) {
    for (let i = 0; i <= columns; i++) {
      const { place, normal, uv, lift } = at(i / columns, j);
      places.push(...place);
      normals.push(...normal);
      uvs.push(...uv);
      lifts.push(...lift);
    }
  }
  for (let j = 0; j + 1 < rows; j++) {
    for (let i = 0; i < columns; i++) {
      const a = j * (columns + 1) + i;
      const b = a + columns + 1;
      index.push(a, b, a + 1, b, b + 1, a + 1);
    }
  }
  const made = new THREE.BufferGeometry();
  made.setAttribute('position', new THREE.Float32BufferAttribute(places, 3));
  made.setAttribute('normal', new THREE.Float32BufferAttribute(normals, 3));
  made.setAttribute('uv', new THREE.Float32BufferAttribute(uvs, 2));
  made.setAttribute('zLift', new THREE.Float32BufferAttribute(lifts, 3));
  made.setIndex(index);
  return made;
}

/** From a face over its broken edge and down a side: how far out, how deep, how the surface faces, and how much relief moves it. */
const EDGE = [
  ...[0, 0.25, 0.5, 0.75, 1].map((t) => {
    const angle = (t * Math.PI) / 2;
    return {
      out: BEVEL * Math.sin(angle),
      deep: BEVEL * (1 - Math.cos(angle)),
      faces: [Math.sin(angle), Math.cos(angle)],
      moved: 1 - 0.5 * t,
    };
  }),
  { out: BEVEL, deep: 3 * BEVEL, faces: [1, 0], moved: 0 },
  { out: BEVEL, deep: THICK, faces: [1, 0], moved: 0 },
];

/** A slab with one tile on its face, which goes on over its broken edges and down its sides. */
function slab(parts: (count: number) => number): THREE.BufferGeometry {
  const half = SLAB / 2;
  const count = parts(256);
  const face = grid(count, count + 1, (u, row) => {
    const v = row / count;
    return {
      place: [half * (2 * u - 1), half * (1 - 2 * v), 0],
      normal: [0, 0, 1],
      uv: [u, 1 - v],
      lift: [0, 0, 1],
    };
  });
  const sides = [0, 1, 2, 3].map((quarter) => {
    const [c, s] = [
      Math.round(Math.cos((quarter * Math.PI) / 2)),
      Math.round(Math.sin((quarter * Math.PI) / 2)),
    ];
    return grid(count, EDGE.length, (t, row) => {
      const { out, deep, faces, moved } = EDGE[row];
      // Along the lower edge from the left, then rotated to the others.
      const along = (2 * t - 1) * (half + out);
      const [x, y] = [along, -half - out];
      const [u, v] = [along, -half - out - deep];
      return {
        place: [c * x - s * y, s * x + c * y, -deep],
        normal: [s * faces[0], -c * faces[0], faces[1]],
        uv: [(c * u - s * v) / SLAB + 0.5, (s * u + c * v) / SLAB + 0.5],
        lift: [0, 0, moved],
      };
    });
  });
  const back = new THREE.PlaneGeometry(SLAB + 2 * BEVEL, SLAB + 2 * BEVEL)
    .rotateY(Math.PI)
    .translate(0, 0, -THICK);
  return joined([face, ...sides, back]);
}

/** Pieces as one, each with where relief moves its points: along its normals where it does not say otherwise. */
function joined(pieces: THREE.BufferGeometry[]): THREE.BufferGeometry {
  for (const piece of pieces)
    if (!piece.getAttribute('zLift')) piece.setAttribute('zLift', piece.getAttribute('normal').clone());
  const indexed = pieces.every(({ index }) => index !== null);
  const whole = mergeGeometries(
    indexed ? pieces : pieces.map((piece) => (piece.index ? piece.toNonIndexed() : piece)),
  );
  for (const piece of pieces) piece.dispose();
  return whole;
}

/** A post with a broken edge at its top, on which the tile lies flat. */
function post(parts: (count: number) => number): THREE.BufferGeometry {
  const { radius, height } = POST;
  const [around, rows] = [parts(256), parts(160)];
  const top = height / 2 - BEVEL;
  const mantle = grid(around, rows + 1, (u, row) => {
    const angle = 2 * Math.PI * u;
    const v = row / rows;
    const [x, z] = [Math.sin(angle), Math.cos(angle)];
    const y = top - v * (top + height / 2);
    // Relief ends before the edges.
    const free = Math.min(1, 12 * Math.min(v, 1 - v));
    return {
      place: [radius * x, y, radius * z],
      normal: [x, 0, z],
      uv: [u, (y + height / 2) / height],
      lift: [free * x, 0, free * z],
    };
  });
  const edge = grid(around, 6, (u, row) => {
    const angle = 2 * Math.PI * u;
    const tilt = ((1 - row / 5) * Math.PI) / 2;
    const [x, z] = [Math.sin(angle), Math.cos(angle)];
    const out = radius - BEVEL + BEVEL * Math.cos(tilt);
    const y = top + BEVEL * Math.sin(tilt);
    return {
      place: [out * x, y, out * z],
      normal: [Math.cos(tilt) * x, Math.sin(tilt), Math.cos(tilt) * z],
      uv: [u, (y + height / 2) / height],
      lift: [0, 0, 0],
    };
  });
  const cap = new THREE.CircleGeometry(radius - BEVEL, 64).rotateX(-Math.PI / 2).translate(0, height / 2, 0);
  const [place, uv] = [cap.getAttribute('position'), cap.getAttribute('uv')];
  const round = 2 * Math.PI * radius;
  for (let i = 0; i < uv.count; i++) uv.setXY(i, place.getX(i) / round, -place.getZ(i) / height);
  cap.setAttribute('zLift', new THREE.Float32BufferAttribute(new Float32Array(3 * uv.count), 3));
  return joined([mantle, edge, cap]);
}

/** Two walls and a floor, as thick as walls are. */
function nook(): THREE.BufferGeometry {
  const [half, thick] = [NOOK / 2, 0.08];
  const plane = () => new THREE.PlaneGeometry(NOOK, NOOK);
  const faces = [
    plane().translate(0, 0, -half),
    plane()
      .rotateY(Math.PI / 2)
      .translate(-half, 0, 0),
    plane()
      .rotateX(-Math.PI / 2)
      .translate(0, -half, 0),
  ];
  /** A strip of the tile, as wide as the nook. */
  const strip = (turn: (one: THREE.BufferGeometry) => THREE.BufferGeometry, long = NOOK + thick) => {
    const made = new THREE.PlaneGeometry(long, thick);
    const uv = made.getAttribute('uv');
    for (let i = 0; i < uv.count; i++) uv.setXY(i, (uv.getX(i) * long) / NOOK, (uv.getY(i) * thick) / NOOK);
    return turn(made);
  };
  const quarter = Math.PI / 2;
  const edges = [
    // On top of both walls, at their free ends, and along the floor.
    strip((one) => one.rotateX(-quarter).translate(-thick / 2, half, -half - thick / 2)),
    strip((one) =>
      one
        .rotateX(-quarter)
        .rotateY(-quarter)
        .translate(-half - thick / 2, half, -thick / 2),
    ),
    strip((one) =>
      one
        .rotateZ(quarter)
        .rotateY(quarter)
        .translate(half, -thick / 2, -half - thick / 2),
    ),
    strip((one) => one.rotateZ(quarter).translate(-half - thick / 2, -thick / 2, half)),
    strip((one) => one.translate(-thick / 2, -half - thick / 2, half)),
    strip((one) => one.rotateY(quarter).translate(half, -half - thick / 2, -thick / 2)),
  ];
  return joined([...faces, ...edges]);
}

function bodyOf(shape: SolidShape, parts: (count: number) => number): THREE.BufferGeometry {
  switch (shape) {
    case 'slab':
      return slab(parts);
    case 'ball':
      return joined([new THREE.SphereGeometry(1, parts(320), parts(200))]);
    case 'block':
      return joined([new RoundedBoxGeometry(BLOCK, BLOCK, BLOCK, 5, BEVEL)]);
    case 'post':
      return post(parts);
    case 'nook':
      return nook();
    case 'field':
      return joined([new THREE.PlaneGeometry(FIELD, FIELD).rotateX(-Math.PI / 2)]);
  }
}

/** Turns a geometry's v over: the picture's top is row 0. */
export function downwards(geometry: THREE.BufferGeometry): THREE.BufferGeometry {
  const uv = geometry.getAttribute('uv');
  for (let i = 0; i < uv.count; i++) uv.setY(i, 1 - uv.getY(i));
  return geometry;
}

/** A shape whose v runs from the picture's top downwards; `density` scales how finely it is divided. */
export const shapeOf = (shape: SolidShape, density: number): THREE.BufferGeometry =>
  downwards(bodyOf(shape, (count) => Math.round(count * density)));
