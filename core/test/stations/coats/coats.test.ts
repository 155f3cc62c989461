import { Raster, STATIONS, type Surface } from '@zesty-tile/core';
import { expect } from 'chai';
import type { Part } from '../../../src/stations/coats/mask/parts.ts';
import type { CoatsInput } from '../../../src/stations/coats/scene.ts';
import type { Coat, CoatOutput } from '../../../src/stations/coats/settings.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';
import { farthest, planeOf, tilingPicture } from '../../fields.ts';
import { frameOf, runStation } from '../run.ts';
import { coat, coatsInput } from './making.ts';

const SIZE = 64;
const FRAME = frameOf(SIZE, 0.5);

const inputOf = (picture = tilingPicture(SIZE)) => coatsInput(picture, FRAME);

async function surfaceWith(
  stack: Coat[],
  input?: CoatsInput,
): Promise<Surface & { addedMm: [number, number] }> {
  const { output } = await runStation('coats', input ?? (await inputOf()), { stack }, FRAME);
  return output;
}

describe('coats', () => {
  it('none at all leave the very planes of the stations before', async () => {
    const input = await inputOf();
    for (const stack of [[], [coat([{ channel: 'colour' }], [], { visible: false })], [coat([])]]) {
      const surface = await surfaceWith(stack, input);
      expect(surface.colour).to.equal(input.gauge.albedo);
      expect(surface.relief).to.equal(input.relief.height);
      expect(surface.normal).to.equal(input.relief.normal);
      expect(surface.roughness).to.equal(input.finish.roughness);
      expect(surface.addedMm).to.deep.equal([0, 0]);
    }
  });

  it('put a constant into every channel, as strong as they are', async () => {
    const surface = await surfaceWith([
      coat(
        [
          { channel: 'colour', colour: '#ff0000' },
          { channel: 'roughness', amount: 0.25 },
          { channel: 'metallic', amount: 1 },
          { channel: 'opacity', amount: 0.5 },
          { channel: 'emission', colour: '#00ff00' },
          { channel: 'f0', colour: '#ffffff', strength: 0.5 },
        ] as Partial<CoatOutput>[],
        [],
        { strength: 0.5 },
      ),
    ]);
    const plain = await surfaceWith([]);
    const at = (plane: number | Float32Array, i: number) => (typeof plane === 'number' ? plane : plane[i]);
    for (const i of [0, 17, 900]) {
      expect(surface.colour.planes[0][i]).to.be.closeTo(0.5 * plain.colour.planes[0][i] + 0.5, 1e-6);
      expect(surface.colour.planes[1][i]).to.be.closeTo(0.5 * plain.colour.planes[1][i], 1e-6);
      expect(at(surface.roughness, i)).to.be.closeTo(0.5 * at(plain.roughness, i) + 0.125, 1e-6);
      expect(at(surface.metallic, i)).to.be.closeTo(0.5, 1e-6);
      expect(surface.opacity![i]).to.be.closeTo(0.75, 1e-6);
      expect(surface.emission!.planes[1][i]).to.be.closeTo(0.5, 1e-6);
      expect((surface.f0 as Raster).planes[0][i]).to.be.closeTo(0.04 + 0.25 * 0.96, 1e-6);
    }
    // Nothing changed the height.
    expect(surface.relief).to.deep.equal(plain.relief);
    expect(surface.depthMm).to.equal(plain.depthMm);
  });

  it('see only what is below them: a ramp of luminance over a painted coat follows the paint', async () => {
    const paint = coat([{ channel: 'colour', colour: '#ffffff' }]);
    const dark = { at: 0, colour: '#000000', value: 0 };
    const byTone = coat([
      {
        by: 'ramp',
        channel: 'roughness',
        driver: 'luminance',
        stops: [dark, { at: 1, colour: '#ffffff', value: 0.9 }],
      } as Partial<CoatOutput>,
    ]);
    const over = await surfaceWith([paint, byTone]);
    expect((over.roughness as Float32Array)[5]).to.be.closeTo(0.9, 1e-5);
    const under = await surfaceWith([byTone, paint]);
    expect((under.roughness as Float32Array)[5]).to.be.below(0.7);
  });

  it('change normal, cavity and occlusion with the height, as Relief would have made it', async () => {
    const input = await inputOf();
    const raised = await surfaceWith(
      [
        coat(
          [{ channel: 'height', heightMm: 4 }],
          [{ by: 'pattern', kind: 'grid', across: 2, down: 2, jointMm: 40 }],
        ),
      ],
      input,
    );
    expect(raised.addedMm[1]).to.be.closeTo(4, 1e-5);
    expect(raised.depthMm).to.be.within(4, 14.01);
    expect(farthest(raised.normal.planes[0], input.relief.normal.planes[0])).to.be.above(0.2);
    for (let i = 0; i < 50; i++) {
      const [x, y, z] = raised.normal.planes.map((plane) => plane[i * 80]);
      expect(Math.hypot(x, y, z)).to.be.closeTo(1, 1e-5);
    }
    expect(raised.occlusion).to.not.equal(input.relief.occlusion);
    // What is added and taken away again is what was there.
    const back = await surfaceWith(
      [coat([{ channel: 'height', heightMm: 3 }]), coat([{ channel: 'height', heightMm: -3 }])],
      input,
    );
    expect(farthest(back.normal.planes[0], input.relief.normal.planes[0])).to.be.below(1e-3);
    expect(farthest(back.relief, input.relief.height)).to.be.below(0.03);
  });

  it('the masks combine by and, or, without; levels, invert and blur do as they say', async () => {
    const shareOf = async (parts: Partial<Part>[]) => {
      const { opacity } = await surfaceWith([
        coat([{ channel: 'opacity', amount: 0 } as Partial<CoatOutput>], parts),
      ]);
      let sum = 0;
      for (const value of opacity ?? [1]) sum += 1 - value;
      return sum / (opacity?.length ?? 1);
    };
    const checks: Partial<Part> = { by: 'pattern', kind: 'checks', across: 4, down: 4, jointMm: 0 };
    const stripes: Partial<Part> = {
      by: 'pattern',
      kind: 'stripes',
      down: 2,
      pick: 'value',
      softness: 0,
      seed: 4,
    };
    expect(await shareOf([])).to.equal(1);
    expect(await shareOf([checks])).to.be.closeTo(0.5, 0.02);
    expect(await shareOf([{ ...checks, invert: true }])).to.be.closeTo(0.5, 0.02);
    expect(await shareOf([checks, { ...checks, invert: true, how: 'or' }])).to.be.closeTo(1, 0.03);
    expect(await shareOf([checks, { ...checks, how: 'without' }])).to.be.below(0.03);
    expect(await shareOf([{ ...checks, blurMm: 60 }])).to.be.closeTo(0.5, 0.02);
    const value = await shareOf([stripes]);
    expect(value).to.be.oneOf([0, 0.5, 1]);
    expect(await shareOf([{ by: 'range', map: 'opacity' }])).to.equal(1);
    expect(await shareOf([{ by: 'zone', zone: 'not-there' }])).to.equal(0);
  });

  it('a stack on rolled input gives the rolled result', async () => {
    const picture = tilingPicture(SIZE);
    const [dx, dy] = [13, 40];
    const rolledOf = (plane: Float32Array) =>
      planeOf(SIZE, SIZE, (x, y) => plane[((y + dy) % SIZE) * SIZE + ((x + dx) % SIZE)]);
    const rolled = new Raster(SIZE, SIZE, picture.planes.map(rolledOf));
    const stack = [
      coat(
        [
          { channel: 'colour', colour: '#4a6a20', blend: 'overlay' },
          { channel: 'height', heightMm: 1.5 },
        ] as Partial<CoatOutput>[],
        [{ by: 'range', map: 'cavity', low: 0.6, high: 0.4, blurMm: 6 }],
      ),
      coat(
        [{ by: 'ramp', channel: 'roughness', driver: 'mask' } as Partial<CoatOutput>],
        [
          { by: 'range', map: 'wear', widthMm: 12 },
          { by: 'range', map: 'facing', degrees: 30, low: 0.4, high: 0.7 },
          { by: 'colour', colour: '#708060', how: 'or' },
        ],
      ),
    ];
    const plain = await surfaceWith(stack, await inputOf(picture));
    const turned = await surfaceWith(stack, await inputOf(rolled));
    for (let c = 0; c < 3; c++) {
      expect(farthest(turned.colour.planes[c], rolledOf(plain.colour.planes[c]))).to.be.below(2e-3);
      expect(farthest(turned.normal.planes[c], rolledOf(plain.normal.planes[c]))).to.be.below(2e-2);
    }
    expect(farthest(turned.relief, rolledOf(plain.relief))).to.be.below(2e-3);
    expect(farthest(turned.roughness as Float32Array, rolledOf(plain.roughness as Float32Array))).to.be.below(
      5e-3,
    );
  });

  it('a chart line brings colour, roughness, metalness and F0 that agree', async () => {
    const channels = ['colour', 'roughness', 'metallic', 'f0', 'height'] as const;
    const copper = coat(
      channels.map((channel) => ({ by: 'line', channel, line: 'copper' }) as Partial<CoatOutput>),
    );
    const surface = await surfaceWith([copper]);
    expect(surface.metallic).to.equal(1);
    const [r, g, b] = surface.colour.planes.map((plane) => plane[0]);
    expect(r).to.be.above(g);
    expect(g).to.be.above(b);
    expect(surface.relief).to.deep.equal((await surfaceWith([])).relief);
  });

  it('the verdict says what changed, and warns of what is half metal', async () => {
    const input = await inputOf();
    const verdictOf = async (stack: Coat[]) => {
      const { output, decided } = await runStation('coats', input, { stack }, FRAME);
      return STATIONS.coats.verdict(output, input, { stack, groups: [] }, decided, FRAME, PLAIN_CONTEXT);
    };
    expect((await verdictOf([])).brief).to.equal('none');
    const half = await verdictOf([coat([{ channel: 'metallic', amount: 0.5 } as Partial<CoatOutput>])]);
    expect(half).to.include({ state: 'look', brief: 'half metal 100 %' });
    const raised = await verdictOf([
      coat([
        { channel: 'height', heightMm: 2 },
        { channel: 'colour', colour: '#203010' },
      ] as Partial<CoatOutput>[]),
    ]);
    expect(raised.brief).to.equal('1 coat');
    expect(raised.sentence).to.contain('0.0 to 2.0 mm');
  });

  it('noise decides nothing by chance: the same recipe gives the same bytes', async () => {
    const stack = [
      coat(
        [{ channel: 'colour', colour: '#303030', blend: 'multiply' } as Partial<CoatOutput>],
        [{ by: 'noise', kind: 'ridged', sizeMm: 40 }],
      ),
    ];
    const [a, b] = [await surfaceWith(stack), await surfaceWith(stack)];
    expect(a.colour.planes[1]).to.deep.equal(b.colour.planes[1]);
  });
});
