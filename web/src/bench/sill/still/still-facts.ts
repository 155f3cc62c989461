import { useBench } from '../../state.ts';
import { meteredNow } from '../light/metered.ts';
import { useAroundNow } from '../light/use-around.ts';
import { useSill } from '../state.ts';
import type { StillLight } from './choices.ts';
import { withExrText } from './exr-text.ts';
import { withText } from './png-text.ts';

/** What a still shows and how it was made, so that it can be taken again. */
export function stillFacts(edge: number, { isTraced, samples }: StillLight): string {
  const sill = useSill.getState();
  const { tileId, base } = useBench.getState();
  const { shape, show, depth, times, off, around, sun, sunStrength, lamps, tone, exposure } = sill;
  const place = shape === 'scene' ? { lookout: sill.lookout, laid: sill.laid } : { distance: sill.distance };
  return JSON.stringify({
    made: 'Zesty Tile, the Sill',
    tile: tileId,
    version: base,
    edge,
    ...(isTraced ? { pathsPerPixel: samples } : { frames: samples }),
    shape,
    ...(shape === 'scene' || shape === 'field' ? place : {}),
    show,
    depth,
    repeats: times,
    mapsOff: off,
    surroundings: around,
    sun: { ...sun, strength: sunStrength },
    lamps,
    exposure: {
      stops: exposure,
      factor: sill.exposureLock ?? meteredNow(useAroundNow.getState().light, sill).exposure,
    },
    tone,
  });
}

/** A still that carries its facts: as the description of a PNG, or the comments of an OpenEXR picture. */
export async function withFacts(still: Blob, format: 'png' | 'exr', facts: string): Promise<Blob> {
  const bytes = new Uint8Array(await still.arrayBuffer());
  const carrying =
    format === 'png' ? withText(bytes, 'Description', facts) : withExrText(bytes, 'comments', facts);
  return new Blob([carrying], { type: still.type });
}
