import { expect } from 'chai';
import { PER_METRE, partOf, SCENE_PARTS } from '../src/bench/sill/scene/parts.ts';
import {
  closing,
  repeatsOf,
  SHAPES,
  type SolidShape,
  shapeOf,
  TILE_EDGE,
  WIDTH,
} from '../src/bench/sill/shapes.ts';
import { textureOf } from '../src/bench/sill/textures.ts';

const SOLID = SHAPES.filter((shape): shape is SolidShape => shape !== 'own' && shape !== 'scene');

/** The longest and shortest run of coordinates for each unit of length along a geometry's edges. */
function scaleOf(geometry: ReturnType<typeof partOf>): { least: number; most: number } {
  const flat = geometry.index ? geometry.toNonIndexed() : geometry;
  const place = flat.getAttribute('position');
  const uv = flat.getAttribute('uv');
  let least = Number.POSITIVE_INFINITY;
  let most = 0;
  for (let i = 0; i < place.count; i += 3) {
    const length = Math.hypot(
      place.getX(i + 1) - place.getX(i),
      place.getY(i + 1) - place.getY(i),
      place.getZ(i + 1) - place.getZ(i),
    );
    const run = Math.hypot(uv.getX(i + 1) - uv.getX(i), uv.getY(i + 1) - uv.getY(i));
    if (length < 1e-6) continue;
    least = Math.min(least, run / length);
    most = Math.max(most, run / length);
  }
  return { least, most };
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

  it('a tile is as long on a shape as the shape says', () => {
    for (const shape of SOLID) {
      const geometry = shapeOf(shape, 0.2);
      const [across] = repeatsOf(shape, 1);
      // The ball's coordinates are true at its equator alone.
      if (shape === 'ball') {
        expect(TILE_EDGE.ball).to.be.closeTo((2 * Math.PI) / across, 1e-12);
        continue;
      }
      const flat = geometry.toNonIndexed();
      const uv = flat.getAttribute('uv');
      for (let i = 0; i < uv.count; i++) uv.setX(i, uv.getX(i) * across);
      const { most } = scaleOf(flat);
      expect(most * TILE_EDGE[shape], shape).to.be.within(0.95, 1.1);
      expect(WIDTH[shape]).to.be.above(0);
    }
  });

  it('the terrace’s parts carry metres as coordinates', () => {
    for (const part of SCENE_PARTS) {
      const { least, most } = scaleOf(partOf(part));
      expect(most * PER_METRE, part).to.be.at.most(part === 'pot' ? 1.8 : 1.001);
      expect(least * PER_METRE, part).to.be.at.least(part === 'pot' ? 0.7 : 0.999);
    }
  });
});
