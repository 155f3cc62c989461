import { Raster, runToEnd, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { withoutPaint } from '../../../src/stations/relief/paint.ts';
import { farthest, noisePlane, planeOf } from '../../fields.ts';
import { frameOf, runStation, unpainted } from '../run.ts';

const SIZE = 128;

/** Grey with a darker square in the upper half, and with one in another hue in the lower; linear RGB. */
function squares(size: number): Raster {
  const square = (x: number, y: number, at: number) =>
    Math.abs(x / size - 0.5) < 0.2 && Math.abs(y / size - at) < 0.12;
  const of = (share: number) =>
    planeOf(size, size, (x, y) => 0.5 * (square(x, y, 0.25) ? 0.5 : 1) * (square(x, y, 0.75) ? share : 1));
  return new Raster(size, size, [of(1), of(0.4), of(0.25)]);
}

const logOf = ({ planes: [r, g, b] }: Raster) =>
  r.map((value, i) => Math.log(0.2126 * value + 0.7152 * g[i] + 0.0722 * b[i]));

/** How much darker a square is than what surrounds it. */
function contrast(plane: Float32Array, size: number, at: number): number {
  const row = Math.round(at * size) * size;
  return plane[row + Math.round(0.1 * size)] - plane[row + Math.round(0.5 * size)];
}

describe('tone without paint', () => {
  it('keeps a step of tone alone, and takes out most of one that comes with another hue', () => {
    for (const size of [SIZE, 4 * SIZE]) {
      const picture = squares(size);
      const log = logOf(picture);
      const made = runToEnd(withoutPaint(log, picture, 1, TORUS));
      expect(contrast(made, size, 0.25) / contrast(log, size, 0.25), 'of tone alone').to.be.above(0.85);
      expect(contrast(made, size, 0.75) / contrast(log, size, 0.75), 'of paint').to.be.below(0.35);
    }
  });

  it('is the tone as it was where nothing is taken out, with its mean', () => {
    const picture = squares(SIZE);
    const log = noisePlane(SIZE * SIZE, 3);
    expect(farthest(runToEnd(withoutPaint(log, picture, 0, TORUS)), log)).to.be.below(1e-4);
    const mean = (plane: Float32Array) => plane.reduce((a, b) => a + b) / plane.length;
    const some = runToEnd(withoutPaint(log, picture, 0.7, TORUS));
    expect(mean(some)).to.be.closeTo(mean(log), 1e-4);
  });

  it('is what Relief reads height from where paint is ignored', async () => {
    const style = unpainted(squares(SIZE));
    const frame = frameOf(SIZE, 1);
    const heightOf = async (paintShare: number) => {
      const { output } = await runStation('relief', { style }, { paintShare }, frame);
      return output as { height: Float32Array; tone(): Promise<Float32Array> };
    };
    const [plain, less] = [await heightOf(0), await heightOf(1)];
    const share = ({ height }: { height: Float32Array }) =>
      contrast(height, SIZE, 0.75) / contrast(height, SIZE, 0.25);
    expect(share(less)).to.be.below(0.5 * share(plain));
    expect(contrast(await less.tone(), SIZE, 0.75)).to.be.below(
      0.35 * contrast(await plain.tone(), SIZE, 0.75),
    );
  });
});
