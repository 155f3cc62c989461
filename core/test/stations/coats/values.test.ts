import { defaultsOf, Raster, srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';
import { coatAlone, coated, sceneBelow } from '../../../src/stations/coats/climb.ts';
import type { Part } from '../../../src/stations/coats/mask/parts.ts';
import type { CoatGroup, CoatOutput } from '../../../src/stations/coats/settings.ts';
import { COAT_GROUP_SETTINGS } from '../../../src/stations/coats/settings.ts';
import { PLAIN_CONTEXT, type WorkContext } from '../../../src/team/context.ts';
import { farthest, planeOf, tilingPicture } from '../../fields.ts';
import { frameOf } from '../run.ts';
import { coat, coatsInput } from './making.ts';

const SIZE = 64;
const FRAME = frameOf(SIZE, 0.5);
const COUNT = SIZE * SIZE;

/** A stored picture: red 1, green 0.5, blue 0, opaque in its left half. */
const stored: WorkContext = {
  ...PLAIN_CONTEXT,
  async picture(_ref, side, planes) {
    const all = [1, 0.5, 0].map((value) => planeOf(side, side, () => value));
    return new Raster(
      side,
      side,
      [...all, planeOf(side, side, (x) => (x < side / 2 ? 1 : 0))].slice(0, planes),
    );
  },
};
const picture = { sha256: 'b'.repeat(64), width: SIZE, height: SIZE };

const outputs = (...all: Partial<CoatOutput>[]) => all as Partial<CoatOutput>[];

const layersOf = async (stack: ReturnType<typeof coat>[], groups: CoatGroup[] = []) =>
  coated({ stack, groups }, await coatsInput(tilingPicture(SIZE), FRAME), FRAME, stored);

const group = (changes: Partial<CoatGroup>): CoatGroup => ({
  ...(defaultsOf(COAT_GROUP_SETTINGS) as CoatGroup),
  ...changes,
});

describe('what coats put in', () => {
  it('a picture is put in where it is opaque, its colours decoded', async () => {
    const plain = await layersOf([]);
    const { colour, heightMm } = await layersOf([
      coat(
        outputs(
          { by: 'picture', channel: 'colour', picture },
          { by: 'picture', channel: 'height', heightBlend: 'replace', picture, whiteMm: 4 },
        ),
      ),
    ]);
    expect(colour.planes[0][10]).to.equal(1);
    expect(colour.planes[1][10]).to.be.closeTo(srgbToLinear(0.5), 1e-5);
    expect(colour.planes[1][50]).to.equal(plain.colour.planes[1][50]);
    expect(heightMm[10]).to.be.closeTo(2, 1e-5);
    expect(heightMm[50]).to.equal(plain.heightMm[50]);
  });

  it('a picture laid once covers its size in millimetres', async () => {
    const { opacity } = await layersOf([
      coat(outputs({ by: 'constant', channel: 'opacity', amount: 0 }), [
        { by: 'picture', picture, placing: 'once', widthMm: 250, x: 0, y: 0, read: 'alpha' } as Partial<Part>,
      ]),
    ]);
    const gone = (opacity as Float32Array).reduce((sum, value) => sum + 1 - value, 0) / COUNT;
    // A square of half the tile, of which the left half is opaque.
    expect(gone).to.be.closeTo(0.125, 0.01);
  });

  it('another tile is laid at its own size in metres, its height in its own depth', async () => {
    const other = {
      tileId: 't',
      name: 'Other',
      revision: 1,
      edgeMetres: 0.25,
      depthMm: 6,
      maps: { colour: picture, height: picture },
    };
    const { colour, heightMm, roughness } = await layersOf([
      coat(
        outputs(
          { by: 'tile', channel: 'colour', other },
          { by: 'tile', channel: 'height', heightBlend: 'replace', other },
          { by: 'tile', channel: 'roughness', other },
        ),
      ),
    ]);
    const plain = await layersOf([]);
    expect(colour.planes[1][0]).to.be.closeTo(srgbToLinear(0.5), 1e-5);
    expect(heightMm[0]).to.be.closeTo(6, 1e-5);
    // It has no map of roughness, so that is as it was.
    expect(roughness).to.deep.equal(plain.roughness);
  });

  it('wetness darkens what is not metal, smooths, and brings the F0 of water', async () => {
    const plain = await layersOf([]);
    const wet = await layersOf([
      coat(
        outputs(
          { by: 'wetness', channel: 'colour' },
          { by: 'wetness', channel: 'roughness' },
          { by: 'wetness', channel: 'f0' },
        ),
      ),
    ]);
    for (let i = 0; i < COUNT; i += 37) {
      expect(wet.colour.planes[0][i]).to.be.below(plain.colour.planes[0][i]);
      expect(wet.colour.planes[0][i]).to.be.above(0.3 * plain.colour.planes[0][i]);
    }
    expect((wet.f0 as Raster).planes[0][0]).to.be.closeTo(0.02, 0.001);
    const standing = await layersOf([coat(outputs({ by: 'wetness', channel: 'roughness', wetness: 2 }))]);
    const at = (value: number | Float32Array) => (typeof value === 'number' ? value : value[5]);
    expect(at(wet.roughness)).to.be.below(at(plain.roughness));
    expect(at(standing.roughness)).to.be.closeTo(0.06, 1e-6);
    const metal = await layersOf([
      coat(outputs({ by: 'constant', channel: 'metallic', amount: 1 })),
      coat(outputs({ by: 'wetness', channel: 'colour' })),
    ]);
    expect(farthest(metal.colour.planes[1], plain.colour.planes[1])).to.be.below(1e-6);
  });

  it('light that is painted in leaves level ground as it is, and brightens what faces it', async () => {
    const below = await layersOf([]);
    const sun = {
      by: 'light',
      channel: 'colour',
      degrees: 0,
      elevation: 30,
      sun: 1,
      sky: 0,
      rim: 0,
    } as Partial<CoatOutput>;
    const input = await coatsInput(tilingPicture(SIZE), FRAME);
    const level = {
      ...input,
      relief: {
        ...input.relief,
        normal: new Raster(
          SIZE,
          SIZE,
          [0, 0, 1].map((value) => new Float32Array(COUNT).fill(value)),
        ),
      },
    };
    const same = await coated({ stack: [coat([sun])], groups: [] }, level, FRAME, PLAIN_CONTEXT);
    expect(farthest(same.colour.planes[0], below.colour.planes[0])).to.be.below(1e-6);
    const lit = await coated({ stack: [coat([sun])], groups: [] }, input, FRAME, PLAIN_CONTEXT);
    const ny = input.relief.normal.planes[1];
    let product = 0;
    for (let i = 0; i < COUNT; i++) product += ny[i] * (lit.colour.planes[0][i] - below.colour.planes[0][i]);
    // Green points up in this frame, and the sun stands at the top of the picture.
    expect(product).to.be.above(0);
  });

  it('height from tone follows the lightness of the colour below, and turns over', async () => {
    const bright = { by: 'tone', channel: 'height', reliefMm: 2, coarseMm: 400 } as Partial<CoatOutput>;
    const plain = await layersOf([]);
    const up = await layersOf([coat([bright])]);
    const down = await layersOf([coat([{ ...bright, isDarkHigh: true } as Partial<CoatOutput>])]);
    let product = 0;
    for (let i = 0; i < COUNT; i++) {
      const by = up.heightMm[i] - plain.heightMm[i];
      expect(down.heightMm[i] - plain.heightMm[i]).to.be.closeTo(-by, 1e-4);
      product += by * (plain.colour.planes[1][i] - 0.35);
    }
    expect(product).to.be.above(0);
  });

  it('a ramp goes by a random value of each cell, and by a supplied map', async () => {
    const cells = { by: 'pattern', kind: 'grid', across: 4, down: 4, jointMm: 0 } as Partial<Part>;
    const stops = [
      { at: 0, colour: '#000000', value: 0 },
      { at: 1, colour: '#ffffff', value: 1 },
    ];
    const { roughness } = await layersOf([
      coat(outputs({ by: 'ramp', channel: 'roughness', driver: 'part', part: 1, plane: 'value', stops }), [
        cells,
      ]),
    ]);
    const values = new Set([...(roughness as Float32Array)].map((value) => value.toFixed(4)));
    expect(values.size).to.be.within(5, 40);
    const input = await coatsInput(tilingPicture(SIZE), FRAME);
    const given = planeOf(SIZE, SIZE, (x) => x / SIZE);
    const supplied = {
      ...input,
      style: { ...input.style, given: { occlusion: new Raster(SIZE, SIZE, [given]) } },
    };
    const by = coat(
      outputs({ by: 'ramp', channel: 'metallic', driver: 'supplied', supplied: 'occlusion', stops }),
    );
    const { metallic } = await coated({ stack: [by], groups: [] }, supplied, FRAME, PLAIN_CONTEXT);
    expect(farthest(metallic as Float32Array, given)).to.be.below(2e-3);
  });

  it('a ramp takes stops in any order, one alone, and two at one place', async () => {
    const of = async (stops: unknown) => {
      const { roughness } = await layersOf([
        coat(outputs({ by: 'ramp', channel: 'roughness', driver: 'mask', stops } as Partial<CoatOutput>)),
      ]);
      return (roughness as Float32Array)[0];
    };
    expect(
      await of([
        { at: 1, colour: '#000000', value: 0.9 },
        { at: 0, colour: '#000000', value: 0.1 },
      ]),
    ).to.be.closeTo(0.9, 1e-6);
    expect(await of([{ at: 0.4, colour: '#000000', value: 0.3 }])).to.be.closeTo(0.3, 1e-6);
    expect(
      await of([
        { at: 1, colour: '#000000', value: 0.2 },
        { at: 1, colour: '#000000', value: 0.7 },
      ]),
    ).to.be.within(0.2, 0.7);
  });
});

describe('groups of coats', () => {
  const grey = (of: string) =>
    coat(outputs({ by: 'constant', channel: 'roughness', amount: 0 }), [], { group: of });

  it('hold coats within their mask and strength, one in another', async () => {
    const at = async (groups: CoatGroup[]) => (await layersOf([grey('inner')], groups)).roughness;
    const plain = (await layersOf([])).roughness as Float32Array;
    const outer = group({ id: 'outer', strength: 0.5 });
    const inner = group({
      id: 'inner',
      within: 'outer',
      parts: coat(
        [],
        [{ by: 'pattern', kind: 'stripes', across: 2, down: 2, jointMm: 125, bevelMm: 0 } as Partial<Part>],
      ).parts,
    });
    const made = (await at([outer, inner])) as Float32Array;
    let share = 0;
    for (let i = 0; i < COUNT; i++) share += 1 - made[i] / plain[i];
    expect(share / COUNT).to.be.closeTo(0.25, 0.02);
    expect(await at([{ ...outer, visible: false }, inner])).to.deep.equal(plain);
  });

  it('one that is not there, holds itself, or is one of sixty-four within each other does no harm', async () => {
    const made = async (of: string, groups: CoatGroup[]) => {
      const { roughness } = await layersOf([grey(of)], groups);
      return typeof roughness === 'number' ? roughness : roughness[0];
    };
    expect(await made('nowhere', [])).to.equal(0);
    expect(await made('self', [group({ id: 'self', within: 'self' })])).to.equal(0);
    const deep = Array.from({ length: 64 }, (_, k) =>
      group({ id: `g-${k}`, within: k < 63 ? `g-${k + 1}` : 'g-0' }),
    );
    expect(await made('g-0', deep)).to.equal(0);
  });
});

describe('a coat by itself', () => {
  it('shows its mask and what it puts in, over what is below it, even where it is off', async () => {
    const input = await coatsInput(tilingPicture(SIZE), FRAME);
    const low = coat(outputs({ by: 'constant', channel: 'colour', colour: '#ffffff' }));
    const top = coat(
      outputs({ by: 'constant', channel: 'colour', colour: '#00ff00' }),
      [{ by: 'range', map: 'luminance' }],
      { visible: false, strength: 0.5 },
    );
    const settings = { stack: [low, top], groups: [] };
    const below = await sceneBelow(top.id, settings, input, FRAME, PLAIN_CONTEXT);
    const alone = await coatAlone(below!, 'colour');
    expect((alone.cover as Float32Array)[9]).to.be.closeTo(0.5, 1e-6);
    expect(alone.value).to.deep.equal({ kind: 'colour', of: [0, 1, 0] });
    expect((await coatAlone(below!, 'metallic')).value).to.equal(null);
    expect(await sceneBelow('none', settings, input, FRAME, PLAIN_CONTEXT)).to.equal(null);
  });
});
