import {
  type EngineHost,
  linearToSrgb,
  newRecipe,
  type Pixels,
  Raster,
  type Recipe,
  reducePixels,
  reductionFor,
  type StationSettings,
} from '@zesty-tile/core';
import { noisePlane } from '../fields.ts';

/** A recipe with some settings changed. */
export function recipeWith(changes: { [S in keyof StationSettings]?: Partial<StationSettings[S]> }): Recipe {
  const recipe = newRecipe();
  // One crop on, unless it is about Join: the search for vectors is tested by itself.
  recipe.stations.join.from = 'straight';
  const stations = Object.fromEntries(
    Object.entries(recipe.stations).map(([name, settings]) => [
      name,
      { ...settings, ...changes[name as keyof StationSettings] },
    ]),
  ) as StationSettings;
  return { ...recipe, stations };
}

/** Decoded samples of a linear picture, 16 bit. */
export function pixelsOf(picture: Raster, alpha?: Float32Array): Pixels {
  const { width, height } = picture;
  const channels = alpha ? 4 : 3;
  const data = new Uint16Array(width * height * channels);
  for (let i = 0; i < width * height; i++) {
    for (let c = 0; c < 3; c++)
      data[i * channels + c] = Math.round(65535 * linearToSrgb(picture.planes[c][i]));
    if (alpha) data[i * channels + 3] = Math.round(65535 * alpha[i]);
  }
  return { width, height, channels, data, originalWidth: width, originalHeight: height };
}

/** A photo of stones of no period: soft blobs on a slope of light, with grain. */
export function photo(width: number, height: number): Raster {
  const grain = noisePlane(width * height, 9);
  const spots = noisePlane(600, 4);
  const planes = [0, 1, 2].map(() => new Float32Array(width * height));
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const u = (x + 0.5) / height;
      const v = (y + 0.5) / height;
      let stone = 0;
      for (let k = 0; k < 200; k++) {
        const dx = u - spots[3 * k] * (width / height);
        const dy = v - spots[3 * k + 1];
        const r = 0.03 + 0.04 * spots[3 * k + 2];
        const d = (dx * dx + dy * dy) / (r * r);
        if (d < 1) stone = Math.max(stone, 1 - d);
      }
      const i = y * width + x;
      const light = Math.exp(0.25 * (u - 0.6) - 0.2 * (v - 0.5));
      const value = (0.12 + 0.3 * stone + 0.03 * (grain[i] - 0.5)) * light;
      planes[0][i] = value * 1.1;
      planes[1][i] = value;
      planes[2][i] = value * 0.8;
    }
  }
  return new Raster(width, height, planes);
}

/** A host that hands out one picture, as a real one would, and counts how often it was asked. */
export function hostOf(pixels: Pixels): EngineHost & { asked: number } {
  return {
    asked: 0,
    async pixels(source, shortEdge) {
      this.asked++;
      return reducePixels(pixels, reductionFor(source, shortEdge));
    },
  };
}
