import { PART_KINDS, type PartName, Raster, resizeArea } from '@zesty-tile/core';
import { expect } from 'chai';
import { STAMP_NAMES } from '../../../src/stamps/stamps.ts';
import { partPlane, partValues } from '../../../src/stations/coats/mask/cover.ts';
import type { Part } from '../../../src/stations/coats/mask/parts.ts';
import type { Scene } from '../../../src/stations/coats/scene.ts';
import { channelAt } from '../../../src/surface/surface.ts';
import { PLAIN_CONTEXT, type WorkContext } from '../../../src/team/context.ts';
import { farthest, planeOf } from '../../fields.ts';
import { frameOf } from '../run.ts';
import { coat, coatsInput } from './making.ts';

/** A picture that tiles, as if it were stored: four planes. */
const stored: WorkContext = {
  ...PLAIN_CONTEXT,
  picture: async (_ref, side) =>
    new Raster(side, side, [
      ...[0, 1, 2].map((c) =>
        planeOf(side, side, (x, y) => 0.5 + 0.4 * Math.sin((2 * Math.PI * (x + c * y)) / side)),
      ),
      new Float32Array(side * side).fill(1),
    ]),
};
const picture = { sha256: 'a'.repeat(64), width: 256, height: 256 };

/** A colour picture that tiles and has nothing as fine as the pixels of the smallest size. */
const softPicture = () =>
  new Raster(
    256,
    256,
    [0, 1, 2].map((c) =>
      planeOf(256, 256, (x, y) => {
        const [u, v] = [(2 * Math.PI * x) / 256, (2 * Math.PI * y) / 256];
        return (
          0.4 +
          0.12 * Math.sin(3 * u + v + c / 3) +
          0.1 * Math.cos(2 * v - u) +
          0.06 * Math.sin(5 * u) * Math.cos(4 * v)
        );
      }),
    ),
  );

const input = new Map<number, ReturnType<typeof coatsInput>>();

/** What a part sees on a tile of half a metre. */
async function sceneAt(size: number): Promise<Scene> {
  const frame = { ...frameOf(size, 0.5), masks: [] };
  if (!input.has(size)) {
    // The same picture at every size, so that what is selected by it can be compared.
    const large = softPicture();
    input.set(size, coatsInput(size === 256 ? large : resizeArea(large, size, size), frame));
  }
  const read = await input.get(size)!;
  const { albedo } = read.gauge;
  return {
    input: read,
    below: {
      colour: albedo,
      roughness: read.finish.roughness,
      metallic: 0,
      f0: [0.04, 0.04, 0.04],
      opacity: null,
      emission: null,
      heightMm: read.relief.height.map((value) => value * read.relief.depthMm),
    },
    frame,
    context: stored,
    cover: 1,
    strokes: () => [],
    isLasting: () => true,
    part: async () => 0,
    normal: async () => read.relief.normal,
    cavity: async () => read.relief.cavity,
    occlusion: async () => read.relief.occlusion,
  };
}

/** Every kind of part with settings that make it do something at its borders. */
const TRIED: [PartName, Partial<Part>[]][] = [
  ['whole', [{}]],
  [
    'strokes',
    [
      {
        strokes: [
          {
            points: [
              [0.8, 0.9],
              [1.2, 1.15],
            ],
            radius: 0.08,
            softness: 0.6,
            erase: false,
            mirror: 'across',
          },
          { points: [[1, 1]], radius: 0.05, softness: 0.5, erase: true },
        ],
      },
    ],
  ],
  [
    'range',
    (
      [
        'tone',
        'luminance',
        'height',
        'slope',
        'facing',
        'cavity',
        'occlusion',
        'wear',
        'roughness',
        'metallic',
        'opacity',
        'supplied',
      ] as const
    ).map((map) => ({ map })),
  ],
  ['colour', [{ colour: '#a09080', reach: 0.2 }]],
  [
    'noise',
    (['fractal', 'ridged', 'billowed', 'cells', 'cell-edges', 'second-cells', 'directional'] as const).map(
      (kind) => ({ kind, degrees: 30, stretch: 2, sizeMm: 110, octaves: 2 }),
    ),
  ],
  [
    'pattern',
    (['running', 'hexagons', 'twill', 'rosettes'] as const).map((kind) => ({
      kind,
      across: 4,
      down: 4,
      jointMm: 20,
      bevelMm: 20,
      pick: 'profile' as const,
    })),
  ],
  [
    'gradient',
    (['linear', 'mirrored', 'radial', 'angular', 'height'] as const).map((kind) => ({
      kind,
      ends: [
        [0.7, 0.9],
        [0.2, 0.4],
      ] as [[number, number], [number, number]],
    })),
  ],
  [
    'shape',
    (['rectangle', 'ellipse', 'polygon', 'star', 'line', 'polyline', 'curve', 'frame'] as const).map(
      (kind) => ({
        kind,
        x: 0.95,
        y: 0.04,
        degrees: 20,
        softMm: 20,
        points: [
          [0.8, 0.9],
          [1.1, 1.2],
          [0.9, 1.3],
        ] as [number, number][],
      }),
    ),
  ],
  ['picture', [{ picture }, { picture, placing: 'once', x: 1, y: 0, widthMm: 240, degrees: 30 }]],
  [
    'own-shape',
    [
      {
        loops: [
          [0.8, 0.9, 1.3, 0.95, 1.1, 1.4],
          [0.2, 0.2, 0.2, 0.5, 0.5, 0.2],
        ],
        marginMm: 12,
      },
    ],
  ],
  ['scatter', STAMP_NAMES.map((stamp) => ({ stamp, sizeMm: 160, spacingMm: 120 }))],
  ['zone', [{}]],
];

async function valuesAt(size: number, by: PartName, part: Partial<Part>, changes: Partial<Part> = {}) {
  const scene = await sceneAt(size);
  const [whole] = coat([], [{ by, ...part, ...changes } as Partial<Part>]).parts;
  const values = await partValues(whole, scene, 1);
  return Float32Array.from({ length: size * size }, (_, i) => channelAt(values, i));
}

/** The mean step from pixel to pixel down the middle, and over the tile's own edge, in both directions. */
function steps(plane: Float32Array, size: number): { inside: number; over: number } {
  let [inside, over] = [0, 0];
  for (let k = 0; k < size; k++) {
    over = Math.max(
      over,
      Math.abs(plane[k * size] - plane[k * size + size - 1]),
      Math.abs(plane[k] - plane[(size - 1) * size + k]),
    );
  }
  for (let y = 0; y < size; y++) {
    for (let x = 1; x < size; x++) {
      inside = Math.max(
        inside,
        Math.abs(plane[y * size + x] - plane[y * size + x - 1]),
        Math.abs(plane[x * size + y] - plane[(x - 1) * size + y]),
      );
    }
  }
  return { inside, over };
}

/** How far values at two sizes may be apart on the whole: sharp edges are softened over a pixel of each size. */
const APART: Partial<Record<PartName, number>> = {
  range: 0.05,
  pattern: 0.03,
  scatter: 0.03,
  shape: 0.02,
  noise: 0.03,
};

describe('kinds of mask parts', () => {
  it('are all tried here', () => {
    expect(TRIED.map(([name]) => name)).to.deep.equal(Object.keys(PART_KINDS));
  });
  for (const [by, all] of TRIED) {
    it(`${by}: values 0..1, which meet themselves, alike at every size, and the same each time`, async () => {
      for (const part of all) {
        const words = `${by} ${JSON.stringify(part)}`;
        const fine = await valuesAt(256, by, part);
        for (const value of fine) if (!(value >= 0 && value <= 1)) expect.fail(`${words}: ${value}`);
        const { inside, over } = steps(fine, 256);
        expect(over, words).to.be.at.most(inside * 1.05 + 1e-6);
        expect(await valuesAt(256, by, part), words).to.deep.equal(fine);
        const coarse = await valuesAt(64, by, part);
        const [reduced] = resizeArea(new Raster(256, 256, [fine]), 64, 64).planes;
        let apart = 0;
        for (let i = 0; i < coarse.length; i++) apart += Math.abs(coarse[i] - reduced[i]);
        expect(apart / coarse.length, words).to.be.below(APART[by] ?? 0.015);
      }
    });
  }

  it('noise, shapes and stamps are not the same everywhere', async () => {
    for (const [by, all] of TRIED.filter(([name]) =>
      ['noise', 'shape', 'scatter', 'gradient', 'picture'].includes(name),
    )) {
      for (const part of all) {
        const plane = await valuesAt(64, by, part);
        expect(Math.max(...plane) - Math.min(...plane), JSON.stringify(part)).to.be.above(0.2);
      }
    }
  });

  it('a shape has its exact size, and half a pixel at its border', async () => {
    const plane = await valuesAt(256, 'shape', {
      kind: 'rectangle',
      widthMm: 250,
      heightMm: 100,
    } as Partial<Part>);
    const area = plane.reduce((sum, value) => sum + value, 0) / plane.length;
    expect(area).to.be.closeTo((250 / 500) * (100 / 500), 1e-4);
    const round = await valuesAt(256, 'shape', {
      kind: 'ellipse',
      widthMm: 300,
      heightMm: 200,
      x: 0,
      y: 0,
    } as Partial<Part>);
    expect(round.reduce((sum, value) => sum + value, 0) / round.length).to.be.closeTo(
      (Math.PI * 150 * 100) / 500 ** 2,
      5e-4,
    );
    const outline = await valuesAt(256, 'shape', {
      kind: 'rectangle',
      widthMm: 250,
      heightMm: 100,
      isOutlined: true,
      lineMm: 10,
    } as Partial<Part>);
    const border = (250 * 100 - 230 * 80) / 500 ** 2;
    expect(outline.reduce((sum, value) => sum + value, 0) / outline.length).to.be.closeTo(border, 5e-4);
  });

  it('a linear gradient is 0 and 1 at its ends', async () => {
    const plane = await valuesAt(256, 'gradient', {
      kind: 'linear',
      ends: [
        [0.5, 0.25],
        [0.5, 0.75],
      ],
    } as Partial<Part>);
    expect(plane[64 * 256]).to.be.closeTo(0, 0.01);
    expect(plane[128 * 256 + 77]).to.be.closeTo(0.5, 0.01);
    expect(plane[192 * 256 + 200]).to.be.closeTo(1, 0.01);
  });

  it('stamps by the parts before keep whole, and lie where those select', async () => {
    const scene = await sceneAt(256);
    const { parts } = coat(
      [],
      [
        { by: 'shape', kind: 'rectangle', widthMm: 250, heightMm: 500 } as Partial<Part>,
        {
          by: 'scatter',
          stamp: 'dot',
          density: 'before',
          sizeMm: 30,
          variety: 0,
          spacingMm: 40,
          pick: 'value',
        } as Partial<Part>,
      ],
    );
    const covered = await partPlane(parts, 1, 'cover', scene);
    const at = (x: number, y: number) => channelAt(covered, y * 256 + x);
    let [within, outside] = [0, 0];
    for (let y = 0; y < 256; y++) {
      for (let x = 0; x < 256; x++) {
        if (x > 64 && x < 192) within += at(x, y);
        // A stamp's middle lies within; it reaches out by its radius at most.
        if (x < 64 - 9 || x > 192 + 9) outside += at(x, y);
      }
    }
    expect(within).to.be.above(3000);
    expect(outside).to.equal(0);
    expect(await partPlane(parts, 5, 'cover', scene)).to.equal(0);
    expect(await partPlane(parts, 0, 'value', scene)).to.equal(0);
    const values = (await partPlane(parts, 1, 'value', scene)) as Float32Array;
    expect(farthest(values, new Float32Array(values.length))).to.be.above(0.5);
  });
});
