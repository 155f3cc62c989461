import { Raster } from '../../../raster/raster.ts';
import { number } from '../../../settings/kinds.ts';
import { paintedCanvas } from '../mask/strokes.ts';
import { valueKind } from './kind.ts';

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
  reads: () => [],
  async value({ part: place }, channel, scene) {
    const strokes = scene.strokes(place - 1);
    if (strokes.length === 0) return null;
    const wanted = channel as 'colour' | 'roughness' | 'metallic' | 'height';
    const { has, values } = await paintedCanvas(strokes, wanted, scene);
    const cover = has!;
    // They were kept times how much there is of them.
    for (const plane of values) {
      for (let i = 0; i < plane.length; i++) if (cover[i] > 0) plane[i] /= cover[i];
    }
    if (wanted !== 'colour') return { kind: 'single', of: values[0], cover };
    return { kind: 'colour', of: new Raster(scene.frame.width, scene.frame.height, values), cover };
  },
});
