import { MAP_KIND, MAP_NAMES, type MapName, type StationName } from '@zesty-tile/core';

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

export const isMap = (view: ViewName): view is MapName => (MAP_NAMES as readonly string[]).includes(view);

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
