import type { Tone } from '../../colour/luminance-map.ts';
import type { Recolour } from '../../colour/recolouring.ts';
import type { Raster } from '../../raster/raster.ts';
import type { WorkContext } from '../../team/context.ts';
import { inBands } from '../../team/in-bands.ts';
import { toneBand } from './tone-band.ts';

/** Where a tone is laid over what another made: that one's result, and by how much, 0..1, each pixel is replaced. */
export interface Over {
  under: Raster;
  cover: Float32Array;
}

/**
 * Linear RGB through a tone and a change of colour in OKLab (Ottosson 2020) with luminance Y held. A colour pushed past
 * 0..1 is drawn towards grey of its own Y, its hue held. The team shares the rows; `checkpoint` is awaited between blocks of them.
 */
export function applyTone(
  picture: Raster,
  tone: Tone,
  colour: Recolour,
  { checkpoint, team }: Pick<WorkContext, 'checkpoint' | 'team'>,
  over?: Over,
): Promise<Raster> {
  const shared = over && {
    under: over.under.planes.map((plane) => team.shared(plane)),
    cover: team.shared(over.cover),
  };
  const toning = {
    tone,
    colour,
    over: shared ?? null,
    out: { width: picture.width, height: picture.height },
  };
  return inBands(toneBand, picture, toning, team, checkpoint);
}
