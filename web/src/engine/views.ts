import {
  type AnyView,
  MAP_NAMES,
  MAPS,
  type MapName,
  STATION_NAMES,
  STATIONS,
  type StageView,
  type StationName,
  type ViewKind,
  viewsOf,
} from '@zesty-tile/core';

/** What the Floor can show: pictures of the stations' work, and every map. */
export type ViewName = StageView | MapName;

/** Every picture that a station can show of its work, and the station. */
const STAGE_VIEWS = new Map(
  STATION_NAMES.flatMap((station) =>
    Object.entries(viewsOf(station)).map(([name, view]): [string, AnyView & { station: StationName }] => [
      name,
      { ...view, station },
    ]),
  ),
);

export const VIEW_NAMES = [...STAGE_VIEWS.keys(), ...MAP_NAMES] as readonly ViewName[];

export const isMap = (view: ViewName): view is MapName => Object.hasOwn(MAPS, view);

/** The picture of a station's work by its name; null for maps. */
export const stageView = (view: ViewName): AnyView | null => STAGE_VIEWS.get(view) ?? null;

/** Whether a view shows a part of a map, and is in no list. */
export const isDetail = (view: ViewName): boolean => stageView(view)?.isDetail === true;

export const VIEW_WORDS = Object.fromEntries(
  VIEW_NAMES.map((view) => [view, stageView(view)?.title ?? MAPS[view as MapName].title]),
) as Record<ViewName, string>;

const byStation = (view: (name: StationName) => string) =>
  Object.fromEntries(STATION_NAMES.map((name) => [name, view(name)])) as Record<StationName, ViewName>;

/** What each station made, as the Course shows it small. */
export const VIEW_OF = byStation((name) => STATIONS[name].shows);

/** What the Floor shows when a station is opened. */
export const FLOOR_VIEW_OF = byStation((name) => STATIONS[name].worksOn ?? STATIONS[name].shows);

/** The picture a view was made from, for before | after; none for the photo and its crop. */
export function viewBefore(view: ViewName): ViewName | null {
  const stage = stageView(view);
  if (stage) return stage.before as ViewName | null;
  return view === 'diffuse' || view === 'specular' ? 'albedo' : 'joined';
}

/** The last station that must have run before a view can be shown. */
export const stationOf = (view: ViewName): StationName =>
  STAGE_VIEWS.get(view)?.station ?? MAPS[view as MapName].station;

export const viewKind = (view: ViewName): ViewKind =>
  stageView(view)?.kind ?? (view === 'normal' ? 'normal' : MAPS[view as MapName].kind);
