import { type ReliefDecision, reliefDepth } from '@zesty-tile/core';
import { useBench } from './state.ts';

/** Depth of the height that Relief made, in mm: its dial's, or what joints and faces come to, once that is known. */
export const useReliefDepth = (): number =>
  useBench(({ recipe }) =>
    reliefDepth(recipe.stations.relief, (recipe.decisions.relief?.data as ReliefDecision | undefined) ?? {}),
  );
