import { expect } from 'chai';
import fc from 'fast-check';
import { discs } from '../../src/noise/discs.ts';

describe('Poisson discs', () => {
  it('no two points are nearer than the spacing, around axes that wrap, and no gap has room for another', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 9999 }),
        fc.double({ min: 0.06, max: 0.7, noNaN: true }),
        fc.boolean(),
        fc.boolean(),
        (seed, spacing, x, y) => {
          const field = { width: 1, height: 0.5, wraps: { x, y } };
          const points = discs(field, spacing, seed);
          const by = (a: number, b: number, side: number, wraps: boolean) => {
            const d = Math.abs(a - b);
            return wraps ? Math.min(d, side - d) : d;
          };
          const apart = (a: readonly number[], b: readonly number[]) =>
            Math.hypot(by(a[0], b[0], 1, x), by(a[1], b[1], 0.5, y));
          for (const [k, a] of points.entries()) {
            for (const b of points.slice(k + 1)) expect(apart(a, b)).to.be.at.least(spacing);
          }
          // Nearly everywhere is near some point: the field is full.
          let bare = 0;
          for (let k = 0; k < 200; k++) {
            const place = [((k * 37) % 200) / 200, k / 400];
            if (points.every((point) => apart(point, place) > 1.6 * spacing)) bare++;
          }
          // A few discs as wide as the field may leave a corner of it.
          if (spacing < 0.25) expect(bare).to.be.at.most(10);
          expect(discs(field, spacing, seed)).to.deep.equal(points);
        },
      ),
      { numRuns: 40 },
    );
  });
});
