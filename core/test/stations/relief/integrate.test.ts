import { defaultsOf, gaussian, normalMap, PLAIN_CONTEXT, runToEnd, STATIONS, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { heightOfNormals } from '../../../src/stations/relief/integrate.ts';
import { noisePlane, planeOf, tilingPicture } from '../../fields.ts';
import { withBothKernels } from '../../kernels/both.ts';
import { frameOf, runStation, unpainted } from '../run.ts';

const N = 256;
const SIDES = { width: N, height: N };
const smooth = gaussian(noisePlane(N * N, 61), N, N, 3, TORUS);
const [low, high] = [Math.min(...smooth), Math.max(...smooth)];
/** Rough ground, 0..1. */
const ground = smooth.map((v) => (v - low) / (high - low));

/** Mean angle between two fields of unit vectors, degrees. */
function angleBetween(a: Float32Array[], b: Float32Array[]): number {
  let sum = 0;
  for (let i = 0; i < a[0].length; i++) {
    const dot = a[0][i] * b[0][i] + a[1][i] * b[1][i] + a[2][i] * b[2][i];
    sum += Math.acos(Math.min(1, dot));
  }
  return ((sum / a[0].length) * 180) / Math.PI;
}

withBothKernels('height of normals', () => {
  it('is the height they were made of, to the last percent, and tells its depth', () => {
    const depthShare = 0.04;
    const normals = normalMap(ground, SIDES, depthShare, 1, 'sharp', 'up', TORUS);
    const back = runToEnd(heightOfNormals(normals));
    const mean = ground.reduce((sum, v) => sum + v, 0) / ground.length;
    let worst = 0;
    back.forEach((v, i) => {
      worst = Math.max(worst, Math.abs(v / depthShare - (ground[i] - mean)));
    });
    expect(worst).to.be.below(0.01);
  });

  it('gives the normals back within 0.2° in sixteen bits, on tiles of two to one too', () => {
    const wide = { width: 256, height: 128 };
    const waves = planeOf(256, 128, (x, y) => {
      const [a, b] = [(2 * Math.PI * x) / 256, (2 * Math.PI * y) / 128];
      return 0.5 + 0.2 * Math.sin(5 * a + 3 * b) + 0.2 * Math.cos(11 * a - 4 * b) + 0.1 * Math.sin(32 * a);
    });
    for (const [height, sides] of [
      [ground, SIDES],
      [waves, wide],
    ] as const) {
      const normals = normalMap(height, sides, 0.03, 1, 'sharp', 'up', TORUS);
      const stored = normals.mapPlanes((plane) =>
        plane.map((v) => (2 * Math.round(((v + 1) / 2) * 65535)) / 65535 - 1),
      );
      const back = runToEnd(heightOfNormals(stored));
      const again = normalMap(back, sides, 1, 1, 'sharp', 'up', TORUS);
      expect(angleBetween(normals.planes, again.planes)).to.be.below(0.2);
    }
  });

  it('is taken where it is asked for; the verdict says how deep such a surface is', async () => {
    const normals = normalMap(ground, SIDES, 0.012, 1, 'sharp', 'up', TORUS);
    const codes = normals.mapPlanes((plane) => plane.map((v) => (v + 1) / 2));
    const join = { ...unpainted(tilingPicture(N)), given: { normal: codes } };
    const input = { style: join, omit: ['occlusion'] };
    const frame = frameOf(N);
    const { output, decided } = await runStation('relief', input, { heightFrom: 'normals' }, frame);
    let apart = 0;
    for (let i = 0; i < ground.length; i++) apart += Math.abs(output.height[i] - ground[i]) / ground.length;
    expect(apart).to.be.below(0.02);
    const of = (depthMm: number) => {
      const chosen = { ...defaultsOf(STATIONS.relief.settings), heightFrom: 'normals' as const, depthMm };
      return STATIONS.relief.verdict(output, input as never, chosen, decided, frame, PLAIN_CONTEXT);
    };
    const told = (await of(8)).figures.find(({ id }) => id === 'told')!.value;
    expect(told).to.be.within(11, 12.2);
    const [remedy] = (await of(8)).remedies!;
    expect(remedy.advice).to.match(/imply a depth of 1[12]\.\d mm/);
    expect(remedy.words).to.match(/^Set depth 1[12]\.\d mm$/);
    expect((await of(told)).remedies).to.deep.equal([]);
  });

  it('without given normals is read from tone', async () => {
    const input = { style: unpainted(tilingPicture(N)), omit: ['occlusion'] };
    const tone = await runStation('relief', input, {}, frameOf(N));
    const asked = await runStation('relief', input, { heightFrom: 'normals' }, frameOf(N));
    expect(asked.output.height).to.deep.equal(tone.output.height);
  });
});
