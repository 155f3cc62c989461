import type { Inquiry } from '../inquiry.ts';
import type { SourceOutput } from '../source/output.ts';
import { cropOffers } from './offers/crop-offers.ts';
import type { CropOffer } from './offers/offer.ts';
import { square } from './station.ts';

/** Pieces of the photo that come near to tiling by themselves. */
export const CROP_OFFERS: Inquiry<null, never, CropOffer[]> = {
  station: square.name,
  async answer({ input, settings, context }) {
    const { picture } = (await input()) as SourceOutput;
    const { turnDegrees, shape } = settings;
    return cropOffers(picture, turnDegrees, shape, (await context()).checkpoint);
  },
};
