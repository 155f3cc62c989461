import { LUMINANCE } from '../../colour/luminance-of.ts';
import { Raster } from '../../raster/raster.ts';

/** At 1 a tone far from the middle keeps this share of its distance, in log. */
const LEAST = 0.35;
/** Over this distance from the middle, in log, the levelling sets in. */
const ONSET = 0.35;
const FLOOR = 1e-4;

/**
 * Tones brought nearer to a middle luminance, darks and lights apart: distances in log shrink by up to
 * 65 %, setting in softly so that the middle keeps its contrast. Colour goes along with its luminance.
 * Linear values; `checkpoint` is awaited between blocks of rows.
 */
export async function levelTone(
  input: Raster,
  middle: number,
  liftDarks: number,
  holdLights: number,
  checkpoint: (done: number) => Promise<void>,
): Promise<Raster> {
  const out = Raster.filled(input.width, input.height, input.channels);
  for (let y = 0; y < input.height; y++) {
    if ((y & 63) === 0) await checkpoint(y / input.height);
    levelRow(input, out, y, Math.log(middle + FLOOR), liftDarks, holdLights);
  }
  return out;
}

function levelRow(input: Raster, out: Raster, y: number, centre: number, lift: number, hold: number): void {
  const [r, g, b] = input.planes;
  const [wr, wg, wb] = LUMINANCE;
  for (let i = y * input.width; i < (y + 1) * input.width; i++) {
    const apart = Math.log(wr * r[i] + wg * g[i] + wb * b[i] + FLOOR) - centre;
    const share = (1 - LEAST) * (apart < 0 ? lift : hold);
    // The distance beyond the onset shrinks in full, that within it hardly at all.
    const gain = Math.exp(-share * apart * (1 - Math.exp(-((apart / ONSET) ** 2))));
    for (let c = 0; c < input.channels; c++) out.planes[c][i] = input.planes[c][i] * gain;
  }
}
