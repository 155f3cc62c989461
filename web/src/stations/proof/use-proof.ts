import type { Calm, Repeat } from '@zesty-tile/core';
import { create } from 'zustand';
import { useBench } from '../../bench/state.ts';
import { takeTool, useRepair } from '../join/repair/use-repair.ts';

interface ProofState {
  /** The spot under the pointer in the list, by its place. */
  marked: number | null;
  /** The spot that is to be repaired once Join is open. */
  jump: Repeat | null;
}

export const useProof = create<ProofState>(() => ({ marked: null, jump: null }));

/** At Join: takes the healing brush in use at the spot that was asked for, as large as the spot. */
export function beginRepairJump(): void {
  const { jump } = useProof.getState();
  if (!jump) return;
  useProof.setState({ jump: null });
  takeTool('heal');
  useBench.getState().set({ halfShift: false, lay: 1 });
  const radius = Math.min(0.2, Math.max(0.005, REACH * jump.sigma));
  useRepair.setState({ radius, at: [jump.x, jump.y] });
}

/** A spot is toned down over so many σ. */
const REACH = 2.6;
const STRENGTH = 0.85;

/** What tones a spot down. Its size is a share of the shorter edge, a repair's of the longer. */
export function calmOf({ x, y, sigma, strength }: Repeat, aspect: number): Calm {
  const rounded = (value: number) => Math.round(1e4 * value) / 1e4;
  return {
    kind: 'calm',
    x: rounded(x),
    y: rounded(y),
    radius: rounded(Math.min(0.4, Math.max(0.002, REACH * sigma * Math.min(aspect, 1 / aspect)))),
    strength: STRENGTH,
    was: Math.round(10 * strength) / 10,
  };
}

/** Tones spots down, as one step. */
export function toneDown(spots: readonly Repeat[]): void {
  const { recipe } = useBench.getState();
  const { shape } = recipe.stations.square;
  const aspect = shape === '1:1' ? 1 : 2;
  const repairs = [...recipe.stations.join.repairs, ...spots.map((spot) => calmOf(spot, aspect))];
  useProof.setState({ marked: null });
  useBench.getState().setDials('join', { repairs }, '');
}
