import {
  albedoOf,
  bandAt,
  edgeIndex,
  type Frame,
  luminanceOf,
  meanAt,
  metallicChannel,
  planeOfChannel,
  type Reading,
  type Recipe,
  type StationOutputs,
  type Surface,
} from '@zesty-tile/core';
import type { ReadValues } from './protocol.ts';

/** What stands at places of a tile. */
export function readAt(
  surface: Surface,
  { gauge }: Pick<StationOutputs, 'gauge'>,
  frame: Frame,
  { gauge: chosen }: Recipe['stations'],
  readings: readonly Reading[],
): ReadValues[] {
  const { f0 } = surface;
  const albedo = albedoOf(surface);
  const metallic = metallicChannel(surface);
  const roughness = planeOfChannel(surface.roughness, surface.width * surface.height);
  const { width, height, edges } = frame;
  return readings.map((reading) => {
    const radius = (reading.mm / 2000 / frame.edgeMetres) * frame.size;
    const meanOf = (planes: Float32Array[]) => meanAt(planes, frame, reading, radius, edges);
    const rgb = meanOf(albedo.planes) as [number, number, number];
    const own = Array.isArray(f0) ? f0 : meanOf(f0.planes);
    const metal = typeof metallic === 'number' ? metallic : meanOf([metallic])[0];
    const mirrored = surface.isF0Whole ? own : own.map((value, c) => value + metal * (rgb[c] - value));
    const [x, y] = [Math.floor(reading.x * width), Math.floor(reading.y * height)];
    const at = edgeIndex(y, height, edges.y) * width + edgeIndex(x, width, edges.x);
    return {
      rgb,
      y: luminanceOf(...rgb),
      f0: luminanceOf(mirrored[0], mirrored[1], mirrored[2]),
      gloss: 1 - meanOf([roughness])[0],
      band: bandAt(chosen, gauge.zones, at),
    };
  });
}
