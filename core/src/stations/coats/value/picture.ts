import { Raster } from '../../../raster/raster.ts';
import { number } from '../../../settings/kinds.ts';
import { CHANNELS, isColourChannel } from '../layers.ts';
import { PLACED, pictureOfPlaced, placedPicture, placedTone } from '../placed.ts';
import { valueKind } from './kind.ts';

/** A picture, repeated or placed once; where it is transparent nothing is put in. */
export const picture = valueKind({
  title: 'Picture',
  channels: CHANNELS,
  settings: {
    ...PLACED,
    whiteMm: number({
      label: 'Height of white',
      help: 'For height: what white comes to; black is 0.',
      default: 2,
      min: -500,
      max: 500,
      step: 0.1,
      unit: 'mm',
    }),
  },
  pictures: (placed) => pictureOfPlaced(placed),
  reads: () => [],
  async value({ whiteMm, ...placed }, channel, scene) {
    const found = await placedPicture(placed, scene, isColourChannel(channel));
    if (!found) return null;
    const cover = found.planes[3];
    if (isColourChannel(channel)) {
      return { kind: 'colour', of: new Raster(found.width, found.height, found.planes.slice(0, 3)), cover };
    }
    const tone = (await placedTone(placed, scene)) || new Float32Array(cover.length);
    const scale = channel === 'height' ? whiteMm : 1;
    // The tone has the alpha in it already, and is put in by the alpha again.
    for (let i = 0; i < tone.length; i++) tone[i] = cover[i] > 0 ? (scale * tone[i]) / cover[i] : 0;
    return { kind: 'single', of: tone, cover };
  },
});
