import { mapped } from '../../planes/mapped.ts';
import { Raster } from '../../raster/raster.ts';
import { statistics } from '../../statistics/statistics.ts';
import type { StyleOutput } from '../style/output.ts';
import type { View } from '../view.ts';
import { BAND_COUNT } from './bands.ts';
import type { ReliefOutput } from './output.ts';

/** Spreads of a band between black and white. */
const BAND_REACH = 6;

/** One band of detail alone, 0..1: grey where it has nothing, over `BAND_REACH` of its spreads. */
async function bandRaster({ normal, bands }: ReliefOutput, level: number): Promise<Raster> {
  const band = (await bands())[level];
  const { deviation } = statistics(band);
  const scale = deviation > 0 ? 1 / (BAND_REACH * deviation) : 0;
  const plane = band.map((value) => Math.min(1, Math.max(0, 0.5 + scale * value)));
  return new Raster(normal.width, normal.height, [plane]);
}

/** Views of each band of detail alone, finest first. */
export const BAND_VIEWS = ['band1', 'band2', 'band3', 'band4', 'band5', 'band6'] as const;

const bandView = (level: number): View => ({
  title: `Band ${level + 1} alone`,
  kind: 'data',
  before: 'joined',
  isDetail: true,
  raster: ({ relief }: { relief?: ReliefOutput }) => (relief ? bandRaster(relief, level) : null),
});

/** How dark the tile is shown beside its joints, and how plainly they are. */
const DIMMED = 0.35;
const TINT = [0.58, 0.73, 0.02];

/** The joints over the tile: what of it is joint has a colour of its own. */
function jointsRaster({ width, height, planes }: Raster, joints: Float32Array): Raster {
  const over = (plane: Float32Array, c: number) =>
    mapped(plane, (value, i) => DIMMED * value + joints[i] * (TINT[c] - DIMMED * value));
  return new Raster(width, height, planes.map(over));
}

/** The tone that height is read from, as a picture. */
const tone: View = {
  title: 'Tone that is read',
  kind: 'colour',
  before: 'joined',
  isDetail: true,
  async raster({ relief }: { relief?: ReliefOutput }) {
    if (!relief) return null;
    const { width, height } = relief.normal;
    const grey = mapped(await relief.tone(), (value) => Math.min(1, Math.max(0, Math.exp(value))));
    return new Raster(width, height, [grey, grey, grey]);
  },
};

const joints: View = {
  title: 'Joints',
  kind: 'colour',
  before: 'joined',
  isDetail: true,
  raster: ({ style, relief }: { style?: StyleOutput; relief?: ReliefOutput }) =>
    style && relief?.joints ? jointsRaster(style.picture, relief.joints) : null,
};

export const views = {
  ...(Object.fromEntries(
    BAND_VIEWS.slice(0, BAND_COUNT).map((name, level) => [name, bandView(level)]),
  ) as Record<(typeof BAND_VIEWS)[number], View>),
  joints,
  tone,
};
