import { create } from 'zustand';

interface WalkState {
  /** The tile that is walked on, and the step from 0; null while there is no walk. */
  at: { tileId: string; step: number } | null;
}

/** The first walk over a tile, in this window. */
export const useWalk = create<WalkState>(() => ({ at: null }));

export const endWalk = () => useWalk.setState({ at: null });
