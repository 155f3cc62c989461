import { Raster } from '../raster/raster.ts';
import type { Band } from '../raster/sample.ts';
import type { Checkpoint, Given } from './tasks.ts';
import type { Team } from './team.ts';

/** Bands for each member, so that nobody waits long for the last one. */
const BANDS_EACH = 2;

/** Tasks that make rows of a picture from a picture. */
type BandTask = 'divideBand' | 'resampleBand' | 'resampleGrid' | 'toneBand';
type How<N extends BandTask> = Given<N>[0];

/** A picture made from another in bands of rows by all of a team. */
export async function inBands<N extends BandTask>(
  name: N,
  { planes, width, height }: Raster,
  how: Omit<How<N>, 'planes' | 'width' | 'height'> & Pick<How<N>, 'out'>,
  team: Team,
  checkpoint: Checkpoint,
): Promise<Raster> {
  const { out } = how;
  const count = team.size === 1 ? 1 : BANDS_EACH * team.size;
  const whole = { ...how, planes: planes.map((plane) => team.shared(plane)), width, height };
  const cut = (k: number) => Math.round((k * out.height) / count);
  const into = planes.map(() => team.empty(out.width * out.height));
  const tasks = Array.from({ length: count }, (_, k): [typeof whole, Float32Array[], Band] => [
    whole,
    into,
    { from: cut(k), to: cut(k + 1) },
  ]);
  await team.each(name, tasks as unknown as Given<N>[], () => {}, checkpoint);
  return new Raster(out.width, out.height, into);
}
