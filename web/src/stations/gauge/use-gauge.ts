import type { Patch, Reading } from '@zesty-tile/core';
import { create } from 'zustand';
import { useBench } from '../../bench/state.ts';
import type { ReadValues } from '../../engine/protocol.ts';

interface GaugeState {
  /** What stands at each reading, as it was read last. */
  values: ReadValues[];
  /** The reading in hand. */
  chosen: number;
  /** While held, the Sill shows the tile without the multiplier judged by eye. */
  isHeld: boolean;
}

export const useGauge = create<GaugeState>(() => ({ values: [], chosen: 0, isHeld: false }));

export function setReadings(readings: Reading[], gesture = ''): void {
  useBench.getState().setDials('gauge', { readings }, gesture);
}

export function setPatches(patches: Patch[], gesture = ''): void {
  useBench.getState().setDials('gauge', { patches }, gesture);
}
