import {
  AROUND_NAMES,
  BLURRED_AT,
  blurredPanorama,
  halvedPanorama,
  irradianceAt,
  irradianceHarmonics,
  luminanceOf,
  type Panorama,
  panoramaOf,
  placeUnder,
  skyLights,
  type Triple,
  withDiscs,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { directionOf, solidAngleOf } from '../../src/lit/around/panorama.ts';
import { clearSky, cloudedSky, sunLight } from '../../src/lit/around/sky.ts';
import { dot, unit } from '../../src/lit/shade.ts';

const white = panoramaOf(() => [1, 1, 1], 128);
const SUN = unit([-0.5, 0.5, 0.7]);
const NORMALS: Triple[] = [[0, 1, 0], [0, -1, 0], unit([1, 0.2, -0.4]), [0, Math.SQRT1_2, Math.SQRT1_2]];
const grey = (rgb: Triple) => luminanceOf(...rgb);
const mean = ({ width, height, rgb }: Panorama): number => {
  let sum = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      sum += (solidAngleOf(y, { width, height }) * rgb[3 * (y * width + x) + 1]) / (4 * Math.PI);
  return sum;
};

describe('light from all sides', () => {
  it('in a white furnace nothing is gained or lost by more than 1 %', () => {
    const all = irradianceHarmonics(white);
    for (const normal of NORMALS)
      for (const value of irradianceAt(all, normal)) expect(value / Math.PI).to.be.within(0.99, 1.01);
    for (const roughness of BLURRED_AT)
      for (const value of blurredPanorama(white, roughness, 32).rgb) expect(value).to.be.within(0.99, 1.01);
    const lights = skyLights(white, 256);
    const level = lights.reduce((sum, { towards, irradiance }) => sum + irradiance[1] * towards[1], 0) / 256;
    expect(level / Math.PI).to.be.within(0.99, 1.01);
  });

  it('the lower half alone lights what faces down, and not what faces up', () => {
    const below = irradianceHarmonics(white, 0);
    expect(irradianceAt(below, [0, -1, 0])[0]).to.be.within(0.9 * Math.PI, 1.1 * Math.PI);
    expect(irradianceAt(below, [0, 1, 0])[0]).to.be.below(0.1 * Math.PI);
  });

  it('harmonics agree with irradiance that is summed over all directions', () => {
    const place = placeUnder('terrace', SUN);
    const panorama = panoramaOf(place.radiance, 64);
    const all = irradianceHarmonics(panorama);
    for (const normal of NORMALS) {
      let sum = 0;
      for (let y = 0; y < panorama.height; y++)
        for (let x = 0; x < panorama.width; x++)
          sum +=
            solidAngleOf(y, panorama) *
            Math.max(0, dot(directionOf(x, y, panorama), normal)) *
            panorama.rgb[3 * (y * panorama.width + x) + 1];
      // Nine coefficients keep all but a few hundredths (Ramamoorthi & Hanrahan 2001).
      expect(irradianceAt(all, normal)[1] / sum, String(normal)).to.be.within(0.93, 1.07);
    }
  });

  it('what rough surfaces mirror keeps the mean, and its contrast falls with roughness', () => {
    const panorama = panoramaOf(placeUnder('studio', SUN).radiance, 128);
    const contrasts = BLURRED_AT.map((roughness) => {
      const blurred = blurredPanorama(panorama, roughness, 64);
      expect(mean(blurred) / mean(panorama), `roughness ${roughness}`).to.be.within(0.94, 1.06);
      return Math.max(...blurred.rgb) / Math.min(...blurred.rgb);
    });
    for (let k = 1; k < contrasts.length; k++) expect(contrasts[k]).to.be.below(contrasts[k - 1]);
  });

  it('an overcast sky is brighter than a light wall under it, and sends most of the light', () => {
    const { radiance, sun } = placeUnder('overcast', SUN);
    const harmonics = irradianceHarmonics(panoramaOf(radiance, 128));
    const wall = (0.6 * grey(irradianceAt(harmonics, [0, 0, 1]))) / Math.PI;
    expect(grey(radiance(unit([0.3, 0.45, -1])))).to.be.above(wall);
    expect(grey(irradianceAt(harmonics, [0, 1, 0]))).to.be.above(3 * SUN[1] * grey(sun.irradiance));
  });

  it('haze makes the horizon of a clear day brighter than the sky above it, and leaves it nearly grey', () => {
    const { radiance } = placeUnder('terrace', SUN);
    // Away from the sun, where no cloud is.
    const at = (rise: number) => radiance(unit([Math.sin(2.8), rise, Math.cos(2.8)]));
    const [red, green, blue] = at(0.145);
    expect(green / at(0.25)[1]).to.be.above(1.18);
    expect(blue / red).to.be.within(1, 1.15);
  });

  it('lights of the sky send on a surface what the sky sends, and are the same each time', () => {
    for (const name of AROUND_NAMES) {
      const panorama = panoramaOf(placeUnder(name, SUN).radiance, 128);
      const lights = skyLights(panorama, 256);
      expect(skyLights(panorama, 256)).to.deep.equal(lights);
      for (const { towards } of lights) expect(towards[1]).to.be.above(0);
      const sent = lights.reduce((sum, one) => sum + grey(one.irradiance) * one.towards[1], 0) / 256;
      const all = irradianceAt(irradianceHarmonics(panorama), [0, 1, 0]);
      const below = irradianceAt(irradianceHarmonics(panorama, 0), [0, 1, 0]);
      expect(sent / (grey(all) - grey(below)), name).to.be.within(0.85, 1.15);
    }
  });

  it('a disc sends its irradiance on what faces it, small or wide, at the zenith and across the seam', () => {
    const black = panoramaOf(() => [0, 0, 0], 512);
    const faced = ({ width, height, rgb }: Panorama, normal: Triple, c: number) => {
      let sum = 0;
      for (let y = 0; y < height; y++)
        for (let x = 0; x < width; x++)
          sum +=
            solidAngleOf(y, { width, height }) *
            Math.max(0, dot(directionOf(x, y, { width, height }), normal)) *
            rgb[3 * (y * width + x) + c];
      return sum;
    };
    for (const radius of [0.0047, 0.05, 0.3]) {
      for (const towards of [SUN, unit([0.01, 1, 0]), unit([-1, 0.3, 0.001])]) {
        const lit = withDiscs(black, [{ towards, irradiance: [3, 2, 1], radius }]);
        for (const c of [0, 1, 2]) expect(faced(lit, towards, c)).to.be.closeTo(3 - c, 0.01);
        // Nothing lies outside of the disc, or of the pixel that stands for it.
        const most = Math.max(radius, (2 * Math.PI) / 512) + (2 * Math.PI) / 512;
        for (let y = 0; y < lit.height; y++)
          for (let x = 0; x < lit.width; x++)
            if (lit.rgb[3 * (y * lit.width + x)] > 0)
              expect(dot(directionOf(x, y, lit), towards)).to.be.above(Math.cos(most));
      }
    }
  });

  it('a halved panorama keeps its mean', () => {
    const panorama = panoramaOf(placeUnder('dusk', SUN).radiance, 64);
    expect(mean(halvedPanorama(panorama)) / mean(panorama)).to.be.within(0.98, 1.02);
  });
});

describe('skies', () => {
  it('a clear sky is brightest about the sun, blue across from it, and paler at the horizon', () => {
    const sky = clearSky(3, SUN);
    const across = unit([0.5, 0.7, -0.5]);
    expect(grey(sky(SUN))).to.be.above(4 * grey(sky(across)));
    const [red, , blue] = sky(across);
    expect(blue).to.be.above(1.8 * red);
    const [r, , b] = sky(unit([0.7, 0.03, -0.7]));
    expect(b / r).to.be.below(blue / red);
  });

  it('its zenith is as bright as measured skies: some kcd/m² with the sun at 30°', () => {
    // One unit is 10 kcd/m².
    expect(10 * grey(clearSky(3, unit([0, 0.5, Math.sqrt(0.75)]))([0, 1, 0]))).to.be.within(1, 8);
  });

  it('the sun is weaker and redder the lower it is', () => {
    const at = (degrees: number) => {
      const angle = (degrees * Math.PI) / 180;
      return sunLight(3, [0, Math.sin(angle), Math.cos(angle)]);
    };
    const [high, low] = [at(60), at(5)];
    expect(grey(low)).to.be.below(0.5 * grey(high));
    expect(low[2] / low[0]).to.be.below(0.5 * (high[2] / high[0]));
    // About 100 klx at noon; one unit is 10 klx.
    expect(10 * grey(high)).to.be.within(70, 125);
  });

  it('under even cloud the zenith is three times as bright as the horizon', () => {
    expect(cloudedSky(1) / cloudedSky(0)).to.be.closeTo(3, 1e-9);
  });

  it('the sky glows where the sun is, wherever that is moved', () => {
    for (const turn of [0, 1.5, 4]) {
      const sun = unit([Math.sin(turn), 0.6, Math.cos(turn)]);
      const sky = clearSky(3.2, sun);
      const towards = panoramaOf((one) => (one[1] > 0.02 ? sky(one) : [0, 0, 0]), 64);
      let best = 0;
      for (let i = 1; i < towards.rgb.length; i += 3) if (towards.rgb[i] > towards.rgb[best]) best = i;
      const pixel = Math.floor(best / 3);
      const found = directionOf(pixel % 64, Math.floor(pixel / 64), towards);
      expect(dot(found, sun)).to.be.above(Math.cos((8 * Math.PI) / 180));
      expect(grey(placeUnder('terrace', sun).radiance(sun))).to.be.above(
        grey(placeUnder('terrace', sun).radiance([-sun[0], sun[1], -sun[2]])),
      );
    }
  });
});
