import { boundaryLoops, islandsOf, runToEnd } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { grown, loopCover } from '../../src/outline/loops.ts';
import { MIRROR, TORUS } from '../../src/raster/edges.ts';

/** Two triangles of a rectangle; turned the other way where asked. */
const rectangle = (x: number, y: number, w: number, h: number, flip = false): number[] => {
  const [a, b, c, d] = [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ];
  return (flip ? [a, c, b, a, d, c] : [a, b, c, a, c, d]).flat();
};

const coverOf = (triangles: number[], size: number, edges = TORUS) =>
  runToEnd(loopCover(boundaryLoops(triangles), { width: size, height: size, edges }));
const sum = (plane: Float32Array) => plane.reduce((total, value) => total + value, 0);

describe('outlines of texture coordinates', () => {
  it('two triangles that share an edge have one outline of four corners, whichever way they go', () => {
    for (const flip of [false, true]) {
      const loops = boundaryLoops(rectangle(0.1, 0.2, 0.5, 0.3, flip));
      expect(loops).to.have.length(1);
      expect(loops[0]).to.have.length(8);
    }
  });

  it('a ring of triangles has an outline and a hole, and covers what lies between', () => {
    const ring = [
      ...rectangle(0.1, 0.1, 0.8, 0.2),
      ...rectangle(0.1, 0.3, 0.2, 0.4, true),
      ...rectangle(0.7, 0.3, 0.2, 0.4),
      ...rectangle(0.1, 0.7, 0.8, 0.2),
      // Corners of the middle ones, so that edges meet.
      ...[0.3, 0.3, 0.3, 0.3, 0.3, 0.3],
    ];
    const cover = coverOf(ring, 40);
    expect(sum(cover) / 1600).to.be.closeTo(0.64 - 0.16, 1e-4);
    expect(cover[20 * 40 + 20]).to.be.below(1e-6);
    expect(cover[20 * 40 + 6]).to.equal(1);
  });

  it('covers the exact area of rectangles anywhere on the torus, as of one that has not left it', () => {
    const place = fc.double({ min: -2, max: 2, noNaN: true });
    const side = fc.double({ min: 0.05, max: 0.9, noNaN: true });
    fc.assert(
      fc.property(place, place, side, side, fc.boolean(), (x, y, w, h, flip) => {
        const cover = coverOf(rectangle(x, y, w, h, flip), 32);
        expect(sum(cover) / 1024).to.be.closeTo(w * h, 2e-3);
        expect(Math.max(...cover)).to.be.at.most(1);
      }),
      { numRuns: 60 },
    );
  });

  it('what leaves the field is cut off on edges that do not wrap', () => {
    expect(sum(coverOf(rectangle(0.75, 0.25, 0.5, 0.5), 32, MIRROR)) / 1024).to.be.closeTo(0.125, 1e-4);
  });

  it('numbers islands by what touches, and leaves triangles without area out', () => {
    const two = [...rectangle(0, 0, 0.2, 0.2), ...rectangle(0.5, 0.5, 0.2, 0.2)];
    expect([...islandsOf(two)]).to.deep.equal([0, 0, 1, 1]);
    expect(boundaryLoops([0.1, 0.1, 0.2, 0.2, 0.3, 0.3])).to.deep.equal([]);
  });

  it('grows by the margin in every direction and over the edge', () => {
    const field = { width: 64, height: 64, edges: TORUS };
    const cover = coverOf(rectangle(0, 0.25, 0.25, 0.25), 64);
    const out = runToEnd(grown(cover, 5, field));
    expect(out[24 * 64 + 20]).to.equal(1);
    expect(out[24 * 64 + 22]).to.equal(0);
    // Left of the edge it comes in from the right.
    expect(out[24 * 64 + 60]).to.equal(1);
    expect(out[24 * 64 + 57]).to.equal(0);
    // Corners are round.
    expect(out[11 * 64 + 20]).to.be.below(0.5);
    expect(out[11 * 64 + 10]).to.equal(1);
  });
});
