import type { StationName, StationSettings } from '@zesty-tile/core';
import { useShallow } from 'zustand/react/shallow';
import { useBench } from '../state.ts';

/** Some settings of a station: what shows them is drawn again when one of them changes, and at no other dial's move. */
export const useDials = <N extends StationName, K extends keyof StationSettings[N]>(
  station: N,
  ...keys: K[]
): Pick<StationSettings[N], K> =>
  useBench(
    useShallow(({ recipe }) => {
      const all = recipe.stations[station];
      return Object.fromEntries(keys.map((key) => [key, all[key]])) as Pick<StationSettings[N], K>;
    }),
  );
