import { Raster } from '../../raster/raster.ts';
import type { Band } from '../../raster/sample.ts';
import type { Breathe } from '../../team/tasks.ts';
import type { Team } from '../../team/team.ts';
import type { Framing } from './resample-band.ts';

/** Bands for each member, so that nobody waits long for the last one. */
const BANDS_EACH = 2;

/** A crop with its margins taken from a picture once, in bands of rows by all of a team. */
export async function resampleCrop(
  { planes, width, height }: Raster,
  framing: Omit<Framing, 'planes' | 'width' | 'height'>,
  team: Team,
  breathe: Breathe,
): Promise<Raster> {
  const { out } = framing;
  const count = team.size === 1 ? 1 : BANDS_EACH * team.size;
  const whole: Framing = { ...framing, planes: planes.map((plane) => team.shared(plane)), width, height };
  const cut = (k: number) => Math.round((k * out.height) / count);
  const tasks = Array.from({ length: count }, (_, k): [Framing, Band] => [
    whole,
    { from: cut(k), to: cut(k + 1) },
  ]);
  let made = count === 1 ? null : Raster.filled(out.width, out.height, planes.length);
  const take = (band: Float32Array[], k: number) => {
    if (!made) made = new Raster(out.width, out.height, band);
    else for (const [c, plane] of band.entries()) made.planes[c].set(plane, cut(k) * out.width);
  };
  await team.each('resampleBand', tasks, take, breathe);
  return made!;
}
