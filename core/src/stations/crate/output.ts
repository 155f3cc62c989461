import type { Samples } from '../../maps/encoded-planes.ts';
import type { MapName } from '../../maps/maps.ts';
import type { Rows } from './pack.ts';
import type { ProfileFile } from './profile.ts';

/** One picture of a crate, ready to be encoded. */
export interface CrateFile extends Pick<ProfileFile, 'ending' | 'format' | 'bits' | 'kind'> {
  maps: MapName[];
  /** What is in each channel, briefly. */
  contents: string[];
  channels: number;
  /** The map that is in each channel; null where it holds a value. */
  channelMaps: (MapName | null)[];
  /** How many sizes above it there are of the same file. */
  rung: number;
  /** +1 where the green of a normal in it points up; null where it holds none. */
  green: 1 | -1 | null;
  width: number;
  height: number;
  /** Its planes, some rows at a time; the maps they are of are kept as long as it is. */
  rows(): Rows;
  /** Makes the samples when it is their turn; of a mip, 1 half its size, where one is asked for. */
  samples(mip?: number): Samples;
}

export interface CrateOutput {
  /** In the order of `planCrate`. */
  files: CrateFile[];
}
