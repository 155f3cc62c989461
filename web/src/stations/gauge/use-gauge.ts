import type { Patch, Reading } from '@zesty-tile/core';
import { create } from 'zustand';
import { useSill } from '../../bench/sill/state.ts';
import { useBench } from '../../bench/state.ts';
import type { ReadValues } from '../../engine/protocol.ts';

interface GaugeState {
  /** What stands at each reading, as it was read last. */
  values: ReadValues[];
  /** The reading in use. */
  chosen: number;
}

const NOTHING: GaugeState = { values: [], chosen: 0 };

export const useGauge = create<GaugeState>(() => NOTHING);

/** Forgets what was read of a tile that is closed. */
export const closeGauge = (): void => useGauge.setState(NOTHING);

/** The grey steps to judge by are shown at this station alone. */
export function endJudgingByEye(): void {
  useSill.setState({ matteDivisor: 1 });
  if (useSill.getState().show === 'eye') useSill.setState({ show: 'finished' });
}

export function setReadings(readings: Reading[], gesture = ''): void {
  useBench.getState().setDials('gauge', { readings }, gesture);
}

export function setPatches(patches: Patch[], gesture = ''): void {
  useBench.getState().setDials('gauge', { patches }, gesture);
}
