import { expect } from 'chai';
import { edgeIndex } from '../../../src/raster/edges.ts';
import { solvePoisson } from '../../../src/stations/join/poisson.ts';
import { ALL_EDGES, farthest, noisePlane, planeOf } from '../../fields.ts';

const still = async () => {};

describe('the solver of Poisson’s equation', () => {
  for (const edges of ALL_EDGES) {
    it(`gives back a plane from its Laplacian, ${edges.x} across and ${edges.y} down`, async () => {
      const [width, height] = [96, 77];
      const noise = noisePlane(width * height, 4);
      const plane = planeOf(width, height, (x, y) => {
        const block = x > 20 && x < 50 && y > 30 ? 0.5 : 0;
        return block + 0.1 * noise[y * width + x] + 0.2 * Math.sin((2 * Math.PI * 2 * (x + 0.5)) / width);
      });
      const at = (x: number, y: number) =>
        plane[edgeIndex(y, height, edges.y) * width + edgeIndex(x, width, edges.x)];
      const right = planeOf(
        width,
        height,
        (x, y) => at(x - 1, y) + at(x + 1, y) + at(x, y - 1) + at(x, y + 1) - 4 * at(x, y),
      );
      const solved = await solvePoisson(right, width, height, edges, still);
      const mean = plane.reduce((sum, v) => sum + v, 0) / plane.length;
      const wanted = plane.map((v) => v - mean);
      expect(farthest(solved, wanted)).to.be.below(0.006);
    });
  }

  it('has nothing to say to nothing', async () => {
    const none = await solvePoisson(new Float32Array(64).fill(3), 8, 8, ALL_EDGES[0], still);
    expect(Math.max(...none.map(Math.abs))).to.equal(0);
  });
});
