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

const BURNT = 0.02;
const SOFT = 0.35;
const NOISY = 0.03;
const UNEVEN = 0.08;
const TILTED = 0.4;

const percent = (share: number, digits: number) => `${(100 * share).toFixed(digits)} %`;

/** One sentence for each thing that stands out, the rest in one. */
function sentence(f: Fitness, size: number): string {
  return [
    `The photo holds ${f.shortEdge} px on its shorter side for a tile of ${size} px.`,
    `Its light varies by ${percent(f.unevenness, 1)} from part to part; ${percent(f.burnt, 2)} of it is burnt out, ${percent(f.black, 2)} black.`,
    f.sharpness < SOFT ? 'It is soft: its finest pixels hold little detail.' : '',
    f.noise > NOISY ? `Its grain of noise is ${percent(f.noise, 1)} of the range.` : '',
    f.tilt !== null && Math.abs(f.tilt) > TILTED
      ? `Its lines run ${f.tilt.toFixed(1).replace('-', '−')}° off level.`
      : '',
    f.seam <= 1 ? 'Laid beside itself it shows no edge: it may tile already.' : '',
  ]
    .filter(Boolean)
    .join(' ');
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
    const burnt = f.burnt + f.black > BURNT;
    const soft = f.sharpness < SOFT;
    const advice = [
      few ? `Choose ${f.fittingSize} px in Square, or a larger photo: more would be invented.` : '',
      burnt ? 'Burnt-out and black places cannot be brought back: crop around them in Square.' : '',
      soft && !few ? 'A smaller tile loses nothing.' : '',
      f.unevenness > UNEVEN ? 'Even will take this light out.' : '',
      f.tilt !== null && Math.abs(f.tilt) > TILTED ? 'Level it in Square.' : '',
      f.seam <= 1 ? 'Take it whole in Square and try none in Join.' : '',
    ]
      .filter(Boolean)
      .join(' ');
    return {
      state: burnt || few || soft ? ('look' as const) : ('fine' as const),
      brief: `${output.originalWidth} × ${output.originalHeight}`,
      sentence: sentence(f, frame.wantedSize),
      advice,
      figures: [
        { id: 'shortEdge', label: 'Shorter side', value: f.shortEdge, unit: 'px', limit: frame.wantedSize },
        { id: 'unevenness', label: 'Uneven light', value: 100 * f.unevenness, unit: '%' },
        { id: 'burnt', label: 'Burnt out', value: 100 * f.burnt, unit: '%', limit: 100 * BURNT },
        { id: 'black', label: 'Black', value: 100 * f.black, unit: '%', limit: 100 * BURNT },
        { id: 'sharpness', label: 'Sharpness', value: f.sharpness, unit: '' },
        { id: 'noise', label: 'Noise', value: 100 * f.noise, unit: '%', limit: 100 * NOISY },
        ...(f.tilt === null ? [] : [{ id: 'tilt', label: 'Lines off level', value: f.tilt, unit: '°' }]),
        { id: 'seam', label: 'Seam, laid as it is', value: f.seam, unit: '', limit: 1 },
      ],
    };
  },
});
