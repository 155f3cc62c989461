import { useThree } from '@react-three/fiber';
import { nearestOn, type ShapeTriangle, upOn } from '@zesty-tile/core';
import { useEffect } from 'react';
import * as THREE from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { MINE } from './frame/drawing.ts';
import { useSill } from './state.ts';
import { type LitSurface, offerSurface, type SurfaceHit, type Vector } from './under-pointer.ts';

/** What a mesh says of the tile on it. */
export interface TileOnMesh {
  /** Shares of the tile for each unit of the texture coordinates. */
  repeat: readonly [number, number];
  /** Length of the tile's longer edge, in the geometry's units. */
  edge: number;
  /** Whether another tile lies on it. */
  isOther: boolean;
}

/** How far the ray to a place may end before it where nothing lies between. */
const TOUCH = 2e-3;

const trees = new WeakMap<THREE.BufferGeometry, MeshBVH>();

/** The tree of a geometry's triangles, in their own order beside those that are drawn. */
function treeOf(geometry: THREE.BufferGeometry): MeshBVH {
  let tree = trees.get(geometry);
  if (!tree) {
    const own = new THREE.BufferGeometry();
    own.setAttribute('position', geometry.getAttribute('position'));
    own.setAttribute('uv', geometry.getAttribute('uv'));
    if (geometry.index) own.setIndex(geometry.index.clone());
    tree = new MeshBVH(own);
    trees.set(geometry, tree);
  }
  return tree;
}

type TiledMesh = THREE.Mesh<THREE.BufferGeometry> & { userData: { tile: TileOnMesh } };

/** Every mesh under a tile. */
function meshesOf(scene: THREE.Scene): TiledMesh[] {
  const found: TiledMesh[] = [];
  scene.getObjectByName(MINE)?.traverse((object) => {
    if ((object as THREE.Mesh).isMesh && object.userData.tile) found.push(object as TiledMesh);
  });
  return found;
}

const listOf = ({ x, y, z }: THREE.Vector3): Vector => [x, y, z];

/** Corner numbers of a triangle of a tree. */
function cornersOf({ geometry }: MeshBVH, triangle: number): number[] {
  const { index } = geometry;
  return [0, 1, 2].map((k) => (index ? index.getX(3 * triangle + k) : 3 * triangle + k));
}

/** A triangle of a mesh where it is in the scene. */
function triangleOf(mesh: TiledMesh, tree: MeshBVH, triangle: number): ShapeTriangle {
  const { position, uv } = tree.geometry.attributes;
  const { repeat } = mesh.userData.tile;
  const corners = cornersOf(tree, triangle);
  return {
    corners: corners.map((k) =>
      listOf(new THREE.Vector3().fromBufferAttribute(position, k).applyMatrix4(mesh.matrixWorld)),
    ) as unknown as ShapeTriangle['corners'],
    places: corners.map((k) => [
      uv.getX(k) * repeat[0],
      uv.getY(k) * repeat[1],
    ]) as unknown as ShapeTriangle['places'],
  };
}

interface RayHit {
  mesh: TiledMesh;
  tree: MeshBVH;
  triangle: number;
  at: THREE.Vector3;
  distance: number;
}

/** The first triangle that a ray of the scene meets. */
function firstHit(meshes: readonly TiledMesh[], ray: THREE.Ray, side: THREE.Side): RayHit | null {
  let first: RayHit | null = null;
  for (const mesh of meshes) {
    const tree = treeOf(mesh.geometry);
    const own = ray.clone().applyMatrix4(mesh.matrixWorld.clone().invert());
    const hit = tree.raycastFirst(own, side);
    if (hit?.faceIndex == null) continue;
    const at = hit.point.clone().applyMatrix4(mesh.matrixWorld);
    const distance = at.distanceTo(ray.origin);
    if (!first || distance < first.distance) first = { mesh, tree, triangle: hit.faceIndex, at, distance };
  }
  return first;
}

/** Place in the tile of a point of a triangle. */
function placeOn({ corners, places }: ShapeTriangle, at: THREE.Vector3): [number, number] {
  const [a, b, c] = corners.map((corner) => new THREE.Vector3(...corner));
  const weights = THREE.Triangle.getBarycoord(at, a, b, c, new THREE.Vector3());
  if (!weights) return [...places[0]];
  const of = (k: 0 | 1) => weights.x * places[0][k] + weights.y * places[1][k] + weights.z * places[2][k];
  return [of(0), of(1)];
}

const normalOf = ({ corners }: ShapeTriangle): THREE.Vector3 => {
  const [a, b, c] = corners.map((corner) => new THREE.Vector3(...corner));
  return new THREE.Triangle(a, b, c).getNormal(new THREE.Vector3());
};

/** Triangles of a mesh that come within a distance of some places. */
function trianglesNear(
  mesh: TiledMesh,
  tree: MeshBVH,
  places: readonly Vector[],
  distance: number,
): number[] {
  const inverse = mesh.matrixWorld.clone().invert();
  const found = new Set<number>();
  for (const place of places) {
    const ball = new THREE.Sphere(new THREE.Vector3(...place).applyMatrix4(inverse), distance);
    tree.shapecast({
      intersectsBounds: (box) => box.intersectsSphere(ball),
      intersectsTriangle: (triangle, index) => {
        if (triangle.intersectsSphere(ball)) found.add(index);
        return false;
      },
    });
  }
  return [...found];
}

/** What of the Sill can be painted on, through this camera. */
function surfaceOf(
  scene: THREE.Scene,
  camera: THREE.PerspectiveCamera,
  canvas: HTMLCanvasElement,
): LitSurface | null {
  const { show, beside, triplanar, bothFaces, shape } = useSill.getState();
  // Where two views share the camera, or the tile does not go by the shape's coordinates, no place of the tile lies under the pointer.
  if (show === 'eye' || beside || triplanar) return null;
  scene.updateMatrixWorld();
  camera.updateMatrixWorld();
  const meshes = meshesOf(scene);
  const own = meshes.filter(({ userData }) => !userData.tile.isOther);
  if (own.length === 0) return null;
  const side = bothFaces ? THREE.DoubleSide : THREE.FrontSide;
  const { width, height } = canvas.getBoundingClientRect();
  const eye = camera.getWorldPosition(new THREE.Vector3());
  const isSeen = (triangle: ShapeTriangle, from: Vector): boolean => {
    const at = new THREE.Vector3(...nearestOn(triangle.corners, from));
    const way = at.clone().sub(eye);
    if (!bothFaces && normalOf(triangle).dot(way) >= 0) return false;
    const first = firstHit(meshes, new THREE.Ray(eye, way.clone().normalize()), side);
    return !first || first.distance > way.length() - TOUCH;
  };
  return {
    edge: own[0].userData.tile.edge,
    goesOn: shape !== 'own',
    hitAt(x, y): SurfaceHit | null {
      const rays = new THREE.Raycaster();
      rays.setFromCamera(new THREE.Vector2((2 * x) / width - 1, 1 - (2 * y) / height), camera);
      const hit = firstHit(meshes, rays.ray, side);
      if (!hit || hit.mesh.userData.tile.isOther) return null;
      const triangle = triangleOf(hit.mesh, hit.tree, hit.triangle);
      const [at, normal] = [listOf(hit.at), listOf(normalOf(triangle))];
      return { at, normal, up: upOn(triangle) ?? [0, 1, 0], place: placeOn(triangle, hit.at) };
    },
    viewOf(at) {
      const { x, y } = new THREE.Vector3(...at).project(camera);
      return [((x + 1) / 2) * width, ((1 - y) / 2) * height];
    },
    near(places, distance, hiddenToo) {
      const awayOf = ({ corners }: ShapeTriangle, from: Vector) =>
        Math.hypot(...nearestOn(corners, from).map((value, k) => value - from[k]));
      const found = own.flatMap((mesh) => {
        const tree = treeOf(mesh.geometry);
        return trianglesNear(mesh, tree, places, distance).map((one) => triangleOf(mesh, tree, one));
      });
      // Near enough to look from: triangles that are larger than the brush are few.
      const nearestOf = ({ corners: [corner] }: ShapeTriangle) => {
        const apart = (place: Vector) => Math.hypot(...place.map((value, k) => value - corner[k]));
        return places.reduce((a, b) => (apart(b) < apart(a) ? b : a));
      };
      return found
        .filter((triangle) => hiddenToo || isSeen(triangle, nearestOf(triangle)))
        .map((triangle) => ({ triangle, away: awayOf(triangle, places[0]) }))
        .sort((a, b) => a.away - b.away)
        .map(({ triangle }) => triangle);
    },
  };
}

/** Lets the page ask what of the tile lies under a place of the view. */
export function SurfaceRays() {
  const { scene, gl } = useThree();
  const camera = useThree((state) => state.camera) as THREE.PerspectiveCamera;
  useEffect(() => offerSurface(() => surfaceOf(scene, camera, gl.domElement)), [scene, camera, gl]);
  return null;
}
