import { boundaryLoops, islandsOf, type Loop, MOST_LOOP_NUMBERS } from '@zesty-tile/core';
import type { Material, Mesh } from 'three';
import { NO_COORDINATES, readScene } from '../../bench/sill/own-shape.ts';

/** A part of a shape that can be chosen, by the triangles of it in texture coordinates: six numbers each. */
export interface ShapePart {
  kind: 'mesh' | 'material' | 'island';
  name: string;
  triangles: number[];
}

/** Islands that are listed: the largest. */
const MOST_ISLANDS = 40;

/** Area of triangles in texture coordinates, of the whole tile. */
function areaOf(triangles: readonly number[]): number {
  let sum = 0;
  for (let k = 0; k < triangles.length; k += 6) {
    const [ax, ay, bx, by, cx, cy] = triangles.slice(k, k + 6);
    sum += Math.abs((bx - ax) * (cy - ay) - (by - ay) * (cx - ax)) / 2;
  }
  return sum;
}

/** Texture coordinates of a mesh with v downwards, six numbers a triangle, and the material of each triangle. */
function unwrapped(mesh: Mesh, flipV: boolean): { uv: number[]; materials: Material[] } {
  const { geometry, material } = mesh;
  const plain = geometry.index ? geometry.toNonIndexed() : geometry;
  const at = plain.getAttribute('uv');
  const all = Array.isArray(material) ? material : [material];
  const uv: number[] = [];
  for (let i = 0; i < at.count; i++) uv.push(at.getX(i), flipV ? 1 - at.getY(i) : at.getY(i));
  const materials: Material[] = new Array(Math.floor(at.count / 3)).fill(all[0]);
  for (const { start, count, materialIndex } of geometry.groups) {
    materials.fill(all[materialIndex ?? 0] ?? all[0], start / 3, (start + count) / 3);
  }
  return { uv, materials };
}

/** Triangles by what names them. */
function collected(into: Map<string, number[]>, name: string, triangle: readonly number[]): void {
  const found = into.get(name);
  if (found) found.push(...triangle);
  else into.set(name, [...triangle]);
}

const asParts = (kind: ShapePart['kind'], by: Map<string, number[]>): ShapePart[] =>
  [...by].map(([name, triangles]) => ({ kind, name, triangles }));

/** Meshes, materials and the largest islands of the texture coordinates of a glTF or OBJ file. @throws Error in plain words. */
export async function readShapeParts(file: File): Promise<ShapePart[]> {
  const { root, flipV } = await readScene(file);
  const meshes = new Map<string, number[]>();
  const byMaterial = new Map<string, number[]>();
  const whole: number[] = [];
  let unnamed = 0;
  root.traverse((object) => {
    const mesh = object as Mesh;
    if (!mesh.isMesh || !mesh.geometry?.getAttribute('uv')) return;
    const name = mesh.name || `Mesh ${++unnamed}`;
    const { uv, materials } = unwrapped(mesh, flipV);
    for (const [k, material] of materials.entries()) {
      const triangle = uv.slice(6 * k, 6 * k + 6);
      collected(meshes, name, triangle);
      collected(byMaterial, material?.name || 'Without a name', triangle);
      for (const value of triangle) whole.push(value);
    }
  });
  if (whole.length === 0) throw new Error(NO_COORDINATES);
  const numbers = islandsOf(whole);
  const islands: number[][] = [];
  for (const [k, number] of numbers.entries()) {
    islands[number] ??= [];
    islands[number].push(...whole.slice(6 * k, 6 * k + 6));
  }
  const sized = islands
    .map((triangles) => ({ triangles, area: areaOf(triangles) }))
    .sort((a, b) => b.area - a.area)
    .slice(0, MOST_ISLANDS);
  return [
    ...asParts('mesh', meshes),
    ...asParts('material', byMaterial),
    ...sized.map(({ triangles, area }, k) => ({
      kind: 'island' as const,
      name: `Island ${k + 1} · ${(100 * area).toFixed(area < 0.1 ? 1 : 0)} %`,
      triangles,
    })),
  ];
}

/** Closed lines around the chosen parts. @throws Error in plain words where they have too many corners. */
export function outlinesOf(parts: readonly ShapePart[]): Loop[] {
  const loops = boundaryLoops(parts.flatMap(({ triangles }) => triangles)).map((loop) =>
    loop.map((value) => Number(value.toFixed(6))),
  );
  const count = loops.reduce((sum, { length }) => sum + length, 0);
  if (count > MOST_LOOP_NUMBERS) {
    throw new Error(
      `The outlines of these parts have ${count / 2} corners; ${MOST_LOOP_NUMBERS / 2} are kept at most. Choose fewer parts.`,
    );
  }
  return loops;
}
