import { flatMesh } from '@zesty-tile/core';
import { create } from 'zustand';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import type { OfferedCrop } from '../../engine/protocol.ts';

interface SquareState {
  /** A line is being drawn along what is level. */
  drawing: boolean;
  /** The handles of the bend are shown in place of the crop's. */
  bending: boolean;
  /** What the last levelling did. */
  said: string;
  /** The pieces offered: null while the dialog is closed, and none yet while they are sought. */
  pieces: { offers: OfferedCrop[] | null; failure: string | null } | null;
}

/** What is in use at Square. */
export const useSquare = create<SquareState>(() => ({
  drawing: false,
  bending: false,
  said: '',
  pieces: null,
}));

/** Ends drawing and bending. */
export const putSquareToolsAway = (): void =>
  useSquare.setState({ drawing: false, bending: false, said: '' });

const FIRST_HANDLES = 4;

/** Shows the handles of the bend, or the crop's again. */
export function toggleBending(): void {
  const { bending } = useSquare.getState();
  const { recipe, setDials, set } = useBench.getState();
  if (!bending && !recipe.stations.square.bend) {
    setDials('square', { bend: flatMesh(FIRST_HANDLES, FIRST_HANDLES) }, 'bend');
  }
  set({ chosenView: null });
  useSquare.setState({ bending: !bending, drawing: false, said: '' });
}

/** Looks for pieces of the photo that nearly tile by themselves. */
export async function seekPieces(): Promise<void> {
  const engine = engineNow();
  if (!engine) return;
  const mine = { offers: null, failure: null };
  useSquare.setState({ pieces: mine });
  const isMine = () => useSquare.getState().pieces === mine;
  const { recipe, source } = useBench.getState();
  try {
    const offers = await engine.offerCrops({ recipe, source });
    if (isMine()) useSquare.setState({ pieces: { offers, failure: null } });
  } catch (error) {
    const failure = error instanceof Error ? error.message : String(error);
    if (isMine()) useSquare.setState({ pieces: { offers: [], failure } });
  }
}

export const closePieces = (): void => useSquare.setState({ pieces: null });

export function takePiece({ framing }: OfferedCrop): void {
  useBench.getState().setDials('square', { ...framing }, '');
  useBench.getState().set({ chosenView: null });
  useSquare.setState({ pieces: null, bending: false });
}
