import {
  type Engine,
  KERNELS,
  type Raster,
  Raster as Rasters,
  resizeArea,
  statistics,
} from '@zesty-tile/core';
import { made } from './made.ts';
import type { EngineWorker, Thumbnail } from './protocol.ts';
import { rgbaOf } from './view-pictures.ts';

/** Longer side of the tile that an offer is painted on, and of the part of it that is seen: marks are seen at half of it. */
const PAINTED = 256;
const SEEN = 160;
/** Longer side of the picture of a band. */
const BAND = 72;

/** The middle of a painted tile. */
function middleOf({ width, height, planes }: Raster): Thumbnail {
  const [across, down] = [Math.min(width, SEEN), Math.min(height, SEEN)];
  const cut = new Rasters(width, height, planes).cut(
    Math.floor((width - across) / 2),
    Math.floor((height - down) / 2),
    across,
    down,
  );
  return { width: across, height: down, rgba: rgbaOf(cut, 'styled') };
}

/** A band of height as grey, its usual range from black to white. */
function bandPicture(band: Float32Array, width: number, height: number): Thumbnail {
  const scale = BAND / Math.max(width, height);
  const small = resizeArea(
    new Rasters(width, height, [band]),
    Math.round(width * scale),
    Math.round(height * scale),
  );
  const { deviation } = statistics(band);
  const gain = deviation > 0 ? 1 / (5 * deviation) : 0;
  const grey = small.planes[0].map((value) => Math.min(1, Math.max(0, 0.5 + gain * value)));
  return {
    width: small.width,
    height: small.height,
    rgba: KERNELS.screenCodes([grey, grey, grey], { gain: 1, base: 0 }),
  };
}

/** What an engine can be asked to show of painting, beside the tile. */
export function stylePicturesOf(engine: Engine): Pick<EngineWorker, 'offerStyles' | 'styleBands'> {
  let last: { relief: object; pictures: Promise<Thumbnail[]> } | null = null;
  return {
    async offerStyles({ recipe, source }, offers, onOffer) {
      for (const [k, dials] of offers.entries()) {
        const { stations } = recipe;
        const style = { ...stations.style, ...dials };
        const { outputs } = await engine.evaluate({
          recipe: { ...recipe, stations: { ...stations, style } },
          source,
          size: PAINTED,
          until: 'style',
          withoutVerdicts: true,
        });
        const { painted, picture } = outputs.style!;
        await onOffer(k, middleOf(painted ?? picture));
      }
    },
    async styleBands() {
      const { outputs, frame } = made.quick ?? {};
      const relief = outputs?.style?.relief;
      if (!relief || !frame) return null;
      // Both choices of bands ask for the same pictures.
      if (last?.relief !== relief) {
        const pictures = relief
          .bands()
          .then((bands) => bands.map((band) => bandPicture(band, frame.width, frame.height)));
        last = { relief, pictures };
      }
      return last.pictures;
    },
  };
}
