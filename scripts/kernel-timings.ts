import { PLANES, Raster, runToEnd, TORUS } from '@zesty-tile/core';
import { linearTable } from '../core/src/colour/srgb.ts';
import { blurring } from '../core/src/filters/gaussian.ts';
import type { Strip } from '../core/src/kernels/cut-costs/strip.ts';
import type { Looking } from '../core/src/kernels/horizon/reference.ts';
import { KERNELS, type Kernels } from '../core/src/kernels/kernels.ts';
import { REFERENCE } from '../core/src/kernels/registry.ts';
import { edgeIndex } from '../core/src/raster/edges.ts';
import { phaseTable } from '../core/src/raster/phases.ts';
import { best, plane, SCALE } from './measured.ts';

type Timed = [name: string, work: (kernels: Kernels) => unknown];

const p2 = plane(2048);
const heights = plane(1024).map((v) => (60 * v) / SCALE);
const halved = {
  count: 13,
  first: Int32Array.from({ length: 1024 }, (_, i) => 2 * i - 6),
  weights: new Float32Array(1024 * 13).fill(1 / 13),
};
const half = {
  taps: halved,
  samples: Int32Array.from({ length: 1024 * 13 }, (_, i) =>
    edgeIndex(halved.first[Math.floor(i / 13)] + (i % 13), 2048, 'wrap'),
  ),
};
const fresh = new Float32Array(2 ** 20);
const turned = (k: Kernels) => {
  const out = Raster.filled(2048, 256, 1);
  const resample = k.rowResampler(new Raster(2048, 2048, [p2]), TORUS);
  const table = phaseTable(1);
  const [xs, ys] = [new Float64Array(2048), new Float64Array(2048)];
  for (let y = 0; y < 256; y++) {
    for (let x = 0; x < 2048; x++) {
      xs[x] = 30 + 0.97 * x - 0.05 * y;
      ys[x] = 30 + 0.05 * x + 0.97 * y;
    }
    resample(out, y, xs, ys, table);
  }
};
const leaning = (k: Kernels) => {
  const grid = { originX: 30, originY: 30, rightX: 0.97, rightY: 0.05, downX: -0.05, downY: 0.97 };
  const [picture, table] = [new Raster(2048, 2048, [p2, p2, p2]), phaseTable(1)];
  const out = Raster.filled(128, 128, 3);
  for (let n = 0; n < 16; n++)
    k.resampleBlock(picture, TORUS, grid, table, { x: 0, y: 0, width: 128, height: 128 }, out);
};
const wave = new Float64Array(p2);
const looking = {
  directions: [{ down: 1, slope: 0.5, share: 1 }],
  radius: 48,
  bias: 0,
  edges: TORUS,
} satisfies Looking;
const unit = p2.map((v) => v / SCALE);
const small = [0, 1, 2].map(() => unit.slice(0, 2 ** 20));
const toned = (k: Kernels) => {
  const tone = { gain: 1.1, contrast: 1.2, pivot: 0.2, hold: [0.03, 0.9] as [number, number] };
  const colour = { strength: 1.1, hueDegrees: 5, towards: '#808080', pull: 0 };
  const out = Raster.filled(1024, 1024, 3);
  k.toneBlock(new Raster(1024, 1024, small), out, tone, colour, 0, 2 ** 20, null);
};
const patches = (count: number) => ({
  features: unit.slice(0, 16 * count),
  corners: Int32Array.from({ length: 2 * count }, (_, i) => (i * 37) % 500),
});
const [bank, asked] = [patches(2600), patches(600)];
const codes = Uint8Array.from({ length: 3 * 2 ** 20 }, (_, i) => (37 * i) % 256);
const band = unit.slice(2 ** 16, 2 ** 17);
const lit = new Float32Array(2 ** 17);
const light = { width: 2048, terms: new Float32Array(3 * 64).fill(0.1), start: -1, step: 2 / 2048 };
const onPlanes: Timed[] = [
  ['Gaussian σ 2, direct', (k) => PLANES.give(runToEnd(blurring(p2, 2048, 2048, 2, TORUS, k)))],
  ['Gaussian σ 16, recursive', (k) => PLANES.give(runToEnd(blurring(p2, 2048, 2048, 16, TORUS, k)))],
  ['À trous, four apart', (k) => k.atrousSmooth(p2, 2048, 2048, 4, TORUS)],
  ['Columns and rows to half, 13 taps', (k) => k.weighBand(p2, 2048, half, half, fresh, 0)],
  ['Resampling on the slant, 2048 × 256', turned],
  ['Resampling in two passes, 512² RGB', leaning],
  [
    'Fourier transform, complex',
    (k) => runToEnd(k.fourier({ width: 2048, height: 2048, re: wave, im: wave })),
  ],
  ['Horizons of one direction, 1024²', (k) => k.sweepHorizons(heights, 1024, looking, { from: 0, to: 1024 })],
  [
    'Normals',
    (k) => runToEnd(k.makingNormals(p2, { width: 2048, height: 2048 }, 0.01, 1, 'sharp', 'up', TORUS)),
  ],
  ['sRGB curve', (k) => k.encodeSrgbPlane(unit)],
  ['OKLab', (k) => k.oklabPlanes([unit, unit, unit])],
  ['Tone and colour, 1024² RGB', toned],
  ['Steps from pixel to pixel', (k) => k.addSteps(p2, 2048, new Float64Array(2048))],
  ['Nearest of 2600 patches, 600 times', (k) => k.nearestPatches(asked, bank, 4)],
  ['Sum of three planes', (k) => k.sumPlanes([unit, unit, unit], [0.2, 0.7, 0.1])],
  ['Logarithms', (k) => k.logPlane(unit, 0.01)],
  ['Light divided out, 2048 × 64', (k) => k.divideRows(unit.subarray(0, 2 ** 17), lit, light, null)],
  ['Transposition', (k) => k.transposePlane(p2, 2048, 2048)],
  ['Codes of 8 bits, 1024² RGB', (k) => k.quantise(small, 8)],
  ['Values from codes of 8 bits, 1024² RGB', (k) => k.takeCodes(codes, 3, linearTable(8), small)],
  ['How far a band stands out, 256²', (k) => k.standOut(band, small[1].subarray(0, 2 ** 16), 1, 0.001)],
  ['Slopes of normals as they ship', (k) => k.shippedSlopes([unit, unit, unit], 1)],
  ['The higher of two planes, 1024²', (k) => k.raisePlane(small[0], small[1])],
];

function onStrips(strip: Strip): Timed[] {
  const costs = KERNELS.cutCosts(strip);
  const { width, length } = strip;
  const way = {
    ...{ width, length, low: 62, high: 280, rows: length, to: null },
    from: Array.from({ length: 219 }, (_, k) => 62 + k),
  };
  const masks = [0, 1, 2, 3, 4, 5].map(() => strip.a[1]);
  return [
    ['Costs of a cut, 342 × 2048 RGB', (k) => k.cutCosts(strip)],
    ['Way of a cut, 342 × 2048', (k) => k.searchCut(costs, way)],
    [
      'Every band of a channel, 342 × 2048',
      (k) => k.blendChannel(strip.a[0], strip.b[0], width, length, masks, TORUS),
    ],
  ];
}

/** Prints the time of each kernel beside its plain reference; a strip is an overlap of two pictures, 342 × 2048. */
export async function kernelTimings(strip: Strip): Promise<void> {
  console.log(`\n${'kernel'.padEnd(42)}  plain ms   twin ms   quicker`);
  for (const [name, work] of [...onPlanes, ...onStrips(strip)]) {
    const plain = await best(() => work(REFERENCE));
    const twin = await best(() => work(KERNELS));
    console.log(
      `${name.padEnd(42)}   ${plain.toFixed(0).padStart(7)}   ${twin.toFixed(0).padStart(7)}   ${(plain / twin).toFixed(1).padStart(6)} ×`,
    );
  }
}
