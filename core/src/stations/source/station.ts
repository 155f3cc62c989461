import { linearTable } from '../../colour/srgb.ts';
import type { Pixels } from '../../pixels.ts';
import { Raster } from '../../raster/raster.ts';
import type { Given, GivenMap } from '../given.ts';
import { NOTHING_TO_DECIDE, type SourceInput, type SourceOutput, station } from '../types.ts';
import { type Fitness, fitness } from './fitness.ts';

/** Values 0..1 of a data map as its codes stand: no transfer curve. */
function dataRaster({ data, width, height, channels }: Pixels, planes: 1 | 3): Raster {
  const full = data instanceof Uint16Array ? 65535 : 255;
  const out = Raster.filled(width, height, planes);
  for (let c = 0; c < planes; c++) {
    for (let i = 0; i < width * height; i++) out.planes[c][i] = data[i * channels + c] / full;
  }
  return out;
}

/** Linear floats of decoded samples; alpha set aside. 8 or 16 bit, sRGB encoded, exact curve. */
export function linearise(input: SourceInput): SourceOutput {
  const given: Given = {};
  for (const [map, pixels] of Object.entries(input.given) as [GivenMap, Pixels][]) {
    given[map] = dataRaster(pixels, map === 'normal' ? 3 : 1);
  }

  const { data, width, height, channels } = input.pixels;
  const table = linearTable(data instanceof Uint16Array ? 16 : 8);
  const picture = Raster.filled(width, height, 3);
  const [r, g, b] = picture.planes;
  const alpha = channels === 4 ? new Float32Array(width * height) : null;
  const full = table.length - 1;
  for (let i = 0, at = 0; i < width * height; i++, at += channels) {
    r[i] = table[data[at]];
    g[i] = table[data[at + 1]];
    b[i] = table[data[at + 2]];
    if (alpha) alpha[i] = data[at + 3] / full;
  }
  return {
    picture,
    alpha,
    given,
    originalWidth: input.pixels.originalWidth,
    originalHeight: input.pixels.originalHeight,
  };
}

function sentence(f: Fitness, size: number): string {
  const pixels = `The photo holds ${f.shortEdge} px on its shorter side for a tile of ${size} px.`;
  const light = `Its light varies by ${(100 * f.unevenness).toFixed(1)} % from part to part`;
  const clipped = `${(100 * f.clipped).toFixed(2)} % of it is burnt out or black.`;
  return `${pixels} ${light}; ${clipped}`;
}

/** Source: decoded samples become linear light, and the photo's fitness is reported. */
export const source = station({
  name: 'source',
  line: 'See what the photo holds before work starts.',
  settings: {},
  ...NOTHING_TO_DECIDE,
  run: async (input: SourceInput) => linearise(input),
  verdict(output, _input, _settings, _decided, frame) {
    const f = fitness(output);
    const few = f.shortEdge < frame.wantedSize;
    const burnt = f.clipped > 0.02;
    const advice = [
      few ? `Choose ${f.fittingSize} px in Square, or a larger photo: more would be invented.` : '',
      burnt ? 'Burnt-out places cannot be brought back: crop around them in Square.' : '',
      f.unevenness > 0.08 ? 'Even will take this light out.' : '',
    ]
      .filter(Boolean)
      .join(' ');
    return {
      state: burnt || few ? ('look' as const) : ('fine' as const),
      brief: `${output.originalWidth} × ${output.originalHeight}`,
      sentence: sentence(f, frame.wantedSize),
      advice,
      figures: [
        { id: 'shortEdge', label: 'Shorter side', value: f.shortEdge, unit: 'px', limit: frame.wantedSize },
        { id: 'unevenness', label: 'Uneven light', value: 100 * f.unevenness, unit: '%' },
        { id: 'clipped', label: 'Clipped', value: 100 * f.clipped, unit: '%', limit: 2 },
      ],
    };
  },
});
