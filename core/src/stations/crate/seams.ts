import type { MapName } from '../../maps/maps.ts';
import { StepTally } from '../join/seam.ts';
import type { CrateFile } from './output.ts';
import { BAND, type Rows } from './pack.ts';

/** A map that is exported, with its seam figures measured on the values as they stand in the file. */
export interface MapSeams {
  map: MapName;
  seamX: number;
  seamY: number;
}

/** Seam figures of some channels of a file, in bands; null where they hold one value. */
async function seamsOf(
  rows: Rows,
  channels: number[],
  { width, height }: { width: number; height: number },
  checkpoint: () => Promise<void>,
): Promise<Omit<MapSeams, 'map'> | null> {
  const tally = new StepTally(width, height);
  for (let from = 0; from < height; from += BAND) {
    const all = rows(from, Math.min(height, from + BAND));
    tally.add(channels.map((k) => all[k]));
    await checkpoint();
  }
  return tally.isUniform ? null : tally.figures();
}

/** Seam figures of every map of some files at its full size, once each; those of one value have none. */
export async function mapSeams(
  files: readonly CrateFile[],
  checkpoint: (done: number) => Promise<void>,
): Promise<MapSeams[]> {
  const found: MapSeams[] = [];
  const seen = new Set<MapName>();
  for (const [k, file] of files.entries()) {
    if (file.rung > 0) continue;
    const rows = file.rows();
    for (const map of file.maps) {
      const own = file.channelMaps.flatMap((one, channel) => (one === map ? [channel] : []));
      if (seen.has(map) || own.length === 0) continue;
      seen.add(map);
      const figures = await seamsOf(rows, own, file, () => checkpoint(k / files.length));
      if (figures) found.push({ map, ...figures });
    }
  }
  return found;
}
