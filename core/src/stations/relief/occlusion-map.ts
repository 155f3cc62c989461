import { KERNELS } from '../../kernels/kernels.ts';
import { summing } from '../../planes/summing.ts';
import { type Edges, edgeIndex } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import { resizingArea, resizingLanczos } from '../../sampling/resize.ts';
import { ALONE, type Team } from '../../team/team.ts';
import type { Frame } from '../../tile/frame.ts';
import { sidesOf } from '../../tile/shape.ts';
import { runSteps } from '../../work/steps.ts';
import { visibility } from './occlusion.ts';
import type { ReliefSettings } from './settings.ts';

/** Occlusion is smooth: above this size it is made at half the size and brought up. */
const FULL_OCCLUSION_SIZE = 256;

/** A tile of another shape goes on as its edges say until it fills a square. */
function onSquare(raster: Raster, size: number, edges: Edges): Raster {
  const { width, height } = raster;
  if (width === height) return raster;
  return new Raster(
    size,
    size,
    raster.planes.map((plane) => {
      const out = new Float32Array(size * size);
      for (let y = 0, i = 0; y < size; y++) {
        const row = edgeIndex(y, height, edges.y) * width;
        for (let x = 0; x < size; x++, i++) out[i] = plane[row + edgeIndex(x, width, edges.x)];
      }
      return out;
    }),
  );
}

/** Visibility 0..1 of a height 0..1 of the tile, at its depth, as far and as strong as chosen. */
export async function occlusionMap(
  height: Float32Array,
  chosen: ReliefSettings,
  frame: Frame,
  checkpoint: (done: number) => Promise<void>,
  team: Team = ALONE,
): Promise<Float32Array> {
  const small = frame.size > FULL_OCCLUSION_SIZE ? frame.size / 2 : frame.size;
  const sides = sidesOf(frame.shape, small);
  const whole = new Raster(frame.width, frame.height, [height]);
  const field = await runSteps(resizingArea(whole, sides.width, sides.height), checkpoint);
  const depth = (chosen.depthMm / 1000 / frame.edgeMetres) * small;
  const radius = (chosen.occlusionMm / 1000 / frame.edgeMetres) * small;
  const square = onSquare(field, small, frame.edges);
  await checkpoint(0);
  const seen = await visibility(
    KERNELS.sumPlanes(square.planes, [depth]),
    small,
    radius,
    frame.edges,
    checkpoint,
    Math.tan((chosen.occlusionBias * Math.PI) / 180),
    team,
  );
  const tile = new Raster(small, small, [seen]).cut(0, 0, sides.width, sides.height);
  await checkpoint(1);
  const larger = await runSteps(resizingLanczos(tile, frame.width, frame.height, frame.edges), checkpoint);
  const [out] = larger.planes;
  await checkpoint(1);
  const strength = chosen.occlusionStrength;
  const range = { base: 1 - strength, low: 0, high: 1 };
  return runSteps(summing([out], [strength], range, out), checkpoint);
}
