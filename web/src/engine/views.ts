import {
  albedoOf,
  type EvenOutput,
  luminance,
  MAP_KIND,
  MAP_NAMES,
  type MapName,
  mapRaster,
  Raster,
  type ReliefOutput,
  type SquareOutput,
  type StationName,
  type StationOutputs,
  screenCodes,
  statistics,
} from '@zesty-tile/core';

/** What the Floor can show: the picture at each early station, and every map. */
export const BAND_VIEWS = ['band1', 'band2', 'band3', 'band4', 'band5', 'band6'] as const;
export const STAGE_VIEWS = ['photo', 'crop', 'evened', 'light', 'left', 'joined', ...BAND_VIEWS] as const;
export type StageView = (typeof STAGE_VIEWS)[number];

/** Which band a view shows alone, 0 finest; −1 where it shows none. */
export const bandOf = (view: ViewName): number => (BAND_VIEWS as readonly string[]).indexOf(view);
export type ViewName = StageView | MapName;

export const VIEW_NAMES: readonly ViewName[] = [...STAGE_VIEWS, ...MAP_NAMES];

export const VIEW_WORDS: Record<ViewName, string> = {
  photo: 'Photo',
  crop: 'Crop',
  evened: 'Evened',
  light: 'Light taken out',
  left: 'Left alone',
  joined: 'Joined',
  band1: 'Band 1 alone',
  band2: 'Band 2 alone',
  band3: 'Band 3 alone',
  band4: 'Band 4 alone',
  band5: 'Band 5 alone',
  band6: 'Band 6 alone',
  albedo: 'Albedo',
  normal: 'Normal',
  height: 'Height',
  occlusion: 'Occlusion',
  cavity: 'Cavity',
  roughness: 'Roughness',
  gloss: 'Gloss',
  specular: 'Specular',
  metallic: 'Metallic',
  diffuse: 'Diffuse',
  opacity: 'Opacity',
  emission: 'Emission',
  dielectric: 'F0 of what is no metal',
};

const isMap = (view: ViewName): view is MapName => (MAP_NAMES as readonly string[]).includes(view);

/** What each station made, as the Course shows it small. */
export const VIEW_OF: Record<StationName, ViewName> = {
  source: 'photo',
  square: 'crop',
  even: 'evened',
  join: 'joined',
  gauge: 'albedo',
  relief: 'height',
  finish: 'roughness',
  proof: 'albedo',
  crate: 'albedo',
};

/** What the Floor shows at a station of its own accord: at Square the photo, where the crop is set. */
export const FLOOR_VIEW_OF: Record<StationName, ViewName> = { ...VIEW_OF, square: 'photo' };

/** The picture a view was made from, for before | after; none for the photo and its crop. */
export function viewBefore(view: ViewName): ViewName | null {
  switch (view) {
    case 'photo':
    case 'crop':
    case 'light':
    case 'left':
      return null;
    case 'evened':
      return 'crop';
    case 'joined':
      return 'evened';
    default:
      return view === 'diffuse' || view === 'specular' ? 'albedo' : 'joined';
  }
}

/** The last station that must have run before a view can be shown. */
export function stationOf(view: ViewName): StationName {
  switch (view) {
    case 'photo':
      return 'source';
    case 'crop':
      return 'square';
    case 'evened':
    case 'light':
    case 'left':
      return 'even';
    case 'joined':
      return 'join';
    case 'albedo':
      return 'gauge';
    case 'height':
    case 'normal':
    case 'cavity':
    case 'band1':
    case 'band2':
    case 'band3':
    case 'band4':
    case 'band5':
    case 'band6':
      return 'relief';
    default:
      return 'finish';
  }
}

export type ViewKind = 'colour' | 'data' | 'normal' | 'light';

export const viewKind = (view: ViewName): ViewKind =>
  view === 'normal' || view === 'light'
    ? view
    : view === 'left' || bandOf(view) >= 0
      ? 'data'
      : ((MAP_KIND as Record<string, 'colour' | 'data'>)[view] ?? 'colour');

/** Sides of the crop within what Square made. */
const cropSides = ({ picture, margins }: SquareOutput) => ({
  width: picture.width - margins.left - margins.right,
  height: picture.height - margins.top - margins.bottom,
});

/** The crop of a picture as Square made it. */
function cropOf(square: SquareOutput, raster: Raster): Raster {
  const { width, height } = cropSides(square);
  return raster.cut(square.margins.left, square.margins.top, width, height);
}

const planeOf = ({ normal }: ReliefOutput, plane: Float32Array) =>
  new Raster(normal.width, normal.height, [plane]);

/** Stops of light that Even took out of each pixel: above 0 where the photo was lighter than the rest. */
function lightTaken(square: SquareOutput, even: EvenOutput): Raster {
  const crop = (raster: Raster) => luminance(cropOf(square, raster));
  const after = crop(even.picture);
  const stops = crop(square.picture).map((v, i) => Math.log2((v + 1e-6) / (after[i] + 1e-6)));
  const { width, height } = cropSides(square);
  return new Raster(width, height, [stops]);
}

/** What Even left as it was: white where all of it. */
function leftAlone(square: SquareOutput, { left }: EvenOutput): Raster {
  const { width, height } = cropSides(square);
  if (!left) return Raster.filled(width, height, 1);
  return cropOf(square, new Raster(square.picture.width, square.picture.height, [left]));
}

/** Spreads of a band between black and white. */
const BAND_REACH = 6;

/** One band of detail alone: grey where it has nothing, over so many of its spreads. */
export async function bandRaster({ normal, bands }: ReliefOutput, level: number): Promise<Raster> {
  const band = (await bands())[level];
  const { deviation } = statistics(band);
  const scale = deviation > 0 ? 1 / (BAND_REACH * deviation) : 0;
  const plane = band.map((value) => Math.min(1, Math.max(0, 0.5 + scale * value)));
  return new Raster(normal.width, normal.height, [plane]);
}

/** A view's values as they stand in the program. Null while they are not made, or where there are none. */
export function viewRaster(outputs: Partial<StationOutputs>, view: ViewName): Raster | null {
  const { source, square, even, join, gauge, relief, finish } = outputs;
  switch (view) {
    case 'photo':
      return source?.picture ?? null;
    case 'crop':
      return square ? cropOf(square, square.picture) : null;
    case 'evened':
      return square && even ? cropOf(square, even.picture) : null;
    case 'light':
      return square && even ? lightTaken(square, even) : null;
    case 'left':
      return square && even ? leftAlone(square, even) : null;
    case 'joined':
      return join?.picture ?? null;
    case 'albedo':
      return gauge ? (finish?.isTruth ? albedoOf({ gauge, finish }) : gauge.albedo) : null;
    case 'height':
      return relief ? planeOf(relief, relief.height) : null;
    case 'normal':
      return relief?.normal ?? null;
    case 'cavity':
      return relief ? planeOf(relief, relief.cavity) : null;
    case 'roughness':
      return relief && finish ? planeOf(relief, finish.roughness) : null;
    default:
      return join && gauge && relief && finish && isMap(view)
        ? mapRaster({ join, gauge, relief, finish }, view)
        : null;
  }
}

/** Interleaved RGBA of a raster as it is shown; colour within one code of what a file would hold. */
export function rgbaOf(raster: Raster, view: ViewName): Uint8ClampedArray<ArrayBuffer> {
  if (view === 'light') return lightRgba(raster.planes[0]);
  const kind = viewKind(view);
  const as = kind === 'normal' ? { gain: 0.5, base: 0.5 } : { gain: 1, base: 0 };
  return screenCodes(raster.planes, kind === 'colour' ? 'colour' : as);
}

/** Stops at which the false colour is full. */
const FULL_STOPS = 1;

/** Light taken out in false colour: grey none, orange where there was more of it, blue where less. */
function lightRgba(stops: Float32Array): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(4 * stops.length);
  for (let i = 0, at = 0; i < stops.length; i++, at += 4) {
    const t = Math.max(-1, Math.min(1, stops[i] / FULL_STOPS));
    out[at] = 128 + (t > 0 ? 122 : 96) * t;
    out[at + 1] = 128 + (t > 0 ? 12 : 28) * t;
    out[at + 2] = 128 - (t > 0 ? 108 : 122) * t;
    out[at + 3] = 255;
  }
  return out;
}
