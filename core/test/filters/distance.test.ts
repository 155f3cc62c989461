import { runToEnd } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { nearestMarked } from '../../src/filters/distance.ts';
import { connectedParts } from '../../src/raster/connected.ts';
import { noisePlane } from '../fields.ts';

describe('distances', () => {
  it('are those to the nearest marked pixel, over edges that wrap', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 24 }),
        fc.integer({ min: 3, max: 24 }),
        fc.integer(),
        (width, height, of) => {
          const mask = Uint8Array.from(noisePlane(width * height, of), (value) => (value > 0.93 ? 1 : 0));
          mask[0] = 1;
          const edges = { x: 'wrap', y: of % 2 === 0 ? 'wrap' : 'mirror' } as const;
          const { distance: found, index } = runToEnd(nearestMarked(mask, { width, height }, edges));
          for (let i = 0; i < mask.length; i++) {
            let least = Number.POSITIVE_INFINITY;
            for (let j = 0; j < mask.length; j++) {
              if (mask[j] === 0) continue;
              const across = Math.abs((i % width) - (j % width));
              const down = Math.abs(Math.floor(i / width) - Math.floor(j / width));
              least = Math.min(
                least,
                Math.hypot(
                  Math.min(across, width - across),
                  edges.y === 'wrap' ? Math.min(down, height - down) : down,
                ),
              );
            }
            expect(found[i]).to.be.closeTo(least, 1e-4);
            expect(mask[index[i]]).to.equal(1);
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('are infinite where nothing is marked', () => {
    const { distance, index } = runToEnd(
      nearestMarked(new Uint8Array(12), { width: 4, height: 3 }, { x: 'wrap', y: 'wrap' }),
    );
    expect(distance.every((value) => value === Number.POSITIVE_INFINITY)).to.equal(true);
    expect(index.every((value) => value === -1)).to.equal(true);
  });
});

describe('connected parts', () => {
  // Two spots at opposite edges, and one that touches the first over a corner.
  const mask = Uint8Array.from([1, 0, 0, 0, 1, 0, 1, 0, 0, 0, 0, 0, 0, 0, 0]);
  const sides = { width: 5, height: 3 };

  it('go on over edges that wrap, and over corners where that is asked for', () => {
    const count = (edge: 'wrap' | 'mirror', withDiagonals: boolean) =>
      connectedParts(mask, 1, sides, { x: edge, y: edge }, withDiagonals).sizes;
    expect(count('mirror', false)).to.deep.equal([1, 1, 1]);
    expect(count('wrap', false)).to.deep.equal([2, 1]);
    expect(count('wrap', true)).to.deep.equal([3]);
  });
});
