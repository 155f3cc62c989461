import { irradianceHarmonics, panoramaOf, parseRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import sharp from 'sharp';
import { DataTexture, FloatType, PerspectiveCamera, RGBAFormat, Triangle, Vector3 } from 'three';
import type { AroundLight, Direction } from '../src/bench/sill/light/around.ts';
import { meteredExposure } from '../src/bench/sill/light/exposure.ts';
import { SHADOW_REACH } from '../src/bench/sill/light/shadow-reach.ts';
import { MATTERS, matterGiven } from '../src/bench/sill/scene/matter.ts';
import { FLOOR_AT, FOOT, PER_METRE, partOf, SCENE_PARTS } from '../src/bench/sill/scene/parts.ts';
import {
  closing,
  repeatsOf,
  SHAPES,
  type SolidShape,
  shapeOf,
  TILE_EDGE,
  TURNED,
  WIDTH,
} from '../src/bench/sill/shapes.ts';
import { FIELD_OF_VIEW, STANCES, standing } from '../src/bench/sill/stances.ts';
import { withExrText } from '../src/bench/sill/still/exr-text.ts';
import { withText } from '../src/bench/sill/still/png-text.ts';
import { textureOf } from '../src/bench/sill/textures.ts';
import { plainPixels } from '../src/engine/plain-source.ts';

const SOLID = SHAPES.filter(
  (shape): shape is Exclude<SolidShape, 'field'> => !['own', 'scene', 'field'].includes(shape),
);

const UPRIGHT = new Vector3(0, 1, 0);

type Geometry = ReturnType<typeof partOf>;

/** Length of a unit of coordinates for each unit of a geometry, over all of its area. */
function scaleOf(geometry: Geometry): number {
  const flat = geometry.index ? geometry.toNonIndexed() : geometry;
  const place = flat.getAttribute('position');
  const uv = flat.getAttribute('uv');
  const [a, b, c] = [new Vector3(), new Vector3(), new Vector3()];
  let [area, run] = [0, 0];
  for (let i = 0; i < place.count; i += 3) {
    [a, b, c].forEach((corner, k) => {
      corner.fromBufferAttribute(place, i + k);
    });
    area += new Triangle(a, b, c).getArea();
    const [s, t] = [1, 2].map((k) => [uv.getX(i + k) - uv.getX(i), uv.getY(i + k) - uv.getY(i)]);
    run += Math.abs(s[0] * t[1] - s[1] * t[0]) / 2;
  }
  return Math.sqrt(run / area);
}

describe('what the Sill draws on', () => {
  it('a map longer than the graphics card takes is halved until it fits, its mean kept', () => {
    const [width, height] = [64, 32];
    const rgba = new Uint8ClampedArray(4 * width * height).map((_, i) => (i % 4 === 3 ? 255 : (i * 7) % 256));
    const mean = (data: ArrayLike<number>) => Array.from(data).reduce((a, b) => a + b, 0) / data.length;
    for (const most of [16, 64]) {
      const { image } = textureOf({ width, height, rgba }, true, { anisotropy: 1, most });
      const made = image as { width: number; height: number; data: Uint8Array };
      expect([made.width, made.height]).to.deep.equal(most === 16 ? [16, 8] : [64, 32]);
      expect(mean(made.data)).to.be.closeTo(mean(rgba), 1);
    }
  });

  it('round shapes close: their counts stay whole whatever width is asked for', () => {
    for (const asked of [0.1, 0.37, 1, 1.9, 5.03]) {
      expect(repeatsOf('ball', closing('ball', asked))[0] % 1).to.equal(0);
      expect(repeatsOf('post', closing('post', asked))[0] % 1).to.be.closeTo(0, 1e-12);
      expect(closing('slab', asked)).to.equal(asked);
    }
  });

  it('every shape is whole in the view, narrow or wide, and fills it', () => {
    for (const shape of SOLID) {
      const points = shapeOf(shape, 0.1).getAttribute('position');
      for (const aspect of [0.6, 1, 2.6]) {
        const camera = new PerspectiveCamera(FIELD_OF_VIEW, aspect);
        const { eye, at } = standing(STANCES[shape], aspect);
        camera.position.set(...eye);
        camera.lookAt(...at);
        camera.updateMatrixWorld();
        const [across, up] = [[] as number[], [] as number[]];
        for (let i = 0; i < points.count; i++) {
          const seen = new Vector3().fromBufferAttribute(points, i).applyAxisAngle(UPRIGHT, TURNED[shape]);
          seen.project(camera);
          across.push(Math.abs(seen.x));
          up.push(Math.abs(seen.y));
        }
        const [widest, highest] = [Math.max(...across), Math.max(...up)];
        expect(Math.max(widest, highest), `${shape} at ${aspect}`).to.be.within(0.4, 0.91);
      }
    }
  });

  it('a tile is as long on a shape as the shape says', () => {
    for (const shape of SOLID) {
      const geometry = shapeOf(shape, 0.2);
      // The ball's coordinates are true at its equator alone.
      if (shape === 'ball') {
        expect(TILE_EDGE.ball).to.be.closeTo((2 * Math.PI) / repeatsOf(shape, 1)[0], 1e-12);
        continue;
      }
      const uv = geometry.getAttribute('uv');
      const [across, down] = repeatsOf(shape, 1);
      for (let i = 0; i < uv.count; i++) uv.setXY(i, uv.getX(i) * across, uv.getY(i) * down);
      // A block's rounded edges take a little of each face's length.
      expect(scaleOf(geometry) * TILE_EDGE[shape], shape).to.be.within(0.95, 1.06);
      expect(WIDTH[shape]).to.be.above(0);
    }
  });

  it('the terrace’s parts carry metres as coordinates, whichever way they are turned', () => {
    for (const part of SCENE_PARTS) {
      for (const turns of [0, 1]) {
        const scale = scaleOf(partOf(part, turns)) * PER_METRE;
        // Broken edges and round arches are seen aslant, and a pot is narrower at its foot.
        expect(scale, part).to.be.within(0.85, part === 'pot' ? 1.3 : 1.001);
      }
    }
  });

  it('a quarter turn of a part rotates its tile: what ran to the right runs down', () => {
    const [upright, rotated] = [partOf('floor'), partOf('floor', 1)].map((one) => one.getAttribute('uv'));
    for (let i = 0; i < upright.count; i += 7) {
      expect(rotated.getY(i)).to.be.closeTo(-upright.getX(i), 1e-5);
      expect(rotated.getX(i)).to.be.closeTo(upright.getY(i), 1e-5);
    }
  });

  it('every part is within what the sun’s shadow reaches, and stands in the floor or above it', () => {
    for (const part of SCENE_PARTS) {
      const geometry = partOf(part);
      geometry.computeBoundingBox();
      const { min, max } = geometry.boundingBox!;
      for (const corner of [min, max])
        expect(Math.max(...corner.toArray().map(Math.abs)), part).to.be.below(SHADOW_REACH.scene!);
      if (part !== 'floor') expect(min.y, part).to.be.at.least((FLOOR_AT + FOOT) * PER_METRE - 1e-6);
    }
  });

  it('what has broken edges and stands on the floor begins in it, so that no light comes in under them', () => {
    expect(FOOT).to.be.below(0);
    for (const part of ['steps', 'wall', 'lowwall', 'arcade', 'joinery', 'bench', 'basin'] as const) {
      const geometry = partOf(part);
      geometry.computeBoundingBox();
      expect(geometry.boundingBox!.min.y / PER_METRE, part).to.be.closeTo(FLOOR_AT + FOOT, 1e-6);
    }
  });

  it('what parts are usually made of is a recipe that a tile could have', () => {
    for (const matter of MATTERS) {
      const { recipe, source } = matterGiven(matter);
      expect(parseRecipe(JSON.parse(JSON.stringify(recipe))), matter).to.deep.equal(recipe);
      expect(plainPixels(source.sha256, 8)).to.include({ width: 8, height: 8, channels: 3 });
    }
    expect(plainPixels('0a1b', 8)).to.equal(null);
  });
});

describe('a still’s file', () => {
  it('holds what it shows as text, and is a PNG as before', async () => {
    const png = await sharp({ create: { width: 3, height: 2, channels: 3, background: '#c8de1f' } })
      .png()
      .toBuffer();
    const text = JSON.stringify({ shape: 'slab', words: 'Höhe' });
    const marked = withText(new Uint8Array(png), 'Description', text);
    const { comments } = await sharp(marked).metadata();
    expect(comments).to.deep.equal([{ keyword: 'Description', text }]);
    expect((await sharp(marked).raw().toBuffer()).equals(await sharp(png).raw().toBuffer())).to.equal(true);
  });
});

describe('a still’s OpenEXR file', () => {
  it('holds what it shows as comments, and is the same picture as before', async () => {
    const { EXRExporter, ZIP_COMPRESSION } = await import('three/examples/jsm/exporters/EXRExporter.js');
    const { EXRLoader } = await import('three/examples/jsm/loaders/EXRLoader.js');
    // More lines than one block holds.
    const values = Float32Array.from({ length: 4 * 6 * 40 }, (_, i) => i / 8);
    const picture = new DataTexture(values, 6, 40, RGBAFormat, FloatType);
    const exr = (await new EXRExporter().parse(picture, {
      type: FloatType,
      compression: ZIP_COMPRESSION,
    })) as Uint8Array<ArrayBuffer>;
    const text = JSON.stringify({ shape: 'slab', words: 'Höhe' });
    const marked = withExrText(exr, 'comments', text);
    const read = (bytes: Uint8Array<ArrayBuffer>) =>
      new EXRLoader().setDataType(FloatType).parse(bytes.slice().buffer) as {
        data: Float32Array;
        header: { comments?: string };
      };
    expect([...read(marked).data]).to.deep.equal([...read(exr).data]);
    expect(read(marked).header.comments).to.equal(text);
  });
});

describe('the Sill’s exposure', () => {
  const light = { harmonics: irradianceHarmonics(panoramaOf(() => [0.5, 0.5, 0.5], 32)) } as AroundLight;
  const towards: Direction = [0, Math.SQRT1_2, Math.SQRT1_2];
  const meter = (strength: number, sun: Direction, turn = 0) =>
    meteredExposure(light, towards, { turn, strength }, sun, [2, 2, 2]);

  it('a surface that leans to the viewer looks as bright as its albedo', () => {
    // What an albedo of 1 sends to the viewer is what falls on it, over π.
    expect((meter(1, [2, 2, 2]).exposure * (2 + 0.5 * Math.PI)) / Math.PI).to.be.closeTo(1, 0.01);
    expect((meter(0, [2, 2, 2]).exposure * 2) / Math.PI).to.be.closeTo(1, 0.001);
  });

  it('follows the light and not its side; with all lights off it stays finite', () => {
    const { exposure, usual } = meter(2, [4, 4, 4]);
    expect(exposure).to.be.closeTo(usual / 2, 1e-9);
    expect(meter(1, [2, 2, 2], 2).exposure).to.be.closeTo(meter(1, [2, 2, 2]).exposure, 1e-3);
    expect(meter(0, [0, 0, 0]).exposure).to.be.below(100 * usual);
  });
});
