import { wetF0, wetReflectance, wetRoughness } from '../../../masks/wet.ts';
import { mapping } from '../../../planes/mapped.ts';
import { Raster } from '../../../raster/raster.ts';
import { number } from '../../../settings/kinds.ts';
import { channelAt } from '../../../surface/surface.ts';
import { runSteps } from '../../../work/steps.ts';
import { planesOfF0 } from '../layers.ts';
import { valueKind } from './kind.ts';

/** The smoothest that still water is. */
const WATER_ROUGHNESS = 0.06;

/**
 * What is below, wet: darker where it is not metal (Lekner & Dorf 1988), smoother, and reflecting by the F0 of water. Above the
 * brim of 1 water stands on it: roughness and F0 become those of still water.
 */
export const wetness = valueKind({
  title: 'Wetness',
  channels: ['colour', 'roughness', 'f0'],
  settings: {
    wetness: number({
      label: 'Wetness',
      help: 'Up to 1 the pores fill with water; from there to 2 water stands on the surface, as smooth as a mirror.',
      default: 1,
      min: 0,
      max: 2,
      step: 0.05,
      unit: '',
    }),
  },
  reads: () => ['colour', 'roughness', 'metallic', 'f0'],
  async value({ wetness: amount }, channel, { below, context, frame }) {
    const soaked = Math.min(1, amount);
    const standing = Math.max(0, amount - 1);
    const { metallic } = below;
    if (channel === 'roughness') {
      const wet = (dry: number) => {
        const full = wetRoughness(dry, soaked);
        return full + standing * (WATER_ROUGHNESS - full);
      };
      const { roughness } = below;
      if (typeof roughness === 'number') return { kind: 'single', of: wet(roughness) };
      return { kind: 'single', of: await runSteps(mapping(roughness, wet), context.checkpoint) };
    }
    const planes: Float32Array[] = [];
    const from = channel === 'f0' ? planesOfF0(below.f0, frame) : below.colour.planes;
    for (const plane of from) {
      const wet = (dry: number, i: number): number => {
        if (channel === 'f0') return wetF0(dry, soaked);
        return dry + (1 - channelAt(metallic, i)) * (wetReflectance(dry, soaked) - dry);
      };
      planes.push(await runSteps(mapping(plane, wet), context.checkpoint));
    }
    return { kind: 'colour', of: new Raster(frame.width, frame.height, planes) };
  },
});
