import { Raster } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { KERNELS, type Kernels } from '../../src/kernels/kernels.ts';
import { REFERENCE } from '../../src/kernels/registry.ts';
import { leansLittle } from '../../src/kernels/resample-block/reference.ts';
import type { Affine } from '../../src/raster/affine.ts';
import type { Edges } from '../../src/raster/edges.ts';
import { phaseTable } from '../../src/raster/phases.ts';
import { resampleAffine } from '../../src/sampling/sample.ts';
import { farthest, noisePlane, planeOf, rmsBetween } from '../fields.ts';

const edge = fc.constantFrom('wrap', 'mirror') as fc.Arbitrary<Edges['x']>;
const MIRROR: Edges = { x: 'mirror', y: 'mirror' };
const on = async () => {};

/** A grid turned by so many degrees, this many pixels of the picture for each of its own. */
function turned(degrees: number, step: number, originX: number, originY: number): Affine {
  const [right, down] = [Math.cos, Math.sin].map((f) => step * f((degrees * Math.PI) / 180));
  return { originX, originY, rightX: right, rightY: down, downX: -down, downY: right };
}

describe('a grid in two passes', () => {
  it('is the same by its twin, for any channels, blocks, edges and stretch, beyond the picture too', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.record({ x: edge, y: edge }),
        fc.double({ min: -14, max: 14, noNaN: true }),
        fc.double({ min: 0.3, max: 2.4, noNaN: true }),
        fc.double({ min: -40, max: 60, noNaN: true }),
        fc.integer({ min: 1, max: 1e6 }),
        (channels, edges, degrees, step, origin, seed) => {
          const planes = Array.from({ length: channels }, (_, c) => noisePlane(37 * 29, seed + c));
          const picture = new Raster(37, 29, planes);
          const grid = turned(degrees, step, origin, 10 - origin);
          const table = phaseTable(Math.max(1, step));
          const block = { x: seed % 7, y: seed % 3, width: 1 + (seed % 13), height: 1 + (seed % 5) };
          const by = (k: Kernels) => {
            const out = Raster.filled(24, 10, channels);
            k.resampleBlock(picture, edges, grid, table, block, out);
            return out.planes;
          };
          const [twin, plain] = [by(KERNELS), by(REFERENCE)];
          for (let c = 0; c < channels; c++) expect(farthest(twin[c], plain[c])).to.be.below(3e-6);
        },
      ),
      { numRuns: 150 },
    );
  });

  it('finds waves where they are, whichever way they run', async () => {
    const [size, width] = [96, 260];
    for (const degrees of [-12, 1, 5, 13]) {
      for (const step of [0.4, 1, 1.7]) {
        const grid = turned(degrees, step, 50.3, 60.7);
        expect(leansLittle(grid)).to.equal(true);
        for (const of of [0, 45, 90, 135]) {
          // At three tenths of a cycle for each pixel of the coarser of both.
          const [fx, fy] = [Math.cos, Math.sin].map(
            (f) => (2 * Math.PI * 0.3 * f((of * Math.PI) / 180)) / Math.max(1, step),
          );
          const wave = planeOf(width, width, (x, y) => Math.sin(fx * x + fy * y));
          const found = await resampleAffine(
            new Raster(width, width, [wave]),
            ...([size, size, grid, Math.max(1, step), MIRROR, on] as const),
          );
          const truth = planeOf(size, size, (x, y) =>
            Math.sin(
              fx * (grid.originX + x * grid.rightX + y * grid.downX) +
                fy * (grid.originY + x * grid.rightY + y * grid.downY),
            ),
          );
          expect(rmsBetween(found.planes[0], truth), `${degrees}° ${step} ${of}°`).to.be.below(0.03);
        }
      }
    }
  });

  it('is the same to the bit wherever its blocks are cut', async () => {
    const picture = new Raster(300, 300, [noisePlane(90000, 4), noisePlane(90000, 5)]);
    const grid = turned(4, 1.3, 20, 5);
    const how = [200, 150, grid, 1.3, MIRROR, on] as const;
    const whole = await resampleAffine(picture, ...how);
    const parts = Raster.filled(200, 150, 2);
    for (const [from, to] of [
      [0, 31],
      [31, 100],
      [100, 150],
    ])
      await resampleAffine(picture, ...how, { from, to }, parts);
    for (const c of [0, 1]) expect([...parts.planes[c]]).to.deep.equal([...whole.planes[c]]);
  });

  it('keeps what is constant to the bit, and each channel to itself', async () => {
    const planes = [0.1, 0.7, 0.3].map((value) => new Float32Array(60 * 60).fill(value));
    const { planes: out } = await resampleAffine(
      new Raster(60, 60, planes),
      ...([50, 50, turned(3, 1.4, -8, 9), 1.4, MIRROR, on] as const),
    );
    for (const [c, plane] of out.entries())
      for (const value of plane) expect(value).to.equal(Math.fround([0.1, 0.7, 0.3][c]));
  });

  it('is left to one pass where the grid leans more, and then it is right too', async () => {
    const picture = new Raster(40, 40, [planeOf(40, 40, (x, y) => x + 100 * y)]);
    const quarter = turned(90, 1, 35, 4);
    expect(leansLittle(quarter)).to.equal(false);
    expect(leansLittle(turned(20, 1, 0, 0))).to.equal(false);
    const { planes } = await resampleAffine(picture, 8, 8, quarter, 1, MIRROR, on);
    for (let y = 0; y < 8; y++)
      for (let x = 0; x < 8; x++) expect(planes[0][8 * y + x]).to.be.closeTo(35 - y + 100 * (4 + x), 0.01);
  });
});
