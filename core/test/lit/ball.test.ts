import { litBall, Raster } from '@zesty-tile/core';
import { expect } from 'chai';
import { dot, mirrored, reflected, type Triple, unit } from '../../src/lit/shade.ts';
import { planeOf } from '../fields.ts';

const SIZE = 32;
const flat = (v: number) => new Float32Array(SIZE * SIZE).fill(v);

function maps(
  tilt: [number, number] = [0, 0],
  values: { albedo?: number; roughness?: number; occlusion?: number } = {},
) {
  const z = Math.sqrt(1 - tilt[0] ** 2 - tilt[1] ** 2);
  const { albedo = 0.3, roughness = 0.8, occlusion = 1 } = values;
  return {
    albedo: new Raster(SIZE, SIZE, [flat(albedo), flat(albedo), flat(albedo)]),
    normal: new Raster(SIZE, SIZE, [flat(tilt[0]), flat(tilt[1]), flat(z)]),
    roughness: flat(roughness),
    occlusion: flat(occlusion),
    f0: [0.04, 0.04, 0.04] as Triple,
    metallic: 0,
    green: 1 as 1 | -1,
  };
}

const EDGE = 96;
/** Green at a place of the picture given in shares of its size. */
const at = (picture: Raster, u: number, v: number) =>
  picture.planes[1][Math.round(v * EDGE) * EDGE + Math.round(u * EDGE)];

describe('light on a surface', () => {
  it('a microfacet surface never reflects more than it receives, at any roughness and angle', () => {
    const normal: Triple = [0, 0, 1];
    for (const roughness of [0.2, 0.4, 0.7, 1]) {
      for (const tilt of [0, 0.5, 1.1]) {
        const view = unit([Math.sin(tilt), 0, Math.cos(tilt)]);
        let sum = 0;
        const [rings, parts] = [160, 320];
        for (let i = 0; i < rings; i++) {
          const theta = ((i + 0.5) / rings) * (Math.PI / 2);
          for (let j = 0; j < parts; j++) {
            const phi = (2 * Math.PI * (j + 0.5)) / parts;
            const light: Triple = [
              Math.sin(theta) * Math.cos(phi),
              Math.sin(theta) * Math.sin(phi),
              Math.cos(theta),
            ];
            const [r] = reflected(normal, view, light, [0, 0, 0], [1, 1, 1], roughness);
            sum += r * Math.sin(theta);
          }
        }
        const albedo = (sum * (Math.PI / 2 / rings) * ((2 * Math.PI) / parts)) / Math.PI;
        expect(albedo, `roughness ${roughness}, tilt ${tilt}`).to.be.within(0.3, 1.02);
      }
    }
  });

  it('reflects the same when view and light change places', () => {
    const [n, a, b]: Triple[] = [[0, 0, 1], unit([0.3, 0.2, 0.8]), unit([-0.5, 0.4, 0.6])];
    const there = reflected(n, a, b, [0, 0, 0], [0.5, 0.5, 0.5], 0.4)[0] / dot(n, b);
    const back = reflected(n, b, a, [0, 0, 0], [0.5, 0.5, 0.5], 0.4)[0] / dot(n, a);
    expect(there).to.be.closeTo(back, 1e-9);
  });

  it('even surroundings are mirrored within physical bounds, more at grazing angles', () => {
    for (const roughness of [0, 0.5, 1]) {
      const straight = mirrored(1, [0.04, 0.04, 0.04], roughness)[0];
      const grazing = mirrored(0.05, [0.04, 0.04, 0.04], roughness)[0];
      expect(straight).to.be.within(0, 0.08);
      expect(grazing).to.be.within(straight, 1);
    }
  });
});

describe('lit ball', () => {
  it('is brightest towards the sun at the upper left and stands on a grey ground', () => {
    const picture = litBall(maps(), EDGE);
    expect(at(picture, 0.36, 0.36)).to.be.above(1.5 * at(picture, 0.66, 0.66));
    for (const [u, v] of [
      [0.03, 0.03],
      [0.95, 0.95],
    ]) {
      const i = Math.round(v * EDGE) * EDGE + Math.round(u * EDGE);
      const [r, g, b] = picture.planes.map((plane) => plane[i]);
      expect([r, b]).to.deep.equal([g, g]);
    }
  });

  it('a normal that leans left catches more of the sun than one that leans right, and green turns with its sign', () => {
    const left = at(litBall(maps([-0.5, 0]), EDGE), 0.5, 0.5);
    const right = at(litBall(maps([0.5, 0]), EDGE), 0.5, 0.5);
    expect(left).to.be.above(1.2 * right);
    const up = litBall(maps([0, 0.5]), EDGE);
    const turned = litBall({ ...maps([0, -0.5]), green: -1 as const }, EDGE);
    expect(at(up, 0.5, 0.5)).to.be.above(at(litBall(maps([0, -0.5]), EDGE), 0.5, 0.5));
    expect(turned.planes[1]).to.deep.equal(up.planes[1]);
  });

  it('occlusion takes soft light away, and the tile goes round without a seam', () => {
    expect(at(litBall(maps([0, 0], { occlusion: 0.2 }), EDGE), 0.6, 0.62)).to.be.below(
      at(litBall(maps(), EDGE), 0.6, 0.62),
    );
    const striped = maps();
    const stripes = planeOf(SIZE, SIZE, (x) => 0.3 + 0.2 * Math.sin((2 * Math.PI * x) / SIZE));
    striped.albedo = new Raster(SIZE, SIZE, [stripes, stripes, stripes]);
    const row = litBall(striped, EDGE).planes[1].subarray((EDGE / 2) * EDGE, (EDGE / 2 + 1) * EDGE);
    let worst = 0;
    for (let x = EDGE * 0.25; x < EDGE * 0.75; x++) worst = Math.max(worst, Math.abs(row[x + 1] - row[x]));
    expect(worst).to.be.below(0.12);
  });

  it('its shadow falls to the lower right, and where it touches the ground it is darkest', () => {
    const picture = litBall(maps(), EDGE);
    // Beside the ball, as far from it on either side.
    expect(at(picture, 0.93, 0.72)).to.be.below(0.8 * at(picture, 0.07, 0.72));
    const [touch, away] = [at(picture, 0.45, 0.835), at(picture, 0.45, 0.95)];
    expect(touch).to.be.below(0.7 * away);
  });

  it('looks as bright as its albedo where it leans to the viewer, and what is smooth mirrors the lamps', () => {
    const matte = litBall(maps([0, 0], { albedo: 0.5, roughness: 1 }), EDGE);
    expect(at(matte, 0.5, 0.33)).to.be.within(0.4, 0.62);
    const brightest = (roughness: number) =>
      Math.max(
        ...litBall(maps([0, 0], { albedo: 0.02, roughness }), EDGE).planes[1].filter(
          (_, i) => i % EDGE < EDGE / 2 && i / EDGE < EDGE / 2,
        ),
      );
    expect(brightest(0.15)).to.be.above(2 * brightest(0.9));
  });
});
