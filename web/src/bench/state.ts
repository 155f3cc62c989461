import type { Recipe, SourceRef, StationName, Verdict } from '@zesty-tile/core';
import { create } from 'zustand';
import type { LuminanceBins, ShownMaps, ShownView, Thumbnail, Update } from '../engine/protocol.ts';
import { VIEW_OF, type ViewName } from '../engine/views.ts';

export const LAYS = [1, 2, 3, 5] as const;
export type Lay = (typeof LAYS)[number];

interface StationFound {
  verdict: Verdict;
  thumbnail: Thumbnail | null;
  /** Edge of the tile it was measured on. */
  size: number;
}

/** What the Bench knows: the recipe in hand, what the engine made of it, how it is looked at. */
export interface BenchState {
  tileId: string;
  source: SourceRef;
  recipe: Recipe;
  /** The recipe as it was last saved, and under which number. */
  base: number;
  station: StationName;
  /** The map chosen by hand, or null to follow the station. */
  chosenView: ViewName | null;
  lay: Lay;
  halfShift: boolean;
  edgeLines: boolean;
  shown: ShownView | null;
  maps: ShownMaps | null;
  bins: LuminanceBins | null;
  found: Partial<Record<StationName, StationFound>>;
  busy: { station: StationName; done: number; size: number } | null;
  failure: { message: string; hint: string } | null;
  open(given: Pick<BenchState, 'tileId' | 'source' | 'recipe' | 'base'>): void;
  set(values: Partial<BenchState>): void;
  setDial(station: StationName, key: string, value: string | number | boolean): void;
  take(update: Update): void;
}

/** The view in force: chosen by hand, or the station's own. */
export const viewInForce = (state: Pick<BenchState, 'chosenView' | 'station'>): ViewName =>
  state.chosenView ?? VIEW_OF[state.station];

const NOTHING_FOUND = {
  shown: null,
  maps: null,
  bins: null,
  found: {},
  busy: null,
  failure: null,
} satisfies Partial<BenchState>;

export const useBench = create<BenchState>((set) => ({
  tileId: '',
  source: { sha256: '', width: 0, height: 0 },
  recipe: null as unknown as Recipe,
  base: 0,
  station: 'source',
  chosenView: null,
  lay: 2,
  halfShift: false,
  edgeLines: true,
  ...NOTHING_FOUND,
  open: (given) => set((now) => ({ ...given, ...(now.tileId === given.tileId ? {} : NOTHING_FOUND) })),
  set: (values) => set(values),
  setDial: (station, key, value) =>
    set(({ recipe }) => ({
      recipe: {
        ...recipe,
        stations: { ...recipe.stations, [station]: { ...recipe.stations[station], [key]: value } },
      },
    })),
  take: (update) =>
    set((now) => {
      switch (update.kind) {
        case 'busy':
          return { busy: { station: update.station, done: update.done, size: update.size }, failure: null };
        case 'view':
          // One that was sent before another was chosen may come late.
          return update.shown.view === viewInForce(now) ? { shown: update.shown } : {};
        case 'maps':
          return { maps: update.maps };
        case 'bins':
          return { bins: update.bins };
        case 'station': {
          const { verdict, thumbnail, size } = update;
          return { found: { ...now.found, [update.station]: { verdict, thumbnail, size } } };
        }
        case 'settled':
          return { busy: null, recipe: { ...now.recipe, decisions: update.decisions } };
        case 'idle':
          return { busy: null };
        case 'failed':
          return { busy: null, failure: { message: update.message, hint: update.hint } };
      }
    }),
}));
