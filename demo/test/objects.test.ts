import { boundaryLoops } from '@zesty-tile/core';
import { expect } from 'chai';
import { LANTERN } from '../src/objects/lantern.ts';

/** Triangles of an object, each with its part, its corners and their texture coordinates with v downwards. */
function trianglesOf(obj: string) {
  const [places, coordinates]: number[][][] = [[], []];
  const found: { part: string; corners: number[][]; uv: number[][] }[] = [];
  let part = '';
  for (const line of obj.split('\n')) {
    const [kind, ...rest] = line.split(' ');
    if (kind === 'o') part = rest[0];
    if (kind === 'v') places.push(rest.map(Number));
    if (kind === 'vt') coordinates.push([Number(rest[0]), 1 - Number(rest[1])]);
    if (kind !== 'f') continue;
    const at = rest.map((corner) => Number(corner.split('/')[0]) - 1);
    for (const three of [
      [at[0], at[1], at[2]],
      [at[0], at[2], at[3]],
    ]) {
      found.push({ part, corners: three.map((k) => places[k]), uv: three.map((k) => coordinates[k]) });
    }
  }
  return found;
}

describe('the garden lantern', () => {
  const triangles = trianglesOf(LANTERN.obj);
  const areaInTile = ([a, b, c]: number[][]) =>
    ((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / 2;
  const normalOf = ([a, b, c]: number[][]) => {
    const [p, q] = [b.map((value, k) => value - a[k]), c.map((value, k) => value - a[k])];
    return [p[1] * q[2] - p[2] * q[1], p[2] * q[0] - p[0] * q[2], p[0] * q[1] - p[1] * q[0]];
  };

  it('has three named parts, whose lines hold all their triangles and nothing of the others', () => {
    expect([...new Set(triangles.map(({ part }) => part))]).to.have.members(['Frame', 'Glass', 'Roof']);
    for (const part of ['Frame', 'Glass', 'Roof']) {
      const rectangles = LANTERN.linesOf(part);
      for (const { part: own, uv } of triangles) {
        const [u, v] = [0, 1].map((k) => uv.reduce((sum, corner) => sum + corner[k], 0) / 3);
        const isInside = rectangles.some(([l, t, r, , , b]) => u > l && u < r && v > t && v < b);
        expect(isInside).to.equal(own === part);
      }
    }
  });

  it('lies in the tile without overlapping itself', () => {
    const sum = triangles.reduce((total, { uv }) => total + Math.abs(areaInTile(uv)), 0);
    const around = boundaryLoops(triangles.flatMap(({ uv }) => uv.flat())).reduce((total, loop) => {
      let twice = 0;
      for (let k = 0; k < loop.length; k += 2) {
        const [x, y] = [loop[(k + 2) % loop.length], loop[(k + 3) % loop.length]];
        twice += loop[k] * y - loop[k + 1] * x;
      }
      return total + twice / 2;
    }, 0);
    expect(sum).to.be.closeTo(Math.abs(around), 1e-4);
    for (const { uv } of triangles) for (const corner of uv) expect(Math.min(...corner)).to.be.within(0, 1);
  });

  it('faces outwards', () => {
    for (const { part, corners } of triangles.filter((one) => one.part === 'Glass')) {
      const middle = [0, 2].map((k) => corners.reduce((total, corner) => total + corner[k], 0) / 3);
      const [x, , z] = normalOf(corners);
      expect(x * middle[0] + z * middle[1], part).to.be.above(0);
    }
  });

  it('shows the tile at its true size where it is flat', () => {
    for (const { corners, uv } of triangles.filter(({ part }) => part !== 'Roof')) {
      const onObject = Math.hypot(...normalOf(corners)) / 2;
      const inTile = Math.abs(areaInTile(uv)) * LANTERN.edgeMetres ** 2;
      expect(inTile / onObject).to.be.closeTo(1, 0.02);
    }
  });
});
