import { Raster } from '../../../raster/raster.ts';
import { number } from '../../../settings/kinds.ts';
import { paintedCanvas } from '../mask/strokes.ts';
import { valueKind } from './kind.ts';

/** One plane by another, 0 where that is 0. */
function ratio(plane: Float32Array, by: Float32Array): Float32Array {
  const out = new Float32Array(plane.length);
  for (let i = 0; i < out.length; i++) if (by[i] > 0) out[i] = plane[i] / by[i];
  return out;
}

/** What strokes carry into a channel: those of a painted part of the coat's mask. Where they carry nothing for it, it stays. */
export const painted = valueKind({
  title: 'Painted',
  channels: ['colour', 'roughness', 'metallic', 'height'],
  settings: {
    part: number({
      label: 'Part',
      help: 'Which painted part of the mask, from the first.',
      default: 1,
      min: 1,
      max: 12,
      step: 1,
      unit: '',
    }),
  },
  // Where a region is filled it is found by the colour below.
  reads: () => ['colour'],
  async value({ part: place }, channel, scene) {
    const strokes = scene.strokes(place - 1);
    if (strokes.length === 0) return null;
    const wanted = channel as 'colour' | 'roughness' | 'metallic' | 'height';
    const { carried } = await paintedCanvas(strokes, [wanted], scene);
    const found = carried[wanted];
    if (!found) return null;
    const { has, values } = found;
    // They were kept times how much there is of them.
    const planes = values.map((plane) => ratio(plane, has));
    if (wanted !== 'colour') return { kind: 'single', of: planes[0], cover: has };
    return { kind: 'colour', of: new Raster(scene.frame.width, scene.frame.height, planes), cover: has };
  },
});
