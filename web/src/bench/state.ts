import type {
  LuminanceBins,
  Recipe,
  Repeat,
  RootName,
  RootSettings,
  SettingValue,
  SourceRef,
  StationName,
  Verdict,
} from '@zesty-tile/core';
import { temporal } from 'zundo';
import { create } from 'zustand';
import type { EngineWork, Marks, ShownMaps, ShownView, Thumbnail, Update } from '../engine/protocol.ts';
import { FLOOR_VIEW_OF, type ViewName } from '../engine/views.ts';
import { isSameSettings, oneStepAGesture, type Step, startGesture } from './steps.ts';

export const LAYS = [1, 2, 3, 5] as const;
/** At Proof it is seen from afar. */
export const FAR = 8;
export type Lay = (typeof LAYS)[number] | typeof FAR;

interface StationFound {
  verdict: Verdict;
  thumbnail: Thumbnail | null;
  /** Edge of the tile it was measured on. */
  size: number;
}

/** What the Bench knows: the current recipe, what the engine made of it, how it is looked at. */
export interface BenchState {
  tileId: string;
  projectId: string;
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
  marks: Marks | null;
  /** What the last whole pass came to. */
  work: EngineWork | null;
  repeats: Repeat[];
  found: Partial<Record<StationName, StationFound>>;
  busy: { station: StationName; done: number; size: number } | null;
  failure: { code: string; message: string; hint: string } | null;
  set(values: Partial<BenchState>): void;
  setDial(station: StationName, key: string, value: SettingValue): void;
  /** Several dials of a station that are moved as one; `gesture` names what moves them. */
  setDials(station: StationName, values: Record<string, SettingValue>, gesture: string): void;
  /** A setting at the root of the recipe; `gesture` names what moves it. */
  setRoot<K extends RootName>(name: K, value: RootSettings[K], gesture: string): void;
  /** Another recipe in place of the current one, as one step that can be undone. */
  replaceRecipe(recipe: Recipe, words: string): void;
  take(update: Update): void;
}

/** What the Floor shows when a station is opened. */
export const floorViewOf = (station: StationName): ViewName => FLOOR_VIEW_OF[station];

/** The view in effect: chosen by hand, or the station's own. */
export const viewInForce = (state: Pick<BenchState, 'chosenView' | 'station'>): ViewName =>
  state.chosenView ?? FLOOR_VIEW_OF[state.station];

const NOTHING_FOUND = {
  shown: null,
  maps: null,
  bins: null,
  marks: null,
  work: null,
  repeats: [],
  found: {},
  busy: null,
  failure: null,
} satisfies Partial<BenchState>;

export const useBench = create<BenchState>()(
  temporal<BenchState, [], [], Step>(
    (set, get) => ({
      tileId: '',
      projectId: '',
      source: { sha256: '', width: 0, height: 0 },
      recipe: null as unknown as Recipe,
      base: 0,
      station: 'source',
      chosenView: null,
      lay: 2,
      halfShift: false,
      edgeLines: true,
      ...NOTHING_FOUND,
      set: (values) => set(values),
      setDial: (station, key, value) => get().setDials(station, { [key]: value }, `${station} ${key}`),
      setDials: (station, values, gesture) => {
        const now = get().recipe.stations[station] as Record<string, SettingValue>;
        if (Object.entries(values).every(([key, value]) => now[key] === value)) return;
        startGesture(gesture);
        set(({ recipe }) => ({
          recipe: {
            ...recipe,
            stations: { ...recipe.stations, [station]: { ...recipe.stations[station], ...values } },
          },
        }));
      },
      setRoot: (name, value, gesture) => {
        startGesture(gesture);
        set(({ recipe }) => ({ recipe: { ...recipe, [name]: value } }));
      },
      replaceRecipe: (recipe, words) => {
        startGesture('', words);
        set({ recipe });
      },
      take: (update) => set((now) => taken(now, update)),
    }),
    {
      partialize: ({ recipe }) => ({ recipe }),
      equality: (a, b) => isSameSettings(a.recipe, b.recipe),
      handleSet: oneStepAGesture,
      limit: 200,
    },
  ),
);

/** Takes a tile in use; its steps begin here. */
export function openTile(
  given: Pick<BenchState, 'tileId' | 'projectId' | 'source' | 'recipe' | 'base'>,
): void {
  startGesture('');
  useBench.setState((now) => ({ ...given, ...(now.tileId === given.tileId ? {} : NOTHING_FOUND) }));
  useBench.temporal.getState().clear();
}

function taken(now: BenchState, update: Update): Partial<BenchState> {
  switch (update.kind) {
    case 'busy':
      return { busy: { station: update.station, done: update.done, size: update.size }, failure: null };
    case 'view':
      // One that was sent before another was chosen may come late.
      return update.shown.view === viewInForce(now) ? { shown: update.shown } : {};
    case 'maps':
      // The first are whole; later ones hold what changed.
      return { maps: { ...now.maps, ...update.maps } as ShownMaps };
    case 'marks':
      return { marks: update.marks };
    case 'repeats':
      return { repeats: update.repeats };
    case 'bins':
      return { bins: update.bins };
    case 'station': {
      const { verdict, thumbnail, size } = update;
      return { found: { ...now.found, [update.station]: { verdict, thumbnail, size } } };
    }
    case 'settled':
      return {
        busy: null,
        failure: null,
        work: update.work,
        recipe: { ...now.recipe, decisions: update.decisions },
      };
    case 'idle':
      return { busy: null };
    case 'failed':
      return { busy: null, failure: { code: update.code, message: update.message, hint: update.hint } };
  }
}
