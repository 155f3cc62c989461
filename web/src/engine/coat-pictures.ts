import {
  type AskedCoat,
  COAT_ALONE,
  type Coat,
  type Engine,
  KERNELS,
  type Raster,
  Raster as Rasters,
  resizeArea,
  statistics,
} from '@zesty-tile/core';
import type { EngineWorker, ShownCoat, ShowRequest, Thumbnail } from './protocol.ts';

/** Longer side of the picture of an offer: small, since all offers are made one after the other. */
const OFFERED = 128;

const heightShades = (plane: Float32Array): Float32Array => {
  const { min, max } = statistics(plane);
  const scale = max > min ? 1 / (max - min) : 0;
  return plane.map((value) => (scale === 0 ? 0.5 : (value - min) * scale));
};

/** A coat's mask or values as a picture; what is not put in is not hidden. */
function shown(picture: Raster, { what }: AskedCoat): Uint8ClampedArray<ArrayBuffer> {
  if (picture.channels === 3) return KERNELS.screenCodes(picture.planes, 'colour');
  const [plane] = picture.planes;
  const grey = what === 'height' ? heightShades(plane) : plane;
  return KERNELS.screenCodes([grey, grey, grey], { gain: 1, base: 0 });
}

/** Light from the upper left that the small picture of an offer is seen in. */
const LIGHT = [-0.45, 0.45, 0.77] as const;

/** A finished tile as a small picture, lit from the upper left, so that its relief is seen too. */
function litPicture(colour: Raster, normal: Raster, green: 1 | -1): Thumbnail {
  const scale = Math.min(1, OFFERED / Math.max(colour.width, colour.height));
  const [width, height] = [colour.width, colour.height].map((side) => Math.round(side * scale));
  const small = resizeArea(colour, width, height);
  const [nx, ny, nz] = resizeArea(normal, width, height).planes;
  const lit = small.planes.map((plane) =>
    plane.map((value, i) => {
      const light = nx[i] * LIGHT[0] + green * ny[i] * LIGHT[1] + nz[i] * LIGHT[2];
      return Math.min(1, value * (0.35 + (0.65 * Math.max(0, light)) / LIGHT[2]));
    }),
  );
  return { width, height, rgba: KERNELS.screenCodes(new Rasters(width, height, lit).planes, 'colour') };
}

type CoatPictures = Pick<EngineWorker, 'coatAlone' | 'offerCoats'>;

/** What an engine can be asked to show of coats, beside the tile. */
export function coatPicturesOf(engine: Engine): CoatPictures {
  const withCoats = ({ recipe }: Omit<ShowRequest, 'view'>, stack: Coat[]) => ({
    ...recipe,
    stations: { ...recipe.stations, coats: { ...recipe.stations.coats, stack } },
  });
  return {
    async coatAlone(request, asked): Promise<ShownCoat | null> {
      const found = await engine.answer(COAT_ALONE, request, asked);
      if (!found) return null;
      const { width, height } = found.picture;
      return { width, height, rgba: shown(found.picture, asked), cover: found.cover };
    },
    async offerCoats(request, offers, onOffer) {
      const { stack } = request.recipe.stations.coats;
      for (const [k, offer] of offers.entries()) {
        const recipe = withCoats(request, offer ? [...stack, offer] : stack);
        const { surface, frame } = await engine.evaluate({
          recipe,
          source: request.source,
          size: 2 * OFFERED,
          until: 'coats',
          withoutVerdicts: true,
        });
        await onOffer(k, litPicture(surface!.colour, surface!.normal, frame.green));
      }
    },
  };
}
